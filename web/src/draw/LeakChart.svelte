<!-- What the outer skin holds along a joint, month by month: yours against the other grades and the limit; below it what was gained and dried. -->
<script lang="ts">
  import type { LeakYear } from '@/api/client';
  import { MONTHS } from '@/kit/months';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';
  import MonthColumn from './MonthColumn.svelte';

  interface Props {
    year: LeakYear;
    units: Units;
    month: number;
    onmonth: (month: number) => void;
  }
  let { year, units, month, onmonth }: Props = $props();
  let width = $state(600);
  const LEFT = 50;
  const RIGHT = 8;
  const TOP = 14;
  const H = 190;
  const GAP = 34;
  const BAR = 84;
  const column = $derived((width - LEFT - RIGHT) / 12);
  const order = $derived(Array.from({ length: 12 }, (_, at) => ((year.start ?? 8) + at) % 12));
  const mine = $derived(year.months.map((one) => one.held));
  const others = $derived(year.grades.filter((one) => Math.abs(one.high - year.leakage) > 1e-9));
  // What is far above everything else leaves the picture at the top; the table says how much it is.
  const top = $derived(Math.max(year.peak, year.limit) * 1.35);
  const y = $derived(scaleLinear([0, top], [TOP + H, TOP]));
  const x = (cell: number) => LEFT + (cell + 1) * column;
  const path = (values: readonly number[]) =>
    lineThrough(
      [order[11] ?? 0, ...order],
      (_, cell) => x(cell - 1),
      (m) => y(values[m] ?? 0),
    );
  const base = TOP + H + GAP + BAR / 2;
  const size = $derived(Math.max(...year.months.map((one) => Math.abs(one.gained)), 1e-9));
  const ticks = $derived(ticksOf(units, 'condensate_line', 0, top, 4));
  const grams = (value: number) => units.show(value, 'condensate_line', 0);
  const told = (m: number) => {
    const one = year.months[m];
    return `${MONTHS[m]}: ${units.full(one?.held ?? 0, 'condensate_line')} held, ${units.full(one?.gained ?? 0, 'condensate_line')} gained`;
  };
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={TOP + H + GAP + BAR + 8}
    role="group"
    aria-label="Water in the outer skin along the joint"
  >
    <rect class="ground" x={LEFT} y={TOP} width={Math.max(width - LEFT - RIGHT, 0)} height={H} />
    {#each ticks as tick, n (n)}
      <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick.value)} y2={y(tick.value)} />
      <text class="axis" x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
    {/each}
    <clipPath id="leak-ground"
      ><rect x={LEFT} y={TOP} width={Math.max(width - LEFT - RIGHT, 0)} height={H} /></clipPath
    >
    <g clip-path="url(#leak-ground)">
      {#each others as one (one.name)}
        <path class="other" d={path(one.held)} />
      {/each}
    </g>
    <path class="area" d="{path(mine)}V{TOP + H}H{LEFT}Z" class:open={year.peak > year.limit} />
    <path class="mine" d={path(mine)} class:open={year.peak > year.limit} />
    <line class="limit" x1={LEFT} x2={width - RIGHT} y1={y(year.limit)} y2={y(year.limit)} />
    <text class="limit-text" x={width - RIGHT - 4} y={y(year.limit) - 5} text-anchor="end"
      >limit {units.full(year.limit, 'condensate_line', 0)}: {year.reason}</text
    >
    <path class="base" d="M{LEFT} {base}H{width - RIGHT}" />
    {#each order as m, cell (m)}
      {@const g = year.months[m]?.gained ?? 0}
      {@const tall = (Math.abs(g) / size) * (BAR / 2 - 13)}
      <MonthColumn
        month={m}
        {order}
        chosen={month}
        told={told(m)}
        {onmonth}
        x={x(cell) - column}
        y={TOP}
        width={column}
        height={H + GAP + BAR}
      >
        <text class="name" x={x(cell) - column / 2} y={TOP + H + 17} text-anchor="middle"
          >{MONTHS[m]?.slice(0, 3)}</text
        >
        {#if Math.abs(g) > 5e-6}
          <rect
            class={g > 0 ? 'gained' : 'dried'}
            x={x(cell) - column + 5}
            y={g > 0 ? base - tall : base}
            width={Math.max(column - 10, 2)}
            height={Math.max(tall, 1)}
          />
          <text
            class="axis"
            x={x(cell) - column / 2}
            y={g > 0 ? base - tall - 3 : base + tall + 12}
            text-anchor="middle">{g > 0 ? '+' : ''}{grams(g)}</text
          >
        {/if}
      </MonthColumn>
    {/each}
  </svg>
</div>

<style>
  .axis {
    font: 400 var(--fs-cap) var(--mono);
    letter-spacing: -0.03em;
  }
  .other {
    fill: none;
    stroke: var(--ink-3);
    stroke-dasharray: 4 3;
  }
  .area {
    fill: var(--verdigris-wash);
    opacity: 0.8;
  }
  .area.open {
    fill: url(#h-loss);
    opacity: 1;
  }
  .mine {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .mine.open {
    stroke: var(--oxide);
  }
  .limit {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .limit-text {
    font-size: var(--fs-small);
    font-weight: 600;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 4px;
  }
  .base {
    stroke: var(--ink);
  }
  .name {
    font-size: var(--fs-small);
    fill: var(--ink-2);
  }
</style>
