<!-- The wall, its pressure and the time of its pour on one height axis, a joint between lifts as one line through all. -->
<script lang="ts">
  import type { PouredRun, PourChoices } from '@/api/client';
  import { lineThrough, scaleLinear, ticksOf } from '@/draw/chart';
  import type { Units } from '@/kit/units';

  interface Props {
    run: PouredRun;
    choices: PourChoices;
    units: Units;
    density: number;
  }
  let { run, choices, units, density }: Props = $props();
  const TOP = 34;
  const LOW = 300;
  const SECTION = 250;
  const G = 9.81;
  let wide = $state(720);
  const Y = $derived(scaleLinear([0, run.height], [LOW, TOP]));
  const from = $derived(SECTION + 40);
  const to = $derived(from + (wide - SECTION - 110) / 2);
  const begin = $derived(to + 50);
  const most = $derived(Math.max(run.pressure, run.greatest ?? 0, choices.rated ?? 0) * 1.12);
  const P = $derived(scaleLinear([0, most], [from, to]));
  const hours = $derived(Math.max(run.hours, run.height / choices.rate, 0.1));
  const T = $derived(scaleLinear([0, hours], [begin, wide - 12]));
  const clock = (h: number) => {
    const at = choices.begins + h;
    return `${Math.floor(at) % 24}:${String(Math.floor((at % 1) * 60 + 1e-6)).padStart(2, '0')}`;
  };
  /** Pressure over the height of a lift: as deep as fresh concrete stands, up to what governs. */
  const envelope = (low: number, high: number, top: number): [number, number][] => {
    const unit = (density * G) / 1000;
    const deep = Math.min(high - low, top / unit);
    return [
      [0, high],
      [top, high - deep],
      [top, low],
      [0, low],
    ];
  };
  const area = (points: readonly [number, number][]) =>
    `${lineThrough(
      points,
      (one) => P(one[0]),
      (one) => Y(one[1]),
    )}Z`;
  const thick = $derived(run.foam_out + run.core + run.foam_in);
  const scale = $derived(Math.min(64 / thick, 260));
  const wall = $derived([
    { d: run.foam_out, hatch: 'foam' },
    { d: run.core, hatch: 'concrete' },
    { d: run.foam_in, hatch: 'foam' },
  ]);
  const LEFT = 46;
  const offset = $derived.by(() => {
    const found: number[] = [];
    let x = LEFT;
    for (const one of wall) {
      found.push(x);
      x += one.d * scale;
    }
    return found;
  });
  const inner = $derived(LEFT + thick * scale);
  const high = $derived(Math.min(choices.brace_height, run.height * 0.8));
  const ways = $derived(
    run.lifts.flatMap((one) => [
      { t: one.begins, h: one.low },
      { t: one.ends, h: one.high },
    ]),
  );
</script>

<div bind:clientWidth={wide}>
  <svg
    width={wide}
    height={LOW + 44}
    role="img"
    aria-label="Walls {run.marks}: {run.lifts.length} lifts, the greatest pressure {run.greatest === null
      ? 'is not known'
      : units.full(run.greatest, 'load')}; in one go {units.full(run.pressure, 'load')}"
  >
    {#each wall as one, n (n)}
      {#if one.d > 0}<rect
          x={offset[n]}
          y={TOP}
          width={one.d * scale}
          height={LOW - TOP}
          fill="url(#h-{one.hatch}-s)"
          stroke="var(--ink)"
        />{/if}
    {/each}
    {#if run.one_sided}<path class="form" d="M{inner + 3} {TOP}V{LOW}" />{/if}
    <path class="ground" d="M{LEFT - 14} {LOW}H{SECTION - 8}" />
    <path
      class="brace"
      d="M{inner + (run.one_sided ? 6 : 0)} {Y(high)}L{inner + 90} {LOW}M{inner + 78} {LOW}h24"
    />
    {#if run.lean_top !== null}
      <path class="lean" d="M{inner} {LOW}L{inner + run.lean_top * scale * 20} {TOP}" />
      <text x={inner + run.lean_top * scale * 20 + 6} y={TOP + 8} class="yours"
        >{units.full(run.lean_top, 'length')} inward</text
      >
      <text x={inner + run.lean_top * scale * 20 + 6} y={TOP + 21} class="soft">drawn 20 times</text>
    {/if}
    <text x={from - 8} y={Y(high) - 4} class="soft" text-anchor="end"
      >brace at {units.length(choices.brace_height)}</text
    >
    <text x={LEFT - 6} y={LOW + 16} class="soft" text-anchor="middle">outside</text>
    <text x={inner + 20} y={LOW + 16} class="soft">inside</text>
    {#each run.joints as z (z)}<path class="board" d="M{LEFT - 8} {Y(z)}h6" />{/each}

    <text x={from} y="14">pressure, {units.symbol('load')}</text>
    {#if run.lifts.length !== 1}<path class="one" d={area(envelope(0, run.height, run.pressure))} />{/if}
    {#each run.lifts as one (one.low)}
      <path class="pressure" d={area(envelope(one.low, one.high, one.pressure))} />
      <text x={P(0) + 6} y={Y(one.low) - 6}>{units.show(one.pressure, 'load', 1)}</text>
    {/each}
    {#if choices.rated !== null && choices.rated !== undefined}
      {#if run.pressure > choices.rated}<rect
          class="beyond"
          x={P(choices.rated)}
          y={TOP}
          width={Math.max(0, P(run.pressure) - P(choices.rated))}
          height={LOW - TOP}
        />
        <text class="ochre" x={P(choices.rated) - 6} y={TOP + 14} text-anchor="end"
          >in one {units.show(run.pressure, 'load', 1)}</text
        >{/if}
      <path class="rated" d="M{P(choices.rated)} {TOP - 6}V{LOW}" />
      <text x={P(choices.rated)} y={TOP - 10} text-anchor="middle"
        >rated {units.show(choices.rated, 'load', 0)}</text
      >
    {/if}
    {#each ticksOf(units, 'load', 0, most, 5) as tick (tick.value)}
      <text class="soft" x={P(tick.value)} y={LOW + 16} text-anchor="middle">{tick.shown}</text>
    {/each}
    <path class="axis" d="M{from} {LOW}H{to}M{begin} {LOW}H{wide - 12}" />

    <text x={begin} y="14">height against time</text>
    {#if run.lifts.length > 1}<path
        class="direct"
        d="M{T(0)} {Y(0)}L{T(run.height / choices.rate)} {Y(run.height)}"
      />{/if}
    <path
      class="time"
      d={lineThrough(
        ways,
        (one) => T(one.t),
        (one) => Y(one.h),
      )}
    />
    {#each run.truck_times as t, n (n)}<path class="truck" d="M{T(t)} {LOW}v-7" />{/each}
    {#each [...new Set([0, ...run.lifts.flatMap((one) => [one.begins, one.ends])])] as t, n (t)}
      {#if n === 0 || T(t) - T(0) > 34 * n || t === run.hours}<text
          class="soft"
          x={T(t)}
          y={LOW + (n % 2 ? 30 : 16)}
          text-anchor={t === run.hours ? 'end' : 'middle'}>{clock(t)}</text
        >{/if}
    {/each}
    {#each run.lifts.slice(0, -1) as one (one.high)}
      <path class="joint" d="M{LEFT - 14} {Y(one.high)}H{wide - 12}" />
      <text class="yours" x={wide - 12} y={Y(one.high) - 5} text-anchor="end"
        >joint at {units.full(one.high, 'distance')}</text
      >
    {/each}
    {#each run.read as one, n (n)}
      <path
        class="read"
        class:off={!one.on_board && !one.reason}
        d="M{LEFT - 14} {Y(one.level)}H{SECTION - 8}"
      />
      <text
        class:over={!one.on_board && !one.reason}
        class="soft"
        x={SECTION - 8}
        y={Y(one.level) - 4}
        text-anchor="end">ended {units.full(one.level, 'distance')}</text
      >
    {/each}
  </svg>
</div>

<style>
  svg {
    display: block;
    font: 11px var(--mono);
  }
  text {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .soft {
    fill: var(--ink-2);
  }
  .yours {
    fill: var(--verdigris);
  }
  .ochre {
    fill: var(--ochre);
  }
  text.over {
    fill: var(--oxide);
  }
  .form {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .ground,
  .brace,
  .axis {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .lean {
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .board {
    stroke: var(--ink-2);
  }
  .pressure {
    fill: var(--verdigris-wash);
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
  .one,
  .direct {
    fill: none;
    stroke: var(--ink-2);
    stroke-dasharray: 4 3;
  }
  .beyond {
    fill: url(#h-loss);
  }
  .rated {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .time {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.8;
  }
  .truck {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .joint {
    stroke: var(--verdigris);
    stroke-dasharray: 10 3 2 3;
  }
  .read {
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .read.off {
    stroke: var(--oxide);
  }
</style>
