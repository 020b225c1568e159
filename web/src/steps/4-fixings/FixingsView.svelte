<!-- Fixings of the build-ups at one station: which element, which group, or a start. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { fixings } from './fixings.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STATIONS } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import FixingStarts from './FixingStarts.svelte';
  import FixingView from './FixingView.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const place = $derived(router.place);
  const zone = $derived(`${place.station}4`);
  const elements = $derived(
    (building.elements ?? []).filter((one) => one.station === place.station && one.assembly_id),
  );
  const element = $derived(elements.find((one) => one.id === place.element) ?? elements[0]);
  const stored = $derived(session.assembly(element?.assembly_id));
  const draft = $derived(bench.draft && bench.draft.id === stored?.id ? bench.draft : stored);
  const revision = $derived(session.open?.revision ?? 0);
  void fixings.start();
  $effect(() => {
    const [project, at, condition, wall, now] = [
      place.project,
      place.building,
      place.condition,
      stored,
      revision,
    ];
    if (wall) untrack(() => bench.follow(project, at, condition, wall, now));
  });
  const groups = $derived(draft?.fixings ?? []);
  const group = $derived(groups.find((one) => one.id === place.view) ?? groups[0]);
  const adding = $derived(place.view === 'add' || !group);
</script>

{#if elements.length > 1}
  <Which
    label="Elements of this station"
    options={elements}
    chosen={element?.id}
    onchoose={(id) => router.go({ element: id, view: '' })}
  />
{/if}
{#if draft && groups.length}
  <Which
    label="Fixings of this build-up"
    options={[...groups, { id: 'add', name: 'Add a group' }]}
    chosen={adding ? 'add' : group?.id}
    onchoose={(id) => router.go({ view: id })}
  />
{/if}
{#if draft && adding}
  <FixingStarts {draft} {zone} onbegun={(id) => router.go({ view: id })} />
{:else if draft && group}
  {#key group.id}
    <FixingView {building} {draft} fixing={group} {zone} {units} />
  {/key}
{:else}
  <SheetHead {zone} title={STATIONS[place.station] ?? ''} />
  <p class="none">
    Fixings belong to a build-up, and no build-up is drawn at this station.
    <Button onclick={() => router.go({ step: 2 })}>Build-ups</Button>
  </p>
{/if}

<style>
  .none {
    color: var(--ink-2);
    margin: 8px 0;
  }
</style>
