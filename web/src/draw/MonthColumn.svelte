<!-- One month of a drawn year: chosen by a click or by arrow keys, which go round the year. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    month: number;
    /** The months as they are drawn, and which of them is chosen. */
    order: readonly number[];
    chosen: number | undefined;
    /** What the month has, in words. */
    told: string;
    x: number;
    y?: number;
    width: number;
    height: number;
    /** Filled where it is chosen; else outlined only. */
    filled?: boolean;
    onmonth: (month: number) => void;
    children: Snippet;
  }
  let {
    month,
    order,
    chosen,
    told,
    x,
    y = 0,
    width,
    height,
    filled = false,
    onmonth,
    children,
  }: Props = $props();
  const cell = $derived(order.indexOf(month));
  /** One column of the year is reached by Tab: the chosen one, else the first. */
  const reached = $derived(chosen === month || (chosen === undefined && cell === 0));

  function key(event: KeyboardEvent & { currentTarget: SVGGElement }): void {
    if (event.key === 'Enter' || event.key === ' ') onmonth(month);
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (!by) return;
    event.preventDefault();
    const to = (cell + by + order.length) % order.length;
    onmonth(order[to] ?? 0);
    event.currentTarget.ownerSVGElement?.querySelectorAll<SVGGElement>('[data-month]')[to]?.focus();
  }
</script>

<g
  class="button"
  class:on={chosen === month}
  class:filled
  data-month={month}
  role="button"
  tabindex={reached ? 0 : -1}
  aria-label={told}
  aria-pressed={chosen === month}
  onclick={() => onmonth(month)}
  onkeydown={key}
>
  <rect class="field" {x} {y} {width} {height} />
</g>
<!-- Drawn beside the button, not in it: its name says in words what the drawing says in figures. -->
<g class="drawn" class:on={chosen === month}>{@render children()}</g>

<style>
  .button {
    cursor: pointer;
  }
  .drawn {
    pointer-events: none;
  }
  .button:focus {
    outline: none;
  }
  .field {
    fill: transparent;
  }
  .on > .field {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
  .on.filled > .field {
    fill: var(--verdigris-wash);
    stroke-width: 1;
  }
  .button:focus-visible > .field {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .on :global(.name) {
    font-weight: 600;
    fill: var(--ink);
  }
</style>
