<!-- A joint drawn to scale: materials over the solved temperatures, lines of one temperature, seals, dimensions to type on. -->
<script lang="ts">
  import type { JointDrawing, JointSolved, JointWarmer } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import { decode, isoLine, pixels } from './field';
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
  const BANDS = 72; // of one colour each, from the coldest to the warmest
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
  /** Rectangles that no caption may cross: marks, dimensions and the coldest place, then each caption itself. */
  type Box = [number, number, number, number];
  const around = (x: number, y: number, wide: number, high: number): Box => [
    x - wide / 2,
    y - high / 2,
    x + wide / 2,
    y + high / 2,
  ];
  const apart = (a: Box, b: Box) => a[2] < b[0] || b[2] < a[0] || a[3] < b[1] || b[3] < a[1];
  const free = (box: Box, taken: readonly Box[]) => taken.every((one) => apart(box, one));
  const inView = (x: number, y: number) => x > 14 && x < w - 14 && y > 18 && y < h - 18;
  const isoLines = $derived.by(() => {
    if (!field) return [];
    const taken = [...marked, ...names.map((one) => one.box)];
    return levels.map((level, at) => {
      // Its number may lie any way: a square of its length keeps clear of all else.
      const size = level.shown.length * 7.2 + 4;
      const clear = (x: number, y: number) => inView(x, y) && free(around(x, y, size, size), taken);
      const line = isoLine(field, level.value, (x, y) => [px(x), py(y)], clear, 30 + (at % 3) * 22);
      if (line.label) taken.push(around(line.label.x, line.label.y, size, size));
      return { ...level, ...line };
    });
  });
  /** Whether a line lies on dark ground, where ink is not seen. */
  const dark = (value: number) => !!solved && !!range && value < range.low + (range.paper - range.low) * 0.25;
  const critical = $derived(
    field && solved
      ? isoLine(field, warmer ? 0 : solved.critical, (x, y) => [px(x), py(y)], inView)
      : undefined,
  );
  $effect(() => {
    const context = canvas?.getContext('2d');
    if (!canvas || !context || !field || !range) return;
    const ratio = Math.min(devicePixelRatio || 1, 2);
    const size: [number, number] = [Math.round(w * ratio), Math.round(h * ratio)];
    [canvas.width, canvas.height] = size;
    if (!size[0] || !size[1]) return;
    const drawn = pixels(field, BANDS, range, size, (x, y) => [px(x) * ratio, py(y) * ratio]);
    context.putImageData(new ImageData(drawn, ...size), 0, 0);
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
  /** The figure of the coldest place: to its right, or to its left near the edge. */
  const flag = $derived.by(() => {
    if (!coldest || coldest.x < -1 || coldest.x > w + 1 || coldest.y < -1 || coldest.y > h + 1)
      return undefined;
    const text = units.show(coldest.theta, 'temperature');
    const wide = text.length * 7.4 + 8;
    const left = coldest.x + wide + 12 > w;
    const x = left ? coldest.x - 10 - wide : coldest.x + 10;
    return { text, wide, left, box: [x - 2, coldest.y - 33, x + wide + 2, coldest.y + 6] as Box };
  });
  const seals = $derived(
    drawing.marks.map((mark) => around(px(mark.at[0] ?? 0), py(mark.at[1] ?? 0), 12, 12)),
  );
  // What is typed on stands beside its line, moved along where it would cover a seal or another figure.
  const STEPS = [0, 1, -1, 2, -2, 3, -3];
  const dims = $derived.by(() => {
    const taken = [...seals, ...(flag ? [flag.box] : [])];
    return drawing.dims.map((dim) => {
      const [ax, ay] = [px(dim.a[0] ?? 0), py(dim.a[1] ?? 0)];
      const [bx, by] = [px(dim.b[0] ?? 0), py(dim.b[1] ?? 0)];
      const flat = Math.abs(ay - by) < Math.abs(ax - bx);
      const x = Math.min(Math.max((ax + bx) / 2 + (flat ? 0 : 24), 24), w - 30);
      const middle = (ay + by) / 2 - (flat ? 17 : 0);
      const spots = STEPS.map((step) => Math.min(Math.max(middle + step * 17, 14), h - 14));
      const y = spots.find((one) => free(around(x, one, 46, 26), taken)) ?? middle;
      taken.push(around(x, y, 46, 26));
      return { key: dim.key, ax, ay, bx, by, flat, x, y };
    });
  });
  const marked = $derived<Box[]>([
    ...seals,
    ...dims.map((dim) => around(dim.x, dim.y, 52, 28)),
    ...(flag ? [flag.box] : []),
  ]);
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
        const wide = shape.part.length * 6 + 8;
        const [x, y] = [px(middle(0)), py(middle(1))];
        const steps = size(0) > wide && size(1) > 15 ? [0, 1, -1, 2, -2, 3, -3] : [];
        const spot = steps
          .map((step) => y + step * 17)
          .filter((at) => Math.abs(at - y) < size(1) / 2 - 7)
          .find(
            (at) => x > 30 && x < w - 30 && at > 8 && at < h - 8 && free(around(x, at, wide, 16), marked),
          );
        return { part: shape.part, x, y: spot ?? NaN, box: around(x, spot ?? NaN, wide, 16) };
      })
      .filter((one, at, all) => !isNaN(one.y) && all.findIndex((other) => other.part === one.part) === at),
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
          class:cold={dark(line.value)}
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
          {#if mark.kind === 'bead'}<circle r="3" />
          {:else if mark.kind === 'foam'}<circle class="foam" r="4.5" />
          {:else if mark.kind === 'gasket'}<rect x="-3.5" y="-3.5" width="7" height="7" />
          {:else if mark.kind === 'drain'}<path d="M-4 -3L0 5L4 -3Z" />
          {:else}<path class="line" d={mark.kind === 'lap' ? 'M-7 -3L7 3' : 'M-7 0H7'} />{/if}
        </g>
      {/each}
      {#each names as one (one.part)}
        <text class="halo" text-anchor="middle" x={one.x} y={one.y + 4}>{one.part}</text>
      {/each}
      {#each isoLines as line (line.value)}
        {#if line.label}
          <text
            class="number halo"
            class:cold={dark(line.value)}
            text-anchor="middle"
            dy="4"
            transform="translate({line.label.x} {line.label.y}) rotate({line.label.turn})">{line.shown}</text
          >
        {/if}
      {/each}
      {#if coldest && flag}
        <g class="coldest" transform="translate({coldest.x} {coldest.y})">
          <path class="leader" d={flag.left ? 'M0 0L-14 -16' : 'M0 0L14 -16'} />
          <path class="spot" d="M-5 0L0 -5L5 0L0 5Z" />
          <rect x={flag.left ? -10 - flag.wide : 10} y="-31" width={flag.wide} height="17" />
          <text x={flag.left ? -6 - flag.wide : 14} y="-18">{flag.text}</text>
        </g>
      {/if}
      {#each dims as { key, ax, ay, bx, by, flat } (key)}
        <path
          class="dim"
          d={flat
            ? `M${ax} ${ay - 6}V${ay + 6}M${bx} ${by - 6}V${by + 6}M${ax} ${ay}L${bx} ${by}`
            : `M${ax - 6} ${ay}H${ax + 6}M${bx - 6} ${by}H${bx + 6}M${ax} ${ay}L${bx} ${by}`}
        />
      {/each}
    </svg>
    {#each dims as dim (dim.key)}
      {@const value = drawing.values[dim.key]}
      {#if typeof value === 'number'}
        <div class="dimension" style:left="{dim.x}px" style:top="{dim.y}px">
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
  /* Solid, as nothing of it can be dragged; a thin paper edge keeps it clear of what it lies on. */
  .mark circle,
  .mark rect,
  .mark path {
    fill: var(--ink);
    stroke: var(--sheet-bright);
    stroke-width: 1;
  }
  .mark .foam {
    fill: var(--ochre-line);
  }
  .mark .line {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .coldest rect {
    fill: var(--sheet);
  }
  .number.cold {
    fill: var(--sheet-bright);
    stroke: var(--t-0);
    stroke-width: 3px;
  }
  text {
    font-size: var(--fs-cap);
  }
  .number,
  .coldest text {
    font: 500 var(--fs-small) var(--mono);
  }
  .coldest .leader {
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .coldest .spot {
    fill: var(--ink);
    stroke: var(--sheet-bright);
    stroke-width: 1;
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
