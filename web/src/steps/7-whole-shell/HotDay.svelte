<!-- Twenty-four hours: the load of the room held at its temperature, the sun through its windows, and the room left alone. -->
<script lang="ts">
  import type { WholeBuilding } from '@/api/client';
  import { apart, lineThrough, scaleLinear, ticksOf } from '@/draw/chart';
  import type { Units } from '@/kit/units';

  interface Props {
    cooling: WholeBuilding['cooling'];
    units: Units;
  }
  let { cooling, units }: Props = $props();
  const H = 190;
  let width = $state(640);
  const x = $derived(scaleLinear([0, 23], [54, width - 120]));
  const all = $derived([...cooling.load, ...cooling.solar, 0]);
  const y = $derived(scaleLinear([Math.min(...all), Math.max(...all) * 1.08 || 1], [H - 24, 10]));
  const rooms = $derived([...cooling.free, ...(cooling.vented?.theta ?? [])]);
  const warm = $derived(scaleLinear([Math.min(...rooms) - 2, Math.max(...rooms) + 2], [H - 24, 10]));
  const path = (values: number[], scale: (value: number) => number) =>
    lineThrough(
      values,
      (_, at) => x(at),
      (value) => scale(value),
    );
  const end = <T,>(values: T[]) => values.at(-1) as T;
  const hottest = (values: number[]) => units.full(Math.max(...values), 'temperature', 0);
  const ends = $derived([
    { text: `load, ${units.symbol('heat_flow')}`, y: y(end(cooling.load)) },
    { text: 'sun', y: y(Math.max(...cooling.solar) / 4) },
    { text: `room alone ${hottest(cooling.free)}`, y: warm(end(cooling.free)) },
    ...(cooling.vented
      ? [{ text: `with vents ${hottest(cooling.vented.theta)}`, y: warm(end(cooling.vented.theta)) }]
      : []),
  ]);
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={H}
    role="img"
    aria-label="Cooling load at most {units.full(
      cooling.peak,
      'heat_flow',
      0,
    )} at {cooling.hour}:00; the room left alone between {units.full(
      Math.min(...cooling.free),
      'temperature',
    )} and {units.full(Math.max(...cooling.free), 'temperature')}"
  >
    {#each ticksOf(units, 'heat_flow', y.domain()[0] ?? 0, y.domain()[1] ?? 1, 5) as tick (tick.shown)}
      <path class="grid" d="M54 {y(tick.value)}H{width - 120}" /><text
        x="48"
        y={y(tick.value) + 4}
        text-anchor="end">{tick.shown}</text
      >
    {/each}
    {#each [0, 6, 12, 18, 23] as hour (hour)}<text x={x(hour)} y={H - 8} text-anchor="middle">{hour}:00</text
      >{/each}
    <path class="solar" d={path(cooling.solar, y)} />
    <path class="load" d={path(cooling.load, y)} />
    <path class="free" d={path(cooling.free, warm)} />
    {#if cooling.vented}<path class="vented" d={path(cooling.vented.theta, warm)} />{/if}
    <path class="at" d="M{x(cooling.hour)} 10V{H - 24}" />
    {#each apart(ends, (one) => one.y, 14) as { item, y } (item.text)}
      <text x={x(23) + 6} y={y + 4}>{item.text}</text>
    {/each}
  </svg>
</div>

<style>
  .grid {
    stroke: var(--hair);
  }
  .load {
    stroke: var(--ink);
    stroke-width: 2;
    fill: none;
  }
  .solar {
    stroke: var(--ink-2);
    stroke-dasharray: 2 3;
    fill: none;
    stroke-width: 1.5;
  }
  .free {
    stroke: var(--ink);
    stroke-dasharray: 7 3;
    fill: none;
    stroke-width: 1.25;
  }
  .vented {
    stroke: var(--verdigris);
    stroke-dasharray: 7 3;
    fill: none;
    stroke-width: 1.25;
  }
  .at {
    stroke: var(--line);
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
</style>
