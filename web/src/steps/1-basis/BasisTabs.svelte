<!-- The sheets of step 1. -->
<script lang="ts">
  import { href, router } from '@/project/router.svelte';
  const SHEETS = [
    { view: '', text: 'Conditions' },
    { view: 'shape', text: 'Shape' },
    { view: 'units', text: 'Windows and doors' },
    { view: 'materials', text: 'Materials and rates' },
  ];
  const place = $derived(router.place);
  function go(event: MouseEvent, view: string): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ view });
  }
</script>

<nav aria-label="Sheets of the Basis">
  {#each SHEETS as { view, text } (view)}
    <a
      href={href({ ...place, step: 1, view })}
      aria-current={place.view === view ? 'page' : undefined}
      onclick={(event) => go(event, view)}>{text}</a
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    gap: 14px;
  }
  a {
    text-decoration: none;
    color: var(--ink-2);
    font-weight: 500;
    padding: 2px 0;
    border-bottom: 2px solid transparent;
  }
  a:hover,
  a[aria-current] {
    color: var(--verdigris);
  }
  a[aria-current] {
    border-bottom-color: var(--verdigris);
    font-weight: 600;
  }
</style>
