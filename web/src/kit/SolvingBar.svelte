<!-- Where a long solution is, and a way to stop it. -->
<script lang="ts">
  import type { Solving } from '@/api/solving.svelte';
  import Button from './Button.svelte';

  interface Props {
    solving: Solving;
    /** What is being solved. */
    name: string;
  }
  let { solving, name }: Props = $props();
</script>

{#if solving.text}
  <span class="bar" role="status" aria-label="{name}: {solving.text}">
    <i></i>{solving.text}
    <Button label="Stop {name}" onclick={() => solving.stop()}>Stop</Button>
  </span>
{/if}

<style>
  .bar {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  i {
    width: 26px;
    height: 3px;
    background: repeating-linear-gradient(90deg, var(--verdigris) 0 6px, transparent 6px 10px);
  }
</style>
