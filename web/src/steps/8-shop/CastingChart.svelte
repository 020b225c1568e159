<!-- Beds against days: each side of a panel plastered, turned, cured, lifted; the clock stands still on cold days. -->
<script lang="ts">
  import type { WetSheet } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    cast: WetSheet['plaster'][number];
    days: WetSheet['days'];
    beds: number;
    units: Units;
  }
  let { cast, days, beds, units }: Props = $props();
  const LEFT = 56;
  const ROW = 34;
  const TOP = 20;
  const DAY = 16;
  const plan = $derived(cast.plan ?? []);
  const last = $derived(Math.max(days.length, ...plan.map((one) => one.lift + 1)));
  const X = (day: number) => LEFT + day * DAY;
  const most = $derived(Math.max(0.001, ...days.map((one) => one.plaster)));
  const foot = $derived(TOP + beds * ROW + 8);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" role="group" tabindex="0" aria-label="Casting of {cast.name}, day by day">
  <svg
    width={LEFT + last * DAY + 20}
    height={foot + 76}
    role="img"
    aria-label="{plan.length} panels on {beds} beds in {last} days"
  >
    {#each days as one, n (n)}
      {#if !one.warm}<rect class="cold" x={X(n)} y={TOP} width={DAY} height={foot - TOP} />{/if}
      {#if n % 7 === 0}<text x={X(n)} y="12">{n + 1}</text><path
          class="week"
          d="M{X(n)} {TOP - 4}V{foot + 54}"
        />{/if}
      <rect
        class="plaster"
        x={X(n) + 2}
        y={foot + 52 - (one.plaster / most) * 40}
        width={DAY - 4}
        height={(one.plaster / most) * 40}
      />
      {#if one.read}<circle class="read" cx={X(n) + DAY / 2} cy={foot + 62} r="2.5" />{/if}
    {/each}
    {#each { length: beds }, bed}<text x="2" y={TOP + bed * ROW + 20}>bed {bed + 1}</text>{/each}
    {#each plan as one (one.panel)}
      {@const y = TOP + one.bed * ROW + 4}
      <rect class="side" x={X(one.first)} {y} width={(one.turned - one.first) * DAY} height={ROW - 10} />
      <rect class="cure" x={X(one.turned)} {y} width={(one.lift - one.turned) * DAY} height={ROW - 10} />
      <path class="turn" d="M{X(one.turned)} {y - 2}v{ROW - 6}" />
      <path class="lift" d="M{X(one.lift)} {y + ROW - 12}v-{ROW - 12}m-4 5l4 -5l4 5" />
      {#if (one.lift - one.turned) * DAY > 40}<text class="mark" x={X(one.turned) + 4} y={y + 16}
          >{one.panel}</text
        >{/if}
    {/each}
    <text x="2" y={foot + 40}>{units.symbol('volume')}</text>
    <text x="2" y={foot + 52} class="soft">{units.show(most, 'volume', 2)}</text>
    <text x="2" y={foot + 66} class="soft">read</text>
  </svg>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  svg {
    display: block;
    font: 11px var(--mono);
  }
  text {
    fill: var(--ink);
  }
  .soft {
    fill: var(--ink-2);
  }
  .week {
    stroke: var(--hair);
  }
  .cold {
    fill: url(#h-loss);
    opacity: 0.6;
  }
  .side {
    fill: url(#h-concrete-s);
    stroke: var(--ink);
  }
  .cure {
    fill: var(--sheet-bright);
    stroke: var(--ink);
  }
  .turn {
    stroke: var(--ink);
    stroke-width: 2.4;
  }
  .lift {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.8;
  }
  .mark {
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 3;
  }
  .plaster {
    fill: var(--ink-2);
  }
  .read {
    fill: var(--verdigris);
  }
</style>
