<!-- A plain action in words. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  interface Props {
    onclick: () => void;
    children: Snippet;
    disabled?: boolean;
    strong?: boolean;
    label?: string;
  }
  let { onclick, children, disabled = false, strong = false, label }: Props = $props();
</script>

<button type="button" class:strong {disabled} {onclick} aria-label={label}>{@render children()}</button>

<style>
  button {
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet);
    padding: 3px 9px;
    min-height: 24px;
    font-size: 12.5px;
    font-weight: 500;
    white-space: nowrap;
  }
  button:hover:not(:disabled) {
    border-color: var(--verdigris);
    color: var(--verdigris);
  }
  .strong {
    background: var(--verdigris);
    border-color: var(--verdigris);
    color: var(--sheet-bright);
  }
  .strong:hover:not(:disabled) {
    color: var(--sheet-bright);
    background: var(--ink);
  }
  button:disabled {
    background: var(--sheet);
    border-color: var(--line);
    color: var(--ink-3);
    border-style: dashed;
    cursor: default;
  }
</style>
