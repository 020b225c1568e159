<!-- Moisture of one station: by month, at the control plane, at its joint lines, by the hour, and in a harder life. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STATIONS } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import HoursSheet from './HoursSheet.svelte';
  import LeakSheet from './LeakSheet.svelte';
  import MonthSheet from './MonthSheet.svelte';
  import PlaneSheet from './PlaneSheet.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const VIEWS = [
    { id: '', name: 'By month' },
    { id: 'plane', name: 'Control plane' },
    { id: 'joints', name: 'Joint lines' },
    { id: 'hours', name: 'By the hour' },
    { id: 'fan', name: 'Harder life' },
  ];
  const place = $derived(router.place);
  const elements = $derived(
    (building.elements ?? []).filter((one) => one.station === place.station && one.assembly_id),
  );
  const element = $derived(elements.find((one) => one.id === place.element) ?? elements[0]);
  const stored = $derived(session.assembly(element?.assembly_id));
  const draft = $derived(bench.draft && bench.draft.id === stored?.id ? bench.draft : stored);
  const joints = $derived((building.joints ?? []).filter((one) => one.station === place.station));
  const view = $derived(VIEWS.some((one) => one.id === place.view) ? place.view : '');
  const shown = $derived(!draft && joints.length ? 'joints' : view);
</script>

{#if elements.length > 1 && shown !== 'joints'}
  <Which
    label="Elements of this station"
    options={elements}
    chosen={element?.id}
    onchoose={(id) => router.go({ element: id, view })}
  />
{/if}
<SheetHead
  zone={`${place.station}5`}
  title={shown === 'joints'
    ? `${STATIONS[place.station] ?? ''}: room air through joints`
    : draft
      ? `${draft.name}: moisture through the year`
      : (STATIONS[place.station] ?? '')}
/>
{#if draft || joints.length}
  <Which
    label="Ways to look at its moisture"
    options={VIEWS.filter((one) => (one.id === 'joints' ? joints.length : draft))}
    chosen={shown}
    onchoose={(id) => router.go({ view: id })}
  />
{/if}
{#if shown === 'joints'}
  <LeakSheet {building} {joints} {units} />
{:else if !draft}
  <p class="none">
    Moisture is judged in a build-up, and none is drawn at this station.
    <Button onclick={() => router.go({ step: 2 })}>Build-ups</Button>
  </p>
{:else if shown === 'plane'}
  <PlaneSheet {building} assembly={draft} {units} />
{:else if shown === 'hours' || shown === 'fan'}
  <HoursSheet {building} assembly={draft} {units} fan={shown === 'fan'} />
{:else}
  <MonthSheet {building} assembly={draft} {units} />
{/if}

<style>
  .none {
    color: var(--ink-2);
    margin: 8px 0;
  }
</style>
