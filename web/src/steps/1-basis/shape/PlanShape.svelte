<!-- The plan: bodies with their walls, corners and sides as handles, the ghost of what was, the north arrow. -->
<script lang="ts">
  import type { Body, BodyOpening, DrawnFace, DrawnSide } from '@/api/client';
  import type { Units } from '@/kit/units';
  import type { Chosen, Drawn } from '@/project/shape.svelte';
  import NorthArrow from './NorthArrow.svelte';
  import { bounds, outFor, side, snapped, ways, withCorner, withSideOut } from './outline';
  import type { Outline, Point } from './outline';

  interface Props {
    drawn: Drawn;
    /** As stored, where the draft differs. */
    ghost: Drawn | undefined;
    faces: readonly DrawnFace[];
    sides: readonly DrawnSide[];
    openings: readonly BodyOpening[];
    /** Thickness of the walls of each element [m]. */
    thickness: (element: string) => number;
    perMetre: number;
    chosen: Chosen;
    units: Units;
    onchoose: (chosen: Chosen) => void;
    /** The hand moves: a body of another outline. */
    onmove: (body: string, outline: Outline, words: string) => void;
    onturn: (north: number) => void;
    onrelease: () => void;
    oncancel: () => void;
    ontype: (body: string, side: number, at: { x: number; y: number }) => void;
  }
  let {
    drawn,
    ghost,
    faces,
    sides,
    openings,
    thickness,
    perMetre,
    chosen,
    units,
    onchoose,
    onmove,
    onturn,
    onrelease,
    oncancel,
    ontype,
  }: Props = $props();
  const uid = $props.id();
  const MARGIN = 46;
  const outlineOf = (body: Body) => body.outline as Outline;
  // What is dragged stays under the hand: the frame of the drawing does not follow until it lets go.
  let held = $state.raw<ReturnType<typeof bounds>>();
  const now = $derived(bounds([...drawn.bodies, ...(ghost?.bodies ?? [])].flatMap(outlineOf)));
  const frame = $derived(held ?? now);
  const X = (x: number) => MARGIN + (x - frame.left) * perMetre;
  const Y = (y: number) => MARGIN + (frame.high - y) * perMetre;
  const width = $derived((frame.right - frame.left) * perMetre + 2 * MARGIN);
  const height = $derived((frame.high - frame.low) * perMetre + 2 * MARGIN);
  const path = (outline: readonly (readonly number[])[]) =>
    `M${outline.map((p) => `${X(p[0] ?? 0).toFixed(1)} ${Y(p[1] ?? 0).toFixed(1)}`).join('L')}Z`;
  const roofs = $derived(faces.filter((face) => face.kind === 'roof'));

  const of = (body: string, at: number) => sides.find((one) => one.body === body && one.side === at);
  /** Whether another body lies against all of a side. */
  const joined = (body: string, at: number) =>
    faces.length > 0 && !faces.some((face) => face.body === body && face.side === at);
  /** As much of a name as fits into its body. */
  const fitting = (name: string, wide: number) => {
    const letters = Math.floor((wide * perMetre - 24) / 6.6);
    return name.length <= letters ? name : letters < 4 ? '' : `${name.slice(0, letters - 1)}…`;
  };
  const isOn = (kind: 'side' | 'corner', body: string, at: number) =>
    chosen?.kind === kind && chosen.body === body && chosen.at === at;

  interface Drag {
    kind: 'side' | 'corner';
    body: Body;
    at: number;
    x: number;
    y: number;
  }
  let drag: Drag | undefined;
  function press(event: PointerEvent, kind: 'side' | 'corner', body: Body, at: number): void {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { kind, body, at, x: event.clientX, y: event.clientY };
    held = now;
    onchoose({ kind, body: body.id, at });
  }
  function pull(event: PointerEvent): void {
    if (!drag) return;
    const by: Point = [(event.clientX - drag.x) / perMetre, (drag.y - event.clientY) / perMetre];
    if (Math.hypot(...by) * perMetre < 3) return;
    const outline = outlineOf(drag.body);
    if (drag.kind === 'side') {
      const { out } = ways(outline, drag.at);
      pushSide(drag.body, drag.at, by[0] * out[0] + by[1] * out[1], event.altKey);
    } else pushCorner(drag.body, drag.at, by, event.shiftKey, event.altKey);
  }
  function drop(): void {
    if (!drag) return;
    drag = undefined;
    held = undefined;
    onrelease();
  }
  /** A side outwards; the side before it takes a length that closes, unless the hand is let free. */
  function pushSide(body: Body, at: number, out: number, free: boolean): void {
    const outline = outlineOf(body);
    const before = (at - 1 + outline.length) % outline.length;
    const raw = withSideOut(outline, at, out);
    const [p, q] = side(raw, before);
    const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
    const to = free ? length : snapped(length, of(body.id, before)?.fit?.module, perMetre);
    const next = withSideOut(outline, at, outFor(outline, at, to));
    onmove(body.id, next, `${body.name || 'Body'}: side ${at + 1} moved`);
  }
  function pushCorner(body: Body, at: number, by: Point, square: boolean, free: boolean): void {
    const outline = outlineOf(body);
    const last = (at - 1 + outline.length) % outline.length;
    const [u, v] = [ways(outline, last).along, ways(outline, at).along];
    const moved: Point = [by[0], by[1]];
    if (!free)
      for (const [way, sign, n] of [
        [u, 1, last],
        [v, -1, at],
      ] as const) {
        const [p, q] = side(outline, n);
        const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
        const along = sign * (moved[0] * way[0] + moved[1] * way[1]);
        const more = snapped(length + along, of(body.id, n)?.fit?.module, perMetre) - length - along;
        moved[0] += sign * more * way[0];
        moved[1] += sign * more * way[1];
      }
    onmove(body.id, withCorner(outline, at, moved, square), `${body.name || 'Body'}: corner ${at + 1} moved`);
  }
  /** Arrows: 5 mm, with Shift half a module of the side; a corner keeps its angles. */
  function key(event: KeyboardEvent, kind: 'side' | 'corner', body: Body, at: number): void {
    const way: Record<string, Point> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const found = way[event.key];
    if (found) {
      event.preventDefault();
      event.stopPropagation();
      const outline = outlineOf(body);
      const step = event.shiftKey ? (of(body.id, at)?.fit?.module ?? 1.2) / 2 : 0.005;
      if (kind === 'corner') {
        const by: Point = [found[0] * step, found[1] * step];
        onmove(body.id, withCorner(outline, at, by, true), `${body.name || 'Body'}: corner ${at + 1} moved`);
      } else {
        const { out } = ways(outline, at);
        const by = step * Math.sign(found[0] * out[0] + found[1] * out[1]);
        if (by) onmove(body.id, withSideOut(outline, at, by), `${body.name || 'Body'}: side ${at + 1} moved`);
      }
    }
  }
  function type(event: Event, body: Body, at: number): void {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    onchoose({ kind: 'side', body: body.id, at });
    ontype(body.id, at, { x: box.left + box.width / 2, y: box.bottom });
  }
  const middle = (outline: Outline, at: number) => {
    const [p, q] = side(outline, at);
    return { x: X((p[0] + q[0]) / 2), y: Y((p[1] + q[1]) / 2) };
  };
</script>

<svg {width} {height} role="group" aria-label="Plan" class="plan">
  <defs>
    {#each drawn.bodies as body, n (body.id)}
      <clipPath id="{uid}-{n}"><path d={path(outlineOf(body))} /></clipPath>
    {/each}
  </defs>
  {#each drawn.bodies as body, n (body.id)}
    {@const outline = outlineOf(body)}
    {@const wall = thickness(body.wall ?? '')}
    <path class="floor" d={path(outline)} />
    {#if wall}
      <path
        d={path(outline)}
        fill="none"
        stroke="url(#h-foam-s)"
        stroke-width={2 * wall * perMetre}
        clip-path="url(#{uid}-{n})"
      />
    {/if}
    <path class="cut" d={path(outline)} />
    {@const box = bounds(outline)}
    <text class="body" x={X((box.left + box.right) / 2)} y={Y(box.low + 0.62 * (box.high - box.low))}
      >{fitting(body.name ?? '', box.right - box.left)}</text
    >
  {/each}
  {#each roofs as face (face.id)}
    <path class="roof" d={path(face.corners)} />
  {/each}
  {#each openings as one (one.id)}
    {@const body = drawn.bodies.find((each) => each.id === one.body)}
    {#if body && one.side < body.outline.length}
      {@const [p] = side(outlineOf(body), one.side)}
      {@const { along, out } = ways(outlineOf(body), one.side)}
      {@const wall = Math.max(thickness(body.wall ?? ''), 0.12)}
      {@const corner = (u: number, v: number) =>
        `${X(p[0] + along[0] * u - out[0] * v).toFixed(1)} ${Y(p[1] + along[1] * u - out[1] * v).toFixed(1)}`}
      <path
        class="opening"
        class:on={chosen?.kind === 'opening' && chosen.id === one.id}
        d="M{corner(one.u, 0)}L{corner(one.u + one.w, 0)}L{corner(one.u + one.w, wall)}L{corner(
          one.u,
          wall,
        )}Z"
      />
    {/if}
  {/each}
  {#if ghost}
    {#each ghost.bodies as body (body.id)}
      <path class="ghost" d={path(outlineOf(body))} />
    {/each}
  {/if}
  {#each drawn.bodies as body (body.id)}
    {@const outline = outlineOf(body)}
    {#each outline as point, at (at)}
      {@const [p, q] = side(outline, at)}
      {@const { out } = ways(outline, at)}
      {@const mid = middle(outline, at)}
      {@const length = Math.hypot(q[0] - p[0], q[1] - p[1])}
      <g
        class="side"
        class:on={isOn('side', body.id, at)}
        tabindex="0"
        role="button"
        aria-label="Side {at + 1} of {body.name || body.id}, {units.full(length, 'length')}"
        onpointerdown={(event) => press(event, 'side', body, at)}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onfocus={() => onchoose({ kind: 'side', body: body.id, at })}
        onkeydown={(event) => {
          if (event.key === 'Enter' && !ghost) type(event, body, at);
          else key(event, 'side', body, at);
        }}
      >
        <path class="grip" d="M{X(p[0])} {Y(p[1])}L{X(q[0])} {Y(q[1])}" />
        <path class="edge" d="M{X(p[0])} {Y(p[1])}L{X(q[0])} {Y(q[1])}" />
      </g>
      {#if length * perMetre > 34 && !joined(body.id, at)}
        <g
          class="dimension"
          class:on={isOn('side', body.id, at)}
          transform="translate({mid.x + out[0] * 22} {mid.y - out[1] * 18})"
          role="button"
          tabindex="-1"
          aria-label="{units.length(length)}: type the length of side {at + 1}"
          onclick={(event) => type(event, body, at)}
          onkeydown={() => undefined}
        >
          <text dy="4">{units.length(length)}</text>
        </g>
      {/if}
      <g
        class="corner"
        class:on={isOn('corner', body.id, at)}
        tabindex="0"
        role="button"
        aria-label="Corner {at + 1} of {body.name || body.id}"
        transform="translate({X(point[0])} {Y(point[1])})"
        onpointerdown={(event) => press(event, 'corner', body, at)}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onfocus={() => onchoose({ kind: 'corner', body: body.id, at })}
        onkeydown={(event) => key(event, 'corner', body, at)}
      >
        <rect class="hit" x="-9" y="-9" width="18" height="18" />
        <rect class="box" x="-4" y="-4" width="8" height="8" />
      </g>
    {/each}
  {/each}
  <NorthArrow x={width - 22} y={24} north={drawn.north} {onturn} {onrelease} {oncancel} />
</svg>

<style>
  .plan {
    display: block;
    touch-action: none;
    overflow: visible;
  }
  .floor {
    fill: var(--sheet-bright);
  }
  .cut {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .roof {
    fill: none;
    stroke: var(--ink-3);
    stroke-width: 0.8;
    stroke-dasharray: 7 3 1.5 3;
  }
  .opening {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .opening.on {
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .ghost {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1;
    stroke-dasharray: 4 3;
  }
  .body {
    text-anchor: middle;
    fill: var(--ink-2);
    font-size: 12px;
  }
  .side,
  .corner {
    cursor: move;
    outline: none;
  }
  .grip {
    stroke: transparent;
    stroke-width: 12;
  }
  .edge {
    stroke: transparent;
    stroke-width: 2.4;
  }
  .side:hover .edge,
  .side.on .edge,
  .side:focus-visible .edge {
    stroke: var(--verdigris);
  }
  .hit {
    fill: transparent;
  }
  .box {
    fill: var(--sheet-bright);
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
  .corner.on .box,
  .corner:focus-visible .box,
  .corner:hover .box {
    fill: var(--verdigris);
  }
  .side:focus-visible .edge,
  .corner:focus-visible .box {
    outline: 2px solid var(--verdigris);
    outline-offset: 2px;
  }
  .dimension {
    cursor: text;
  }
  .dimension text {
    font: 500 12.5px var(--mono);
    text-anchor: middle;
    fill: var(--verdigris);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
  }
  .dimension.on text {
    font-weight: 700;
  }
</style>
