<!-- Panels on the hook: what each weighs, how it hangs, whether the crane carries it there, what wind and people allow. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, LiftCard, LiftChoices, LiftSheet } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Entry from '@/kit/Entry.svelte';
  import EnteredTable from '@/project/EnteredTable.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import type { Column } from '@/project/columns';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { session } from '@/project/session.svelte';
  import HangingPanel from './HangingPanel.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  const SHOWN = 60;
  const question = $derived(forms.question(building));
  const live = asking(
    () => question,
    ({ project, building: id }): Promise<LiftSheet> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/lifts', {
          params: { ...inBuilding(project, id).params, query: { ticket: '' } },
        }),
      ),
  );
  const sheet = $derived(live.of({ project: question.project, building: building.id }));
  let sought = $state('');
  let chosen = $state('');
  const rows = $derived(
    sheet?.rows.filter((one) => one.mark.toLowerCase().includes(sought.trim().toLowerCase())) ?? [],
  );
  const heaviest = $derived(rows.toSorted((a, b) => b.mass - a.mass)[0]);
  const mark = $derived(rows.some((one) => one.mark === chosen) ? chosen : (heaviest?.mark ?? ''));
  const shown = asking(
    () => (mark ? { ...question, mark } : undefined),
    ({ project, building: id, mark: asked }): Promise<LiftCard> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/lifts/panel', {
          params: { ...inBuilding(project, id).params, query: { mark: asked } },
        }),
      ),
  );
  const card = $derived(shown.of({ mark }));
  const beyond = $derived(sheet?.rows.filter((one) => one.over) ?? []);
  const near = $derived(sheet?.rows.filter((one) => !one.over && (one.use ?? 0) > 1) ?? []);

  function save(change: Partial<LiftChoices>, words: string): void {
    const lifting = { ...(building.lifting ?? {}), ...change } as LiftChoices;
    void session.saveBuilding({ ...building, lifting }, `Lifts: ${words}`, 'D8');
  }
  const FIELDS: Field[] = [
    { field: 'radius', text: 'radius, crane not placed', dimension: 'distance' },
    { field: 'share', text: 'of the table that is used', dimension: 'share' },
    { field: 'rigging', text: 'rigging', dimension: 'mass' },
    { field: 'dynamic', text: 'dynamic factor', dimension: 'ratio' },
    { field: 'angle', text: 'least angle of a leg', dimension: 'angle' },
    { field: 'pick', text: 'picks from the ends', dimension: 'share' },
    { field: 'drop', text: 'picks below the edge', dimension: 'length' },
    { field: 'wind', text: 'nothing is lifted above', dimension: 'speed' },
    { field: 'limit', text: 'people on lines hold', dimension: 'force', optional: true },
    { field: 'minutes', text: 'minutes a piece', dimension: 'ratio', decimals: 0 },
    { field: 'day', text: 'hours a day', dimension: 'hours' },
    { field: 'setup', text: 'of them to set up', dimension: 'hours' },
    { field: 'crews', text: 'crews', dimension: 'ratio', whole: true },
  ];
  type Row = NonNullable<LiftChoices['table']>[number];
  const TABLE: Column<Row>[] = [
    { key: 'radius', label: 'radius', kind: 'figure', dimension: 'distance' },
    { key: 'mass', label: 'carries', kind: 'figure', dimension: 'mass' },
  ];
</script>

{#if live.problem && !sheet}
  <Notice
    tone="note"
    title={live.problem.items[0]?.detail ?? 'There is nothing to lift'}
    text={live.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet}
  <p role="status">Being weighed</p>
{:else if !sheet.rows.length}
  <Notice tone="note" title="Nothing of this building is lifted" text="No face of it is made of panels." />
{:else}
  <p class="caution" role="note">
    Plane statics of a rigid panel. Rigging, anchors, ground under the crane and the lift plan are the lift
    supervisor's; nobody stands below a load.
  </p>
  {#if beyond.length}
    <Notice
      tone="decision"
      title="{counted(beyond.length, 'panel')} more than the crane carries there: {beyond
        .slice(0, 6)
        .map((one) => one.mark)
        .join(', ')}."
      text="Come nearer, or a larger crane."
    />
  {:else if near.length}
    <Notice
      tone="caution"
      title="{counted(near.length, 'panel')} above the practice's share of the crane's table."
      text={near
        .slice(0, 6)
        .map((one) => one.mark)
        .join(', ')}
    />
  {/if}
  <div class="columns" data-stale={live.stale}>
    <div>
      {#if card}
        <div class="hang">
          <HangingPanel {card} {units} />
          <dl data-testid="lift">
            <div>
              <dt>{card.row.mark} weighs</dt>
              <dd>
                <PanelFigure
                  figure="mass"
                  of={card.row.mark}
                  title="Mass of {card.row.mark}"
                  value={units.show(card.row.mass, 'mass', 0)}
                  unit={units.symbol('mass')}
                  dimension="mass"
                />
              </dd>
            </div>
            <div>
              <dt>balance from the left, the foot, the inside</dt>
              <dd>{units.length(card.u)}, {units.length(card.v)}, {units.length(card.z)}</dd>
            </div>
            {#each card.legs as leg, n (n)}
              <div>
                <dt>leg {n + 1}, {units.full(card.angles[n] ?? 0, 'angle', 0)}</dt>
                <dd>
                  {units.full(leg, 'length')}, {#if n === 0}<PanelFigure
                      figure="pull"
                      of={card.row.mark}
                      title="Pull in leg 1 of {card.row.mark}"
                      value={units.show(card.tension[n] ?? 0, 'force')}
                      unit={units.symbol('force')}
                      dimension="force"
                    />{:else}{units.full(card.tension[n] ?? 0, 'force')}{/if}{card.most[n] != null &&
                  Math.abs((card.most[n] ?? 0) - (card.tension[n] ?? 0)) > 1
                    ? `, up to ${units.full(card.most[n] ?? 0, 'force')}`
                    : ''}
                </dd>
              </div>
            {/each}
            {#if card.row.problem}<div>
                <dt>slings</dt>
                <dd class="over">{card.row.problem}</dd>
              </div>{/if}
            {#if card.tilt !== null}<div>
                <dt>out of plumb</dt>
                <dd>{units.full(card.tilt, 'angle')}</dd>
              </div>{/if}
            <div>
              <dt>at {units.full(card.row.radius, 'distance')} the crane carries</dt>
              <dd class:over={card.row.over}>
                {card.row.capacity === null
                  ? sheet.choices.table?.length
                    ? 'outside of its table'
                    : 'no table entered'
                  : units.full(card.row.capacity, 'mass', 0)}
              </dd>
            </div>
            {#if card.row.use !== null}<div>
                <dt>of what the practice uses of it</dt>
                <dd class:over={card.row.use > 1}>{units.show(card.row.use, 'share', 0)} %</dd>
              </div>{/if}
            {#if card.row.reach !== null}<div>
                <dt>carried up to</dt>
                <dd>{units.full(card.row.reach, 'distance')}</dd>
              </div>{/if}
            <div>
              <dt>wind of {units.full(card.wind, 'speed')} on it</dt>
              <dd>{units.full(card.force, 'force')}</dd>
            </div>
            {#if card.calm !== null}<div>
                <dt>people hold it up to</dt>
                <dd>{units.full(card.calm, 'speed')}</dd>
              </div>{/if}
            <div>
              <dt>to stand it up, at most</dt>
              <dd>{units.full(Math.max(...card.turn), 'force')}</dd>
            </div>
            <div>
              <dt>by hand</dt>
              <dd>
                {card.row.crane
                  ? `not: ${counted(card.row.people, 'person', 'people')}`
                  : counted(card.row.people, 'person', 'people')}
              </dd>
            </div>
          </dl>
        </div>
      {/if}
      <p class="controls">
        <label class="find">find <input type="search" bind:value={sought} placeholder="mark" /></label>
        <span class="soft" data-testid="lift-days"
          >{sheet.days === null
            ? `not counted: ${sheet.lacking.join(', ') || 'a piece takes longer than a day'}`
            : `${counted(sheet.rows.length, 'panel')} in ${counted(sheet.days, 'day')}: ${sheet.per_day.join(', ')}`}</span
        >
      </p>
      <table>
        <thead>
          <tr>
            <th>panel</th>
            <th class="n">{units.symbol('mass')}</th>
            <th class="n">radius</th>
            <th class="n">carried there</th>
            <th class="n">used, %</th>
            <th>by hand</th>
          </tr>
        </thead>
        <tbody>
          {#each rows.slice(0, SHOWN) as one (one.mark)}
            <tr class:on={one.mark === mark}>
              <td
                ><button
                  class="choose mono"
                  aria-label="{one.mark}, show it"
                  aria-pressed={one.mark === mark}
                  onclick={() => (chosen = one.mark)}>{one.mark}</button
                ></td
              >
              <td class="n">{units.show(one.mass, 'mass', 0)}</td>
              <td class="n">{units.show(one.radius, 'distance', 1)}</td>
              <td class="n" class:over={one.over}
                >{one.capacity === null ? '–' : units.show(one.capacity, 'mass', 0)}</td
              >
              <td class="n" class:caution-text={(one.use ?? 0) > 1}
                >{one.use === null ? '–' : units.show(one.use, 'share', 0)}</td
              >
              <td>{one.crane ? 'crane' : counted(one.people, 'person', 'people')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if rows.length > SHOWN}<p class="soft">
          and {counted(rows.length - SHOWN, 'more panel')}: find one
        </p>{/if}
    </div>
    <aside class="side">
      <h2>How they are lifted</h2>
      <div class="stack">
        {#each ['east', 'north'] as way, axis (way)}
          <Entry
            label="crane stands {way} of the plan's corner"
            dimension="distance"
            optional
            value={sheet.choices.stand?.[axis] ?? null}
            refused={why('/lifting/stand')}
            onsave={(value) => {
              const stand = sheet.choices.stand ?? [0, 0];
              save(
                {
                  stand: value === null ? null : axis === 0 ? [value, stand[1] ?? 0] : [stand[0] ?? 0, value],
                },
                'where the crane stands',
              );
            }}
          />
        {/each}
        <Fields
          fields={FIELDS}
          values={sheet.choices}
          why={(field) => why(`/lifting/${field}`)}
          onsave={save}
        />
      </div>
      <EnteredTable
        title="The crane's own table"
        note="between its rows in a straight line"
        one="Row"
        rows={building.lifting?.table ?? []}
        columns={TABLE}
        fresh={() => {
          const last = sheet.choices.table?.at(-1);
          return { radius: (last?.radius ?? 2) + 2, mass: last?.mass ?? 2000 };
        }}
        {units}
        why={(path) => why(`/lifting/table${path}`)}
        onsave={(table, words) => save({ table }, words)}
      />
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 290px;
  }
  .hang {
    display: flex;
    flex-wrap: wrap;
    gap: 20px;
    align-items: start;
  }
  .hang dl {
    min-width: 290px;
    flex: 1;
  }
</style>
