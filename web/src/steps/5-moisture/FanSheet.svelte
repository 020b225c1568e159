<!-- Eight lives of one build-up beside one another: how forgiving it is. -->
<script lang="ts">
  import type { Fan } from '@/api/client';
  import TimeChart from '@/draw/TimeChart.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    fan: Fan | undefined;
    units: Units;
  }
  let { fan, units }: Props = $props();
  const WAYS = [
    { id: 'wood', text: 'water in wood' },
    { id: 'mould', text: 'mould index' },
    { id: 'water', text: 'water in all layers' },
  ] as const;
  type Way = (typeof WAYS)[number]['id'];
  let way = $state<Way>();
  const done = $derived(fan?.runs.filter((one) => !one.why_not) ?? []);
  const wooden = $derived(done.some((one) => one.wood.length));
  const shown = $derived<Way>(way ?? (wooden ? 'wood' : 'water'));
  const show = (value: number) =>
    shown === 'wood'
      ? `${units.show(value, 'share', 0)} %`
      : shown === 'mould'
        ? value.toFixed(1)
        : units.show(value, 'surface_mass', 1);
  const limit = $derived(
    shown === 'wood' ? fan?.wood_limit : shown === 'mould' ? fan?.mould_limit : undefined,
  );
  const REASON = { wood: 'wood too wet', mould: 'mould grows', gathers: 'water gathers', '': 'accepted' };
  const most = (values: readonly number[]) => Math.max(...values, 0);
  const lastYear = (values: readonly number[]) => values.slice(-Math.floor(values.length / 3));
  const passed = $derived(done.filter((one) => !one.fails).length);
</script>

{#if fan}
  <p class="verdict" data-testid="fan-verdict">
    <strong>{passed} of {done.length} cases are accepted.</strong>
    {#if passed < done.length}It does not forgive: {done
        .filter((one) => one.fails)
        .map((one) => one.name)
        .join(', ')}.{/if}
  </p>
  <div class="ways" role="group" aria-label="What is drawn">
    {#each WAYS as one (one.id)}
      {#if one.id !== 'wood' || wooden}
        <button aria-pressed={shown === one.id} class:on={shown === one.id} onclick={() => (way = one.id)}
          >{one.text}</button
        >
      {/if}
    {/each}
    <span>three years from October, every third day</span>
  </div>
  <TimeChart
    title="{WAYS.find((one) => one.id === shown)?.text ?? ''} in eight cases"
    days={fan.days}
    lines={done.map((one, n) => ({
      name: one.name.slice(0, 26),
      values: one[shown],
      strong: n === 0,
      open: !!one.fails,
    }))}
    {limit}
    limitText={limit === undefined ? '' : `limit ${show(limit)}`}
    {show}
    height={260}
  />
  <table data-testid="cases">
    <thead
      ><tr
        ><th>case</th>{#if wooden}<th class="n">wood, last year</th>{/if}<th class="n">mould index</th><th
          class="n">water at the end</th
        ><th>by the hour</th></tr
      ></thead
    >
    <tbody>
      {#each fan.runs as one (one.name)}
        <tr>
          <td>{one.name}</td>
          {#if one.why_not}
            <td colspan="4" class="soft">{one.why_not}</td>
          {:else}
            {#if wooden}<td class="n" class:over={one.fails === 'wood'}
                >{units.show(most(lastYear(one.wood)), 'share', 1)} %</td
              >{/if}
            <td class="n" class:over={most(one.mould) > fan.mould_limit}>{most(one.mould).toFixed(1)}</td>
            <td class="n">{units.full(one.water.at(-1) ?? 0, 'surface_mass', 2)}</td>
            <td class:over={one.fails}>{REASON[one.fails]}</td>
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="soft">
    Run by EN 15026 on fewer cells than a single run. A leaking joint, a damper room, a blocked gap and a wet
    start are starting values of what may befall a building; a life that is accepted here is not a promise.
  </p>
{/if}

<style>
  td {
    padding: 3px 6px 3px 0;
  }
  .n {
    padding-right: 16px;
  }
</style>
