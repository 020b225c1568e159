<!-- The wall to scale, outside to inside: hatched layers, leaders, temperature line, dimensions to drag and type on. -->
<script lang="ts">
  import type { Assembly, BenchOut, Material } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import { dimensionRows, dragged, flags, niceTicks, slabs } from './section';

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
      (index) => (name(assembly.layers[index]?.material).length + detail(index).length) * 7 + 20,
    ),
  );
  const top = $derived(labels.rows * ROW + 12);
  const bottom = $derived(top + body);
  const dimY = $derived(bottom + 28);
  const textWidths = $derived(drawn.map((slab) => units.length(slab.layer.d).length * 7.4 + 6));
  const rows = $derived(dimensionRows(drawn, textWidths));
  const overallY = $derived(dimY + 18 + Math.max(...rows, 0) * 15 + 14);
  const height = $derived(overallY + 8);

  // The temperature line shares the wall's own x; its axis stands outside of it.
  const planes = $derived(found?.profile.planes ?? []);
  const curve = $derived(found?.profile.curve ?? []);
  const span = $derived.by(() => {
    const condition = found?.profile.condition;
    const values = [condition?.theta_i ?? 20, condition?.theta_e ?? 0];
    return { low: Math.min(...values) - 3, high: Math.max(...values) + 3 };
  });
  const y = (theta: number) => bottom - ((theta - span.low) / (span.high - span.low)) * body;
  const xIn = (x: number) => right - x * scale;
  const line = $derived(
    curve
      .map((point, at) => `${at ? 'L' : 'M'}${xIn(point.x).toFixed(1)} ${y(point.theta).toFixed(1)}`)
      .join(''),
  );
  const airTail = $derived.by(() => {
    const condition = found?.profile.condition;
    const outer = planes.at(-1);
    const inner = planes[0];
    if (!condition || !outer || !inner) return '';
    const xo = xIn(outer.x);
    const far = Math.min(left, xo) - 14;
    return (
      `M${xo.toFixed(1)} ${y(outer.theta).toFixed(1)}L${(xo - 6).toFixed(1)} ${y(condition.theta_e).toFixed(1)}L${far} ${y(condition.theta_e).toFixed(1)}` +
      `M${right.toFixed(1)} ${y(inner.theta).toFixed(1)}L${(right + 6).toFixed(1)} ${y(condition.theta_i).toFixed(1)}L${right + 18} ${y(condition.theta_i).toFixed(1)}`
    );
  });
  const ticks = $derived.by(() => {
    const unit = units.unit('temperature');
    const show = (theta: number) => theta * unit.per_si + unit.offset;
    return niceTicks(show(span.low), show(span.high), 5).map((shown) => ({
      shown,
      theta: (shown - unit.offset) / unit.per_si,
    }));
  });
  const temperatureLabels = $derived.by(() => {
    const core = assembly.layers.findIndex((layer) => layer.studied);
    const wanted = core >= 0 && core + 1 < planes.length ? [0, core, core + 1] : [0, planes.length - 1];
    return [...new Set(wanted)].flatMap((at) => {
      const plane = planes[at];
      if (!plane) return [];
      const x = xIn(plane.x);
      const outer = at > (core >= 0 ? core : 0);
      const inner = at === 0;
      return [
        {
          at,
          x: inner ? x - 6 : outer ? x + 8 : x - 8,
          y: y(plane.theta) + (outer ? 16 : inner ? 18 : -9),
          anchor: outer ? ('start' as const) : ('end' as const),
          text: units.full(plane.theta, 'temperature'),
        },
      ];
    });
  });

  const name = (material: string | undefined) =>
    material ? (materials.get(material)?.name ?? material) : 'Air layer';
  const hatch = (material: string | undefined) => (material ? materials.get(material)?.hatch : undefined);
  const counted = (index: number) => !found || index < found.counted;
  function detail(index: number): string {
    const layer = assembly.layers[index];
    if (!layer) return '';
    if (!counted(index)) return 'not counted';
    if (layer.air)
      return layer.air.ventilation === 'slightly' ? 'slightly ventilated' : `${layer.air.ventilation}`;
    const lambda = layer.lambda ?? materials.get(layer.material ?? '')?.conductivity;
    return lambda === undefined ? '' : `λ ${units.show(lambda, 'conductivity')}`;
  }

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
  let typedFrom = $state(0);
  function type(index: number): void {
    typedFrom = assembly.layers[index]?.d ?? 0;
    typing = index;
    onselect(index);
  }
  function preview(index: number, d: number): void {
    if (d > 0 && d <= 3) onmove(index, d);
  }
  const field = $derived.by(() => {
    const at = drawn.findIndex((slab) => slab.index === typing);
    const slab = drawn[at];
    return slab ? { slab, x: (slab.x0 + slab.x1) / 2, y: dimY } : undefined;
  });
  const ghostX = $derived.by(() => {
    const slab = drawn.find((one) => one.layer.id === ghost?.layer);
    return slab && ghost && ghost.d !== slab.layer.d ? slab.x0 + ghost.d * scale : undefined;
  });
</script>

<div class="section" data-stale={stale}>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    role="group"
    aria-label="Section of the wall, outside on the left"
  >
    <!-- slabs -->
    {#each drawn as slab (slab.layer.id)}
      {@const on = slab.index === selected}
      {@const pattern = hatch(slab.layer.material)}
      <rect
        class="ground"
        class:air={!slab.layer.material}
        x={slab.x0}
        y={top}
        width={slab.x1 - slab.x0}
        height={body}
      />
      {#if pattern}
        <rect
          x={slab.x0}
          y={top}
          width={slab.x1 - slab.x0}
          height={body}
          fill="url(#h-{pattern}{on ? '-yours' : slab.x1 - slab.x0 < 20 ? '-s' : ''})"
        />
      {/if}
      <rect
        class="edge"
        class:faint={!counted(slab.index)}
        x={slab.x0}
        y={top}
        width={slab.x1 - slab.x0}
        height={body}
        role="presentation"
        onclick={() => onselect(slab.index)}
      />
      {#if slab.layer.members?.length}
        {#each [0.08, 0.82] as at (at)}
          <rect
            class="beyond"
            x={slab.x0 + 0.5}
            y={top + body * at}
            width={Math.max(slab.x1 - slab.x0 - 1, 0)}
            height={body * 0.1}
          />
        {/each}
      {/if}
    {/each}
    {#each drawn.filter((slab) => hatch(slab.layer.material) === 'membrane') as slab (slab.layer.id)}
      <path class="membrane" d="M{(slab.x0 + slab.x1) / 2} {top - 5}V{bottom + 5}" />
    {/each}
    {#each drawn.filter((slab) => slab.index === selected) as slab (slab.layer.id)}
      <rect class="chosen" x={slab.x0} y={top} width={slab.x1 - slab.x0} height={body} />
    {/each}
    {#if ghostX !== undefined && ghost}
      <line class="ghost" x1={ghostX} x2={ghostX} y1={top + 4} y2={bottom - 4} />
      <text class="mono yours halo" x={ghostX + 5} y={bottom - 8}>was {units.length(ghost.d)}</text>
    {/if}

    <!-- leaders -->
    {#each labels.flags as flag (flag.index)}
      {@const textY = 12 + flag.row * ROW}
      {@const dir = flag.side === 'left' ? 1 : -1}
      <path class="leader" d="M{flag.x} {top}V{textY - 4}h{6 * dir}" />
      <text
        class="flag"
        class:on={flag.index === selected}
        x={flag.x + 9 * dir}
        y={textY}
        text-anchor={flag.side === 'left' ? 'start' : 'end'}
        role="presentation"
        onclick={() => onselect(flag.index)}
        >{name(assembly.layers[flag.index]?.material)}<tspan class="mono soft" dx="6"
          >{detail(flag.index)}</tspan
        ></text
      >
    {/each}
    {#each drawn.filter((slab) => labels.inside.includes(slab.index)) as slab (slab.layer.id)}
      <text class="flag halo strong" x={(slab.x0 + slab.x1) / 2} y={top + 20} text-anchor="middle"
        >{name(slab.layer.material)}</text
      >
      <text class="mono soft halo" x={(slab.x0 + slab.x1) / 2} y={top + 36} text-anchor="middle"
        >{detail(slab.index)}</text
      >
    {/each}

    <!-- temperature -->
    <text class="axis" x={left - 12} y={top + 4} text-anchor="end">{units.symbol('temperature')}</text>
    {#each ticks.filter((tick) => y(tick.theta) > top + 14) as tick, at (at)}
      <line class="tick" x1={left - 8} x2={left} y1={y(tick.theta)} y2={y(tick.theta)} />
      <text class="axis mono" x={left - 12} y={y(tick.theta) + 4} text-anchor="end"
        >{String(tick.shown).replace('-', '−')}</text
      >
    {/each}
    <path class="halo-line" d={line} />
    <path class="result" d={line} data-testid="temperature-line" />
    <path class="result" d={airTail} />
    {#each planes as plane, at (at)}
      <circle class="knot" cx={xIn(plane.x)} cy={y(plane.theta)} r="3.2" />
    {/each}
    {#each temperatureLabels as label (label.at)}
      <text
        class="mono halo work"
        x={label.x}
        y={label.y}
        text-anchor={label.anchor}
        role="presentation"
        onclick={() =>
          onwork(`theta_at_${label.at}`, `Temperature at plane ${label.at} from inside`, 'temperature')}
        >{label.text}</text
      >
    {/each}

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
    aria-label="Section: layer {selected + 1} of {assembly.layers.length} from inside, {name(
      assembly.layers[selected]?.material,
    )}, {units.full(
      assembly.layers[selected]?.d ?? 0,
      'length',
    )}. Left and right choose a layer, up and down change its thickness, Enter types it."
  ></button>

  <!-- dimension texts, to click and type on -->
  {#each drawn as slab, at (slab.layer.id)}
    {#if typing !== slab.index}
      <button
        class="dimension"
        class:on={slab.index === selected}
        style:left="{(slab.x0 + slab.x1) / 2}px"
        style:top="{(rows[at] ?? 0) === 0 ? dimY - 19 : dimY - 12 + (rows[at] ?? 0) * 15}px"
        onclick={() => type(slab.index)}
        tabindex="-1"
        aria-label="{name(slab.layer.material)}: {units.full(slab.layer.d, 'length')}, type a thickness"
        >{units.length(slab.layer.d)}</button
      >
    {/if}
  {/each}
  {#if field}
    <div
      class="typing"
      style:left="{Math.min(Math.max(field.x, 60), width - 70)}px"
      style:top="{field.y - 14}px"
    >
      <Entry
        value={typedFrom}
        dimension="length"
        label="Thickness of {name(field.slab.layer.material)}"
        showLabel={false}
        positive
        yours
        autofocus
        {refused}
        onpreview={(d) => preview(field.slab.index, d)}
        oncancel={() => {
          onmove(field.slab.index, typedFrom);
          typing = undefined;
        }}
        onsave={(d) => {
          if (d !== null) onthickness(field.slab.index, d, typedFrom);
          typing = undefined;
        }}
      />
    </div>
  {/if}

  <table class="visually-hidden">
    <caption>Layers, outside to inside</caption>
    <thead
      ><tr><th>layer</th><th>thickness</th><th>property</th><th>outer face</th><th>inner face</th></tr></thead
    >
    <tbody>
      {#each drawn as slab (slab.layer.id)}
        {@const outer = planes[slab.index + 1]}
        {@const inner = planes[slab.index]}
        <tr>
          <th>{name(slab.layer.material)}</th><td>{units.full(slab.layer.d, 'length')}</td><td
            >{detail(slab.index)}</td
          >
          <td>{outer ? units.full(outer.theta, 'temperature') : '–'}</td><td
            >{inner && counted(slab.index) ? units.full(inner.theta, 'temperature') : '–'}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .section {
    position: relative;
  }
  .ground.air {
    fill: var(--sheet);
  }
  .edge {
    fill: transparent;
    stroke-width: var(--pen-med);
    cursor: pointer;
  }
  .edge.faint {
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
  }
  .chosen {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
    pointer-events: none;
  }
  .beyond {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
    stroke-dasharray: 5 3;
    pointer-events: none;
  }
  .membrane {
    stroke: var(--ink);
    stroke-width: 2.2;
    stroke-dasharray: 9 4;
    fill: none;
    pointer-events: none;
  }
  .ghost {
    stroke: var(--verdigris);
    stroke-dasharray: 4 4;
  }
  .leader,
  .tick {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.6;
  }
  text {
    font-size: var(--fs-base);
  }
  .flag {
    cursor: pointer;
  }
  .flag.on {
    fill: var(--verdigris);
    font-weight: 600;
  }
  .strong {
    font-weight: 500;
    pointer-events: none;
  }
  .mono {
    font-family: var(--mono);
    font-size: var(--fs-small);
    letter-spacing: -0.02em;
  }
  .yours {
    fill: var(--verdigris);
  }
  .halo {
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  .work {
    cursor: pointer;
    text-decoration: underline dotted;
  }
  .plumb {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 1.25;
  }
  .side {
    fill: var(--ink-2);
    font-weight: 600;
  }
  .result {
    stroke-linejoin: round;
    pointer-events: none;
  }
  .halo-line {
    fill: none;
    stroke: var(--sheet-bright);
    stroke-width: 5;
    pointer-events: none;
  }
  .knot {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.25;
    pointer-events: none;
  }
  .dim {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
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
  .dimension {
    position: absolute;
    transform: translateX(-50%);
    border: 0;
    background: none;
    font: 400 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
    padding: 0 2px;
    min-width: 24px;
    line-height: 16px;
  }
  .dimension:hover {
    box-shadow: inset 0 -2px var(--verdigris);
  }
  .dimension.on {
    color: var(--verdigris);
    font-weight: 600;
  }
  .typing {
    position: absolute;
    transform: translateX(-50%);
    background: var(--sheet);
    z-index: 2;
    width: max-content;
    max-width: 320px;
  }
</style>
