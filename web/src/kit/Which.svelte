<!-- Several things of one place, and the one that is looked at. -->
<script lang="ts">
  interface Props {
    label: string;
    options: readonly { id: string; name: string }[];
    chosen: string | undefined;
    onchoose: (id: string) => void;
  }
  let { label, options, chosen, onchoose }: Props = $props();
</script>

<nav aria-label={label}>
  {#each options as one (one.id)}
    <button class:on={one.id === chosen} aria-pressed={one.id === chosen} onclick={() => onchoose(one.id)}
      >{one.name}</button
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 6px;
  }
  button {
    border: 0;
    border-bottom: 2px solid transparent;
    background: none;
    padding: 2px 10px;
    min-height: 24px;
    color: var(--ink-2);
  }
  .on {
    border-bottom-color: var(--verdigris);
    color: var(--verdigris);
    font-weight: 600;
  }
</style>
