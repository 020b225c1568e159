<!-- A joint drawn to scale: materials over the solved temperatures, lines of one temperature, seals, dimensions to type on. -->
<script lang="ts">
  import type { JointDrawing, JointSolved, JointWarmer } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import { bands, colour, decode, isoLine } from './field';
  import type { Scale } from './field';
  import { ticksOf } from './chart';

  interface Props {
    drawing: JointDrawing;
    solved: JointSolved | undefined;
    width: number;
    height: number;
    units: Units;
    name: string;
    stale: boolean;
    flowLines: boolean;
    /** Names of the parameters, for the dimensions. */
    words: Map<string, string>;
    /** Width and height of the largest drawing it stands beside: both are drawn at one scale [m]. */
    beside?: [number, number] | undefined;
    /** In place of the temperatures: how much warmer it is than another variant. */
    warmer?: JointWarmer | undefined;
    /** A dimension was typed; none where the drawing is only looked at. */
    onturn?: ((key: string, value: number) => void) | undefined;
  }
  let {
    drawing,
    solved,
    width,
    height,
    units,
    name,
    stale,
    flowLines,
    words,
    beside,
    warmer,
    onturn,
  }: Props = $props();
  const GAP = 26; // for the words outside and inside
  const [x0 = 0, y0 = 0, x1 = 1, y1 = 1] = $derived(drawing.view);
  const scale = $derived(
    Math.min(
      (width - 2 * GAP) / Math.max(x1 - x0, beside?.[0] ?? 0),
      height / Math.max(y1 - y0, beside?.[1] ?? 0),
    ),
  );
  const w = $derived((x1 - x0) * scale);
  const h = $derived((y1 - y0) * scale);
  const px = $derived((x: number) => (x - x0) * scale);
  const py = $derived((y: number) => (y1 - y) * scale);
  const path = $derived((rings: readonly (readonly number[])[][]) =>
    rings
      .map((ring) => `M${ring.map(([x = 0, y = 0]) => `${px(x).toFixed(1)} ${py(y).toFixed(1)}`).join('L')}Z`)
      .join(''),
  );
  let canvas = $state<HTMLCanvasElement>();
  const field = $derived(warmer ? decode(warmer.field) : solved && decode(solved.field));
  const most = $derived(warmer ? Math.max(-warmer.low, warmer.high, 0.1) : 0);
  const range = $derived<Scale | undefined>(
    warmer
      ? { low: -most, paper: 0, high: most }
      : solved && {
          low: Math.min(...Object.values(solved.temperatures)),
          paper: solved.critical,
          high: Math.max(...Object.values(solved.temperatures)),
        },
  );
  const dimension = $derived(warmer ? 'difference' : 'temperature');
  const levels = $derived.by(() => {
    if (!range) return [];
    const margin = warmer ? 0.02 * most : 0.3;
    return ticksOf(units, dimension, range.low + margin, range.high - margin, 6);
  });
  const inView = (x: number, y: number) => x > 20 && x < w - 20 && y > 10 && y < h - 10;
  const isoLines = $derived(
    field
      ? levels.map((level, at) => ({
          ...level,
          // Neighbouring numbers stand at different heights, so that they do not cover each other.
          ...isoLine(field, level.value, (x, y) => [px(x), py(y)], inView, 16 + (at % 3) * 22),
        }))
      : [],
  );
  const critical = $derived(
    field && solved
      ? isoLine(field, warmer ? 0 : solved.critical, (x, y) => [px(x), py(y)], inView)
      : undefined,
  );
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context || !field || !range) return;
    const ratio = Math.min(devicePixelRatio || 1, 2);
    canvas.width = Math.round(w * ratio);
    canvas.height = Math.round(h * ratio);
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, w, h);
    const steps = 72;
    const stops = Array.from(
      { length: steps - 1 },
      (_, at) => range.low + ((at + 1) / steps) * (range.high - range.low),
    );
    bands(field, stops, (x, y) => [px(x), py(y)]).forEach((polygons, at) => {
      if (!polygons.length) return;
      const shape = new Path2D();
      for (const flat of polygons) {
        shape.moveTo(flat[0] ?? 0, flat[1] ?? 0);
        for (let n = 2; n < flat.length; n += 2) shape.lineTo(flat[n] ?? 0, flat[n + 1] ?? 0);
        shape.closePath();
      }
      context.fillStyle = context.strokeStyle = colour(
        range.low + ((at + 0.5) / steps) * (range.high - range.low),
        range,
      );
      context.lineWidth = 0.6;
      context.fill(shape);
      context.stroke(shape);
    });
  });
  let editing = $state<string>();
  const SEALS: Record<string, string> = {
    bead: 'sealant bead',
    gasket: 'gasket',
    tape: 'tape',
    foam: 'sealing foam',
    lap: 'membrane lap',
    drain: 'left open to drain',
  };
  const coldest = $derived(
    !warmer &&
      solved && {
        x: px(solved.coldest_at[0] ?? 0),
        y: py(solved.coldest_at[1] ?? 0),
        theta: solved.coldest,
      },
  );
  const names = $derived(
    drawing.shapes
      .filter((shape) => shape.part && shape.rings[0])
      .map((shape) => {
        const ring = shape.rings[0] ?? [];
        const middle = (at: 0 | 1) =>
          (Math.min(...ring.map((one) => one[at] ?? 0)) + Math.max(...ring.map((one) => one[at] ?? 0))) / 2;
        const size = (at: 0 | 1) => {
          const values = ring.map((one) => one[at] ?? 0);
          return (Math.max(...values) - Math.min(...values)) * scale;
        };
        // A name stands only where its part has room for it; the others show theirs under the pointer.
        const fits = size(0) > shape.part.length * 6 + 8 && size(1) > 15;
        return { part: shape.part, fits, x: px(middle(0)), y: py(middle(1)) };
      })
      .filter((one, at, all) => one.fits && all.findIndex((other) => other.part === one.part) === at),
  );
</script>

<div class="joint" style:width="{w + 2 * GAP}px" style:height="{h}px" data-stale={stale}>
  <span class="facing" style:left="0">{drawing.sides[0]}</span>
  <span class="facing" style:right="0">{drawing.sides[1]}</span>
  <div class="window" style:left="{GAP}px" style:width="{w}px" style:height="{h}px">
    <canvas bind:this={canvas} style:width="{w}px" style:height="{h}px" aria-hidden="true"></canvas>
    <svg
      width={w}
      height={h}
      role="img"
      aria-label="{name}: {drawing.shapes.length} parts{solved
        ? `, coldest inner surface ${units.full(solved.coldest, 'temperature')}`
        : ''}"
    >
      {#each drawing.shapes as shape, at (at)}
        <path class="wash" class:bare={!solved} d={path(shape.rings)} />
        <path d={path(shape.rings)} fill="url(#h-{shape.hatch})" opacity={solved ? 0.5 : 1} />
        <path class="edge" class:part={shape.part} d={path(shape.rings)}
          ><title>{shape.part || shape.name}{shape.part ? `: ${shape.name}` : ''}</title></path
        >
      {/each}
      {#each isoLines as line (line.value)}<path
          class="iso"
          class:cold={solved && range && line.value < range.low + (range.paper - range.low) * 0.25}
          d={line.path}
        />{/each}
      {#if critical}<path class="iso bold" d={critical.path} />{/if}
      {#if flowLines && solved}
        {#each solved.lines as line, at (at)}
          <polyline
            class="flow"
            points={line.map(([x = 0, y = 0]) => `${px(x).toFixed(1)},${py(y).toFixed(1)}`).join(' ')}
          />
        {/each}
      {/if}
      {#each drawing.marks as mark, at (at)}
        <g class="mark" transform="translate({px(mark.at[0] ?? 0)} {py(mark.at[1] ?? 0)})">
          <title>{SEALS[mark.kind] ?? mark.kind}</title>
          {#if mark.kind === 'bead' || mark.kind === 'foam'}<circle r={mark.kind === 'foam' ? 5 : 3.5} />
          {:else if mark.kind === 'gasket'}<rect x="-4" y="-4" width="8" height="8" />
          {:else if mark.kind === 'drain'}<path d="M-4 -3L0 5L4 -3Z" />
          {:else}<path class="line" d={mark.kind === 'lap' ? 'M-7 -3L7 3' : 'M-7 0H7'} />{/if}
        </g>
      {/each}
      {#each names as one (one.part)}
        {#if one.x > 30 && one.x < w - 30 && one.y > 8 && one.y < h - 8}
          <g class="plate" transform="translate({one.x} {one.y})">
            <rect x={-one.part.length * 3 - 4} y="-8" width={one.part.length * 6 + 8} height="16" />
            <text text-anchor="middle" y="4">{one.part}</text>
          </g>
        {/if}
      {/each}
      {#each isoLines as line (line.value)}
        {#if line.label}
          {@const text = line.shown}
          <g class="plate" transform="translate({line.label[0]} {Math.max(line.label[1], 12)})">
            <rect x={-text.length * 3.6 - 3} y="-8" width={text.length * 7.2 + 6} height="16" />
            <text class="number" text-anchor="middle" y="4">{text}</text>
          </g>
        {/if}
      {/each}
      {#if coldest && coldest.x >= -1 && coldest.x <= w + 1 && coldest.y >= -1 && coldest.y <= h + 1}
        {@const text = units.show(coldest.theta, 'temperature')}
        {@const wide = text.length * 7.4 + 8}
        {@const left = coldest.x + wide + 12 > w}
        <g class="coldest" transform="translate({coldest.x} {coldest.y})">
          <path d={left ? 'M0 0L-14 -16' : 'M0 0L14 -16'} />
          <circle r="4.5" />
          <rect x={left ? -10 - wide : 10} y="-31" width={wide} height="17" />
          <text x={left ? -6 - wide : 14} y="-18">{text}</text>
        </g>
      {/if}
      {#each drawing.dims as dim, at (at)}
        {@const [ax, ay, bx, by] = [
          px(dim.a[0] ?? 0),
          py(dim.a[1] ?? 0),
          px(dim.b[0] ?? 0),
          py(dim.b[1] ?? 0),
        ]}
        {@const flat = Math.abs(ay - by) < Math.abs(ax - bx)}
        <path
          class="dim"
          d={flat
            ? `M${ax} ${ay - 6}V${ay + 6}M${bx} ${by - 6}V${by + 6}M${ax} ${ay}L${bx} ${by}`
            : `M${ax - 6} ${ay}H${ax + 6}M${bx - 6} ${by}H${bx + 6}M${ax} ${ay}L${bx} ${by}`}
        />
      {/each}
    </svg>
    {#each drawing.dims as dim (dim.key)}
      {@const value = drawing.values[dim.key]}
      {@const flat =
        Math.abs((dim.a[1] ?? 0) - (dim.b[1] ?? 0)) < Math.abs((dim.a[0] ?? 0) - (dim.b[0] ?? 0))}
      {@const x = Math.min(
        Math.max((px(dim.a[0] ?? 0) + px(dim.b[0] ?? 0)) / 2 + (flat ? 0 : 24), 24),
        w - 30,
      )}
      {@const y = Math.min(
        Math.max((py(dim.a[1] ?? 0) + py(dim.b[1] ?? 0)) / 2 - (flat ? 17 : 0), 14),
        h - 14,
      )}
      {#if typeof value === 'number'}
        <div class="dimension" style:left="{x}px" style:top="{y}px">
          {#if editing === dim.key && onturn}
            <Entry
              label={words.get(dim.key) ?? dim.key}
              showLabel={false}
              dimension={dim.key === 'position' ? 'share' : 'length'}
              {value}
              width="tiny"
              autofocus
              onsave={(typed) => {
                editing = undefined;
                if (typed !== null) onturn(dim.key, typed);
              }}
              oncancel={() => (editing = undefined)}
            />
          {:else}
            <button
              disabled={!onturn}
              onclick={() => (editing = dim.key)}
              aria-label="{words.get(dim.key) ?? dim.key}: {dim.key === 'position'
                ? units.full(value, 'share', 0)
                : units.full(value, 'length')}, type another"
              >{dim.key === 'position' ? `${units.show(value, 'share', 0)} %` : units.length(value)}</button
            >
          {/if}
        </div>
      {/if}
    {/each}
  </div>
</div>

<style>
  .joint {
    position: relative;
  }
  .window {
    position: absolute;
    top: 0;
    outline: 1.75px solid var(--ink);
    background: var(--sheet-bright);
  }
  canvas,
  svg {
    position: absolute;
    inset: 0;
  }
  svg {
    overflow: hidden;
  }
  .facing {
    position: absolute;
    top: 50%;
    writing-mode: vertical-rl;
    white-space: nowrap;
    transform: translateY(-50%) rotate(180deg);
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .wash {
    fill: none;
  }
  .wash.bare {
    fill: var(--sheet);
  }
  .edge {
    fill: transparent;
  }
  .edge.part {
    stroke-width: 1.75;
  }
  .iso {
    fill: none;
    stroke: var(--ink);
    stroke-width: 0.9;
  }
  .iso.cold {
    stroke: var(--sheet-bright);
  }
  .iso.bold {
    stroke-width: 2.5;
  }
  .flow {
    fill: none;
    stroke: var(--sheet-bright);
    stroke-width: 1.25;
    stroke-dasharray: 5 3;
  }
  .mark circle,
  .mark rect,
  .mark path {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .mark .line {
    stroke-width: 3;
  }
  .plate rect,
  .coldest rect {
    fill: var(--sheet);
  }
  text {
    font-size: var(--fs-cap);
  }
  .number,
  .coldest text {
    font: 500 var(--fs-small) var(--mono);
  }
  .coldest path {
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .coldest circle {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 2;
  }
  .coldest rect {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .dim {
    stroke: var(--verdigris);
    stroke-width: 1.25;
    fill: none;
  }
  .dimension {
    position: absolute;
    transform: translate(-50%, -50%);
    z-index: 2;
  }
  .dimension button {
    border: 1.5px solid var(--verdigris);
    background: var(--sheet-bright);
    color: var(--ink);
    font: 500 12.5px var(--mono);
    min-height: 24px;
    min-width: 24px;
    padding: 0 5px;
    border-radius: var(--radius);
  }
  .dimension button:disabled {
    border-color: var(--line);
    color: var(--ink-2);
  }
</style>
