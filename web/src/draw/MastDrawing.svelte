<!-- One drawn section of the building, ridge to footing, that the stations hang on. The wall is drawn with its layers. -->
<script lang="ts">
  import type { Assembly, Material } from '@/api/client';

  interface Props {
    /** Wall assembly at station D, if drawn. */
    wall: Assembly | undefined;
    materials: Map<string, Material>;
    /** Stations that are set: dashed outline otherwise. */
    set: ReadonlySet<string>;
    chosen: string;
    height: number;
  }
  let { wall, materials, set, chosen, height }: Props = $props();
  const row = $derived(height / 8);
  const X0 = 10;
  const X1 = 30;
  const layers = $derived.by(() => {
    if (!wall) return [];
    const whole = wall.layers.reduce((sum, layer) => sum + layer.d, 0);
    let x = X0;
    return wall.layers.toReversed().map((layer) => {
      const width = (layer.d / whole) * (X1 - X0);
      const slab = {
        x,
        width,
        hatch: layer.material ? materials.get(layer.material)?.hatch : undefined,
        id: layer.id,
      };
      x += width;
      return slab;
    });
  });
  const pieces = $derived([
    [row * 2.55, row * 4.25],
    [row * 4.85, row * 6.5],
  ]);
</script>

<svg width="72" {height} viewBox="0 0 72 {height}" aria-hidden="true">
  <!-- roof, ridge and eave -->
  <path
    class="cut"
    class:unset={!set.has('B')}
    class:on={chosen === 'B'}
    d="M{X0} {row * 2.5}L62 {row * 0.3}V{row * 0.62}L{X1 - 2} {row * 2.5}Z"
  />
  {#if set.has('B')}<path
      class="hatch"
      fill="url(#h-foam-s)"
      d="M{X0} {row * 2.5}L62 {row * 0.3}V{row * 0.62}L{X1 - 2} {row * 2.5}Z"
    />{/if}
  <path class="heavy" d="M{X0 - 4} {row * 2.56}L62 {row * 0.25}" />
  <!-- wall, in two lifts, with the opening between -->
  {#each pieces as [from, to], at (at)}
    {#if from !== undefined && to !== undefined}
      {#each layers as slab (slab.id)}
        <rect class="ground" x={slab.x} y={from} width={slab.width} height={to - from} />
        {#if slab.hatch}<rect
            x={slab.x}
            y={from}
            width={slab.width}
            height={to - from}
            fill="url(#h-{slab.hatch}-s)"
          />{/if}
        <path class="face" d="M{slab.x} {from}V{to}" />
      {/each}
      <rect
        class="cut bare"
        class:unset={!set.has('D')}
        class:on={chosen === 'D'}
        x={X0}
        y={from}
        width={X1 - X0}
        height={to - from}
      />
    {/if}
  {/each}
  <path class="brk" d="M4 {row * 3.4}h8l3-5 5 10 3-5h14" />
  <!-- opening -->
  <path
    class="pane"
    class:unset={!set.has('E')}
    class:on={chosen === 'E'}
    d="M18 {row * 4.25}V{row * 4.85}M22 {row * 4.25}V{row * 4.85}"
  />
  <rect class="cut" x={X0 - 2} y={row * 4.8} width={X1 - X0 + 2} height="5" />
  <!-- floor line -->
  <rect class="cut" class:unset={!set.has('F')} x={X1} y={row * 5.62} width="36" height="5" />
  <!-- sill, footing, slab, ground -->
  <rect class="cut" x={X0} y={row * 6.5} width={X1 - X0} height="6" />
  <rect class="cut" x={X0} y={row * 6.5 + 6} width={X1 - X0} height={row * 0.95} />
  <rect fill="url(#h-concrete-s)" x={X0} y={row * 6.5 + 6} width={X1 - X0} height={row * 0.95} />
  <rect class="cut" x={X0 - 5} y={row * 7.45 + 6} width={X1 - X0 + 10} height="16" />
  <rect
    class="cut"
    class:unset={!set.has('H')}
    class:on={chosen === 'H'}
    x={X1}
    y={row * 7 + 2}
    width="36"
    height="9"
  />
  <rect class="cut" x={X1} y={row * 7 + 11} width="36" height="10" />
  {#if set.has('H')}<rect fill="url(#h-foam-s)" x={X1} y={row * 7 + 11} width="36" height="10" />{/if}
  <path class="heavy" d="M2 {row * 6.95}H{X0}" />
  <rect fill="url(#h-earth-s)" x="0" y={row * 6.95} width={X0 - 5} height={row * 0.95} />
</svg>

<style>
  .cut {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.1;
    stroke-linejoin: round;
  }
  .bare {
    fill: none;
  }
  .face {
    stroke: var(--ink);
    stroke-width: 0.5;
  }
  .unset {
    stroke-dasharray: 4 3;
    stroke: var(--line);
  }
  .on {
    stroke: var(--verdigris);
    stroke-width: 2.25;
  }
  .heavy {
    stroke: var(--ink);
    stroke-width: 2;
    fill: none;
  }
  .brk {
    stroke: var(--ink-2);
    stroke-width: 0.75;
    fill: none;
  }
  .pane {
    stroke: var(--ink);
    stroke-width: 1;
    fill: none;
  }
</style>
