<!-- By how much a build-up passes, and the smallest change of each kind that would turn it; every step was run. -->
<script lang="ts">
  import type { Advice, Assembly, Building, Verdict } from '$lib/api/client';
  import { api, asProblem, take } from '$lib/api/client';
  import { layerName } from '$lib/layers';
  import { Live } from '$lib/state/live.svelte';
  import { router } from '$lib/state/router.svelte';
  import { session } from '$lib/state/session.svelte';
  import { Solving } from '$lib/state/solving.svelte';
  import SolvingBar from '$lib/ui/SolvingBar.svelte';
  import type { Units } from '$lib/units';
  import { untrack } from 'svelte';

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
  /** ISO 13788, 4.2: permeance is δ₀ over s_d. */
  const perm = $derived(session.open?.project.basis.schools.vapour === 'perm');
  const percent = (share: number) => `${units.show(share, 'share', 0)} %`;
  function words(one: Advice): string {
    const of = one.layer === null ? '' : layerName(assembly, session.materials, one.layer);
    const size = (d: number) => units.full(d, 'length');
    const sd = (value: number) =>
      perm
        ? units.full(2e-10 / Math.max(value, 1e-9), 'permeance')
        : `s_d ${units.full(value, 'air_layer', 1)}`;
    const none = !one.found;
    switch (one.kind) {
      case 'vapour':
        return none
          ? `no vapour layer turns it, up to ${sd(one.amount)}`
          : `a vapour layer of ${sd(one.amount)} on the warm side; ${sd(one.step)} still fails`;
      case 'outside':
        return none
          ? `no insulation outside turns it, up to ${size(one.amount)}`
          : `${size(one.amount)} of open insulation outside; ${size(one.step)} still fails`;
      case 'core':
        return none
          ? `no thickness of ${of} turns it, up to ${size(one.amount)}`
          : `${of} of ${size(one.amount)}; ${size(one.step)} still fails`;
      case 'gap':
        return none
          ? 'a ventilated gap alone does not turn it'
          : 'a ventilated gap behind the outermost layer';
      case 'room':
        return `a room at ${percent(one.amount)} through the cold months; ${percent(one.step)} still fails`;
      case 'seal':
        return '';
    }
  }
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
      <ul>
        {#each verdict.advice as one (one.kind)}
          <li class:none={!one.found}>{words(one)}</li>
        {/each}
      </ul>
    {/if}
  {/if}
  <SolvingBar {solving} name="the search" />
</div>

<style>
  .judged {
    margin: 0 0 10px;
    min-height: 24px;
  }
  ul {
    margin: 4px 0 0;
    padding-left: 18px;
  }
  li {
    padding: 1px 0;
  }
  .none,
  .soft {
    color: var(--ink-3);
  }
</style>
