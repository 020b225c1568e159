<!-- The lines that keep rain, wind, air, vapour and heat, drawn under the section on the wall's own x. -->
<script lang="ts">
  import type { Line } from '@/api/client';
  import type { Slab } from './section';

  interface Props {
    lines: readonly Line[];
    drawn: readonly Slab[];
    left: number;
    right: number;
    width: number;
  }
  let { lines, drawn, left, right, width }: Props = $props();
  const ROW = 11;
</script>

<svg
  {width}
  height={lines.length * ROW + 4}
  role="img"
  aria-label="Control lines: {lines
    .map(
      (line) =>
        `${line.control} ${line.layers.length ? `by layer ${line.layers.map((at) => at + 1).join(' and ')}` : 'undecided'}${line.pierced ? ', pierced by services' : ''}`,
    )
    .join('; ')}"
>
  {#each lines as line, at (line.control)}
    {@const y = at * ROW + 8}
    <text class:undecided={!line.layers.length} x={left - 12} y={y + 4} text-anchor="end">{line.control}</text
    >
    <path class="rail" class:undecided={!line.layers.length} d="M{left} {y}H{right}" />
    {#each drawn.filter((slab) => line.layers.includes(slab.index)) as slab (slab.layer.id)}
      {@const x0 = Math.min(slab.x0, (slab.x0 + slab.x1) / 2 - 3)}
      {@const x1 = Math.max(slab.x1, (slab.x0 + slab.x1) / 2 + 3)}
      <rect class="mark" class:pierced={line.pierced} x={x0} y={y - 3} width={x1 - x0} height="6" />
    {/each}
    {#if !line.layers.length}<text class="undecided" x={(left + right) / 2} y={y + 4} text-anchor="middle"
        >undecided</text
      >{/if}
  {/each}
</svg>

<style>
  text {
    font-size: 11px;
    fill: var(--ink-2);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
  }
  text.undecided {
    fill: var(--ochre);
  }
  .rail {
    stroke: var(--hair);
    stroke-width: 1;
    fill: none;
  }
  .rail.undecided {
    stroke-dasharray: 3 4;
  }
  .mark {
    fill: var(--ink);
  }
  .mark.pierced {
    fill: var(--sheet);
    stroke: var(--ochre-line);
    stroke-dasharray: 3 2;
  }
</style>
