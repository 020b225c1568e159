<!-- Head of a sheet: its zone in a box, its title, and what stands beside it. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  interface Props {
    zone: string;
    /** Plain title; or give the `heading` snippet. */
    title?: string;
    aside?: string;
    heading?: Snippet;
    children?: Snippet;
  }
  let { zone, title = '', aside = '', heading, children }: Props = $props();
</script>

<div class="head">
  <span class="zone">{zone}</span>
  {#if heading}{@render heading()}{:else}<h1>{title}</h1>{/if}
  {#if aside}<span class="aside">{aside}</span>{/if}
  {#if children}<div class="more">{@render children()}</div>{/if}
</div>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 10px;
    margin-bottom: 6px;
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
  .aside {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
  .more {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: center;
  }
  .more :global(a) {
    color: var(--verdigris);
    font-weight: 500;
  }
  /* The sheets of a step. */
  .more :global(nav) {
    display: flex;
    gap: 14px;
  }
  .more :global(nav a) {
    text-decoration: none;
    color: var(--ink-2);
    font-weight: 500;
    padding: 2px 0;
    border-bottom: 2px solid transparent;
  }
  .more :global(nav a:hover),
  .more :global(nav a[aria-current]) {
    color: var(--verdigris);
  }
  .more :global(nav a[aria-current]) {
    border-bottom-color: var(--verdigris);
    font-weight: 600;
  }
</style>
