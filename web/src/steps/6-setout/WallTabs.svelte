<!-- Form walls or runs of them by their marks; one of them is shown. -->
<script lang="ts">
  import { router } from '@/project/router.svelte';
  import type { Snippet } from 'svelte';

  interface Tab {
    id: string;
    mark: string;
    label: string;
    open: boolean;
  }
  interface Props {
    title: string;
    tabs: readonly Tab[];
    shown: string;
    ongo?: (id: string) => void;
    children?: Snippet;
  }
  let { title, tabs, shown, ongo = (element) => router.go({ element }), children }: Props = $props();
</script>

<nav aria-label={title}>
  {#each tabs as one (one.id)}
    <button
      aria-pressed={one.id === shown}
      class:open={one.open}
      aria-label={one.label}
      onclick={() => ongo(one.id)}>{one.mark}</button
    >
  {/each}
  {@render children?.()}
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: center;
    margin: 2px 0 6px;
  }
  button {
    min-height: 24px;
    padding: 0 7px;
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: none;
    font: 500 12px var(--mono);
  }
  button[aria-pressed='true'] {
    background: var(--verdigris);
    border-color: var(--verdigris);
    color: var(--sheet-bright);
  }
  button.open:not([aria-pressed='true']) {
    border-color: var(--oxide);
    color: var(--oxide);
  }
</style>
