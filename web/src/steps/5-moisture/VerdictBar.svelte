<!-- By how much a build-up passes, and the smallest change of each kind that would turn it; every step was run. -->
<script lang="ts">
  import type { Assembly, Building, Verdict } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { working } from '@/project/working.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { points } from '@/kit/reading';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import AdviceList from './AdviceList.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    units: Units;
  }
  let { building, assembly, units }: Props = $props();
  const solving = new Solving((kind, of) => `change ${kind + 1} of ${of}`);
  const live = asking(
    () => ({
      project: router.place.project,
      building: building.id,
      revision: session.open?.revision ?? 0,
      assembly,
    }),
    ({ project, building: building_id, assembly: asked }): Promise<Verdict> =>
      solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/moisture/verdict', {
            ...inProject(project),
            body: { building_id, assembly: asked, ticket },
          }),
        ),
      ),
  );
  const verdict = $derived(live.answered?.assembly.id === assembly.id ? live.answer : undefined);
  const problem = $derived(live.problem);
  const HOURS = {
    wood: 'wood gets too wet', mould: 'mould grows', gathers: 'water gathers from year to year', '': 'accepted',
  }; // prettier-ignore
  function opened(): void {
    void working.show({
      figure: 'margin', title: 'Margin of room humidity', dimension: 'share', project: router.place.project,
      building: building.id, condition: router.place.condition, assembly, of: { kind: 'margin' },
    }); // prettier-ignore
  }
  const percent = (share: number) => `${units.show(share, 'share', 0)} %`;
</script>

<div class="judged" data-stale={live.stale} data-testid="judged">
  {#if problem}
    <p class="soft">{problem.sentence}</p>
  {:else if verdict}
    {#if verdict.passes}
      <p>
        {#if verdict.phi_fails === null}It passes up to a room at 95 %.
        {:else}It passes until the room has <b>{percent(verdict.phi_fails)}</b> in the cold months, now {percent(
            verdict.phi_room,
          )}: a margin of
          <Figure
            value={units.show(verdict.margin ?? 0, 'share', 0)}
            unit={points(verdict.margin ?? 0)}
            label="Margin of room humidity"
            onwork={opened}
          />, by the months.{/if}
      </p>
    {:else}
      <p>
        {verdict.reason === 'surface' || verdict.reason === 'outer surface'
          ? `Its ${verdict.reason === 'surface' ? 'inner' : 'outer'} surface decides.`
          : verdict.reason === 'gathers'
            ? 'What gathers from year to year decides.'
            : 'The most that a plane may hold decides.'}
        {#if verdict.phi_fails}It fails from a room at {percent(verdict.phi_fails)} on, a margin of <Figure
            value={units.show(verdict.margin ?? 0, 'share', 0)}
            unit={points(verdict.margin ?? 0)}
            label="Margin of room humidity"
            onwork={opened}
          />.{:else}It fails whatever the room.{/if} The smallest change of each kind, every step of it run:
      </p>
      <AdviceList advice={verdict.advice} />
    {/if}
    <p class="soft" data-testid="by-hour">
      {#if verdict.hours === null}The months decide; it was not run
        <button onclick={() => router.go({ view: 'hours' })}>by the hour</button> yet.
      {:else}By the hour: <button onclick={() => router.go({ view: 'hours' })}>{HOURS[verdict.hours]}</button
        >{!verdict.passes === !!verdict.hours
          ? '; both schools agree.'
          : '. The schools differ: the cause stands there, and the hours decide, as they see storage, liquid and sun.'}{/if}
    </p>
  {/if}
  <SolvingBar {solving} name="the search" />
</div>

<style>
  .judged {
    margin: 0 0 10px;
    min-height: 24px;
  }
  button {
    all: unset;
    cursor: pointer;
    color: var(--verdigris);
    text-decoration: underline;
  }
  button:focus-visible {
    box-shadow: var(--focus);
  }
</style>
