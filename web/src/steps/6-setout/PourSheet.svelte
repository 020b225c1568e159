<!-- The pour: pressure against what the form is rated for, lifts, concrete and trucks, braces and string lines. -->
<script lang="ts">
  import type { Building, PourChoices } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { MONTHS } from '@/kit/months';
  import { counted } from '@/kit/reading';
  import Button from '@/kit/Button.svelte';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import type { Units } from '@/kit/units';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { router } from '@/project/router.svelte';
  import { untrack } from 'svelte';
  import type { Column } from '@/project/columns';
  import EnteredTable from '@/project/EnteredTable.svelte';
  import PourChart from './PourChart.svelte';
  import WallTabs from './WallTabs.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  $effect(() => {
    const question = forms.question(building);
    untrack(() => forms.pour.askNew(question));
  });
  const sheet = $derived(forms.pour.of({ building: building.id }));
  const run = $derived(sheet?.runs.find((one) => one.id === router.place.element) ?? sheet?.runs[0]);
  const choices = $derived(sheet?.choices);
  const save = (change: Partial<PourChoices>, words: string) =>
    forms.savePour(building, change, `Pour: ${words}`);
  const refused = (field: string) => why(`/pour/${field}`);
  const clock = (h: number) => {
    const at = (choices?.begins ?? 0) + h;
    return `${Math.floor(at) % 24}:${String(Math.floor((at % 1) * 60 + 1e-6)).padStart(2, '0')}`;
  };
  const FIELDS: Field[] = [
    { field: 'rate', text: 'rate of rise', dimension: 'rise' },
    { field: 'temperature', text: 'concrete, as placed', dimension: 'temperature' },
    { field: 'rated', text: 'rated by the form supplier', dimension: 'load', optional: true },
    { field: 'density', text: 'fresh concrete', dimension: 'density' },
    { field: 'max_lift', text: 'a lift at most', dimension: 'distance' },
    { field: 'wait', text: 'between lifts', dimension: 'hours', decimals: 2 },
    { field: 'begins', text: 'begins at', dimension: 'hours' },
    { field: 'waste', text: 'waste', dimension: 'share' },
    { field: 'truck', text: 'a truck brings', dimension: 'volume' },
  ];
  const COEFFICIENTS = $derived<Field[]>(
    (choices?.school === 'A'
      ? [
          ['C1', 'C1, by the section'],
          ['C2', 'C2, by cement and admixtures'],
        ]
      : [
          ['Cw', 'Cw, by weight'],
          ['Cc', 'Cc, by chemistry'],
        ]
    ).map(([field = '', text = '']) => ({ field, text, dimension: 'ratio', decimals: 2 })),
  );
  const BRACING: Field[] = [
    { field: 'brace_height', text: 'meets the wall at', dimension: 'distance' },
    { field: 'brace_foot', text: 'stands off by', dimension: 'distance' },
    { field: 'brace_end', text: 'from the ends at most', dimension: 'distance' },
    { field: 'brace_clear', text: 'clear of openings', dimension: 'length' },
    { field: 'tie_clear', text: 'clear of tie screws', dimension: 'length' },
    { field: 'lean', text: 'leans inward', dimension: 'slope' },
  ];
  type Row = NonNullable<PourChoices['braces']>[number];
  type Line = NonNullable<PourChoices['strings']>[number];
  type Day = NonNullable<PourChoices['days']>[number];
  const BRACES: Column<Row>[] = [
    { key: 'height', label: 'wall up to', kind: 'figure', dimension: 'distance' },
    { key: 'spacing', label: 'braces every', kind: 'figure', dimension: 'distance' },
  ];
  const wallsOf = $derived(
    sheet?.runs.flatMap((one) => one.walls.map((each) => ({ value: each.wall, text: each.mark }))) ?? [],
  );
  const STRINGS = $derived<Column<Line>[]>([
    { key: 'wall', label: 'wall', kind: 'choice', options: wallsOf },
    { key: 'u', label: 'from the left', kind: 'figure', dimension: 'length' },
    { key: 'before', label: 'inward before', kind: 'figure', dimension: 'length' },
    { key: 'after', label: 'after', kind: 'figure', dimension: 'length', optional: true },
  ]);
  const DAYS = $derived<Column<Day>[]>([
    {
      key: 'run',
      label: 'walls',
      kind: 'choice',
      options: sheet?.runs.map((one) => ({ value: one.id, text: one.marks })) ?? [],
    },
    { key: 'level', label: 'ended at', kind: 'figure', dimension: 'distance' },
    { key: 'reason', label: 'why off a board joint', kind: 'text' },
  ]);
  const slowest = $derived(run?.most_rate ?? null);
</script>

{#if forms.pour.problem && !sheet}
  <Notice
    tone="note"
    title={forms.pour.problem.items[0]?.detail ?? 'There is nothing to pour'}
    text={forms.pour.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet || !run || !choices}
  <p role="status">Being asked</p>
{:else}
  <p class="caution" role="note">
    Pressures are design methods within their ranges. What a form and its bracing take is their supplier's to
    say and a licensed engineer's to confirm; nobody stands below a form while it is filled.
  </p>
  <div class="columns" data-stale={forms.pour.stale}>
    <div>
      <WallTabs
        title="Runs"
        shown={run.id}
        tabs={sheet.runs.map((one) => ({
          id: one.id,
          mark: one.marks,
          label: `Walls ${one.marks}`,
          open: one.fits === false,
        }))}
      />
      <PourChart {run} {choices} {units} density={choices.density} />
      {#if choices.rated === null}
        <Notice
          tone="note"
          title="No verdict: nobody has entered what the forms are rated for."
          text="Enter what their supplier rates them for; until then pressure is only shown."
        />
      {:else if run.no_lifts}
        <Notice tone="decision" title="These walls cannot be filled like that" text={run.no_lifts} />
      {:else if run.fits === false}
        <Notice
          tone="decision"
          title="Filled like that, the form would have {units.full(
            run.greatest ?? run.pressure,
            'load',
            1,
          )}, rated {units.full(choices.rated ?? 0, 'load', 0)}."
          text={run.could
            ? `${counted(run.could, 'lift')} with waits between would do, or a slower pour.`
            : 'No lifts between joints would do: slower, or warmer concrete.'}
        >
          {#if run.could && !choices.in_lifts}<Button
              strong
              onclick={() => save({ in_lifts: true }, 'filled in lifts')}
              >Fill in {counted(run.could, 'lift')}</Button
            >{/if}
          {#if slowest && Math.floor(slowest * 20) > 0}<Button
              onclick={() => save({ rate: Math.floor(slowest * 20) / 20 }, 'rate that the form takes')}
              >Fill at {units.full(Math.floor(slowest * 20) / 20, 'rise')}</Button
            >{/if}
        </Notice>
      {/if}
      <table aria-label="Lifts">
        <thead>
          <tr>
            <th>lift</th>
            <th class="n">from</th>
            <th class="n">to</th>
            <th class="n">pressure, {units.symbol('load')}</th>
            <th class="n">{units.symbol('volume')}</th>
            <th class="n">begins</th>
            <th class="n">ends</th>
          </tr>
        </thead>
        <tbody>
          {#each run.lifts as one, n (n)}
            <tr>
              <td>{n + 1}</td>
              <td class="n">{units.show(one.low, 'distance')}</td>
              <td class="n">{units.show(one.high, 'distance')}</td>
              <td class="n" class:over={choices.rated !== null && one.pressure > (choices.rated ?? 0) + 1e-9}
                >{units.show(one.pressure, 'load', 1)}</td
              >
              <td class="n">{units.show(one.volume, 'volume', 2)}</td>
              <td class="n">{clock(one.begins)}</td>
              <td class="n">{clock(one.ends)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <h2>Braces <span>clear of openings; greatest spacing by the supplier's table</span></h2>
      <table aria-label="Braces of these walls">
        <thead>
          <tr>
            <th>wall</th>
            <th class="n">braces</th>
            <th class="n">every, at most</th>
            <th>from the left</th>
          </tr>
        </thead>
        <tbody>
          {#each run.walls as one (one.wall)}
            <tr>
              <td>{one.mark}</td>
              <td class="n">{one.at.length || '–'}</td>
              <td class="n">{one.spacing === null ? '–' : units.full(one.spacing, 'distance')}</td>
              <td class="mono">{one.problem || one.at.map((u) => units.length(u)).join('; ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      <EnteredTable
        title="String lines"
        note="the wall's top against its line at a brace; inward is above nought"
        one="String line"
        rows={building.pour?.strings ?? []}
        columns={STRINGS}
        fresh={() => ({ wall: wallsOf[0]?.value ?? '', u: 0.6, before: run.lean_top ?? 0, after: null })}
        {units}
        why={(path) => why(`/pour/strings${path}`)}
        onsave={(strings, words) => save({ strings }, words)}
      />
      <EnteredTable
        title="Days ended"
        note="where concrete stays visible a joint lies on a board joint, or somebody says why not"
        one="Day"
        rows={building.pour?.days ?? []}
        columns={DAYS}
        fresh={() => ({ run: run.id, level: run.joints[0] ?? 0, reason: '' })}
        {units}
        why={(path) => why(`/pour/days${path}`)}
        onsave={(days, words) => save({ days }, words)}
      />
    </div>
    <aside class="side">
      <h2>Pour</h2>
      <div class="stack">
        <Fields fields={FIELDS} values={choices} why={refused} onsave={save} />
        <Entry
          label="or these walls in one within"
          dimension="hours"
          decimals={2}
          value={run.height / choices.rate}
          positive
          onsave={(hours) => hours !== null && save({ rate: run.height / hours }, 'rate of rise by time')}
        />
        <Choice
          label="filled"
          value={choices.in_lifts ? 'lifts' : 'one'}
          options={[
            { value: 'lifts', text: 'in lifts' },
            { value: 'one', text: 'to the top in one' },
          ]}
          onsave={(to) =>
            save({ in_lifts: to === 'lifts' }, to === 'lifts' ? 'filled in lifts' : 'filled in one')}
        />
        <Choice
          label="month"
          value={String(choices.month ?? '')}
          options={[
            { value: '', text: 'not said' },
            ...MONTHS.map((text, n) => ({ value: String(n + 1), text })),
          ]}
          onsave={(to) => save({ month: to ? Number(to) : null }, 'month')}
        />
        <Choice
          label="concrete"
          value={choices.visible ? 'seen' : 'hidden'}
          options={[
            { value: 'seen', text: 'stays visible' },
            { value: 'hidden', text: 'is covered' },
          ]}
          onsave={(to) => save({ visible: to === 'seen' }, 'whether concrete stays visible')}
        />
      </div>
      <h2>One follows from the others</h2>
      <dl data-testid="follows">
        <div>
          <dt>to the top in one, at most</dt>
          <dd>
            {choices.rated === null
              ? '–'
              : run.any_rate
                ? 'any rate'
                : slowest
                  ? units.full(slowest, 'rise')
                  : 'no rate'}
          </dd>
        </div>
        <div>
          <dt>a lift at this rate, at most</dt>
          <dd>{run.most_height === null ? '–' : units.full(run.most_height, 'distance')}</dd>
        </div>
        <div>
          <dt>concrete for these lifts, not colder than</dt>
          <dd>{run.coldest === null ? '–' : units.full(run.coldest, 'temperature')}</dd>
        </div>
        <div>
          <dt>pressure, to the top in one</dt>
          <dd>
            <PanelFigure
              figure="pressure"
              of={run.id}
              title="Pressure on {run.marks}"
              value={units.show(run.pressure, 'load', 1)}
              unit={units.symbol('load')}
              dimension="load"
            />
          </dd>
        </div>
        <div>
          <dt>governed by</dt>
          <dd>{run.governs}</dd>
        </div>
      </dl>
      <h2>Method</h2>
      <div class="stack">
        <Choice
          label="school"
          value={choices.school}
          options={[
            { value: 'A', text: 'A, by rate and form height' },
            { value: 'B', text: 'B, by rate and temperature' },
          ]}
          onsave={(to) => save({ school: to as PourChoices['school'] }, 'school of pressure')}
        />
        <Fields fields={COEFFICIENTS} values={choices} why={refused} onsave={save} />
      </div>
      <p class="soft">
        {choices.school === 'A'
          ? 'CIRIA Report 108, 3.1. Internal vibration, from ' +
            `${units.full(5, 'temperature', 0)} to ${units.full(30, 'temperature', 0)}.`
          : 'ACI 347R-14, 4.2. Slump up to the stated one, internal vibration no deeper than the lift.'}
      </p>
      <h2>Concrete <span>these walls</span></h2>
      <dl data-testid="concrete">
        <div>
          <dt>in place, less bucks</dt>
          <dd>
            <PanelFigure
              figure="concrete"
              of={run.id}
              title="Concrete of {run.marks}"
              value={units.show(run.volume, 'volume', 2)}
              unit={units.symbol('volume')}
              dimension="volume"
            />
          </dd>
        </div>
        <div>
          <dt>ordered</dt>
          <dd>{units.full(run.order, 'volume', 2)}</dd>
        </div>
        <div>
          <dt>trucks</dt>
          <dd>{run.trucks}, at {run.truck_times.map(clock).join(', ')}</dd>
        </div>
        <div class="sum">
          <dt>all runs ordered</dt>
          <dd>{units.full(sheet.order, 'volume', 1)}</dd>
        </div>
      </dl>
      <h2>Bracing</h2>
      <div class="stack">
        <Fields fields={BRACING} values={choices} why={refused} onsave={save} />
      </div>
      <EnteredTable
        title="The supplier's table"
        note=""
        one="Row"
        rows={building.pour?.braces ?? []}
        columns={BRACES}
        fresh={() => ({ height: (choices.braces?.at(-1)?.height ?? 0) + 1.2, spacing: 1.2 })}
        {units}
        why={(path) => why(`/pour/braces${path}`)}
        onsave={(braces, words) => save({ braces }, words)}
      />
      {#if run.lean_top !== null && run.lean_brace !== null}
        <p class="soft">
          Set the top {units.full(run.lean_top, 'length')} inward: braces {units.full(
            Math.abs(run.lean_brace),
            'length',
          )}
          {run.lean_brace < 0 ? 'shorter' : 'longer'}.
        </p>
      {/if}
      <p class="soft">
        {counted(run.corners, 'corner')}, {counted(run.butts, 'butt joint')} and {counted(run.tees, 'tee')} are
        strapped or strong-backed on both faces before the pour; forms are held down against uplift.
      </p>
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 290px;
  }
</style>
