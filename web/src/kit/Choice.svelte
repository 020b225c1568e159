<!-- One of several words. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { refusals } from './refusals.svelte';
  interface Option {
    value: string;
    text: string;
    group?: string;
  }
  interface Props {
    value: string;
    options: readonly Option[];
    label: string;
    onsave: (value: string) => void;
    showLabel?: boolean;
  }
  let { value, options, label, onsave, showLabel = true }: Props = $props();
  const uid = $props.id();
  let select = $state<HTMLSelectElement>();
  let wrong = $state('');
  $effect(() => {
    const last = refusals.last;
    untrack(() => {
      if (!last?.problem) wrong = '';
      if (!last?.problem || last.field !== uid) return;
      wrong = last.problem.clause;
      refusals.shown = last.problem;
      if (select) select.value = value; // what was chosen does not stand
    });
  });
  const groups = $derived([...new Set(options.map((option) => option.group ?? ''))]);
</script>

<span class="choice" class:refused={wrong}>
  <label for={uid} class:visually-hidden={!showLabel}>{label}</label>
  <select
    bind:this={select}
    aria-invalid={wrong ? 'true' : undefined}
    aria-describedby={wrong ? `${uid}-why` : undefined}
    id={uid}
    {value}
    onchange={(event) => {
      const chosen = event.currentTarget.value;
      refusals.writing(uid, () => onsave(chosen));
    }}
  >
    {#each groups as group (group)}
      {#if group}
        <optgroup label={group}>
          {#each options.filter((option) => option.group === group) as option (option.value)}
            <option value={option.value}>{option.text}</option>
          {/each}
        </optgroup>
      {:else}
        {#each options.filter((option) => !option.group) as option (option.value)}
          <option value={option.value}>{option.text}</option>
        {/each}
      {/if}
    {/each}
  </select>
  {#if wrong}<span class="why" id="{uid}-why" role="alert">{wrong}. The old value stands.</span>{/if}
</span>

<style>
  .choice {
    display: inline-flex;
    align-items: center;
    gap: var(--s1) var(--s2);
    min-width: 0;
  }
  .refused {
    flex-wrap: wrap;
  }
  .why {
    flex-basis: 100%;
    color: var(--oxide);
    font-size: var(--fs-small);
    font-weight: 500;
  }
  label {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  select {
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet-bright);
    padding: 2px 4px;
    min-height: 24px;
    max-width: 190px;
    font-size: 12.5px;
  }
</style>
