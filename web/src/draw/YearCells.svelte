<!-- The drawn year: twelve cells of the section, each with what is wet at its end; below, what a plane gained or dried. -->
<script lang="ts">
  import type { Assembly, Material, Moisture } from '@/api/client';
  import { MONTHS } from '@/kit/months';
  import type { Units } from '@/kit/units';
  import MonthColumn from './MonthColumn.svelte';
  import { slabs } from './section';

  interface Props {
    assembly: Assembly;
    materials: Map<string, Material>;
    year: Moisture;
    units: Units;
    /** The month that is looked at, and what happens when another one is chosen. */
    month: number | undefined;
    onmonth: (month: number) => void;
  }
  let { assembly, materials, year, units, month, onmonth }: Props = $props();
  let width = $state(700);
  const H = 92;
  const BAR = $derived(year.wet.length > 2 ? 58 : 76);
  const LEFT = 26;
  const FOOT = H + 54;
  const column = $derived((width - LEFT) / 12);
  // The year begins with the month in which something condenses, so that gaining and drying stand in their order.
  const order = $derived(Array.from({ length: 12 }, (_, at) => ((year.start ?? 8) + at) % 12));
  const thickness = $derived(assembly.layers.reduce((sum, layer) => sum + layer.d, 0));
  const scale = $derived((column - 10) / Math.max(thickness, 0.001));
  const drawn = $derived(slabs(assembly.layers, 0, scale));
  const inner = $derived(thickness * scale);
  const most = $derived(Math.max(...year.wet.map((plane) => plane.peak), 1e-9));
  const size = $derived(Math.max(...year.wet.flatMap((plane) => plane.g.map(Math.abs)), 1e-9));
  const at = (cell: number) => LEFT + cell * column + 5;
  const grams = (value: number) => units.show(value, 'condensate');
  const held = (m: number) => year.wet.reduce((sum, plane) => sum + (plane.M[m] ?? 0), 0);
  /** Where a month is dry: how near it comes to saturation inside. */
  const nearest = (m: number) => Math.max(...(year.share[m] ?? []).slice(1, -1), 0);
  const told = (m: number) =>
    `${MONTHS[m]}: ${units.full(year.months[m]?.theta_e ?? 0, 'temperature')} outside, ${held(m) > 5e-7 ? `${units.full(held(m), 'condensate')} held` : `${units.full(nearest(m), 'share', 0)} of saturation`}`;
</script>

<div bind:clientWidth={width} class="cells">
  <svg
    {width}
    height={FOOT + year.wet.length * (BAR + 16)}
    role="group"
    aria-label="The year in twelve cells"
  >
    {#each order as m, cell (m)}
      <MonthColumn
        month={m}
        {order}
        chosen={month}
        told={told(m)}
        {onmonth}
        filled
        x={at(cell) - 5}
        width={column}
        height={FOOT - 1 + year.wet.length * (BAR + 16)}
      >
        <text class="name" x={at(cell) + inner / 2} y="14" text-anchor="middle">{MONTHS[m]?.slice(0, 3)}</text
        >
        <text class="axis" x={at(cell) + inner / 2} y="28" text-anchor="middle"
          >{units.show(year.months[m]?.theta_e ?? 0, 'temperature', 0)}°</text
        >
        <g transform="translate({at(cell)} 34)">
          {#each drawn as slab (slab.layer.id)}
            {@const pattern = materials.get(slab.layer.material ?? '')?.hatch}
            <g opacity={slab.index < year.counted ? 1 : 0.35}>
              <rect class="ground" x={slab.x0} y="0" width={slab.x1 - slab.x0} height={H} />
              {#if pattern}<rect
                  x={slab.x0}
                  width={slab.x1 - slab.x0}
                  height={H}
                  fill="url(#h-{pattern}-s)"
                />{/if}
              <rect class="edge" x={slab.x0} y="0" width={slab.x1 - slab.x0} height={H} />
            </g>
          {/each}
          {#each year.wet as plane, number (number)}
            {@const wet = plane.M[m] ?? 0}
            {#if wet > 5e-7}
              <rect
                class="wet"
                x={inner - plane.x * scale - 1.5 - (4 * wet) / most}
                y="0"
                width={3 + (8 * wet) / most}
                height={H}
              />
            {/if}
          {/each}
        </g>
        {#if held(m) > 5e-7}<text class="held" x={at(cell) + inner / 2} y={H + 47} text-anchor="middle"
            >{grams(held(m))}</text
          >{:else}<text class="axis mono" x={at(cell) + inner / 2} y={H + 47} text-anchor="middle"
            >{units.show(nearest(m), 'share', 0)} %</text
          >{/if}
      </MonthColumn>
    {/each}
    {#each year.wet as plane, number (number)}
      {@const base = FOOT + 10 + number * (BAR + 16) + BAR / 2}
      <g aria-hidden="true">
        <path class="base" d="M{LEFT} {base}H{width}" />
        <circle class="ring" cx="11" cy={base} r="9" />
        <text class="number" x="11" y={base + 4} text-anchor="middle">{number + 1}</text>
        {#each order as m, cell (m)}
          {@const g = plane.g[m] ?? 0}
          {@const tall = (Math.abs(g) / size) * (BAR / 2 - 12)}
          {#if Math.abs(g) > 5e-7}
            <rect
              class={g > 0 ? 'gained' : 'dried'}
              x={at(cell) + 4}
              y={g > 0 ? base - tall : base}
              width={Math.max(inner - 8, 2)}
              height={Math.max(tall, 1)}
            />
            <text
              class="axis mono"
              x={at(cell) + inner / 2}
              y={g > 0 ? base - tall - 3 : base + tall + 12}
              text-anchor="middle">{g > 0 ? '+' : ''}{grams(g)}</text
            >
          {/if}
        {/each}
      </g>
    {/each}
  </svg>
</div>

<style>
  .name {
    font-size: var(--fs-base);
    fill: var(--ink);
  }
  .mono,
  .held {
    font-family: var(--mono);
    letter-spacing: -0.03em;
  }
  .held {
    font-size: var(--fs-small);
    fill: var(--ochre);
    font-weight: 600;
  }
  .wet {
    fill: var(--ochre-line);
  }
  .base {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .ring {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 1.25;
  }
  .number {
    font: 600 var(--fs-small) var(--mono);
    fill: var(--ink);
  }
</style>
