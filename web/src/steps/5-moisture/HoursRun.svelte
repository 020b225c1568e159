<!-- One run by the hour: its verdict, what its layers hold through the years, and the section at any moment. -->
<script lang="ts">
  import type { Assembly, Building, HoursRun, Life } from '@/api/client';
  import SectionProfile from '@/draw/SectionProfile.svelte';
  import TimeChart, { type Line } from '@/draw/TimeChart.svelte';
  import type { Units } from '@/kit/units';
  import { layerName } from '@/project/layers';
  import { session } from '@/project/session.svelte';
  import { MONTHS } from '@/kit/months';
  import Worked from '@/project/Worked.svelte';
  import { runs, STATES_A_DAY } from './hours.svelte';
  import HoursAdvice from './HoursAdvice.svelte';
  import HoursFaces from './HoursFaces.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    life: Life;
    run: HoursRun;
    units: Units;
  }
  let { building, assembly, life, run, units }: Props = $props();
  $effect(() => {
    void runs.load(run);
  });
  const field = $derived(runs.field?.key === run.key ? runs.field : undefined);
  const limit = $derived(session.shipped?.mould_phi ?? 1);

  const WAYS = [
    { id: 'wood', text: 'water in wood' },
    { id: 'mould', text: 'mould index' },
    { id: 'phi', text: 'humidity at faces' },
    { id: 'water', text: 'water in layers' },
  ];
  let way = $state('');
  const shown = $derived(way || (run.wood.length ? 'wood' : 'water'));
  let day = $state<number>();
  const cursor = $derived(Math.min(day ?? 365 * (run.years - 1) + 110, 365 * run.years - 1));
  const moment = $derived(Math.round(cursor * STATES_A_DAY));
  const named = (layer: number) => layerName(assembly, session.materials, layer);
  const face = (layer: number, outer: boolean) => `${named(layer)}, ${outer ? 'outer' : 'inner'} face`;
  const short = (name: string) => (name.length > 24 ? `${name.slice(0, 23)}…` : name);
  /** Places at the faces between layers: the last of one layer and the first of the next. */
  const faces = $derived(
    run.layer.flatMap((layer, n) => (n && layer !== run.layer[n - 1] ? [{ inner: n - 1, outer: n }] : [])),
  );
  const everyday = (count: number) => Array.from({ length: count }, (_, n) => n);
  const lines = $derived.by<{
    days: number[];
    lines: Line[];
    limit?: number;
    text?: string;
    show: (v: number) => string;
  }>(() => {
    const percent = (value: number) => `${units.show(value, 'share', 0)} %`;
    const days = everyday(365 * run.years);
    if (shown === 'wood')
        return {
          days, show: percent, limit: run.wood_limit, text: `limit ${percent(run.wood_limit)} by mass`,
          lines: run.wood.map((one) => ({
            name: `${short(named(one.layer))} ${units.show(one.most, 'share', 1)}`,
            values: one.share,
            strong: one.most === Math.max(...run.wood.map((w) => w.most)),
            open: one.most > run.wood_limit,
          })),
        }; // prettier-ignore
    if (shown === 'mould') {
      const most = Math.max(...run.mould.map((one) => one.most));
      return {
          days, show: (value) => value.toFixed(1), limit: run.mould_limit, text: `limit ${run.mould_limit}`,
          lines: run.mould.filter((one) => one.most > 0.02 || one.most === most).map((one) => ({
            name: `${short(named(one.layer))} ${one.outer ? 'out' : 'in'} ${one.most.toFixed(1)}`,
            values: one.index, strong: one.most === most, open: one.most > run.mould_limit,
          })),
        }; // prettier-ignore
    }
    if (shown === 'phi' && field) {
      const count = Math.floor(run.hours / STATES_A_DAY);
      return {
          days: everyday(count), show: percent, limit, text: percent(limit),
          lines: faces.map(({ inner, outer }) => ({
            name: `${short(named(run.layer[outer] ?? 0))}, in`,
            values: everyday(count).map((n) =>
              Math.max(field.at(n * STATES_A_DAY, inner).phi, field.at(n * STATES_A_DAY, outer).phi)),
          })),
        }; // prettier-ignore
    }
    return {
        days: everyday(365 * run.years + 1), show: (value) => units.show(value, 'surface_mass', 1),
        lines: run.water.map((values, layer) => ({ name: short(named(layer)), values }))
          .filter((one) => Math.max(...one.values) > 0.02),
      }; // prettier-ignore
  });
  const REASON = {
    wood: 'Wood gets too wet.',
    mould: 'Mould grows.',
    gathers: 'Water gathers from year to year.',
    '': 'Accepted by the hour.',
  };
  const CAUSE = {
    storage: 'what the layers store, and carry on later, makes the difference',
    liquid: 'water that moves as liquid makes the difference',
    sun: 'sun and clear sky on the outer surface make the difference',
    several: 'several effects together make the difference: none of storage, liquid or sun does so alone',
  };
  const worstWood = $derived(run.wood.toSorted((a, b) => b.most - a.most)[0]);
  const worstMould = $derived(run.mould.toSorted((a, b) => b.most - a.most)[0]);
  const since = (n: number) => {
    const date = new Date(Date.UTC(2001, run.begins - 1, 1) + Math.floor(n) * 86400000);
    const name = date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });
    return `${name}, year ${Math.floor(n / 365) + 1}, ${String(Math.round((n % 1) * 24) % 24).padStart(2, '0')}:00`;
  };
</script>

<p class="verdict" class:decision={run.fails} data-testid="hours-verdict">
  <strong>{REASON[run.fails]}</strong>
  {#if worstWood}
    Wood holds at most
    <Worked
      figure="wood"
      title="Water in wood"
      text="{units.show(worstWood.most, 'share', 1)} %"
      dimension="share"
      steps={run.working['wood']?.steps}
    />
    of its mass in the last year, in {named(worstWood.layer)}{worstMould ? ';' : '.'}
  {/if}
  {#if worstMould}
    {worstWood ? 'mould' : 'Mould'} index at most
    <Worked
      figure="mould"
      title="Mould index"
      text={worstMould.most.toFixed(1)}
      dimension="ratio"
      steps={run.working['mould']?.steps}
    />
    at {face(worstMould.layer, worstMould.outer)}.
  {/if}
  {#if run.cause}
    <span class="schools" data-testid="schools"
      >The months say {run.months_fail ? 'no' : 'yes'}, the hours {run.fails ? 'no' : 'yes'}: {CAUSE[
        run.cause
      ]}.</span
    >
  {/if}
</p>
{#if run.fails}<HoursAdvice {building} {assembly} {life} />{/if}
<div class="ways" role="group" aria-label="What is drawn">
  {#each WAYS as one (one.id)}
    {#if one.id !== 'wood' || run.wood.length}
      <button aria-pressed={shown === one.id} class:on={shown === one.id} onclick={() => (way = one.id)}
        >{one.text}</button
      >
    {/if}
  {/each}
  <span
    >{run.years}
    {run.years === 1 ? 'year' : 'years'} from {MONTHS[run.begins - 1]}{run.repeats
      ? ', the last like the one before'
      : ', not repeating yet'}</span
  >
</div>
<TimeChart
  begins={run.begins}
  title="{WAYS.find((one) => one.id === shown)?.text ?? ''} through the years"
  days={lines.days}
  lines={lines.lines}
  limit={lines.limit}
  limitText={lines.text ?? ''}
  show={lines.show}
  {cursor}
  oncursor={(to) => (day = to)}
  height={170}
/>
{#if field}
  <h2>The section on {since(cursor)} <span>black: temperature; ochre: relative humidity</span></h2>
  <SectionProfile {assembly} materials={session.materials} {run} {field} {limit} state={moment} {units} />
  <HoursFaces {run} {field} {faces} {moment} {named} {units} />
{/if}
{#if run.dry_after.length}
  <p class="soft">
    {#each run.dry_after as { layer, day: days } (layer)}
      {named(layer)}: {days === null
        ? `not below 85 % within ${run.years} years`
        : days === 0
          ? 'below 85 % from the first day'
          : `below 85 % for good after ${days} days`}.&#32;
    {/each}
  </p>
{/if}
<p class="soft method" data-testid="balance">
  EN 15026, {run.cells} cells, {run.steps.toLocaleString('en').replaceAll(',', '\u2009')} steps with an error control;
  water gained less water that came in <Worked
    figure="balance"
    title="Water missing from the balance"
    text={units.tiny(run.balance_error, 'condensate')}
    dimension="condensate"
    steps={run.working['balance']?.steps}
  />, heat
  {run.heat_error.toExponential(0).replaceAll('-', '−')} of what flowed.
  {run.notes.length
    ? `${run.notes.join('; ')}.`
    : 'Every material has its own sorption data: usual values of its kind, not of a product.'}
  Weather is an invented year with the months of the Basis; the mould index is that of untreated surfaces, of pine
  (W 0), {session.open?.project.basis.damp?.mould_surface ?? 'sawn'} (Basis). A fire, a flood or a wrong detail
  is not in it: a licensed reviewer judges damage and health.
</p>
