<!-- What each month asks of the surface, against the factor that the build-up has. -->
<script lang="ts">
  import type { Moisture } from '@/api/client';
  import { MONTHS } from '@/kit/months';
  import type { Units } from '@/kit/units';

  interface Props {
    year: Moisture;
    units: Units;
  }
  let { year, units }: Props = $props();
  let width = $state(300);
  const H = 96;
  const LEFT = 30;
  const column = $derived((width - LEFT) / 12);
  const y = (f: number) => 10 + H * (1 - Math.min(Math.max(f, 0), 1));
  const fails = (required: number | null) => required !== null && required > year.f_rsi;
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={H + 30}
    role="img"
    aria-label="Surface factor asked by month, and that of the build-up"
  >
    <rect class="ground" x={LEFT} y="10" width={width - LEFT} height={H} />
    {#each [0, 0.5, 1] as tick (tick)}
      <line class="grid" x1={LEFT} x2={width} y1={y(tick)} y2={y(tick)} />
      <text class="axis" x={LEFT - 5} y={y(tick) + 4} text-anchor="end">{tick}</text>
    {/each}
    {#each year.months as month, at (at)}
      {#if month.required !== null && month.required > 0}
        <rect
          class="asked"
          class:fails={fails(month.required)}
          x={LEFT + at * column + 3}
          y={y(month.required)}
          width={column - 6}
          height={y(0) - y(month.required)}
        />
      {/if}
      <text
        class="axis"
        class:critical={at === year.critical}
        x={LEFT + (at + 0.5) * column}
        y={H + 24}
        text-anchor="middle">{MONTHS[at]?.slice(0, 1)}</text
      >
    {/each}
    <path class="own" d="M{LEFT} {y(year.f_rsi)}H{width}" />
    <text class="label" x={width - 2} y={y(year.f_rsi) + 15} text-anchor="end"
      >build-up {units.show(year.f_rsi, 'ratio')}</text
    >
  </svg>
</div>

<style>
  .critical {
    fill: var(--ink);
    font-weight: 700;
  }
  .asked {
    fill: var(--limestone-deep);
    stroke: var(--line);
    stroke-width: 0.75;
  }
  .asked.fails {
    fill: var(--oxide-wash);
    stroke: var(--oxide);
  }
  .own {
    stroke: var(--verdigris);
    stroke-width: var(--pen-result);
  }
  .label {
    font-size: var(--fs-small);
    fill: var(--verdigris);
    font-weight: 600;
  }
</style>
