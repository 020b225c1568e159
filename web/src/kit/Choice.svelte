<!-- One of several words. -->
<script lang="ts">
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
  const groups = $derived([...new Set(options.map((option) => option.group ?? ''))]);
</script>

<span class="choice">
  <label for={uid} class:visually-hidden={!showLabel}>{label}</label>
  <select id={uid} {value} onchange={(event) => onsave(event.currentTarget.value)}>
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
</span>

<style>
  .choice {
    display: inline-flex;
    align-items: center;
    gap: var(--s2);
    min-width: 0;
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
