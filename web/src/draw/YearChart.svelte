<!-- Twelve months of the climate: temperature as a line, humidity as bars under it, the month's numbers below to type on. -->
<script lang="ts">
  import type { Basis } from '@/api/client';
  import { MONTHS } from '@/kit/months';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';

  interface Props {
    climate: Basis['climate'];
    heatedBelow: number;
    units: Units;
    onsave: (kind: 'theta_e' | 'phi_e', month: number, value: number) => void;
  }
  let { climate, heatedBelow, units, onsave }: Props = $props();
  const SHORT = MONTHS.map((month) => month.slice(0, 3));
  let width = $state(660);
  const LEFT = 44;
  const TOP = 8;
  const H = 130;
  const low = $derived(Math.min(...climate.theta_e, 0) - 3);
  const high = $derived(Math.max(...climate.theta_e, heatedBelow) + 3);
  const column = $derived((width - LEFT) / 12);
  const x = (month: number) => LEFT + (month + 0.5) * column;
  const y = $derived(scaleLinear([low, high], [TOP + H, TOP]));
  const ticks = $derived(ticksOf(units, 'temperature', low, high, 4));
  const line = $derived(lineThrough(climate.theta_e, (_, month) => x(month), y));
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={H + TOP + 4}
    role="img"
    aria-label="Monthly mean outdoor temperature, {units.symbol('temperature')}"
  >
    <rect class="ground" x={LEFT} y={TOP} width={width - LEFT} height={H} />
    {#each climate.phi_e as phi, month (month)}
      <rect
        class="humidity"
        x={x(month) - column * 0.32}
        y={TOP + H - phi * 42}
        width={column * 0.64}
        height={phi * 42}
      />
    {/each}
    {#each ticks as tick, at (at)}
      <line class="grid" x1={LEFT} x2={width} y1={y(tick.value)} y2={y(tick.value)} />
      <text x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
    {/each}
    <line class="limit" x1={LEFT} x2={width} y1={y(heatedBelow)} y2={y(heatedBelow)} />
    <text x={LEFT + 6} y={y(heatedBelow) - 4}>heated below {units.full(heatedBelow, 'temperature', 0)}</text>
    <text class="soft" x={width - 4} y={TOP + 14} text-anchor="end"
      >line: temperature, bars: relative humidity</text
    >
    <path d={line} />
    {#each climate.theta_e as theta, month (month)}<circle cx={x(month)} cy={y(theta)} r="3.2" />{/each}
  </svg>
  <table style:margin-left="{LEFT}px">
    <thead
      ><tr
        >{#each SHORT as month (month)}<th>{month}</th>{/each}</tr
      ></thead
    >
    <tbody>
      <tr>
        {#each climate.theta_e as theta, month (month)}
          <td
            ><Entry
              label="Temperature, {SHORT[month]}"
              showLabel={false}
              dimension="temperature"
              value={theta}
              width="tiny"
              onsave={(value) => value !== null && onsave('theta_e', month, value)}
            /></td
          >
        {/each}
      </tr>
      <tr>
        {#each climate.phi_e as phi, month (month)}
          <td
            ><Entry
              label="Relative humidity, {SHORT[month]}"
              showLabel={false}
              dimension="share"
              decimals={0}
              value={phi}
              width="tiny"
              onsave={(value) => value !== null && onsave('phi_e', month, value)}
            /></td
          >
        {/each}
      </tr>
    </tbody>
  </table>
</div>

<style>
  .humidity {
    fill: var(--limestone-deep);
  }
  .limit {
    stroke: var(--ink-2);
    stroke-dasharray: 4 3;
  }
  path {
    fill: none;
    stroke: var(--ink);
    stroke-width: var(--pen-result);
  }
  circle {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  text {
    fill: var(--ink-2);
  }
  table {
    table-layout: fixed;
    width: calc(100% - 44px);
  }
  th {
    color: var(--ink-2);
    text-align: center;
    padding: 0;
  }
  td {
    text-align: center;
    padding: 1px 0;
  }
  td :global(.unit) {
    display: none;
  }
</style>
