<!-- Build-ups of one station: the wall on the bench, or what the shell counts where nothing is drawn yet. -->
<script lang="ts">
  import type { Building, Ledger } from '$lib/api/client';
  import { router } from '$lib/state/router.svelte';
  import { session } from '$lib/state/session.svelte';
  import { STATIONS } from '$lib/stations';
  import type { Units } from '$lib/units';
  import BenchView from './BenchView.svelte';
  import Elements from './Elements.svelte';
  import Starts from './Starts.svelte';

  interface Props {
    building: Building;
    units: Units;
    ledger: Ledger | undefined;
  }
  let { building, units, ledger }: Props = $props();
  const place = $derived(router.place);
  const elements = $derived(building.elements?.filter((element) => element.station === place.station) ?? []);
  const element = $derived(elements.find((one) => one.id === place.element) ?? elements[0]);
  const assembly = $derived(session.assembly(element?.assembly_id));
  const zone = $derived(`${place.station}2`);
</script>

{#if elements.length > 1 && place.station === 'D'}
  <nav class="which" aria-label="Walls of this building">
    {#each elements as one (one.id)}
      <button
        class:on={one.id === element?.id}
        aria-pressed={one.id === element?.id}
        onclick={() => router.go({ element: one.id })}>{one.name}</button
      >
    {/each}
  </nav>
{/if}
{#if element && assembly}
  {#key assembly.id}
    <BenchView {element} stored={assembly} {units} {zone} revision={session.open?.revision ?? 0} />
  {/key}
{:else if element && place.station === 'D'}
  <Starts {element} building={building.id} {units} {zone} />
{:else}
  <div class="head">
    <span class="zone">{zone}</span>
    <h1>{STATIONS[place.station]}</h1>
  </div>
  <p class="conditions">
    {#if elements.length}Counted with an entered U until a build-up of this station can be drawn.{:else}This
      building has nothing at this station. Add it to the areas below.{/if}
  </p>
  <Elements {building} {units} {ledger} only={place.station} />
{/if}

<style>
  .which {
    display: flex;
    gap: 2px;
    margin: -6px 0 8px;
  }
  .which button {
    border: 0;
    border-bottom: 2px solid transparent;
    background: none;
    padding: 2px 10px;
    min-height: 24px;
    color: var(--ink-2);
  }
  .which .on {
    border-color: var(--verdigris);
    color: var(--verdigris);
    font-weight: 600;
  }
  .head {
    display: flex;
    align-items: center;
    gap: 10px;
  }
  .zone {
    border: 1.5px solid var(--verdigris);
    color: var(--verdigris);
    font: 600 14px var(--mono);
    width: 34px;
    height: 24px;
    display: grid;
    place-items: center;
  }
  h1 {
    font-size: var(--fs-title);
    font-weight: 600;
  }
  .conditions {
    color: var(--ink-2);
    margin: 5px 0 16px;
  }
</style>
