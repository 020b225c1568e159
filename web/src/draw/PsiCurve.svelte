<!-- ψ or ΔU over one parameter: drag along it, or type, and what is drawn follows. -->
<script lang="ts">
  import type { SweepPoint } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';

  interface Props {
    points: readonly SweepPoint[];
    value: number;
    least: number;
    most: number;
    dimension: string;
    name: string;
    units: Units;
    width: number;
    stale: boolean;
    /** What is drawn: ψ, χ in `coupling`, or ΔU in `transmittance`. */
    of?: 'linear' | 'coupling' | 'transmittance';
    /** The same by another method, dashed. */
    beside?: readonly (number | null)[];
    onmove: (value: number) => void;
    onrest: (value: number) => void;
  }
  let {
    points,
    value,
    least,
    most,
    dimension,
    name,
    units,
    width,
    stale,
    of = 'linear',
    beside = [],
    onmove,
    onrest,
  }: Props = $props();
  const LEFT = 46;
  const H = 92;
  const known = $derived(points.filter((one) => one.psi !== null));
  const low = $derived(Math.min(0, ...known.map((one) => one.psi ?? 0)));
  const high = $derived(
    Math.max(0.001, ...known.map((one) => one.psi ?? 0), ...beside.map((one) => one ?? 0)),
  );
  const x = $derived(scaleLinear([least, most], [LEFT, width - 8]));
  const y = $derived(scaleLinear([low, high], [6 + H, 6]));
  const best = $derived(known.toSorted((a, b) => (a.psi ?? 0) - (b.psi ?? 0))[0]);
  const shown = (at: number) => (dimension === 'length' ? units.length(at) : units.show(at, dimension));
  const present = $derived.by(() => {
    const right = known.findIndex((one) => one.value >= value);
    const [a, b] = [known[Math.max(right - 1, 0)], known[right < 0 ? known.length - 1 : right]];
    if (!a || !b) return undefined;
    const t = b.value > a.value ? Math.min(Math.max((value - a.value) / (b.value - a.value), 0), 1) : 0;
    return (a.psi ?? 0) + t * ((b.psi ?? 0) - (a.psi ?? 0));
  });
  const symbol = $derived({ linear: 'ψ', coupling: 'χ', transmittance: 'ΔU' }[of]);
</script>

<div class="curve" data-stale={stale} data-testid="psi-curve">
  <svg {width} height={H + 26} role="img" aria-label="{symbol} over {name}, {known.length} values">
    {#each ticksOf(units, of, low, high, 4) as tick (tick.shown)}
      {@const at = y(tick.value)}
      <line class="grid" x1={LEFT} x2={width - 8} y1={at} y2={at} />
      <text class="axis" x={LEFT - 4} y={at + 4} text-anchor="end">{tick.shown}</text>
    {/each}
    <path
      class="line"
      d={lineThrough(
        known,
        (one) => x(one.value),
        (one) => y(one.psi ?? 0),
      )}
    />
    {#if beside.length}<path
        class="beside"
        d={lineThrough(
          points.flatMap((one, at) =>
            beside[at] === null || beside[at] === undefined ? [] : [[one.value, beside[at]] as const],
          ),
          ([value]) => x(value),
          ([, psi]) => y(psi),
        )}
      />{/if}
    {#each points.filter((one) => one.psi === null) as one (one.value)}
      <path class="no" d="M{x(one.value)} {6 + H}v-8"><title>{one.why_not}</title></path>
    {/each}
    {#if present !== undefined}
      <line class="now" x1={x(value)} x2={x(value)} y1="6" y2={6 + H} />
      <circle cx={x(value)} cy={y(present)} r="4.5" />
    {/if}
    <text class="axis" x={x(least)} y={H + 20} text-anchor="start">{shown(least)}</text>
    <text class="axis" x={x(most)} y={H + 20} text-anchor="end">{shown(most)}</text>
  </svg>
  <input
    type="range"
    aria-label="{name}, {shown(value)}"
    min={least}
    max={most}
    step={(most - least) / 200}
    {value}
    style:margin-left="{LEFT - 8}px"
    style:width="{width - LEFT + 8}px"
    oninput={(event) => onmove(Number(event.currentTarget.value))}
    onchange={(event) => onrest(Number(event.currentTarget.value))}
  />
  {#if best && of !== 'transmittance'}<p>
      least {symbol}
      {units.full(best.psi ?? 0, of, of === 'coupling' ? 4 : undefined)} at {shown(best.value)}{dimension ===
      'share'
        ? ' %'
        : ''}
    </p>{/if}
</div>

<style>
  input {
    display: block;
    accent-color: var(--verdigris);
    min-height: 24px;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .beside {
    fill: none;
    stroke: var(--ink-3);
    stroke-dasharray: 4 3;
  }
  .now {
    stroke: var(--verdigris);
    stroke-dasharray: 3 3;
  }
  circle {
    fill: var(--sheet-bright);
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .no {
    stroke: var(--ochre-line);
    stroke-width: 2;
  }
  text {
    font: 400 var(--fs-cap) var(--mono);
    fill: var(--ink-3);
  }
  p {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
</style>
