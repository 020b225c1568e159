<!-- The four lines of control at a station, as the mast shows them: whole, open or broken, each by its shape. -->
<script lang="ts">
  import type { WalkStop } from '@/api/client';
  import { LINES, worstOf } from './walk';

  interface Props {
    stops: readonly WalkStop[];
  }
  let { stops }: Props = $props();
  const states = $derived(LINES.map((line) => ({ line, state: worstOf(stops, line) })));
  const words = $derived(
    states
      .filter(({ state }) => state === 'broken' || state === 'undecided')
      .map(({ line, state }) => `${line} ${state}`)
      .join(', ') || 'every line continuous',
  );
</script>

{#if stops.length}
  <svg width="56" height="10" role="img" aria-label={words}>
    <title>{words}</title>
    {#each states as { line, state }, at (line)}
      <path class={state} d="M{at * 14 + 1} 5h11" />
      {#if state === 'broken'}<path class="cut" d="M{at * 14 + 4} 1l5 8" />{/if}
    {/each}
  </svg>
{/if}

<style>
  path {
    stroke: var(--ink);
    stroke-width: 2;
    fill: none;
  }
  .undecided {
    stroke: var(--ink-2);
    stroke-dasharray: 2 2.5;
  }
  .broken {
    stroke: var(--oxide);
    stroke-dasharray: 4 3.5;
  }
  .cut {
    stroke: var(--oxide);
    stroke-width: 1.5;
  }
  .none {
    stroke: none;
  }
</style>
