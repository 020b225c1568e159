<!-- Which cores the foam study sweeps: left out, added, pointed at. -->
<script lang="ts">
  import { session } from '@/project/session.svelte';

  interface Props {
    /** The build-up's own core: it stays. */
    own: string;
    cores: string[];
    chosen: string;
    name: (core: string) => string;
    onadd: (core: string) => void;
    ondrop: (core: string) => void;
  }
  let { own, cores, chosen = $bindable(), name, onadd, ondrop }: Props = $props();
  const addable = $derived(
    [...session.materials.values()].filter(
      (one) =>
        (one.family === 'foam' || one.family === 'fibre') && one.key !== own && !cores.includes(one.key),
    ),
  );
</script>

<div class="pickers" role="group" aria-label="Cores" data-testid="foam-cores">
  <span class="soft">Cores</span>
  {#each [own, ...cores.filter((key) => key !== own)] as key (key)}
    <span class="chip" class:on={chosen === key}>
      <button aria-pressed={chosen === key} onclick={() => (chosen = chosen === key ? '' : key)}
        >{name(key)}</button
      >
      {#if key !== own}<button aria-label="Leave out {name(key)}" onclick={() => ondrop(key)}
          >leave out</button
        >{/if}
    </span>
  {/each}
  <select
    aria-label="Add a core"
    value=""
    onchange={(event) => {
      const key = event.currentTarget.value;
      if (key) onadd(key);
      event.currentTarget.value = '';
    }}
  >
    <option value="">add a core</option>
    {#each addable as one (one.key)}<option value={one.key}>{one.name}</option>{/each}
  </select>
</div>

<style>
  .pickers {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
    margin: 8px 0 4px;
  }
  .chip {
    border: 1px solid var(--line);
    display: inline-flex;
  }
  .chip button {
    border: 0;
    background: none;
    min-height: 24px;
    padding: 0 6px;
    font-size: var(--fs-small);
  }
  .chip button + button {
    border-left: 1px solid var(--hair);
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .chip.on {
    background: var(--verdigris-wash);
    border-color: var(--verdigris);
  }
</style>
