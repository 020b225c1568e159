<!-- A build-up drawn small and to a stated scale, outside on the left: hatches and edges only. -->
<script lang="ts">
  import type { Assembly, Material } from '@/api/client';
  import { slabs } from './section';

  interface Props {
    assembly: Assembly;
    materials: Map<string, Material>;
    /** px per metre. */
    scale: number;
    height: number;
    /** Layers that differ from another build-up: drawn with a heavier outline. */
    marked?: ReadonlySet<string>;
  }
  let { assembly, materials, scale, height, marked = new Set() }: Props = $props();
  const drawn = $derived(slabs(assembly.layers, 2, scale));
  const width = $derived((drawn.at(-1)?.x1 ?? 2) + 2);
  const hatch = (key: string | undefined) => materials.get(key ?? '')?.hatch;
</script>

<svg {width} height={height + 4} aria-hidden="true">
  {#each drawn as slab (slab.layer.id)}
    {@const pattern = hatch(slab.layer.material)}
    {@const wide = slab.x1 - slab.x0}
    <rect class="ground" class:air={!slab.layer.material} x={slab.x0} y="2" width={wide} {height} />
    {#if pattern}<rect
        x={slab.x0}
        y="2"
        width={wide}
        {height}
        fill="url(#h-{pattern}{marked.has(slab.layer.id) ? '-yours' : wide < 20 ? '-s' : ''})"
      />{/if}
    <rect class="edge" x={slab.x0} y="2" width={wide} {height} />
  {/each}
  {#each drawn.filter((slab) => marked.has(slab.layer.id)) as slab (slab.layer.id)}
    <rect class="marked" x={slab.x0} y="2" width={slab.x1 - slab.x0} {height} />
  {/each}
</svg>

<style>
  svg {
    overflow: visible;
  }
  .ground.air {
    fill: var(--sheet);
  }
  .edge {
    stroke-width: 1;
  }
  .marked {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
  }
</style>
