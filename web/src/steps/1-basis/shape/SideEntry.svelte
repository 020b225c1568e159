<!-- A length of a side as it is typed on the drawing; the module speaks beside it. -->
<script lang="ts">
  import type { DrawnSide } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import { readDimension } from './dimension';

  interface Props {
    side: DrawnSide;
    at: { x: number; y: number };
    units: Units;
    onpreview: (length: number) => void;
    onapply: (length: number) => void;
    oncancel: () => void;
  }
  let { side, at, units, onpreview, onapply, oncancel }: Props = $props();
  // It begins with what stands there; what is typed with a sign is put to that.
  let text = $state(untrack(() => units.length(side.length)));
  const begun = untrack(() => side.length);
  let input = $state<HTMLInputElement>();
  $effect(() => input?.select());
  const found = $derived(readDimension(text, units, begun, side.fit?.module));
  const length = $derived('value' in found ? found.value : undefined);
  const QUARTERS = ['', ' 1/4', ' 1/2', ' 3/4', ''];
  /** As the server has it of what is being typed. */
  const modules = $derived(
    side.fit && {
      said: `${side.fit.whole + (side.quarters === 4 ? 1 : 0)}${QUARTERS[side.quarters]} modules`,
      left: side.fit.left_over,
      closes: side.fit.left_over > 0 ? side.fit.closes : [],
    },
  );
  function typing(value: string): void {
    text = value;
    if (length !== undefined && length > 0) onpreview(length);
  }
  function key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Enter') {
      event.preventDefault();
      if (length !== undefined && length > 0) onapply(length);
    } else if (event.key === 'Escape') {
      event.preventDefault();
      oncancel();
    }
  }
</script>

<div class="entry" data-testid="side-entry" style="left:{at.x}px; top:{at.y}px">
  <label
    ><span class="visually-hidden">Length of side {side.side + 1}</span><input
      bind:this={input}
      value={text}
      aria-invalid={length === undefined}
      oninput={(event) => typing(event.currentTarget.value)}
      onkeydown={key}
    /></label
  >
  {#if 'why' in found}
    <p class="wrong" role="alert">
      “{text}”: {found.why}; write {units.system === 'SI'
        ? '8 400, 8.4m, 7 modules or +300'
        : `28' 6 1/2", 7 modules or +12`}.
    </p>
  {:else if length !== undefined}
    {#if modules}
      <p class:closed={!modules.left}>
        {modules.said}{#if modules.left}: {units.full(modules.left, 'length')} left over. Closes at{:else},
          closed.{/if}
      </p>
      {#each modules.closes as one (one)}
        <button onclick={() => onapply(one)}>{units.length(one)}</button>
      {/each}
    {/if}
  {/if}
  <p class="soft"><kbd>Enter</kbd> takes, <kbd>Esc</kbd> goes back</p>
</div>

<style>
  .entry {
    position: fixed;
    z-index: 20;
    transform: translateX(-50%);
    background: var(--sheet-bright);
    border: 1.5px solid var(--verdigris);
    padding: 6px 8px;
    width: 190px;
  }
  input {
    width: 100%;
    font: 600 15px var(--mono);
    text-align: right;
    border: 0;
    border-bottom: 1px solid var(--line);
    background: none;
  }
  p {
    margin: 3px 0;
    font-size: 12.5px;
    color: var(--ochre);
  }
  .closed {
    color: var(--ink-2);
  }
  .wrong {
    color: var(--oxide);
  }
  .soft {
    color: var(--ink-3);
  }
  button {
    border: 1px solid var(--verdigris);
    color: var(--verdigris);
    background: none;
    font: 500 12.5px var(--mono);
    padding: 2px 8px;
    margin-right: 4px;
    min-height: 24px;
  }
</style>
