<!-- Dimension lines below a section. -->
<script lang="ts">
  import type { Units } from '@/kit/units';
  import type { Frame, Slab } from './section';

  interface Props {
    drawn: Slab[];
    frame: Frame;
    units: Units;
  }
  let { drawn, frame, units }: Props = $props();
  const { left, right, bottom, dimY, overallY } = $derived(frame);
</script>

<!-- dimensions -->
{#each [...drawn.map((slab) => slab.x0), right] as x, at (at)}
  <path class="dim" d="M{x} {bottom + 4}V{dimY + 5}M{x - 4} {dimY + 4}L{x + 4} {dimY - 4}" />
{/each}
<path class="dim" d="M{left} {dimY}H{right}" />
{#each [left, right] as x, at (at)}
  <path class="dim" d="M{x} {dimY + 5}V{overallY + 5}M{x - 4} {overallY + 4}L{x + 4} {overallY - 4}" />
{/each}
<path class="dim" d="M{left} {overallY}H{right}" />
<text class="mono halo" x={(left + right) / 2} y={overallY - 4} text-anchor="middle"
  >{units.length(drawn.reduce((sum, slab) => sum + slab.layer.d, 0))} overall</text
>
<text class="side" x={left - 10} y={dimY + 4} text-anchor="end">outside</text>
<text class="side" x={right + 10} y={dimY + 4}>inside</text>

<style>
  text {
    font-size: var(--fs-base);
  }
  .mono {
    font-family: var(--mono);
    font-size: var(--fs-small);
    letter-spacing: -0.02em;
  }
  .side {
    fill: var(--ink-2);
    font-weight: 600;
  }
  .dim {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
  }
</style>
