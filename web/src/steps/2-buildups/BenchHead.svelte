<!-- Head of a build-up: zone, name to type on, its sheets, and what can be printed. -->
<script lang="ts">
  import { session } from '@/project/session.svelte';
  import type { Assembly, ShellElement } from '@/api/client';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';

  import RemoveBuildUp from './RemoveBuildUp.svelte';

  interface Props {
    element: ShellElement;
    draft: Assembly;
    zone: string;
  }
  let { element, draft, zone }: Props = $props();
  const place = $derived(router.place);
  const sheets = [
    { view: '', name: 'Section' },
    { view: 'study', name: 'Foam study' },
    { view: 'compare', name: 'Compare' },
    { view: 'day', name: 'Day' },
    { view: 'standard', name: 'Standard' },
  ];
  const sheetHref = $derived(
    `/api/v1/projects/${place.project}/assemblies/${draft.id}/sheet.pdf?${new URLSearchParams({ building_id: place.building, condition: place.condition, units: session.system })}`,
  );
  let naming = $state(false);
</script>

{#snippet heading()}
  {#if naming}
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class="title"
      aria-label="Name of the build-up"
      value={draft.name}
      autofocus
      onkeydown={(event) =>
        event.key === 'Enter' ? event.currentTarget.blur() : event.key === 'Escape' && (naming = false)}
      onblur={(event) => {
        const name = event.currentTarget.value.trim();
        if (naming && name && name !== draft.name)
          void bench.commit((one) => ({ ...one, name }), `Renamed ${name}`.slice(0, 200), zone);
        naming = false;
      }}
    />
  {:else}
    <h1><button onclick={() => (naming = true)} aria-label="{draft.name}, rename">{draft.name}</button></h1>
  {/if}
{/snippet}

<SheetHead {zone} {heading} aside={element.name === draft.name ? '' : element.name}>
  <nav aria-label="Sheets of this build-up">
    {#each sheets as sheet (sheet.view)}
      {@const on = place.view === sheet.view}
      <button class:on aria-current={on ? 'page' : undefined} onclick={() => router.go({ view: sheet.view })}
        >{sheet.name}</button
      >
    {/each}
  </nav>
  <a class="sheet" href={sheetHref} download>Specification sheet, PDF</a>
  <RemoveBuildUp {draft} {zone} />
</SheetHead>

<style>
  h1,
  .title {
    font-size: var(--fs-title);
    font-weight: 600;
  }
  h1 button {
    border: 0;
    background: none;
    font: inherit;
    text-align: left;
  }
  h1 button:hover {
    text-decoration: underline dotted;
  }
  .title {
    border: 1px solid var(--verdigris);
    background: var(--sheet-bright);
    padding: 0 4px;
  }
  nav {
    display: flex;
    gap: 2px;
  }
  nav button {
    border: 0;
    border-bottom: 2px solid transparent;
    background: none;
    min-height: 24px;
    padding: 2px 8px;
    color: var(--ink-2);
  }
  nav button:hover {
    color: var(--verdigris);
  }
  nav .on {
    border-bottom-color: var(--verdigris);
    color: var(--verdigris);
    font-weight: 600;
  }
</style>
