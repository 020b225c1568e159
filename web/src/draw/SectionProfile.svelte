<!-- The section at one moment of a run: temperature and relative humidity from outside, on the left, to inside. -->
<script lang="ts">
  import type { Assembly, HoursRun, Material } from '@/api/client';
  import type { States } from './states';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';
  import { slabs } from './section';

  interface Props {
    assembly: Assembly;
    materials: Map<string, Material>;
    run: HoursRun;
    field: States;
    /** Relative humidity from which mould may grow, 0…1. */
    limit: number;
    /** Which of the kept states. */
    state: number;
    units: Units;
  }
  let { assembly, materials, run, field, limit, state: moment, units }: Props = $props();
  let width = $state(600);
  const TOP = 12;
  const H = 190;
  const LEFT = 44;
  const RIGHT = 44;
  const depth = $derived(assembly.layers.reduce((sum, layer) => sum + layer.d, 0));
  const scale = $derived((width - LEFT - RIGHT) / Math.max(depth, 0.001));
  const drawn = $derived(slabs(assembly.layers, LEFT, scale));
  const px = (x: number) => LEFT + (depth - x) * scale;
  const points = $derived(run.x.map((x, place) => ({ x, ...field.at(moment, place) })));
  const COLD = -30;
  const WARM = 50;
  const yT = scaleLinear([COLD, WARM], [TOP + H, TOP]).clamp(true);
  const yP = (phi: number) => TOP + H - phi * H;
  const line = (y: (point: (typeof points)[number]) => number) =>
    lineThrough(points, (point) => px(point.x), y);
  const ticks = $derived(ticksOf(units, 'temperature', COLD, WARM, 5));
  const outer = $derived(points.at(-1));
  const inner = $derived(points[0]);
</script>

<div bind:clientWidth={width}>
  <svg {width} height={TOP + H + 22} role="img" aria-label="Temperature and humidity through the section">
    {#each drawn as slab (slab.layer.id)}
      {@const pattern = materials.get(slab.layer.material ?? '')?.hatch}
      <rect class="ground" x={slab.x0} y={TOP} width={slab.x1 - slab.x0} height={H} />
      {#if pattern}<rect
          x={slab.x0}
          y={TOP}
          width={slab.x1 - slab.x0}
          height={H}
          opacity="0.55"
          fill="url(#h-{pattern}-s)"
        />{/if}
      <rect class="edge" x={slab.x0} y={TOP} width={slab.x1 - slab.x0} height={H} />
    {/each}
    {#each ticks as tick (tick.value)}
      <text class="axis" x={LEFT - 6} y={yT(tick.value) + 4} text-anchor="end">{tick.shown}°</text>
    {/each}
    {#each [0, 0.5, limit, 1] as tick (tick)}
      <text class="axis humid" x={width - RIGHT + 6} y={yP(tick) + 4}>{100 * tick} %</text>
    {/each}
    <line class="eighty" x1={LEFT} x2={width - RIGHT} y1={yP(limit)} y2={yP(limit)} />
    <path class="halo" d={line((point) => yP(point.phi))} />
    <path class="phi" d={line((point) => yP(point.phi))} />
    <path class="halo" d={line((point) => yT(point.theta))} />
    <path class="theta" d={line((point) => yT(point.theta))} />
    {#if outer && inner}
      <text class="axis" x={LEFT} y={TOP + H + 17}
        >outside {units.show(outer.theta, 'temperature', 1)}°, {units.show(outer.phi, 'share', 0)} %</text
      >
      <text class="axis" x={width - RIGHT} y={TOP + H + 17} text-anchor="end"
        >inside {units.show(inner.theta, 'temperature', 1)}°, {units.show(inner.phi, 'share', 0)} %</text
      >
    {/if}
  </svg>
</div>

<style>
  .axis {
    font-size: var(--fs-cap);
  }
  .humid {
    fill: var(--ochre);
  }
  .eighty {
    stroke: var(--ochre-line);
    stroke-dasharray: 5 3;
  }
  .phi {
    fill: none;
    stroke: var(--ochre-line);
    stroke-width: 2;
  }
  .theta {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
</style>
