<!-- By how much a build-up passes, and the smallest change of each kind that would turn it; every step was run. -->
<script lang="ts">
  import type { Assembly, Building, Verdict } from '$lib/api/client';
  import { api, asProblem, take } from '$lib/api/client';
  import { Live } from '$lib/state/live.svelte';
  import { router } from '$lib/state/router.svelte';
  import { session } from '$lib/state/session.svelte';
  import { Solving } from '$lib/state/solving.svelte';
  import SolvingBar from '$lib/ui/SolvingBar.svelte';
  import type { Units } from '$lib/units';
  import { untrack } from 'svelte';
  import AdviceList from './AdviceList.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    units: Units;
  }
  let { building, assembly, units }: Props = $props();
  const solving = new Solving((kind, of) => `change ${kind + 1} of ${of}`);
  const live = new Live<{ project: string; building: string; revision: number; assembly: Assembly }, Verdict>(
    ({ project, building: building_id, assembly: asked }) =>
      solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/moisture/verdict', {
            params: { path: { project_id: project } },
            body: { building_id, assembly: asked, ticket },
          }),
        ),
      ),
  );
  $effect(() => {
    const question = {
      project: router.place.project,
      building: building.id,
      revision: session.open?.revision ?? 0,
      assembly,
    };
    untrack(() => live.ask(question));
  });
  const verdict = $derived(live.answered?.assembly.id === assembly.id ? live.answer : undefined);
  const problem = $derived(live.error ? asProblem(live.error) : undefined);
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
          )}: a margin of <b>{units.show(verdict.margin ?? 0, 'share', 0)} points</b>, by the months.{/if}
      </p>
    {:else}
      <p>
        {verdict.reason === 'surface' || verdict.reason === 'outer surface'
          ? `Its ${verdict.reason === 'surface' ? 'inner' : 'outer'} surface decides.`
          : verdict.reason === 'gathers'
            ? 'What gathers from year to year decides.'
            : 'The most that a plane may hold decides.'} The smallest change of each kind, every step of it run:
      </p>
      <AdviceList {assembly} advice={verdict.advice} {units} />
    {/if}
  {/if}
  <SolvingBar {solving} name="the search" />
</div>

<style>
  .judged {
    margin: 0 0 10px;
    min-height: 24px;
  }
  .soft {
    color: var(--ink-3);
  }
</style>
