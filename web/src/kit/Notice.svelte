<!-- What needs a decision or care: one sentence and its way out. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  interface Props {
    tone?: 'decision' | 'caution' | 'note';
    title: string;
    text?: string;
    children?: Snippet;
    live?: boolean;
  }
  let { tone = 'decision', title, text = '', children, live = false }: Props = $props();
</script>

<div class="notice {tone}" role={live ? 'alert' : undefined}>
  <p>
    {#if tone === 'decision'}<i aria-hidden="true"></i>{/if}<b>{title}</b>
    {text}
  </p>
  {#if children}<div class="acts">{@render children()}</div>{/if}
</div>

<style>
  .notice {
    border-left: 4px solid var(--hair);
    padding: 6px 10px;
    font-size: 12.5px;
    line-height: 1.35;
  }
  .decision {
    border-color: var(--oxide);
    background: var(--oxide-wash);
  }
  .decision b {
    color: var(--oxide);
  }
  .caution {
    border-color: var(--ochre-line);
    background: var(--ochre-wash);
  }
  .caution b {
    color: var(--ochre);
  }
  .note {
    padding-block: 2px;
  }
  i {
    display: inline-block;
    width: 7px;
    height: 7px;
    background: var(--oxide);
    margin-right: 6px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    margin-top: 6px;
  }
</style>
