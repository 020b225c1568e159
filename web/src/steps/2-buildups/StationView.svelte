<!-- Build-ups of one station: the build-up on its sheets, a start, or what the shell counts where nothing is drawn. -->
<script lang="ts">
  import type { Building, Ledger } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { PLACES, STATIONS } from '@/project/stations';
  import SheetHead from '@/kit/SheetHead.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import BenchHead from './BenchHead.svelte';
  import BenchView from './BenchView.svelte';
  import CompareView from './CompareView.svelte';
  import DayView from './DayView.svelte';
  import Elements from '@/project/Elements.svelte';
  import StandardView from './StandardView.svelte';
  import Starts from './Starts.svelte';
  import StudyView from './StudyView.svelte';

  interface Props {
    building: Building;
    units: Units;
    ledger: Ledger | undefined;
  }
  let { building, units, ledger }: Props = $props();
  const place = $derived(router.place);
  const elements = $derived(building.elements?.filter((element) => element.station === place.station) ?? []);
  const element = $derived(elements.find((one) => one.id === place.element) ?? elements[0]);
  const stored = $derived(session.assembly(element?.assembly_id));
  const zone = $derived(`${place.station}2`);
  const revision = $derived(session.open?.revision ?? 0);
  const draft = $derived(bench.draft && bench.draft.id === stored?.id ? bench.draft : stored);
  const drawable = $derived(place.station in PLACES);

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
</script>

{#if elements.length > 1 && drawable}
  <Which
    label="Elements of this station"
    options={elements}
    chosen={element?.id}
    onchoose={(id) => router.go({ element: id })}
  />
{/if}
{#if element && stored && draft}
  {#key stored.id}
    <BenchHead {element} {draft} {zone} />
    {#if place.view === 'study'}
      <StudyView {draft} {units} {zone} {revision} />
    {:else if place.view === 'compare'}
      <CompareView {draft} {element} {zone} {units} {revision} />
    {:else if place.view === 'day'}
      <DayView {draft} {units} {revision} />
    {:else if place.view === 'standard'}
      <StandardView {element} {draft} {units} {zone} {revision} />
    {:else}
      <BenchView {draft} {units} {zone} />
    {/if}
  {/key}
{:else if element && drawable}
  <Starts {element} building={building.id} {units} {zone} />
{:else}
  <SheetHead {zone} title={STATIONS[place.station] ?? ''} />
  <p class="conditions">
    {#if elements.length}Counted with an entered U: openings are priced by their units, not drawn as layers.{:else}This
      building has nothing at this station. Add it to the areas below.{/if}
  </p>
  <Elements {building} {units} {ledger} only={place.station} />
{/if}

<style>
  .conditions {
    color: var(--ink-2);
    margin: 6px 0 10px;
  }
</style>
