<!-- Inside less outside over the height of a building: out at the top, in at the foot, nothing at the neutral plane. -->
<script lang="ts">
  import type { WholeBuilding } from '@/api/client';
  import { ticksOf } from '@/draw/chart';
  import type { Units } from '@/kit/units';

  interface Props {
    natural: WholeBuilding['natural'];
    sizes: WholeBuilding['sizes'];
    units: Units;
  }
  let { natural, sizes, units }: Props = $props();
  const W = 300;
  const H = 190;
  const LEFT = 46;
  const high = $derived(Math.max(sizes.high - sizes.low, 0.5));
  const at = (z: number) => natural.p_int + natural.lift * z;
  const most = $derived(Math.max(Math.abs(at(0)), Math.abs(at(high)), 0.5) * 1.15);
  const x = (p: number) => LEFT + ((p + most) / (2 * most)) * (W - LEFT - 10);
  const y = (z: number) => H - 24 - (z / high) * (H - 44);
  const neutral = $derived(natural.neutral_z);
  const within = $derived(neutral !== null && neutral > 0 && neutral < high);
</script>

<svg
  width={W}
  height={H}
  role="img"
  aria-label="Pressure over the height: {units.full(at(0), 'small_pressure')} at the floor, {units.full(
    at(high),
    'small_pressure',
  )} at the ridge{within && neutral !== null ? `, nothing at ${units.full(neutral, 'distance')}` : ''}"
>
  <path class="axis" d="M{LEFT} {y(0)}H{W - 10}M{x(0)} 20V{y(0)}" />
  {#each ticksOf(units, 'distance', 0, high, 4) as tick (tick.shown)}
    <text x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
    <path class="tick" d="M{LEFT - 3} {y(tick.value)}h6" />
  {/each}
  <polygon
    class="in"
    points="{x(0)},{y(0)} {x(at(0))},{y(0)} {x(0)},{y(Math.min(Math.max(neutral ?? 0, 0), high))}"
  />
  <polygon
    class="out"
    points="{x(0)},{y(high)} {x(at(high))},{y(high)} {x(0)},{y(Math.min(Math.max(neutral ?? high, 0), high))}"
  />
  <path class="result" d="M{x(at(0))} {y(0)}L{x(at(high))} {y(high)}" />
  <text x={x(at(high)) - 4} y={y(high) - 6} text-anchor="end"
    >out {units.full(at(high), 'small_pressure')}</text
  >
  <text x={x(at(0)) + 4} y={y(0) - 6}>in {units.full(-at(0), 'small_pressure')}</text>
  {#if within && neutral !== null}
    <path class="plane" d="M{LEFT} {y(neutral)}H{W - 10}" />
    <text class="on" x={W - 12} y={y(neutral) - 4} text-anchor="end"
      >neutral plane {units.full(neutral, 'distance')}</text
    >
  {/if}
  <text x={W - 12} y={H - 6} text-anchor="end">inside less outside; height in {units.symbol('distance')}</text
  >
</svg>

<style>
  .axis,
  .tick {
    stroke: var(--line);
    fill: none;
  }
  .result {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .in {
    fill: url(#h-loss);
  }
  .out {
    fill: url(#whole-dots);
  }
  .plane {
    stroke: var(--ink-2);
    stroke-dasharray: 5 3;
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
  .on {
    fill: var(--ink);
  }
</style>
