<!-- ψ or ΔU over one parameter: drag along it, or type, and what is drawn follows. -->
<script lang="ts">
  import type { SweepPoint } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { niceTicks } from './section';

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
  const x = $derived((at: number) => LEFT + ((at - least) / (most - least || 1)) * (width - LEFT - 8));
  const y = $derived((psi: number) => 6 + H - ((psi - low) / (high - low || 1)) * H);
  const best = $derived(known.toSorted((a, b) => (a.psi ?? 0) - (b.psi ?? 0))[0]);
  const shown = (at: number) => (dimension === 'length' ? units.length(at) : units.show(at, dimension));
  const present = $derived.by(() => {
    const right = known.findIndex((one) => one.value >= value);
    const [a, b] = [known[Math.max(right - 1, 0)], known[right < 0 ? known.length - 1 : right]];
    if (!a || !b) return undefined;
    const t = b.value > a.value ? Math.min(Math.max((value - a.value) / (b.value - a.value), 0), 1) : 0;
    return (a.psi ?? 0) + t * ((b.psi ?? 0) - (a.psi ?? 0));
  });
  const unit = $derived(units.unit(of));
  const symbol = $derived({ linear: 'ψ', coupling: 'χ', transmittance: 'ΔU' }[of]);
</script>

<div class="curve" data-stale={stale} data-testid="psi-curve">
  <svg {width} height={H + 26} role="img" aria-label="{symbol} over {name}, {known.length} values">
    {#each niceTicks(low * unit.per_si, high * unit.per_si, 4) as tick (tick)}
      {@const at = y(tick / unit.per_si)}
      <line class="grid" x1={LEFT} x2={width - 8} y1={at} y2={at} />
      <text class="axis" x={LEFT - 4} y={at + 4} text-anchor="end">{String(tick).replace('-', '−')}</text>
    {/each}
    <path
      class="line"
      d={known
        .map((one, at) => `${at ? 'L' : 'M'}${x(one.value).toFixed(1)} ${y(one.psi ?? 0).toFixed(1)}`)
        .join('')}
    />
    {#if beside.length}<path
        class="beside"
        d={points
          .flatMap((one, at) =>
            beside[at] === null || beside[at] === undefined ? [] : [[one.value, beside[at]] as const],
          )
          .map(([value, psi], at) => `${at ? 'L' : 'M'}${x(value).toFixed(1)} ${y(psi).toFixed(1)}`)
          .join('')}
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
