<!-- What would make a run by the hour accepted: searched when asked for, every step a run of years. -->
<script lang="ts">
  import type { Advice, Assembly, Building, Life } from '@/api/client';
  import { api, take } from '@/api/client';
  import { router } from '@/project/router.svelte';
  import { Search } from '@/api/search.svelte';
  import { session } from '@/project/session.svelte';
  import { hours, Solving } from '@/api/solving.svelte';
  import Button from '@/kit/Button.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import AdviceList from './AdviceList.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    life: Life;
  }
  let { building, assembly, life }: Props = $props();
  const solving = new Solving(hours);
  const of = $derived(JSON.stringify([session.open?.revision, building.id, assembly, life]));
  const search = new Search<{ advice: Advice[] }>(solving);
  const found = $derived(search.of(of));
  const ask = () =>
    search.run(of, (ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/hours/advice', {
          params: { path: { project_id: router.place.project } },
          body: { building_id: building.id, assembly, life, ticket },
        }),
      ),
    );
</script>

<div class="searched" data-testid="hours-advice">
  {#if found}
    <p>The smallest change of each kind, every step of it run by the hour:</p>
    <AdviceList advice={found.advice} />
  {:else}
    <Button onclick={ask} disabled={search.busy}>Search what would change it</Button>
    {#if search.problem}<span class="soft" role="status">{search.problem}</span>{:else if !search.busy}<span
        class="soft">some forty runs of years, about a minute</span
      >{/if}
  {/if}
  <SolvingBar {solving} name="the search" />
</div>

<style>
  .searched {
    margin: 0 0 10px;
  }
</style>
