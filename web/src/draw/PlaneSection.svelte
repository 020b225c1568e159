<!-- A section with its control plane as a slider: where room air stays below 80 %, and how warm and humid each place is. -->
<script lang="ts">
  import type { Assembly, Material, Position } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { lineThrough } from './chart';
  import { slabs } from './section';

  interface Props {
    assembly: Assembly;
    materials: Map<string, Material>;
    position: Position;
    units: Units;
    /** Relative humidity that air at the plane should not pass, 0…1. */
    limit: number;
    /** From the inner face [m]. */
    x: number;
    onmove: (x: number) => void;
  }
  let { assembly, materials, position, units, limit, x, onmove }: Props = $props();
  let width = $state(700);
  let dragging = false;
  const H = 200;
  const TOP = 26;
  const LEFT = 40;
  const RIGHT = 40;
  const depth = $derived(position.x.at(-1) ?? 0.1);
  const counted = $derived.by(() => {
    let sum = 0;
    return assembly.layers.filter((layer) => (sum += layer.d) <= depth + 1e-6);
  });
  const scale = $derived((width - LEFT - RIGHT) / depth);
  const drawn = $derived(slabs(counted, LEFT, scale));
  const px = (at: number) => LEFT + (depth - at) * scale;
  const phi = (value: number) => TOP + H - value * H;
  const line = $derived(lineThrough(position.x, px, (_, n) => phi(position.phi[n] ?? 0)));
  function at(event: PointerEvent): void {
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const to = depth - (event.clientX - box.left - LEFT) / scale;
    onmove(Math.min(Math.max(to, 0), depth));
  }
  function key(event: KeyboardEvent): void {
    const by = { ArrowRight: -1, ArrowLeft: 1, PageUp: 10, PageDown: -10 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation(); // these keys also lead from station to station
    onmove(Math.min(Math.max(x + by * 0.001 * (event.shiftKey ? 10 : 1), 0), depth));
  }
</script>

<div bind:clientWidth={width}>
  <svg
    {width}
    height={TOP + H + 40}
    role="slider"
    tabindex="0"
    aria-label="Control plane, from the inner face"
    aria-valuemin="0"
    aria-valuemax={Math.round(1000 * depth)}
    aria-valuenow={Math.round(1000 * x)}
    aria-valuetext="{units.full(x, 'length')} from the inner face"
    data-testid="plane"
    onpointerdown={(event) => {
      dragging = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      at(event);
    }}
    onpointermove={(event) => dragging && at(event)}
    onpointerup={() => (dragging = false)}
    onkeydown={key}
  >
    {#each drawn as slab (slab.layer.id)}
      {@const pattern = materials.get(slab.layer.material ?? '')?.hatch}
      <rect class="ground" x={slab.x0} y={TOP} width={slab.x1 - slab.x0} height={H} />
      {#if pattern}<rect
          x={slab.x0}
          y={TOP}
          width={slab.x1 - slab.x0}
          height={H}
          fill="url(#h-{pattern}-s)"
        />{/if}
    {/each}
    <rect class="beyond" x={LEFT} y={TOP} width={Math.max(px(position.x_safe) - LEFT, 0)} height={H} />
    {#each drawn as slab (slab.layer.id)}
      <rect class="edge" x={slab.x0} y={TOP} width={slab.x1 - slab.x0} height={H} />
    {/each}
    <line class="limit" x1={LEFT} x2={width - RIGHT} y1={phi(limit)} y2={phi(limit)} />
    <path class="halo" d={line} />
    <path class="phi" d={line} />
    <text class="axis" x={width - RIGHT + 5} y={phi(limit) + 4}>{units.show(limit, 'share', 0)} %</text>
    <text class="axis" x={width - RIGHT + 5} y={phi(1) + 8}>100 %</text>
    <path class="safe" d="M{px(position.x_safe)} {TOP - 8}V{TOP + H + 8}" />
    <text class="safe-text" x={px(position.x_safe) + 4} y={TOP - 12}
      >{units.show(position.safe, 'share', 0)} % of R inside: the most that is safe</text
    >
    {#if position.x_now !== null}
      <path class="now" d="M{px(position.x_now)} {TOP}V{TOP + H}" />
    {/if}
    <line class="plane" x1={px(x)} x2={px(x)} y1={TOP - 6} y2={TOP + H + 6} />
    <path class="grip" d="M{px(x) - 7} {TOP + H + 6}h14v10l-7 6l-7 -6z" />
    <text class="axis" x={LEFT} y={TOP + H + 34}>outside</text>
    <text class="axis" x={width - RIGHT} y={TOP + H + 34} text-anchor="end">inside</text>
  </svg>
</div>

<style>
  svg {
    cursor: ew-resize;
    touch-action: none;
  }
  svg:focus-visible {
    outline: none;
    box-shadow: var(--focus);
  }
  .beyond {
    fill: var(--ochre-wash);
    opacity: 0.72;
  }
  .edge {
    stroke-width: 1;
  }
  .limit {
    stroke: var(--ink-2);
    stroke-dasharray: 5 3;
  }
  .phi {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .safe {
    stroke: var(--ochre-line);
    stroke-width: 2;
  }
  .safe-text {
    font-size: var(--fs-small);
    font-weight: 600;
    fill: var(--ochre);
  }
  .now {
    stroke: var(--ink);
    stroke-width: 2;
    stroke-dasharray: 2 4;
  }
  .plane {
    stroke: var(--verdigris);
    stroke-width: 3;
  }
  .grip {
    fill: var(--verdigris);
  }
</style>
