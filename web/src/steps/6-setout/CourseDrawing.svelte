<!-- A form wall in courses, seen from outside: corner blocks by their hand, cuts, webs, bucks, lintels, bond. -->
<script lang="ts">
  import type { BuckMove, FormWall } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { cloud } from './cloud';

  interface Props {
    wall: FormWall;
    saved: FormWall;
    units: Units;
    web: number;
    height: number;
    move: BuckMove | undefined;
    onbuck: (id: string, by: number) => void;
    onstack: (u: number) => void;
  }
  let { wall, saved, units, web, height, move, onbuck, onstack }: Props = $props();
  const STEP = 0.005; // of a hand [m]
  const M = { left: 58, right: 62, top: 26, bottom: 50 };
  const MOST_HIGH = 320;
  let wide = $state(700);
  const LEAST = 34;
  const per = $derived(
    Math.max(LEAST, Math.min((wide - M.left - M.right) / wall.length, MOST_HIGH / height)),
  );
  const X = (u: number) => M.left + u * per;
  const Y = (v: number) => M.top + (height - v) * per;
  const width = $derived(M.left + M.right + wall.length * per);
  const tall = $derived(M.top + M.bottom + height * per);
  /** Places of blocks as saved: a block that was not there then is clouded. */
  const before = $derived(
    new Set(
      saved.courses.flatMap((one) =>
        one.blocks.map((b) => `${one.low.toFixed(4)} ${b.u0.toFixed(4)} ${b.u1.toFixed(4)}`),
      ),
    ),
  );
  const changed = $derived(
    wall === saved
      ? []
      : wall.courses.flatMap((one) =>
          one.blocks
            .filter(
              (b) => b.cut && !before.has(`${one.low.toFixed(4)} ${b.u0.toFixed(4)} ${b.u1.toFixed(4)}`),
            )
            .map((b) => ({ u0: b.u0, u1: b.u1, low: one.low, high: one.high })),
        ),
  );
  const around = $derived(
    changed.length
      ? {
          u0: Math.min(...changed.map((one) => one.u0)),
          u1: Math.max(...changed.map((one) => one.u1)),
          low: Math.min(...changed.map((one) => one.low)),
          high: Math.max(...changed.map((one) => one.high)),
        }
      : undefined,
  );
  const gaps = $derived.by(() => {
    const edges = wall.bucks.toSorted((a, b) => a.u - b.u).flatMap((one) => [one.u, one.u + one.w]);
    const ends = [0, ...edges, wall.length];
    return ends
      .slice(1)
      .map((u1, n) => ({ u0: ends[n] ?? 0, u1 }))
      .filter((one) => one.u1 - one.u0 > 1e-4);
  });
  const webs = (u0: number, u1: number, from: number) => {
    const first = Math.ceil((u0 - from) / web - 0.5 + 1e-6);
    const last = Math.floor((u1 - from) / web - 0.5 - 1e-6);
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, n) => from + (first + n + 0.5) * web);
  };
  const origin = (left: number, right: number, u0: number) =>
    wall.outline.length ? 0 : wall.stack !== null && u0 >= wall.stack - 1e-6 ? wall.length - right : left;
  /** Whether a length can be read within what it is of. */
  const fits = (length: number) => length * per > 6.8 * units.length(length).length + 3;
  const offered = $derived(move && wall.bucks.find((one) => one.id === move.opening));

  interface Drag {
    x: number;
    id?: string;
    u: number;
    w: number;
  }
  let drag: Drag | undefined;
  function press(event: PointerEvent, what: Omit<Drag, 'x'>): void {
    if (event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { ...what, x: event.clientX };
  }
  /** An edge on the webs of the wall where it is near them, else in whole steps. */
  function snapped(u: number, w: number, free: boolean): number {
    if (free) return u;
    const from = saved.courses[0]?.left ?? 0;
    for (const edge of [0, w]) {
      const line = from + Math.round((u + edge - from) / web) * web;
      if (Math.abs(line - u - edge) * per < 6) return line - edge;
    }
    return Math.round(u / STEP) * STEP;
  }
  function pull(event: PointerEvent): void {
    if (!drag) return;
    const by = (event.clientX - drag.x) / per;
    if (Math.abs(by) * per < 3) return;
    const to = snapped(drag.u + by, drag.w, event.altKey);
    const was = saved.bucks.find((one) => one.id === drag?.id);
    if (drag.id && was) onbuck(drag.id, to - was.u);
    else if (!drag.id) onstack(to);
  }
  const drop = () => (drag = undefined);
  const ways: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 };
  function buckKey(event: KeyboardEvent, id: string, u: number): void {
    const way = ways[event.key];
    const was = saved.bucks.find((one) => one.id === id);
    if (!way || !was) return;
    event.preventDefault();
    event.stopPropagation();
    onbuck(id, u - was.u + way * (event.shiftKey ? web : STEP));
  }
  function stackKey(event: KeyboardEvent, u: number): void {
    const way = ways[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    onstack(u + way * web);
  }
</script>

<div class="scroll" bind:clientWidth={wide}>
  <svg {width} height={tall} role="group" aria-label="Wall {wall.mark} in courses">
    {#if wall.outline.length}
      <path class="outline" d="M{wall.outline.map((p) => `${X(p[0] ?? 0)} ${Y(p[1] ?? 0)}`).join('L')}Z" />
    {:else}
      <rect class="ground" x={X(0)} y={Y(height)} width={wall.length * per} height={height * per} />
    {/if}
    {#each wall.courses as one, n (n)}
      {@const y = Y(one.high)}
      {@const h = (one.high - one.low) * per}
      {#each [{ at: 0, leg: one.left, hand: one.left_hand }, { at: wall.length - one.right, leg: one.right, hand: one.right_hand }] as end, k (k)}
        {#if end.leg > 0}
          <rect class="corner" x={X(end.at)} {y} width={end.leg * per} height={h} />
          <text class="hand" x={X(end.at + end.leg / 2)} y={y + h / 2 + 4} text-anchor="middle"
            >{end.hand === 'left' ? 'L' : 'R'}</text
          >
        {/if}
      {/each}
      {#each one.blocks as b (b.u0)}
        <rect
          class="block"
          class:cut={b.cut}
          class:half={one.half || one.ripped}
          class:few={b.webs < 2}
          x={X(b.u0)}
          {y}
          width={(b.u1 - b.u0) * per}
          height={h}
        />
        {#each webs(b.u0, b.u1, origin(one.left, one.right, b.u0)) as u (u)}
          <path class="web" d="M{X(u)} {y}v{h}" />
        {/each}
        {#if b.cut && h > 11 && fits(b.u1 - b.u0)}
          <text
            class="length"
            class:few={b.webs < 2}
            x={X((b.u0 + b.u1) / 2)}
            y={y + h / 2 + 4}
            text-anchor="middle">{units.length(b.u1 - b.u0)}</text
          >
        {/if}
      {/each}
      <text class="count" x={M.left - 30} y={y + h / 2 + 4} text-anchor="end">{n + 1}</text>
      {#if one.left_hand}<path
          class="turn"
          d={one.left > (wall.courses[n + 1]?.left ?? wall.courses[n - 1]?.left ?? 0)
            ? `M${M.left - 22} ${y + h * 0.25}v${h * 0.5}h12`
            : `M${M.left - 22} ${y + h * 0.25}v${h * 0.5}h6`}
        />{/if}
      {#if one.bond !== null}<text class="bond" x={X(wall.length) + 8} y={Y(one.low) + 4}
          >{units.length(one.bond)}</text
        >{/if}
    {/each}
    <text class="bond" x={X(wall.length) + 8} y={M.top - 8}>bond</text>
    {#if wall.stack !== null}
      <g
        class="stack"
        role="button"
        tabindex="0"
        aria-label="Stack joint at {units.full(wall.stack, 'length')}"
        onpointerdown={(event) => press(event, { u: wall.stack ?? 0, w: 0 })}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onkeydown={(event) => stackKey(event, wall.stack ?? 0)}
      >
        <rect class="hit" x={X(wall.stack) - 12} y={Y(height) - 14} width="24" height={height * per + 28} />
        <path d="M{X(wall.stack)} {Y(height) - 12}V{Y(0) + 8}" />
        <text x={X(wall.stack)} y={Y(height) - 14} text-anchor="middle">stack joint</text>
      </g>
    {/if}
    {#each wall.bucks as one (one.id)}
      {#if one.lintel_u0 !== null && one.lintel_u1 !== null && one.lintel !== null}
        <rect
          class="lintel"
          x={X(one.lintel_u0)}
          y={Y(one.v + one.h + one.lintel) + 2}
          width={(one.lintel_u1 - one.lintel_u0) * per}
          height={Math.max(2, one.lintel * per - 4)}
        />
        <path class="bar" d="M{X(one.lintel_u0) + 4} {Y(one.v + one.h) - 5}H{X(one.lintel_u1) - 4}" />
      {/if}
      <g
        class="buck"
        role="button"
        tabindex="0"
        aria-label="Buck of {one.mark}, {units.full(one.w, 'length')} by {units.full(
          one.h,
          'length',
        )}, at {units.full(one.u, 'length')}"
        onpointerdown={(event) => press(event, { id: one.id, u: one.u, w: one.w })}
        onpointermove={pull}
        onpointerup={drop}
        onpointercancel={drop}
        onkeydown={(event) => buckKey(event, one.id, one.u)}
      >
        <rect x={X(one.u)} y={Y(one.v + one.h)} width={one.w * per} height={one.h * per} />
        <rect
          class="inner"
          x={X(one.u) + 4}
          y={Y(one.v + one.h) + 4}
          width={Math.max(0, one.w * per - 8)}
          height={Math.max(0, one.h * per - (one.v > 0 ? 8 : 4))}
        />
        <text x={X(one.u + one.w / 2)} y={Y(one.v + one.h / 2)} text-anchor="middle">{one.mark}</text>
        <text class="soft" x={X(one.u + one.w / 2)} y={Y(one.v + one.h / 2) + 14} text-anchor="middle"
          >{units.length(one.w)}{one.fin ? ', fin' : ''}</text
        >
      </g>
    {/each}
    {#if around}<path
        class="cloud"
        d={cloud(
          X(around.u0) - 8,
          Y(around.high) - 8,
          (around.u1 - around.u0) * per + 16,
          (around.high - around.low) * per + 16,
        )}
      />{/if}
    {#if move && offered && !around}<path
        class="cloud"
        d={cloud(
          X(Math.min(offered.u, offered.u + move.by)) - 8,
          Y(offered.v + offered.h) - 8,
          (offered.w + Math.abs(move.by)) * per + 16,
          offered.h * per + 16,
        )}
      />{/if}
    <g class="dims" aria-hidden="true">
      {#each gaps as one (one.u0)}
        {@const y = Y(0) + 24}
        <path d="M{X(one.u0)} {y}H{X(one.u1)}M{X(one.u0) - 3} {y + 3}l6 -6M{X(one.u1) - 3} {y + 3}l6 -6" />
        {#if fits(one.u1 - one.u0)}<text x={X((one.u0 + one.u1) / 2)} y={y - 4} text-anchor="middle"
            >{units.length(one.u1 - one.u0)}</text
          >{/if}
      {/each}
      <text x={X(0)} y={Y(0) + 42}>{wall.left}</text>
      <text x={X(wall.length)} y={Y(0) + 42} text-anchor="end">{wall.right}</text>
      <text transform="translate(12 {Y(height / 2)}) rotate(-90)" text-anchor="middle">course</text>
    </g>
  </svg>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  svg {
    display: block;
    font: 11px var(--mono);
    touch-action: none;
    user-select: none;
  }
  .ground,
  .outline {
    fill: var(--limestone);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .outline {
    fill: none;
    stroke-dasharray: 5 3;
  }
  .block {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
    stroke-width: 0.9;
  }
  .block.half {
    stroke-dasharray: 3 2;
  }
  .block.cut {
    fill: var(--limestone);
  }
  .block.few {
    fill: var(--oxide-wash);
    stroke: var(--oxide);
  }
  .corner {
    fill: var(--limestone-deep);
    stroke: var(--ink);
  }
  .web {
    stroke: var(--hair);
    stroke-dasharray: 2 3;
  }
  .hand,
  .count {
    font-weight: 600;
    fill: var(--ink);
  }
  .turn {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .length {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--limestone);
    stroke-width: 3;
  }
  .length.few {
    fill: var(--oxide);
    stroke: var(--oxide-wash);
  }
  .bond {
    fill: var(--ink-2);
  }
  .stack {
    cursor: ew-resize;
  }
  .stack .hit {
    fill: transparent;
  }
  .stack path {
    stroke: var(--verdigris);
    stroke-width: 2.2;
    stroke-dasharray: 9 3;
  }
  .stack text {
    fill: var(--verdigris);
  }
  .stack:focus-visible .hit {
    stroke: var(--verdigris);
  }
  .lintel {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: 6 4;
    stroke-width: 1.4;
    pointer-events: none;
  }
  .bar {
    stroke: var(--ink);
    stroke-width: 2.4;
    stroke-dasharray: 14 4;
    pointer-events: none;
  }
  .buck {
    cursor: ew-resize;
  }
  .buck rect {
    fill: url(#h-timber-s);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .buck .inner {
    fill: var(--sheet);
  }
  .buck text {
    font-weight: 500;
  }
  .buck:focus-visible rect,
  .buck:hover .inner {
    fill: var(--verdigris-wash);
    stroke: var(--verdigris);
  }
  .cloud {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.5;
    pointer-events: none;
  }
  .dims path {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .dims text,
  .soft {
    fill: var(--ink-2);
  }
</style>
