<!-- All walls unfolded on one ground line, seen from outside: the module ghosted, openings to drag, lengths to type. -->
<script lang="ts">
  import type { BodyOpening, DrawnFace, DrawnSide } from '@/api/client';
  import type { Units } from '@/kit/units';
  import type { Chosen, Drawn } from '@/project/shape.svelte';
  import { STEP } from './outline';

  interface Props {
    drawn: Drawn;
    faces: readonly DrawnFace[];
    sides: readonly DrawnSide[];
    element: (id: string) => { hatch: string; name: string } | undefined;
    perMetre: number;
    chosen: Chosen;
    units: Units;
    onchoose: (chosen: Chosen) => void;
    onmove: (opening: BodyOpening, words: string) => void;
    onrelease: () => void;
    /** Openings of a file, drawn dashed until they are taken. */
    ghosts: readonly BodyOpening[];
    /** An opening is to stand where the face was clicked. */
    placing: boolean;
    onplace: (body: string, side: number, u: number, z: number) => void;
    onremove: (id: string) => void;
    ontype: (body: string, side: number, at: { x: number; y: number }) => void;
  }
  let {
    drawn,
    faces,
    sides,
    element,
    perMetre,
    chosen,
    units,
    onchoose,
    onmove,
    onrelease,
    ghosts,
    placing,
    onplace,
    onremove,
    ontype,
  }: Props = $props();
  const GAP = 0.9; // between bodies [m]
  const walls = $derived(faces.filter((face) => face.kind === 'wall'));
  const places = $derived.by(() => {
    let x = 0;
    let last = sides[0]?.body;
    return sides.map((one) => {
      if (one.body !== last) x += GAP;
      last = one.body;
      const found = { ...one, x };
      x += one.length;
      return found;
    });
  });
  const total = $derived(Math.max(...places.map((one) => one.x + one.length), 1));
  const points = $derived(walls.flatMap((face) => face.flat));
  const high = $derived(Math.max(...points.map((p) => p[1] ?? 0), 3));
  const low = $derived(Math.min(...points.map((p) => p[1] ?? 0), 0));
  const MARGIN = { left: 14, top: 30, bottom: 30 };
  const X = (x: number) => MARGIN.left + x * perMetre;
  const Y = (z: number) => MARGIN.top + (high - z) * perMetre;
  const width = $derived(total * perMetre + 2 * MARGIN.left);
  const height = $derived((high - low) * perMetre + MARGIN.top + MARGIN.bottom);
  const of = (place: DrawnSide) => walls.filter((one) => one.body === place.body && one.side === place.side);
  const bodyOf = (id: string) => drawn.bodies.find((one) => one.id === id);
  /** Letters that name a face as its bearing is said. */
  const COMPASS = ['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW'];
  const compass = (bearing: number) => COMPASS[Math.round(bearing / 45) % 8] ?? '';
  const seams = (place: DrawnSide) => {
    const module = place.fit?.module;
    return module
      ? Array.from({ length: Math.floor((place.length - 1e-3) / module) }, (_, n) => (n + 1) * module)
      : [];
  };

  interface Drag {
    opening: BodyOpening;
    place: DrawnSide & { x: number };
    x: number;
    y: number;
  }
  let drag: Drag | undefined;
  function press(event: PointerEvent, opening: BodyOpening, place: DrawnSide & { x: number }): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { opening, place, x: event.clientX, y: event.clientY };
    onchoose({ kind: 'opening', id: opening.id });
  }
  function pull(event: PointerEvent): void {
    if (!drag) return;
    const { opening, place } = drag;
    const [dx, dy] = [(event.clientX - drag.x) / perMetre, (drag.y - event.clientY) / perMetre];
    if (Math.hypot(dx, dy) * perMetre < 3) return;
    let u = opening.u + (event.shiftKey && Math.abs(dy) > Math.abs(dx) ? 0 : dx);
    let sill = opening.sill + (event.shiftKey && Math.abs(dx) >= Math.abs(dy) ? 0 : dy);
    if (!event.altKey) {
      u = atSeam(u, opening.w, place);
      sill = opening.kind === 'door' && sill < 0.3 ? 0 : Math.round(sill / STEP) * STEP;
    }
    move(opening, place, u, sill);
  }
  /** Either edge on a seam where it is near one, else a step of 5 mm. */
  function atSeam(u: number, w: number, place: DrawnSide): number {
    const module = place.fit?.module;
    if (module)
      for (const edge of [0, w]) {
        const seam = Math.round((u + edge) / module) * module;
        if (Math.abs(seam - u - edge) * perMetre < 7) return seam - edge;
      }
    return Math.round(u / STEP) * STEP;
  }
  function move(opening: BodyOpening, place: DrawnSide, u: number, sill: number): void {
    const within = Math.min(Math.max(u, 0), place.length - opening.w);
    const next = { ...opening, u: Number(within.toFixed(5)), sill: Number(Math.max(sill, 0).toFixed(5)) };
    onmove(next, `${opening.mark || opening.id} moved`);
  }
  function drop(): void {
    if (!drag) return;
    drag = undefined;
    onrelease();
  }
  function key(event: KeyboardEvent, opening: BodyOpening, place: DrawnSide): void {
    const step = event.shiftKey ? (place.fit?.module ?? 1.2) / 2 : STEP;
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, 1],
      ArrowDown: [0, -1],
    };
    const way = ways[event.key];
    if (way) {
      event.preventDefault();
      event.stopPropagation();
      move(opening, place, opening.u + way[0] * step, opening.sill + way[1] * step);
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      onremove(opening.id);
    }
  }
  function click(event: MouseEvent, place: DrawnSide & { x: number }): void {
    if (!placing) return;
    const box = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    if (!box) return;
    const u = (event.clientX - box.left - X(place.x)) / perMetre;
    const z = high - (event.clientY - box.top - MARGIN.top) / perMetre;
    onplace(place.body, place.side, u, z);
  }
  function type(event: Event, place: DrawnSide): void {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    ontype(place.body, place.side, { x: box.left + box.width / 2, y: box.top });
  }
</script>

<div class="scroll">
  <svg {width} {height} role="group" aria-label="Walls, unfolded" class:placing>
    {#each places as place, n (`${place.body}-${place.side}`)}
      {@const here = of(place)}
      {@const body = bodyOf(place.body)}
      <g>
        {#if here.length === 0}
          <path class="joined" d="M{X(place.x)} {Y(low)}H{X(place.x + place.length)}" />
        {/if}
        {#each here as face (face.id)}
          {@const hatch = element(face.element)?.hatch}
          {@const d = `M${face.flat.map((p) => `${X(place.x + (p[0] ?? 0)).toFixed(1)} ${Y(p[1] ?? 0).toFixed(1)}`).join('L')}Z`}
          <path
            class="wall"
            class:unset={!hatch}
            class:below={face.to === 'ground'}
            {d}
            role="presentation"
            onclick={(event) => click(event, place)}
          />
          {#if hatch}<path class="hatch" {d} fill="url(#h-{hatch}-s)" />{/if}
          <path
            class="line"
            class:on={chosen?.kind === 'side' && chosen.body === place.body && chosen.at === place.side}
            {d}
          />
        {/each}
        {#if here.length}
          {@const top = Math.max(...here.flatMap((face) => face.flat.map((p) => p[1] ?? 0)))}
          {@const bottom = Math.min(...here.flatMap((face) => face.flat.map((p) => p[1] ?? 0)))}
          {@const eaves = (body?.base ?? 0) + (body?.storeys ?? []).reduce((sum, one) => sum + one, 0)}
          {#each seams(place) as u (u)}
            <path class="seam" d="M{X(place.x + u)} {Y(bottom)}V{Y(Math.min(top, eaves))}" />
          {/each}
          {#if place.fit?.left_over}
            <rect
              class="left"
              fill="url(#h-loss)"
              x={X(place.x + place.length - place.fit.left_over)}
              y={Y(eaves)}
              width={place.fit.left_over * perMetre}
              height={(eaves - bottom) * perMetre}
            />
          {/if}
        {/if}
        {#each drawn.openings.filter((one) => one.body === place.body && one.side === place.side) as one (one.id)}
          {@const x = X(place.x + one.u)}
          {@const y = Y((body?.base ?? 0) + one.sill + one.h)}
          {@const on = chosen?.kind === 'opening' && chosen.id === one.id}
          {@const off = here.flatMap((face) => face.openings).find((each) => each.id === one.id)?.off_module}
          <g
            class="opening"
            class:on
            role="button"
            tabindex="0"
            aria-label="{one.kind === 'door' ? 'Door' : 'Window'} {one.mark || one.id}, {units.full(
              one.w,
              'length',
            )} by {units.full(one.h, 'length')}"
            onpointerdown={(event) => press(event, one, place)}
            onpointermove={pull}
            onpointerup={drop}
            onpointercancel={drop}
            onfocus={() => onchoose({ kind: 'opening', id: one.id })}
            onkeydown={(event) => key(event, one, place)}
          >
            <rect {x} {y} width={one.w * perMetre} height={one.h * perMetre} />
            <path
              class="cross"
              d="M{x} {y}l{one.w * perMetre} {one.h * perMetre}m0 {-one.h * perMetre}l{-one.w *
                perMetre} {one.h * perMetre}"
            />
            <text x={x + (one.w * perMetre) / 2} y={y + (one.h * perMetre) / 2 + 4}>{one.mark}</text>
            {#if off !== null && off !== undefined && Math.abs(off) > 5e-4 && Math.abs(off) < 0.15}
              <circle class="off" cx={x} cy={y} r="2.6"
                ><title>{units.full(Math.abs(off), 'length')} off the module</title></circle
              >
            {/if}
          </g>
          {#if on}
            {@const at = y + (one.h * perMetre) / 2}
            <g class="distance" aria-hidden="true">
              <path d="M{X(place.x)} {at}H{x}M{x + one.w * perMetre} {at}H{X(place.x + place.length)}" />
              <text x={(X(place.x) + x) / 2} y={at - 3}>{units.length(one.u)}</text>
              <text x={(x + one.w * perMetre + X(place.x + place.length)) / 2} y={at - 3}
                >{units.length(place.length - one.u - one.w)}</text
              >
            </g>
          {/if}
        {/each}
        {#each ghosts.filter((one) => one.body === place.body && one.side === place.side) as one (one.id)}
          <rect
            class="from-file"
            x={X(place.x + one.u)}
            y={Y((body?.base ?? 0) + one.sill + one.h)}
            width={one.w * perMetre}
            height={one.h * perMetre}
          />
        {/each}
        {#if body?.ground !== null && body?.ground !== undefined}
          <path
            class="ground"
            d="M{X(place.x) - (n === 0 ? 10 : 0)} {Y(body.ground)}H{X(place.x + place.length) +
              (n === places.length - 1 ? 10 : 0)}"
          />
        {/if}
        <path
          class="measure"
          d="M{X(place.x)} {height - 16}H{X(place.x + place.length)}M{X(place.x)} {height - 20}v8M{X(
            place.x + place.length,
          )} {height - 20}v8"
        />
        {#if place.length * perMetre > 30}
          <g
            class="dimension"
            role="button"
            tabindex="-1"
            aria-label="{units.length(place.length)}: type the length of side {place.side + 1}"
            onclick={(event) => type(event, place)}
            onkeydown={() => undefined}
          >
            <text x={X(place.x + place.length / 2)} y={height - 4}>{units.length(place.length)}</text>
          </g>
        {/if}
        <g class="fold" transform="translate({X(place.x)} 12)" aria-hidden="true">
          <circle r="8" /><text y="4">{place.side + 1}</text>
        </g>
        {#if here.length && place.length * perMetre > 40}
          <text class="name" x={X(place.x) + 13} y="16"
            >{compass(place.bearing)}
            {#if place.length * perMetre > 118}<tspan class="follows"
                >({units.full(
                  here.reduce((sum, face) => sum + face.gross, 0),
                  'area',
                )})</tspan
              >{/if}</text
          >
        {/if}
      </g>
    {/each}
  </svg>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  svg {
    display: block;
    touch-action: none;
  }
  .placing .wall {
    cursor: crosshair;
  }
  .wall {
    fill: var(--sheet-bright);
  }
  .wall.unset {
    fill: none;
    pointer-events: all;
  }
  .wall.below {
    fill: var(--limestone-deep);
  }
  .hatch,
  .line,
  .left,
  .seam {
    pointer-events: none;
  }
  .line {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.1;
  }
  .unset ~ .line {
    stroke-dasharray: 5 3;
  }
  .line.on {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .joined {
    stroke: var(--ink-3);
    stroke-dasharray: 2 4;
  }
  .seam {
    stroke: var(--ink-3);
    stroke-width: 0.8;
    stroke-dasharray: 3 4;
  }
  .left {
    stroke: var(--ochre-line);
    stroke-width: 0.8;
  }
  .name {
    font-size: 12.5px;
    font-weight: 600;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
  }
  .follows {
    font: 400 12px var(--mono);
    fill: var(--ink-2);
  }
  .opening {
    cursor: move;
    outline: none;
  }
  .opening rect {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .cross {
    stroke: var(--hair);
    stroke-width: 0.8;
    fill: none;
  }
  .opening text {
    font: 600 11.5px var(--mono);
    text-anchor: middle;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 3px;
  }
  .opening.on rect {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  .opening.on text {
    fill: var(--verdigris);
  }
  .opening:focus-visible rect {
    outline: 2px solid var(--verdigris);
    outline-offset: 2px;
  }
  .from-file {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.2;
    stroke-dasharray: 4 3;
    pointer-events: none;
  }
  .off {
    fill: var(--ochre-line);
  }
  .distance path {
    stroke: var(--verdigris);
    fill: none;
    stroke-width: 0.9;
  }
  .distance text {
    font: 500 11.5px var(--mono);
    fill: var(--verdigris);
    text-anchor: middle;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
  }
  .ground {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.2;
    pointer-events: none;
  }
  .measure {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.8;
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
    stroke-width: 6px;
  }
  .fold circle {
    fill: var(--sheet);
    stroke: var(--ink-2);
  }
  .fold text {
    font-size: 11px;
    text-anchor: middle;
    fill: var(--ink-2);
  }
</style>
