<!-- Do anything by typing: places, actions, buildings. -->
<script lang="ts">
  export interface Action {
    text: string;
    /** Other words that people type for it. */
    words?: string;
    keys?: string;
    run: () => void;
  }
  interface Props {
    actions: readonly Action[];
    /** What the typed words themselves ask for, such as a thickness. */
    asked: (typed: string) => readonly Action[];
    onclose: () => void;
  }
  let { actions, asked, onclose }: Props = $props();
  let typed = $state('');
  let at = $state(0);
  let input = $state<HTMLInputElement>();
  let leaving: ReturnType<typeof setTimeout> | undefined;
  const found = $derived.by(() => {
    const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
    const told = (action: Action) => action.text.toLowerCase();
    const every = (action: Action) => `${told(action)} ${action.words ?? ''}`;
    const by = (where: (action: Action) => string) =>
      actions.filter((action) => words.every((word) => where(action).includes(word)));
    // What says the words itself stands before what they are only another name for.
    return [...new Set([...asked(typed), ...by(told), ...by(every)])].slice(0, 12);
  });
  $effect(() => {
    const back = document.activeElement;
    input?.focus();
    return () => {
      clearTimeout(leaving); // else it would close the next one
      if (back instanceof HTMLElement && back.isConnected) back.focus();
    };
  });
  function key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Escape') onclose();
    else if (event.key === 'ArrowDown') at = Math.min(at + 1, found.length - 1);
    else if (event.key === 'ArrowUp') at = Math.max(at - 1, 0);
    else if (event.key === 'Enter') choose(found[at]);
    else return;
    event.preventDefault();
  }
  function choose(action: Action | undefined): void {
    if (!action) return;
    onclose();
    action.run();
  }
</script>

<div class="palette" role="dialog" aria-label="Do anything">
  <input
    bind:this={input}
    bind:value={typed}
    oninput={() => (at = 0)}
    onkeydown={key}
    onblur={() => (leaving = setTimeout(onclose, 150))}
    role="combobox"
    aria-expanded="true"
    aria-controls="palette-list"
    aria-activedescendant="palette-{at}"
    aria-label="Type what you want"
    placeholder="Type what you want: core, basis, a building, undo"
    autocomplete="off"
  />
  <ul id="palette-list" role="listbox">
    {#each found as action, index (action)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li
        id="palette-{index}"
        role="option"
        aria-selected={index === at}
        class:on={index === at}
        onmousedown={(event) => event.preventDefault()}
        onclick={() => choose(action)}
      >
        {action.text}{#if action.keys}<kbd>{action.keys}</kbd>{/if}
      </li>
    {:else}
      <li class="none" role="option" aria-selected="false">Nothing by these words.</li>
    {/each}
  </ul>
</div>

<style>
  .palette {
    position: fixed;
    top: 48px;
    left: 50%;
    width: 520px;
    max-width: 96vw;
    margin-left: -260px;
    background: var(--sheet-bright);
    border: 1.5px solid var(--ink);
    z-index: 9;
  }
  input {
    width: 100%;
    border: 0;
    border-bottom: 1px solid var(--line);
    background: none;
    padding: 10px 14px;
    font-size: var(--fs-lead);
    outline: none;
  }
  ul {
    list-style: none;
    padding: 4px 0;
  }
  li {
    padding: 5px 14px;
    display: flex;
    justify-content: space-between;
    cursor: pointer;
  }
  .on {
    background: var(--verdigris-wash);
  }
  .none {
    color: var(--ink-3);
  }
</style>
