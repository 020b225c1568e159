<!-- Vapour pressure against saturation, on the wall's own x. -->
<script lang="ts">
  import type { Profile } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';

  interface Props {
    profile: Profile | undefined;
    units: Units;
    /** Inner face of the wall on the drawing, and px per metre. */
    right: number;
    left: number;
    scale: number;
    width: number;
    stale: boolean;
    onwork: (figure: string, title: string, dimension: string) => void;
  }
  let { profile, units, right, left, scale, width, stale, onwork }: Props = $props();
  const H = 84;
  const TOP = 8;
  const most = $derived(
    Math.max(...(profile?.curve ?? []).flatMap((point) => [point.p, point.p_sat]), 100) * 1.12,
  );
  const x = (depth: number) => right - depth * scale;
  const y = $derived(scaleLinear([0, most], [TOP + H, TOP]));
  const path = (key: 'p' | 'p_sat') =>
    lineThrough(
      profile?.curve ?? [],
      (point) => x(point.x),
      (point) => y(point[key]),
    );
  const p = $derived(path('p'));
  const pSat = $derived(path('p_sat'));
  const ticks = $derived(ticksOf(units, 'pressure', 0, most, 3));
  const near = $derived(profile?.curve[profile.closest]);
  const spare = $derived(near ? near.p_sat - near.p : 0);
  const plane = $derived(
    profile && near ? profile.planes.findIndex((one) => Math.abs(one.x - near.x) < 1e-9) : -1,
  );
  const label = $derived.by(() => {
    if (!near) return undefined;
    const at = x(near.x);
    const leftSide = at < (left + right) / 2;
    return {
      x: at + (leftSide ? 14 : -14),
      anchor: leftSide ? ('start' as const) : ('end' as const),
      knee: at + (leftSide ? 11 : -11),
    };
  });
  const text = $derived(
    spare >= 0
      ? `closest: ${units.full(spare, 'pressure')} to spare`
      : `${units.full(-spare, 'pressure')} over saturation`,
  );
</script>

<svg
  {width}
  height={H + TOP + 8}
  role="img"
  aria-label="Vapour pressure against saturation through the section; {text}"
  data-stale={stale}
>
  <rect class="ground" x={left} y={TOP} width={Math.max(right - left, 0)} height={H} />
  <text class="axis" x={left - 12} y={TOP + 8} text-anchor="end">{units.symbol('pressure')}</text>
  {#each ticks.filter((tick) => y(tick.value) > TOP + 16) as tick, at (at)}
    <line class="tick" x1={left - 8} x2={left} y1={y(tick.value)} y2={y(tick.value)} />
    <text class="axis mono" x={left - 12} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
  {/each}
  {#each profile?.planes ?? [] as one, at (at)}
    <line class="face" x1={x(one.x)} x2={x(one.x)} y1={TOP} y2={TOP + H} />
  {/each}
  <path class="saturation" d={pSat} />
  <path class="result" d={p} data-testid="vapour-line" />
  {#if profile && near && label}
    <text
      class="name"
      x={x((profile.planes.at(-1)?.x ?? 0) * 0.45)}
      y={y(profile.curve[Math.round(profile.curve.length * 0.5)]?.p ?? 0) + 14}
      text-anchor="middle">vapour pressure</text
    >
    <text
      class="name soft"
      x={x((profile.planes.at(-1)?.x ?? 0) * 0.3)}
      y={y(profile.curve[Math.round(profile.curve.length * 0.45)]?.p_sat ?? 0) - 8}
      text-anchor="end">saturation</text
    >
    <circle class="ring" class:over={spare < 0} cx={x(near.x)} cy={y(near.p)} r="7" />
    <path class="lead" d="M{x(near.x)} {y(near.p) - 7}L{label.knee} {TOP + 22}" />
    <text
      class="caution work"
      x={label.x}
      y={TOP + 20}
      text-anchor={label.anchor}
      role="presentation"
      onclick={() =>
        plane >= 0 &&
        onwork(`spare_at_${plane}`, `Pressure to spare at plane ${plane} from inside`, 'pressure')}
      >{text}</text
    >
  {/if}
  <path class="base" d="M{left} {TOP + H}H{right}" />
</svg>

<style>
  .face {
    stroke: var(--hair);
  }
  .tick,
  .base {
    stroke: var(--line);
    fill: none;
  }
  .mono {
    font-family: var(--mono);
    letter-spacing: -0.02em;
  }
  .saturation {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.25;
    stroke-dasharray: 5 4;
  }
  .ring {
    fill: none;
    stroke: var(--ochre-line);
    stroke-width: 1.75;
  }
  .lead {
    stroke: var(--ochre-line);
    fill: none;
  }
  text {
    font-size: var(--fs-base);
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 4px;
  }
  .name {
    font-size: var(--fs-small);
    font-weight: 500;
  }
  .soft {
    fill: var(--ink-2);
    font-weight: 400;
  }
  .caution {
    fill: var(--ochre);
    font-weight: 600;
    font-size: var(--fs-small);
  }
  .work {
    cursor: pointer;
    text-decoration: underline dotted;
  }
</style>
