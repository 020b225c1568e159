<!-- The wall to scale, outside to inside: hatched layers, leaders, temperature line, dimensions to drag and type on. -->
<script lang="ts">
  import type { Assembly, BenchOut, Material } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { dimensionRows, dragged, flags, slabs, Words } from './section';
  import SectionDimensions from './SectionDimensions.svelte';
  import SectionLayers from './SectionLayers.svelte';
  import SectionTable from './SectionTable.svelte';
  import SectionTemperature from './SectionTemperature.svelte';
  import SectionThicknesses from './SectionThicknesses.svelte';

  interface Props {
    assembly: Assembly;
    found: BenchOut | undefined;
    stale: boolean;
    materials: Map<string, Material>;
    units: Units;
    selected: number;
    ghost: { layer: string; d: number } | undefined;
    left: number;
    scale: number;
    width: number;
    /** Height of the drawn wall. */
    body: number;
    /** Where down is, for what is stood upright: roofs and floors. */
    down?: 'left' | 'right' | undefined;
    onselect: (index: number) => void;
    onhold: () => void;
    onrelease: () => void;
    onmove: (index: number, d: number) => void;
    onthickness: (index: number, d: number, from: number) => void;
    onnudge: (index: number, by: number) => void;
    onwork: (figure: string, title: string, dimension: string) => void;
    refused: string | undefined;
  }
  let {
    assembly,
    found,
    stale,
    materials,
    units,
    selected,
    ghost,
    left,
    scale,
    width,
    body,
    down,
    onselect,
    onhold,
    onrelease,
    onmove,
    onthickness,
    onnudge,
    onwork,
    refused,
  }: Props = $props();

  const ROW = 18;

  const drawn = $derived(slabs(assembly.layers, left, scale));
  const right = $derived(drawn.at(-1)?.x1 ?? left);
  const labels = $derived(
    flags(
      drawn,
      130,
      (index) => (words.name(assembly.layers[index]?.material).length + words.detail(index).length) * 7 + 34,
    ),
  );
  const top = $derived(labels.rows * ROW + 12);
  const bottom = $derived(top + body);
  const dimY = $derived(bottom + 28);
  const textWidths = $derived(drawn.map((slab) => units.length(slab.layer.d).length * 7.4 + 6));
  const rows = $derived(dimensionRows(drawn, textWidths));
  const overallY = $derived(dimY + 18 + Math.max(...rows, 0) * 15 + 14);
  const height = $derived(overallY + 8);

  const frame = $derived({ left, right, top, bottom, dimY, overallY, width, scale });
  const words = $derived(new Words(assembly, materials, units, found?.counted ?? assembly.layers.length));

  // --- dragging an edge: the scale stands still while the hand moves --------------------------------------
  let hand = $state<{ index: number; x: number; from: number; pointer: number }>();
  let last = 0;
  function grab(event: PointerEvent, index: number): void {
    const layer = assembly.layers[index];
    if (!layer || event.button !== 0) return;
    event.preventDefault();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    hand = { index, x: event.clientX, from: layer.d, pointer: event.pointerId };
    last = layer.d;
    onselect(index);
    onhold();
  }
  function drag(event: PointerEvent): void {
    if (!hand || event.pointerId !== hand.pointer) return;
    const stock = materials.get(assembly.layers[hand.index]?.material ?? '')?.stock ?? [];
    const step = units.system === 'SI' ? 0.001 : 0.0254 / 16;
    const d = dragged(hand.from, (event.clientX - hand.x) / scale, stock, 4 / scale, step, event.altKey);
    if (d !== last) {
      last = d;
      onmove(hand.index, d);
    }
  }
  function drop(event: PointerEvent): void {
    if (!hand || event.pointerId !== hand.pointer) return;
    const { index, from } = hand;
    hand = undefined;
    if (last !== from) onthickness(index, last, from);
    onrelease();
  }

  // --- keys: one tab stop, arrows move within ---------------------------------------------------------------
  function key(event: KeyboardEvent): void {
    const step =
      units.system === 'SI'
        ? event.shiftKey
          ? 0.05
          : event.ctrlKey
            ? 0.001
            : 0.005
        : 0.0254 * (event.shiftKey ? 2 : event.ctrlKey ? 1 / 16 : 1 / 4);
    const moves: Record<string, () => void> = {
      ArrowLeft: () => onselect(Math.min(selected + 1, assembly.layers.length - 1)),
      ArrowRight: () => onselect(Math.max(selected - 1, 0)),
      ArrowUp: () => onnudge(selected, step),
      ArrowDown: () => onnudge(selected, -step),
      Enter: () => type(selected),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    move();
  }

  let typing = $state<number>();
  function type(index: number): void {
    typing = index;
    onselect(index);
  }
</script>

<div class="section" data-stale={stale}>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="group"
    aria-label="Section of the wall, outside on the left"
  >
    <SectionLayers
      {assembly}
      {drawn}
      {labels}
      {frame}
      {words}
      {units}
      {selected}
      row={ROW}
      {ghost}
      {onselect}
    />
    <SectionTemperature {assembly} profile={found?.profile} {frame} {units} {onwork} />
    <SectionDimensions {drawn} {frame} {units} />

    {#if down}
      <g class="plumb" transform="translate({right + 34} {top + 16}) rotate({down === 'left' ? 90 : -90})">
        <circle r="10" />
        <path d="M0 -6V6M-3.5 2.5L0 6.5L3.5 2.5" />
      </g>
      <text class="axis" x={right + 34} y={top + 40} text-anchor="middle">down</text>
    {/if}

    <!-- handles: the inner face of every layer; the chosen one is drawn and lies on top -->
    {#each drawn.toSorted((a, b) => Number(a.index === selected) - Number(b.index === selected)) as slab (slab.layer.id)}
      {@const on = slab.index === selected}
      <g
        class="handle"
        class:on
        role="presentation"
        data-layer={slab.index}
        onpointerdown={(event) => grab(event, slab.index)}
        onpointermove={drag}
        onpointerup={drop}
        onpointercancel={drop}
      >
        <rect
          class="reach"
          x={slab.x1 - (on ? 12 : 5)}
          y={on ? top + 40 : top}
          width={on ? 24 : 10}
          height={on ? body - 80 : body}
        />
        {#if on}
          <rect class="grip" x={slab.x1 - 4} y={top + 46} width="8" height="28" />
          <path class="lines" d="M{slab.x1 - 1.3} {top + 54}v12M{slab.x1 + 1.3} {top + 54}v12" />
        {/if}
      </g>
    {/each}
  </svg>

  <!-- the drawing's one tab stop -->
  <button
    class="stop"
    style:left="{left - 4}px"
    style:top="{top - 4}px"
    style:width="{right - left + 8}px"
    style:height="{body + 8}px"
    onkeydown={key}
    aria-label="Section: layer {selected + 1} of {assembly.layers.length} from inside, {words.name(
      assembly.layers[selected]?.material,
    )}, {units.full(
      assembly.layers[selected]?.d ?? 0,
      'length',
    )}. Left and right choose a layer, up and down change its thickness, Enter types it."
  ></button>

  <SectionThicknesses
    {assembly}
    {drawn}
    {rows}
    {frame}
    {words}
    {units}
    {selected}
    {refused}
    {onselect}
    {onmove}
    {onthickness}
    bind:typing
  />
  <SectionTable {drawn} profile={found?.profile} {words} {units} />
</div>

<style>
  .section {
    position: relative;
  }
  .plumb {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 1.25;
  }
  .reach {
    fill: transparent;
  }
  .handle {
    cursor: ew-resize;
    touch-action: none;
  }
  .grip {
    fill: var(--sheet-bright);
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
  .lines {
    stroke: var(--verdigris);
  }
  .stop {
    position: absolute;
    border: 0;
    background: none;
    pointer-events: none;
  }
</style>
