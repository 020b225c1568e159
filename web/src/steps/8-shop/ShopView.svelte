<!-- Step 8: what is cut next and why, out of which bar and board, laid down how, and on which truck. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import Notice from '@/kit/Notice.svelte';
  import { refusals } from '@/kit/refusals.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { shop } from '@/project/shop.svelte';
  import { untrack } from 'svelte';
  import BillSheet from './BillSheet.svelte';
  import BoardsSheet from './BoardsSheet.svelte';
  import FillingSheet from './FillingSheet.svelte';
  import HandlingSheet from './HandlingSheet.svelte';
  import LaydownSheet from './LaydownSheet.svelte';
  import LiftsSheet from './LiftsSheet.svelte';
  import NestingSheet from './NestingSheet.svelte';
  import NextSheet from './NextSheet.svelte';
  import PapersSheet from './PapersSheet.svelte';
  import TrucksSheet from './TrucksSheet.svelte';
  import WetTrades from './WetSheet.svelte';
  import WorkOrder from './WorkSheet.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const SHEETS = [
    { view: '', text: 'Next', title: 'What to cut next' },
    { view: 'bars', text: 'Bars', title: 'Bars: what is left to be cut' },
    { view: 'boards', text: 'Boards', title: 'Boards: skins and sheathing' },
    { view: 'laydown', text: 'Laydown', title: 'Laydown: sides and both diagonals' },
    { view: 'handling', text: 'Handling', title: 'Handling by hand' },
    { view: 'lifts', text: 'Lifts', title: 'Lifts: how each panel hangs' },
    { view: 'trucks', text: 'Trucks', title: 'Trucks in set order' },
    { view: 'filling', text: 'Filling', title: 'Beads blown into frames' },
    { view: 'wet', text: 'Wet trades', title: 'Wet trades: mortar, plaster, cure' },
    { view: 'work', text: 'Order', title: 'Order of work and hold points' },
    { view: 'bill', text: 'Quantities', title: 'Quantities: what is bought' },
    { view: 'papers', text: 'Papers', title: 'Drawings, lists and labels' },
  ];
  const place = $derived(router.place);
  const sheet = $derived(SHEETS.find((one) => one.view === place.view) ?? SHEETS[0]);
  const project = $derived(session.open?.project.id ?? '');
  const revision = $derived(session.open?.revision ?? 0);
  $effect(() => {
    const question = { project, building: building.id, revision, system: session.system };
    untrack(() => shop.live.askNew(question));
  });
  const found = $derived(shop.live.of({ project, building: building.id }));
  const why = (part: string) => refusals.current?.items.find((item) => item.pointer.endsWith(part))?.detail;

  function go(event: MouseEvent, view: string): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ view });
  }
</script>

<SheetHead zone="{place.station}8" title={sheet?.title ?? ''}>
  <nav aria-label="Sheets of the shop">
    {#each SHEETS.filter((one) => one.view !== 'filling' || found?.filled || place.view === 'filling') as { view, text } (view)}
      <a
        href={href({ ...place, view })}
        aria-current={place.view === view ? 'page' : undefined}
        onclick={(event) => go(event, view)}>{text}</a
      >
    {/each}
  </nav>
</SheetHead>

{#if place.view === 'lifts'}
  <LiftsSheet {building} {units} {why} />
{:else if place.view === 'wet'}
  <WetTrades {building} {units} {why} />
{:else if place.view === 'work'}
  <WorkOrder {building} {units} {why} />
{:else if place.view === 'bill'}
  <BillSheet {building} {units} {why} />
{:else if shop.live.problem && !found}
  <Notice
    tone="note"
    title={shop.live.problem.items[0]?.detail ?? 'There is nothing to cut'}
    text={shop.live.problem.items[0]?.hint ?? ''}
  />
  <p><a href={href({ ...place, step: 1, view: 'shape' })}>Draw its shape</a></p>
{:else if !found}
  <p role="status">Being nested</p>
  <SolvingBar solving={shop.solving} name="nesting" />
{:else if !found.pieces.length}
  <Notice
    tone="note"
    title="Nothing of this building is cut in the shop yet"
    text="No face of it is made of panels, or none could be set out: see Set-out."
  />
{:else}
  {#if found.lacking.length}
    <Notice
      tone="decision"
      title="So far: {found.lacking.join(', ')} cannot be set out"
      text="Nothing here has panels of that face: no count, weight, truck or file is whole."
    />
  {/if}
  <div data-stale={shop.live.stale}>
    {#if place.view === 'bars'}
      <NestingSheet shop={found} {building} {units} {why} />
    {:else if place.view === 'boards'}
      <BoardsSheet shop={found} {building} {units} {why} />
    {:else if place.view === 'laydown'}
      <LaydownSheet shop={found} {building} {units} {why} />
    {:else if place.view === 'handling'}
      <HandlingSheet shop={found} {building} {units} />
    {:else if place.view === 'filling'}
      <FillingSheet shop={found} {building} {units} {why} />
    {:else if place.view === 'papers'}
      <PapersSheet {building} />
    {:else if place.view === 'trucks'}
      <TrucksSheet shop={found} {building} {units} {why} />
    {:else}
      <NextSheet shop={found} {building} {units} />
    {/if}
  </div>
{/if}
