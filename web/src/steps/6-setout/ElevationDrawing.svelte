<!-- A face cut into panels, seen from outside: joints and openings to drag, the module above, dimensions below. -->
<script lang="ts">
  import type { FaceSetOut, OpeningMove, SetJoint, SetOpening, SetPanel } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { cloud } from './cloud';
  import FoldOut from './FoldOut.svelte';

  interface Props {
    face: FaceSetOut;
    saved: FaceSetOut;
    units: Units;
    chosen: string;
    /** An opening that would stand better elsewhere. */
    move: OpeningMove | undefined;
    onchoose: (opening: string) => void;
    /** A hand or a key begins to move something. */
    onbegin: () => void;
    onjoint: (storey: number, from: number, to: number) => void;
    onloose: (storey: number, u: number) => void;
    onopening: (id: string, by: number) => void;
  }
  let { face, saved, units, chosen, move, onchoose, onbegin, onjoint, onloose, onopening }: Props = $props();
  const STEP = 0.005; // of a hand [m]
  const MARGIN = $derived({ left: 46, right: 16, top: 34, bottom: face.anchors.length ? 66 : 54 });
  /** Dimensions stand below the anchors. */
  const low = $derived(MARGIN.bottom - 54);
  const MOST_HIGH = 300;
  let wide = $state(1040);
  let scroller = $state<HTMLElement>();
  let left = $state(0);
  const length = $derived(Math.max(...face.outline.map((p) => p[0] ?? 0)));
  const high = $derived(Math.max(...face.outline.map((p) => p[1] ?? 0)));
  /** A long face goes beyond the window and is scrolled: below this a panel cannot be read. */
  const LEAST_PER_METRE = 30;
  const perMetre = $derived(
    Math.max(LEAST_PER_METRE, Math.min((wide - MARGIN.left - MARGIN.right) / length, MOST_HIGH / high)),
  );
  const X = (u: number) => MARGIN.left + u * perMetre;
  const Y = (v: number) => MARGIN.top + (high - v) * perMetre;
  const path = (points: number[][]) =>
    `M${points.map((p) => `${X(p[0] ?? 0).toFixed(1)} ${Y(p[1] ?? 0).toFixed(1)}`).join('L')}Z`;
  const modules = $derived(
    Array.from({ length: Math.floor((length + 1e-4) / face.module) + 1 }, (_, n) => n * face.module),
  );
  const layer = $derived(face.panels.filter((one) => one.layer === 0));
  const storeys = $derived([...new Set(face.panels.map((one) => one.storey))]);
  /** Dimensions of the panels of the lowest storey, strip by strip. */
  const strips = $derived.by(() => {
    const lowest = storeys[0] ?? 0;
    const ends = new Set(layer.filter((one) => one.storey === lowest).flatMap((one) => [one.u0, one.u1]));
    const sorted = [...ends].toSorted((a, b) => a - b);
    return sorted.slice(1).map((u1, n) => ({ u0: sorted[n] ?? 0, u1 }));
  });
  const gaps = $derived.by(() => {
    const edges = face.openings
      .filter((one) => one.v < (face.levels[0] ?? high))
      .toSorted((a, b) => a.u - b.u)
      .flatMap((one) => [one.u, one.u + one.w]);
    const ends = [0, ...edges, length];
    return ends
      .slice(1)
      .map((u1, n) => ({ u0: ends[n] ?? 0, u1 }))
      .filter((one) => one.u1 - one.u0 > 1e-4);
  });
  const room = (u0: number, u1: number) => (u1 - u0) * perMetre;
  const off = (one: SetPanel) => one.off_module;
  /** Height of a panel's lower top corner: a gable's panels are marked under it. */
  function shoulder(one: SetPanel): number {
    const at = (u: number) =>
      Math.max(...one.outline.filter((p) => Math.abs((p[0] ?? 0) - u) < 1e-6).map((p) => p[1] ?? 0));
    return Math.min(at(one.u0), at(one.u1));
  }
  /** In the middle of a panel at a height, or at its left or right edge where an opening is there. */
  function across(one: SetPanel, y: number): number {
    const half = 22;
    const tries = [X((one.u0 + one.u1) / 2), X(one.u0) + half + 4, X(one.u1) - half - 4];
    const free = (x: number) =>
      face.openings.every(
        (each) =>
          x + half < X(each.u) ||
          x - half > X(each.u + each.w) ||
          y + 2 < Y(each.v + each.h) ||
          y - 12 > Y(each.v),
      );
    return tries.find(free) ?? tries[0] ?? 0;
  }
  const LEADS = { up: [0, -22], down: [0, 22], left: [-22, 0], right: [22, 0] } as const;
  const places = $derived(new Map(face.openings.map((one) => [one.id, one])));
  const ghost = $derived(move && places.get(move.opening));
  const movedFrom = (one: SetOpening) => {
    const before = saved.openings.find((each) => each.id === one.id);
    return before && Math.abs(before.u - one.u) > 1e-6 ? before : undefined;
  };

  interface Drag {
    x: number;
    joint?: SetJoint;
    opening?: SetOpening;
    from: number;
  }
  let drag: Drag | undefined;
  function press(event: PointerEvent, what: Omit<Drag, 'x'>): void {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { ...what, x: event.clientX };
    onbegin();
    if (what.opening) onchoose(what.opening.id);
  }
  function pull(event: PointerEvent): void {
    if (!drag) return;
    const by = (event.clientX - drag.x) / perMetre;
    if (Math.abs(by) * perMetre < 3) return;
    if (drag.joint) onjoint(drag.joint.storey, drag.from, snapped(drag.joint.u + by, event.altKey));
    else if (drag.opening) {
      const before = saved.openings.find((one) => one.id === drag?.opening?.id);
      if (before) onopening(before.id, snappedEdge(before.u + by, before.w, event.altKey) - before.u);
    }
  }
  const drop = () => (drag = undefined);
  /** On a module line where it is near one, else in whole steps. */
  function snapped(u: number, free: boolean): number {
    if (free) return u;
    const line = Math.round(u / face.module) * face.module;
    return Math.abs(line - u) * perMetre < 6 ? line : Math.round(u / STEP) * STEP;
  }
  function snappedEdge(u: number, w: number, free: boolean): number {
    if (free) return u;
    for (const edge of [0, w]) {
      const line = Math.round((u + edge) / face.module) * face.module;
      if (Math.abs(line - u - edge) * perMetre < 6) return line - edge;
    }
    return Math.round(u / STEP) * STEP;
  }
  const ways: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 };
  function jointKey(event: KeyboardEvent, one: SetJoint): void {
    const way = ways[event.key];
    if (way) {
      event.preventDefault();
      event.stopPropagation();
      onbegin();
      onjoint(one.storey, one.pinned ? one.u : NaN, one.u + way * (event.shiftKey ? face.module / 48 : STEP));
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && one.pinned) {
      event.preventDefault();
      onloose(one.storey, one.u);
    }
  }
  function openingKey(event: KeyboardEvent, one: SetOpening): void {
    const way = ways[event.key];
    const before = saved.openings.find((each) => each.id === one.id);
    if (!way || !before) return;
    event.preventDefault();
    event.stopPropagation();
    onopening(one.id, one.u - before.u + way * (event.shiftKey ? face.module / 4 : STEP));
  }
  const width = $derived(MARGIN.left + MARGIN.right + length * perMetre);
  const height = $derived(MARGIN.top + MARGIN.bottom + high * perMetre);
</script>

{#if width > wide + 1}
  <FoldOut
    {face}
    {units}
    {length}
    {high}
    from={(left - MARGIN.left) / perMetre}
    to={(left + wide - MARGIN.left) / perMetre}
    ongo={(u) => scroller && (scroller.scrollLeft = X(u) - wide / 2)}
  />
{/if}
<div
  class="scroll"
  bind:clientWidth={wide}
  bind:this={scroller}
  onscroll={(event) => (left = event.currentTarget.scrollLeft)}
>
  <svg {width} {height} role="group" aria-label="Face {face.mark} cut into panels">
    {#each modules as u, n (n)}
      <g class="module" aria-hidden="true">
        <circle cx={X(u)} cy="13" r="9" />
        <text x={X(u)} y="17" text-anchor="middle">{n + 1}</text>
        <path d="M{X(u)} 22V{Y(0) + 6}" />
      </g>
    {/each}
    <path class="ground" d={path(face.outline)} />
    {#each layer as one (one.mark)}
      <path class="panel" class:off={off(one)} d={path(one.outline)} />
    {/each}
    {#if face.layers > 1}
      {#each face.joints.filter((one) => one.layer === 1) as one (`${one.storey} ${one.u}`)}
        <path class="second" d="M{X(one.u)} {Y(one.bottom)}V{Y(one.top)}" />
      {/each}
    {/if}
    {#each face.levels as v (v)}
      <path class="level" d="M{X(0)} {Y(v)}H{X(length)}" />
    {/each}
    {#each face.openings as one (one.id)}
      {@const before = movedFrom(one)}
      {#if before}<rect
          class="before"
          x={X(before.u)}
          y={Y(before.v + before.h)}
          width={before.w * perMetre}
          height={before.h * perMetre}
        />{/if}
      <g
        class="opening"
        class:on={chosen === one.id}
        role="button"
        tabindex="0"
        aria-label="Opening {one.mark}, {units.full(one.w, 'length')} by {units.full(
          one.h,
          'length',
        )}, at {units.full(one.u, 'length')}"
        onpointerdown={(event) => press(event, { opening: one, from: one.u })}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onfocus={() => onchoose(one.id)}
        onkeydown={(event) => openingKey(event, one)}
      >
        <rect x={X(one.u)} y={Y(one.v + one.h)} width={one.w * perMetre} height={one.h * perMetre} />
        <path
          d="M{X(one.u)} {Y(one.v)}L{X(one.u + one.w)} {Y(one.v + one.h)}M{X(one.u)} {Y(one.v + one.h)}L{X(
            one.u + one.w,
          )} {Y(one.v)}"
        />
        <text x={X(one.u + one.w / 2)} y={Y(one.v + one.h / 2) + 4} text-anchor="middle">{one.mark}</text>
      </g>
    {/each}
    {#each face.joints.filter((one) => one.layer === 0) as one (`${one.storey} ${one.u}`)}
      <g
        class="joint"
        class:post={one.post}
        class:pinned={one.pinned}
        role="button"
        tabindex={face.layers > 1 ? -1 : 0}
        aria-label="{one.post ? 'Post' : 'Joint'} at {units.full(one.u, 'length')}{one.pinned
          ? ', pinned'
          : ''}"
        onpointerdown={(event) =>
          face.layers === 1 && press(event, { joint: one, from: one.pinned ? one.u : NaN })}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onkeydown={(event) => face.layers === 1 && jointKey(event, one)}
        ondblclick={() => one.pinned && onloose(one.storey, one.u)}
      >
        <rect
          class="hit"
          x={X(one.u) - 6}
          y={Y(one.top)}
          width="12"
          height={(one.top - one.bottom) * perMetre}
        />
        <path d="M{X(one.u)} {Y(one.bottom)}V{Y(one.top)}" />
        {#if one.pinned}<circle cx={X(one.u)} cy={Y(one.top) + 6} r="3.5" />{/if}
      </g>
    {/each}
    {#each face.posts as one, n (n)}
      <rect
        class="entered"
        x={X(one.u - one.width / 2)}
        y={Y(one.top)}
        width={Math.max(3, one.width * perMetre)}
        height={(one.top - one.bottom) * perMetre}
        ><title>Post under a load at {units.full(one.u, 'length')}</title></rect
      >
    {/each}
    {#each face.plates as one, n (n)}
      {#each one.butts as u (u)}
        {@const v = one.v0 + ((one.v1 - one.v0) * (u - one.u0)) / (one.u1 - one.u0)}
        <path class="butt" d="M{X(u)} {Y(v) - 5}v10M{X(u) - 4} {Y(v) + 4}l8 -8" />
      {/each}
    {/each}
    {#each face.anchors as one, n (n)}
      {#if one.kind === 'anchor'}
        <path
          class="anchor"
          class:bad={one.problem}
          d="M{X(one.u)} {Y(one.v)}v10M{X(one.u) - 3} {Y(one.v) + 10}h6"
        />
      {:else}
        <rect
          class="anchor down"
          class:bad={one.problem}
          x={X(one.u) - 3}
          y={Y(one.v) - 8}
          width="6"
          height="14"
        />
      {/if}
    {/each}
    {#each face.fitted as one (`${one.kind} ${one.name} ${one.u} ${one.v}`)}
      {@const [dx, dy] = LEADS[one.way]}
      <g class="fitted">
        <path d="M{X(one.u)} {Y(one.v)}l{dx} {dy}" />
        {#if one.kind === 'sensor'}
          <circle cx={X(one.u)} cy={Y(one.v)} r="4.5" />
          <text x={X(one.u) + 8} y={Y(one.v) + 4}>{one.name}</text>
        {:else}
          <rect x={X(one.u) - 4} y={Y(one.v) - 4} width="8" height="8" />
        {/if}
      </g>
    {/each}
    {#each layer as one (one.mark)}
      {#if room(one.u0, one.u1) > 34}
        {@const y = Y(shoulder(one)) + 16}
        <text class="mark" x={across(one, y)} {y} text-anchor="middle">{one.mark}</text>
        {#if room(one.u0, one.u1) > 44 && (one.v1 - one.v0) * perMetre > 46}
          <text
            class="kg"
            class:caution={one.crane}
            x={across(one, Y(one.v0) - 8)}
            y={Y(one.v0) - 8}
            text-anchor="middle">{units.full(one.mass, 'mass', 0)}</text
          >
        {/if}
      {/if}
    {/each}
    {#if move && ghost}
      <g class="offer" aria-hidden="true">
        <rect
          x={X(ghost.u + move.by)}
          y={Y(ghost.v + ghost.h)}
          width={ghost.w * perMetre}
          height={ghost.h * perMetre}
        />
        <path
          d={cloud(
            X(Math.min(ghost.u, ghost.u + move.by)) - 9,
            Y(ghost.v + ghost.h) - 9,
            (ghost.w + Math.abs(move.by)) * perMetre + 18,
            ghost.h * perMetre + 18,
          )}
        />
      </g>
    {/if}
    <path class="edge" d={path(face.outline)} />
    <g class="dims" aria-hidden="true">
      <text x="2" y={Y(0) + 24 + low}>open</text>
      <text x="2" y={Y(0) + 44 + low}>panel</text>
      {#each [{ y: Y(0) + 20 + low, row: gaps }, { y: Y(0) + 40 + low, row: strips }] as { y, row } (y)}
        {#each row as one (one.u0)}
          <path d="M{X(one.u0)} {y}H{X(one.u1)}M{X(one.u0) - 3} {y + 3}l6 -6M{X(one.u1) - 3} {y + 3}l6 -6" />
          {#if room(one.u0, one.u1) > 34}
            <text x={X((one.u0 + one.u1) / 2)} y={y - 4} text-anchor="middle"
              >{units.length(one.u1 - one.u0)}</text
            >
          {/if}
        {/each}
      {/each}
      <path d="M{X(0) - 14} {Y(0)}V{Y(high)}M{X(0) - 17} {Y(0) + 3}l6 -6M{X(0) - 17} {Y(high) + 3}l6 -6" />
      <text transform="translate({X(0) - 19} {Y(high / 2)}) rotate(-90)" text-anchor="middle"
        >{units.length(high)}</text
      >
    </g>
  </svg>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  svg {
    display: block;
    font: 11.5px var(--mono);
    touch-action: none;
    user-select: none;
  }
  .module circle {
    fill: var(--sheet);
    stroke: var(--line);
  }
  .module text {
    fill: var(--ink-2);
    font-size: 10.5px;
  }
  .module path {
    stroke: var(--hair);
    stroke-dasharray: 6 3 1 3;
  }
  .ground {
    fill: var(--limestone);
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .panel.off {
    fill: var(--ochre-wash);
  }
  .mark {
    font-weight: 500;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 3;
  }
  .mark,
  .kg {
    pointer-events: none;
  }
  .kg {
    fill: var(--ink-2);
    font-size: 10.5px;
  }
  .kg.caution {
    fill: var(--ochre);
  }
  .second {
    stroke: var(--ink-2);
    stroke-dasharray: 5 4;
  }
  .level {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .edge {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
    pointer-events: none;
  }
  .opening {
    cursor: ew-resize;
  }
  .opening rect {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .opening.on rect,
  .opening:focus-visible rect {
    fill: var(--verdigris-wash);
    stroke: var(--verdigris);
  }
  .opening path {
    stroke: var(--hair);
  }
  .opening text {
    font-weight: 500;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .before {
    fill: none;
    stroke: var(--line);
    stroke-dasharray: 4 3;
  }
  .joint {
    cursor: ew-resize;
  }
  .joint .hit {
    fill: transparent;
  }
  .joint path {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .joint.post path {
    stroke-width: 4;
  }
  .joint:hover path,
  .joint:focus-visible path,
  .joint.pinned path {
    stroke: var(--verdigris);
  }
  .joint circle {
    fill: var(--verdigris);
  }
  .joint:focus-visible .hit {
    stroke: var(--verdigris);
  }
  .offer rect {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.6;
    stroke-dasharray: 5 4;
  }
  .offer path {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.4;
  }
  .offer {
    pointer-events: none;
  }
  .entered {
    fill: var(--limestone);
    stroke: var(--ink);
    pointer-events: none;
  }
  .butt,
  .anchor {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
    pointer-events: none;
  }
  .anchor.down {
    fill: var(--ink);
  }
  .anchor.bad {
    stroke: var(--oxide);
    fill: var(--oxide);
  }
  .fitted path,
  .fitted circle,
  .fitted rect {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .fitted path {
    stroke-dasharray: 3 2;
  }
  .fitted {
    pointer-events: none;
  }
  .dims path {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .dims text {
    fill: var(--ink-2);
  }
</style>
