<!-- The temperature line of a section on the section's own x, with its axis outside of it. -->
<script lang="ts">
  import type { Assembly, Profile } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';
  import type { Frame } from './section';

  interface Props {
    assembly: Assembly;
    profile: Profile | undefined;
    frame: Frame;
    units: Units;
    onwork: (figure: string, title: string, dimension: string) => void;
  }
  let { assembly, profile, frame, units, onwork }: Props = $props();
  const { left, right, top, bottom } = $derived(frame);
  const planes = $derived(profile?.planes ?? []);
  const condition = $derived(profile?.condition);
  const span = $derived([condition?.theta_i ?? 20, condition?.theta_e ?? 0]);
  const low = $derived(Math.min(...span) - 3);
  const high = $derived(Math.max(...span) + 3);
  const y = $derived(scaleLinear([low, high], [bottom, top]));
  const xIn = (x: number) => right - x * frame.scale;
  const line = $derived(
    lineThrough(
      profile?.curve ?? [],
      (point) => xIn(point.x),
      (point) => y(point.theta),
    ),
  );
  /** The films, and the air on both sides. */
  const air = $derived.by(() => {
    const outer = planes.at(-1);
    const inner = planes[0];
    if (!condition || !outer || !inner) return '';
    const xo = xIn(outer.x);
    const straight = (points: [number, number][]) =>
      lineThrough(
        points,
        ([x]) => x,
        ([, theta]) => y(theta),
      );
    return (
      straight([
        [xo, outer.theta],
        [xo - 6, condition.theta_e],
        [Math.min(left, xo) - 14, condition.theta_e],
      ]) +
      straight([
        [right, inner.theta],
        [right + 6, condition.theta_i],
        [right + 18, condition.theta_i],
      ])
    );
  });
  const ticks = $derived(ticksOf(units, 'temperature', low, high, 5));
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
</script>

<!-- temperature -->
<text class="axis" x={left - 12} y={top + 4} text-anchor="end">{units.symbol('temperature')}</text>
{#each ticks.filter((tick) => y(tick.value) > top + 14) as tick, at (at)}
  <line class="tick" x1={left - 8} x2={left} y1={y(tick.value)} y2={y(tick.value)} />
  <text class="axis mono" x={left - 12} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
{/each}
<path class="halo-line" d={line} />
<path class="result" d={line} data-testid="temperature-line" />
<path class="result" d={air} />
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

<style>
  .tick {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.6;
  }
  text {
    font-size: var(--fs-base);
  }
  .mono {
    font-family: var(--mono);
    font-size: var(--fs-small);
    letter-spacing: -0.02em;
  }
  .work {
    cursor: pointer;
    text-decoration: underline dotted;
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
  /* Solid: it cannot be dragged. */
  .knot {
    fill: var(--ink);
    stroke: var(--sheet-bright);
    stroke-width: 1;
    pointer-events: none;
  }
</style>
