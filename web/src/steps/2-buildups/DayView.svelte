<!-- A day through the build-up: outside, inner surface, and the inner surface of a wall of the same U without mass. -->
<script lang="ts">
  import type { Assembly, Day } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import { lineThrough, scaleLinear, ticksOf } from '@/draw/chart';
  import { MONTHS } from '@/kit/months';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Worked from '@/project/Worked.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    draft: Assembly;
    units: Units;
    revision: number;
  }
  let { draft, units, revision }: Props = $props();
  const place = $derived(router.place);
  const warmest = $derived.by(() => {
    const theta = session.open?.project.basis.climate.theta_e ?? [];
    return theta.indexOf(Math.max(...theta));
  });
  let month = $state<string>();
  let rise = $state(0);
  let width = $state(700);
  const live = asking(
    () => ({
      project: place.project,
      building: place.building,
      assembly: draft,
      month: Number(month ?? warmest),
      rise,
      revision,
    }),
    ({ project, building, assembly, month, rise }): Promise<Day> =>
      take(
        api.POST('/api/v1/projects/{project_id}/day', {
          ...inProject(project),
          body: { building_id: building, assembly, month, rise },
        }),
      ),
  );
  const day = $derived(live.answer);
  const problem = $derived(live.problem);
  const LEFT = 44;
  const RIGHT = 150;
  const H = 190;
  const low = $derived(Math.min(...(day ? [...day.outside, ...day.massless, day.theta_i] : [0])) - 1);
  const high = $derived(Math.max(...(day ? [...day.outside, ...day.massless, day.theta_i] : [1])) + 1);
  const x = (hour: number) => LEFT + (hour / 24) * (width - LEFT - RIGHT);
  const y = $derived(scaleLinear([low, high], [8 + H, 8]));
  const path = (values: readonly number[], y: (theta: number) => number) =>
    lineThrough(values, (_, hour) => x(hour), y);
  const ticks = $derived(ticksOf(units, 'temperature', low, high, 6));
  // The inner surface hardly moves on the scale of the outside: it is drawn again, ten times larger, below.
  const fine = $derived.by(() => {
    const values = day ? [...day.surface, ...day.massless] : [0, 1];
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const pad = Math.max((most - least) * 0.15, 0.02);
    return { low: least - pad, high: most + pad };
  });
  const yFine = $derived(scaleLinear([fine.low, fine.high], [118, 8]));
  const swing = (values: readonly number[]) => (Math.max(...values) - Math.min(...values)) / 2;
  const of = $derived({ kind: 'day' as const, month: Number(month ?? warmest), rise });
  const rows = (day: Day): [string, string, string, string][] => [
    ['Y12', 'periodic transmittance Y12', 'transmittance', units.full(day.Y12, 'transmittance', 4)],
    ['decrement', 'decrement', 'ratio', units.show(day.decrement, 'ratio')],
    ['lag_h', 'lag', 'hours', units.full(day.lag_h, 'hours')],
    ['kappa_i', 'κ inside, 24 h', 'capacity', units.full(day.kappa_i, 'capacity')],
    ['kappa_e', 'κ outside, 24 h', 'capacity', units.full(day.kappa_e, 'capacity')],
    ['mean_flux', 'mean flux into the room', 'flux', units.full(day.mean_flux, 'flux')],
    ['peak_flux', 'peak flux', 'flux', units.full(day.peak_flux, 'flux')],
    ['peak_massless', 'peak, same U, no mass', 'flux', units.full(day.peak_massless, 'flux')],
  ];
  const sentence = $derived.by(() => {
    if (!day) return '';
    const cut = day.peak_massless - day.peak_flux;
    const peak = `The peak into the room falls from ${units.full(day.peak_massless, 'flux')} to ${units.full(day.peak_flux, 'flux')} and comes ${units.full(day.lag_h, 'hours')} later`;
    return (
      {
        'swing too small to matter': `The insulation alone leaves a swing of ${units.show(swing(day.massless), 'difference', 2)} K on the inner surface: mass has nothing left to even out.`,
        'hardly any mass': 'The build-up behaves almost as if it had no mass.',
        'evens out both ways': `${peak}. The outside passes the room's temperature both ways in the day, so mass evens out gains and losses.`,
        'delays, does not save': `${peak}. The day's mean flux, ${units.full(day.mean_flux, 'flux')}, is the same with and without mass: here it delays, it does not save.`,
      }[day.verdict] ?? `${cut}`
    );
  });
</script>

<div class="controls">
  <Choice
    label="Mean day of"
    value={month ?? String(warmest)}
    options={MONTHS.map((text, at) => ({ value: String(at), text }))}
    onsave={(value) => (month = value)}
  />
  <Entry
    label="sun adds at most"
    dimension="difference"
    value={rise}
    width="tiny"
    onsave={(value) => value !== null && value >= 0 && value <= 60 && (rise = value)}
  />
  <span class="soft">to the outer surface's equivalent temperature: colour, orientation and shade decide</span
  >
</div>
{#if problem}
  <Notice title="No day for this build-up." text={problem.sentence} live />
{:else if day}
  <div class="columns" data-stale={live.stale} data-testid="day">
    <div bind:clientWidth={width}>
      <h2>Outside and inner surface through the day <span>{units.symbol('temperature')}</span></h2>
      <svg {width} height={H + 36} role="img" aria-label="Temperatures through the day">
        <rect class="ground" x={LEFT} y="8" width={width - LEFT - RIGHT} height={H} />
        {#each ticks as tick, at (at)}
          <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick.value)} y2={y(tick.value)} />
          <text class="axis" x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
        {/each}
        {#each [0, 6, 12, 18, 24] as hour (hour)}
          <text class="axis" x={x(hour)} y={H + 24} text-anchor="middle">{hour} h</text>
        {/each}
        <path class="outside" d={path(day.outside, y)} />
        <path class="inside" d={path(day.surface, y)} />
        <line class="room" x1={LEFT} x2={width - RIGHT} y1={y(day.theta_i)} y2={y(day.theta_i)} />
        <text x={width - RIGHT + 8} y={y(day.outside[24] ?? 0) + 4}>outside</text>
        <text x={width - RIGHT + 8} y={y(day.theta_i) + ((day.outside[24] ?? 0 > day.theta_i) ? 4 : -4)}
          >inner surface, room</text
        >
      </svg>
      <h2>Inner surface, enlarged <span>{units.symbol('temperature')}</span></h2>
      <svg {width} height="142" role="img" aria-label="Inner surface with and without mass">
        <rect class="ground" x={LEFT} y="8" width={width - LEFT - RIGHT} height="110" />
        {#each ticksOf(units, 'temperature', fine.low, fine.high, 4) as tick, at (at)}
          <line class="grid" x1={LEFT} x2={width - RIGHT} y1={yFine(tick.value)} y2={yFine(tick.value)} />
          <text class="axis" x={LEFT - 6} y={yFine(tick.value) + 4} text-anchor="end">{tick.shown}</text>
        {/each}
        {#each [0, 6, 12, 18, 24] as hour (hour)}
          <text class="axis" x={x(hour)} y="134" text-anchor="middle">{hour} h</text>
        {/each}
        <path class="massless" d={path(day.massless, yFine)} />
        <path class="inside" d={path(day.surface, yFine)} />
        <text x={width - RIGHT + 8} y={yFine(day.massless[24] ?? 0) + 12} class="soft">same U, no mass</text>
        <text x={width - RIGHT + 8} y={yFine(day.surface[24] ?? 0) - 3}>this build-up</text>
      </svg>
    </div>
    <div class="side">
      <p class="verdict" data-testid="day-verdict">
        <b>{day.verdict[0]?.toUpperCase()}{day.verdict.slice(1)}.</b>
        {sentence}
      </p>
      <dl>
        {#each rows(day) as [figure, title, dimension, text] (figure)}
          <div>
            <dt>{title}</dt>
            <dd><Worked {figure} {title} {text} {dimension} assembly={draft} {of} /></dd>
          </div>
        {/each}
      </dl>
      <p class="soft">
        ISO 13786, one harmonic of 24 h through the field, films included, room held at its temperature. The
        day's range is that of the Basis. It says what the wall does, not what the room does: glazing, gains
        and air are not in it.
      </p>
    </div>
  </div>
{:else}
  <p role="status">Calculating the day</p>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 330px;
    gap: 20px;
  }
  h2 span,
  .soft {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
    fill: var(--ink-3);
  }
  .verdict {
    border-left: 4px solid var(--verdigris);
    padding-left: 10px;
    margin-bottom: 10px;
  }
  dl div {
    border-bottom: 1px solid var(--hair);
    padding: 3px 0;
    font-size: var(--fs-small);
  }
  dl + p {
    margin-top: 8px;
  }
  .axis {
    font-family: var(--mono);
  }
  .outside,
  .inside,
  .massless {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .inside {
    stroke: var(--verdigris);
    stroke-width: 2.5;
  }
  .massless {
    stroke-dasharray: 6 4;
    stroke-width: 1.5;
  }
  .room {
    stroke: var(--ink-2);
    stroke-dasharray: 2 4;
  }
</style>
