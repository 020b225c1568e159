<!-- The same walls on other modules and in other systems, line by line. -->
<script lang="ts">
  import type { Building, SetOutCompared } from '@/api/client';
  import { Solving } from '@/api/solving.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { setout } from '@/project/setout.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const solving = new Solving((done, of) => `${done + 1} of ${of}`);
  const about = $derived(`${building.id} ${session.open?.revision ?? 0}`);
  let found = $state.raw<{ of: string; rows: SetOutCompared[] }>();
  let wrong = $state('');
  $effect(() => {
    const of = about;
    wrong = '';
    void solving
      .run((ticket) => setout.compared(building.id, ticket))
      .then((rows) => (found = { of, rows }))
      .catch(
        (error: unknown) => (wrong = error instanceof Error ? error.message : 'They could not be compared.'),
      );
  });
  const rows = $derived(found?.of === about ? found.rows : undefined);
  const now = $derived(rows?.find((one) => one.now));
  /** A sum that lacks a wall is none. */
  const whole = (one: SetOutCompared, text: string) => (one.reason ? '–' : text);
</script>

{#if wrong}
  <p class="soft" role="status">{wrong}</p>
{:else if !rows}
  <SolvingBar {solving} name="Walls being set out in other ways" />
  <p role="status">All walls are being set out on other modules and in other systems</p>
{:else if !now}
  <p>No wall of this building has a build-up yet.</p>
{:else}
  <table data-testid="compared">
    <thead>
      <tr>
        <th>all walls in</th>
        <th class="n">module</th>
        <th class="n">panels</th>
        <th class="n">off it</th>
        <th class="n">joints, {units.symbol('distance')}</th>
        <th class="n">left of blanks, {units.symbol('area')}</th>
        <th class="n">mass, {units.symbol('mass')}</th>
        <th class="n">days of crane</th>
        <th class="n">timber</th>
        <th class="n">R, {units.symbol('resistance')}</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as one (one.key)}
        <tr class:on={one.now}>
          <th scope="row">{one.name}{one.now ? ', as drawn' : ''}</th>
          <td class="n">{one.module === null ? 'on site' : units.length(one.module)}</td>
          {#if one.module === null}
            <td colspan="6" class="soft">framed on site: no panels, no crane</td>
          {:else if one.reason}
            <td colspan="6" class="soft">{one.reason}</td>
          {:else}
            <td class="n">{one.panels}</td>
            <td class="n">{one.off_module}</td>
            <td class="n">{units.show(one.joints, 'distance', 1)}</td>
            <td class="n">{units.show(one.waste, 'area', 1)}</td>
            <td class="n">{units.show(one.mass, 'mass', 0)}</td>
            <td class="n">{one.crane_days === null ? 'by hand' : units.show(one.crane_days, 'ratio', 1)}</td>
          {/if}
          <td class="n"
            >{whole(one, one.timber === null ? 'none' : `${units.show(one.timber, 'share', 1)} %`)}</td
          >
          <td class="n"><b>{whole(one, units.show(one.R, 'resistance', 2))}</b></td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="soft method">
    Other systems at their start values, on the same outlines and openings; pins are let go. Timber is the
    share of the framed layer, posts and headers at openings among it; of metal panels it is the steel of
    their joints. R of the clear section with it. A crane sets 14 panels a day; what six people carry needs
    none. What a system bears is its supplier's to say.
  </p>
{/if}

<style>
  tbody th {
    color: var(--ink);
  }
</style>
