<!-- What would make a run by the hour accepted: searched when asked for, every step a run of years. -->
<script lang="ts">
  import type { Advice, Assembly, Building, Life } from '$lib/api/client';
  import { api, asProblem, take } from '$lib/api/client';
  import { router } from '$lib/state/router.svelte';
  import { session } from '$lib/state/session.svelte';
  import { hours, Solving } from '$lib/state/solving.svelte';
  import Button from '$lib/ui/Button.svelte';
  import SolvingBar from '$lib/ui/SolvingBar.svelte';
  import type { Units } from '$lib/units';
  import AdviceList from './AdviceList.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    life: Life;
    units: Units;
  }
  let { building, assembly, life, units }: Props = $props();
  const solving = new Solving(hours);
  const of = $derived(JSON.stringify([session.open?.revision, building.id, assembly, life]));
  let found = $state.raw<{ of: string; advice: Advice[] }>();
  let problem = $state('');
  let busy = $state(false);
  async function search(): Promise<void> {
    const asked = of;
    busy = true;
    problem = '';
    try {
      const answer = await solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/moisture/hours/advice', {
            params: { path: { project_id: router.place.project } },
            body: { building_id: building.id, assembly, life, ticket },
          }),
        ),
      );
      found = { of: asked, advice: answer.advice };
    } catch (error) {
      const told = asProblem(error);
      problem = told.status === 409 ? 'The search was stopped.' : told.sentence;
    } finally {
      busy = false;
    }
  }
</script>

<div class="searched" data-testid="hours-advice">
  {#if found?.of === of}
    <p>The smallest change of each kind, every step of it run by the hour:</p>
    <AdviceList {assembly} advice={found.advice} {units} byPoints />
  {:else}
    <Button onclick={search} disabled={busy}>Search what would change it</Button>
    {#if problem}<span class="soft" role="status">{problem}</span>{:else if !busy}<span class="soft"
        >some forty runs of years, about a minute</span
      >{/if}
  {/if}
  <SolvingBar {solving} name="the search" />
</div>

<style>
  .searched {
    margin: 0 0 10px;
  }
  .soft {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
