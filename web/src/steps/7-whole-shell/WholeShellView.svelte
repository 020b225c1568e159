<!-- Step 7: what the building comes to, sheet by sheet. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import { refusals } from '@/kit/refusals.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { section, whole } from '@/project/whole.svelte';
  import { untrack } from 'svelte';
  import AirSheet from './AirSheet.svelte';
  import FreshSheet from './FreshSheet.svelte';
  import LoadsSheet from './LoadsSheet.svelte';
  import MeasuresSheet from './MeasuresSheet.svelte';
  import SumSheet from './SumSheet.svelte';
  import WindowsSheet from './WindowsSheet.svelte';
  import YearSheet from './YearSheet.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const SHEETS = [
    { view: '', text: 'Where the heat goes', title: 'Whole shell: where the heat goes' },
    { view: 'measures', text: 'Measures', title: 'Whole shell: what could be done' },
    { view: 'air', text: 'Air', title: 'Whole shell: what leaks' },
    { view: 'windows', text: 'Windows', title: 'Whole shell: which glass where' },
    { view: 'fresh', text: 'Fresh air', title: 'Whole shell: fresh air' },
    { view: 'loads', text: 'Loads', title: 'Whole shell: what its plant has to be' },
    { view: 'year', text: 'Year', title: 'Whole shell: the year' },
  ];
  const place = $derived(router.place);
  const sheet = $derived(SHEETS.find((one) => one.view === place.view) ?? SHEETS[0]);
  const project = $derived(session.open?.project.id ?? '');
  const revision = $derived(session.open?.revision ?? 0);

  $effect(() => {
    const question = { project, building: building.id, revision };
    untrack(() => section.askNew(question));
  });
  const now = $derived(whole.of({ project, building: building.id }));
  const found = $derived(now && !now.whole && now.last ? now.last : now);
  const cut = $derived(section.of({ project, building: building.id }));
  const why = (part: string) => refusals.current?.items.find((item) => item.pointer.endsWith(part))?.detail;

  function go(event: MouseEvent, view: string): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ view });
  }
</script>

<SheetHead zone="A–H" title={sheet?.title ?? ''}>
  <nav aria-label="Sheets of the whole shell">
    {#each SHEETS as { view, text } (view)}
      <a
        href={href({ ...place, view })}
        aria-current={place.view === view ? 'page' : undefined}
        onclick={(event) => go(event, view)}>{text}</a
      >
    {/each}
  </nav>
</SheetHead>

{#if whole.problem && !now}
  <Notice
    tone="note"
    title={whole.problem.items[0]?.detail ?? 'It cannot be summed up'}
    text={whole.problem.items[0]?.hint ?? ''}
  />
  <p><a href={href({ ...place, step: 1, view: 'shape' })}>Draw its shape</a></p>
{:else if !found || !now}
  <p role="status">Being summed up</p>
{:else}
  {#if !now.whole}
    <p class="part" data-testid="part">
      {#if now.pending.length}<b>{counted(now.pending.length, 'part')} being solved</b>: {now.pending
          .slice(0, 4)
          .join(', ')}{now.pending.length > 4 ? ' …' : ''}.{/if}
      {#if now.missing.length}<b>{counted(now.missing.length, 'part')} missing</b>: {now.missing
          .slice(0, 4)
          .join('; ')}{now.missing.length > 4 ? ' …' : ''}.{/if}
      {now.last ? 'The last full figures stand.' : 'Sums are of what is known, not of the whole.'}
    </p>
  {/if}
  <div data-stale={whole.stale}>
    {#if place.view === 'measures'}
      <MeasuresSheet {found} {building} {units} />
    {:else if place.view === 'air'}
      <AirSheet {found} {building} {units} refused={why} />
    {:else if place.view === 'windows'}
      <WindowsSheet {found} {building} {units} refused={why} />
    {:else if place.view === 'fresh'}
      <FreshSheet {found} {building} {units} refused={why} />
    {:else if place.view === 'loads'}
      <LoadsSheet {found} {building} {units} refused={why} />
    {:else if place.view === 'year'}
      <YearSheet {found} {building} {units} refused={why} />
    {:else}
      <SumSheet {found} {cut} {building} {units} refused={why} />
    {/if}
  </div>
{/if}
<svg width="0" height="0" aria-hidden="true" class="store">
  <defs>
    <pattern id="whole-ruled" width="3" height="6" patternUnits="userSpaceOnUse"
      ><path d="M1 0V6" stroke="var(--ink)" /></pattern
    >
    <pattern id="whole-dots" width="5" height="5" patternUnits="userSpaceOnUse"
      ><circle cx="1.6" cy="1.6" r=".8" fill="var(--ink-2)" /></pattern
    >
  </defs>
</svg>

<style>
  .part {
    padding: 6px 10px;
    border-left: 3px dashed var(--line);
    background: var(--sheet-bright);
    font-size: var(--fs-small);
  }
  .store {
    position: absolute;
  }
</style>
