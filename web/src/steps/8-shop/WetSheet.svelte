<!-- Wet trades: mortar on mesh, plaster on straw with its casting beds and cure clock, straw boards. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, WetChoices, WetSheet } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { MONTHS } from '@/kit/months';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import type { Column } from '@/project/columns';
  import EnteredTable from '@/project/EnteredTable.svelte';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { session } from '@/project/session.svelte';
  import CastingChart from './CastingChart.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  const question = $derived(forms.question(building));
  const live = asking(
    () => question,
    ({ project, building: id }): Promise<WetSheet> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/wet', {
          params: { ...inBuilding(project, id).params, query: { ticket: '' } },
        }),
      ),
  );
  const sheet = $derived(live.of({ project: question.project, building: building.id }));
  function save(change: Partial<WetChoices>, words: string): void {
    const wet = { ...(building.wet ?? {}), ...change } as WetChoices;
    void session.saveBuilding({ ...building, wet }, `Wet trades: ${words}`, 'D8');
  }
  const MORTAR: Field[] = [
    { field: 'coat', text: 'a coat at most', dimension: 'length' },
    { field: 'least', text: 'mortar at least', dimension: 'length' },
    { field: 'most', text: 'at most', dimension: 'length' },
    { field: 'wait', text: 'between coats', dimension: 'hours' },
    { field: 'loss', text: 'rebound, of what is sprayed', dimension: 'share' },
    { field: 'lap', text: 'splice mesh, each side', dimension: 'length' },
    { field: 'corner', text: 'corner mesh, each side', dimension: 'length' },
    { field: 'diagonal', text: 'mesh across a corner', dimension: 'length' },
    { field: 'strip', text: 'width of strips', dimension: 'length' },
    { field: 'dowel', text: 'dowels every, as stated', dimension: 'length', optional: true },
  ];
  const PLASTER: Field[] = [
    { field: 'bond', text: 'bond coat, each side', dimension: 'length' },
    { field: 'yields', text: 'wet of dry', dimension: 'ratio' },
    { field: 'batch', text: 'a batch', dimension: 'volume', decimals: 2 },
    { field: 'mixer', text: 'mixed in a day', dimension: 'volume', decimals: 2 },
    { field: 'gap', text: 'joint of panels', dimension: 'length' },
    { field: 'roll', text: 'plaster of a roll', dimension: 'share' },
    { field: 'beds', text: 'beds', dimension: 'ratio', whole: true },
    { field: 'turn', text: 'warm days to turn', dimension: 'ratio', whole: true },
    { field: 'cure', text: 'warm days to lift', dimension: 'ratio', whole: true },
    { field: 'damp', text: 'bales stay out above', dimension: 'share' },
  ];
  const WEATHER: Field[] = [
    { field: 'cold', text: 'not below', dimension: 'temperature' },
    { field: 'hot', text: 'not above', dimension: 'temperature' },
    { field: 'windy', text: 'not in wind above', dimension: 'speed' },
  ];
  const fields = $derived([
    ...(sheet?.mortar.length ? MORTAR : []),
    ...(sheet?.plaster.length ? PLASTER : []),
    ...WEATHER,
  ]);
  type Part = NonNullable<WetChoices['mix']>[number];
  type Log = NonNullable<WetChoices['cast']>[number];
  type Bale = NonNullable<WetChoices['bales']>[number];
  type Probe = NonNullable<WetChoices['probes']>[number];
  const MIX: Column<Part>[] = [
    { key: 'name', label: 'part', kind: 'text' },
    { key: 'ratio', label: 'parts', kind: 'figure', dimension: 'ratio' },
    { key: 'density', label: 'loose', kind: 'figure', dimension: 'density' },
    { key: 'bag', label: 'a bag', kind: 'figure', dimension: 'mass', optional: true },
  ];
  const panels = $derived(
    sheet?.plaster.flatMap((one) => one.panels.map((each) => ({ value: each.panel, text: each.panel }))) ??
      [],
  );
  const DAYS = Array.from({ length: 90 }, (_, n) => ({ value: String(n), text: String(n + 1) }));
  const LOG = $derived<Column<Log>[]>([
    { key: 'panel', label: 'panel', kind: 'choice', options: panels },
    { key: 'cast', label: 'cast on day', kind: 'choice', options: DAYS, number: true },
  ]);
  const BALES = $derived<Column<Bale>[]>([
    { key: 'panel', label: 'panel', kind: 'choice', options: panels },
    { key: 'moisture', label: 'moisture', kind: 'figure', dimension: 'share' },
  ]);
  const PROBES: Column<Probe>[] = [
    { key: 'face', label: 'face', kind: 'text' },
    { key: 'thickness', label: 'mortar', kind: 'figure', dimension: 'length' },
  ];
  function lift(panel: string, day: number | null): void {
    const cast = (building.wet?.cast ?? []).map((one) =>
      one.panel === panel ? { ...one, lifted: day } : one,
    );
    save({ cast }, day === null ? `${panel} not lifted yet` : `${panel} lifted on day ${day + 1}`);
  }
  function temperature(value: number | null): void {
    const days = [...(building.wet?.days ?? [])];
    if (value === null) return;
    save({ days: [...days, value] }, `mean of day ${days.length + 1}`);
  }
  const early = $derived(
    sheet?.log.filter((one) => one.lifted != null && one.lift != null && one.lifted < one.lift) ?? [],
  );
</script>

{#if live.problem && !sheet}
  <Notice
    tone="note"
    title={live.problem.items[0]?.detail ?? 'It cannot be told'}
    text={live.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet}
  <p role="status">Being counted</p>
{:else if !sheet.mortar.length && !sheet.plaster.length && !sheet.boards.length}
  <Notice
    tone="note"
    title="Nothing of this building is sprayed or plastered"
    text="Its walls are neither mesh-and-mortar panels, plastered straw nor straw boards."
  />
{:else}
  {#if sheet.lacking.length}
    <Notice
      tone="decision"
      title="So far: {sheet.lacking.join(', ')} cannot be set out"
      text="No volume here is whole."
    />
  {/if}
  {#each early as one (one.panel)}
    <Notice
      tone="decision"
      title="{one.panel} was lifted on day {(one.lifted ?? 0) + 1}: its clock had {counted(
        one.counted,
        'warm day',
      )}."
      text="It may be lifted from day {(one.lift ?? 0) + 1}: the clock stood still on {counted(
        one.still,
        'day',
      )}."
    />
  {/each}
  <div class="columns" data-stale={live.stale}>
    <div>
      {#each sheet.mortar as one (one.assembly)}
        <h2>{one.name} <span>mortar on mesh, {units.full(one.area, 'area')} of panels</span></h2>
        <dl data-testid="mortar" class="two">
          <div>
            <dt>in place, ribs and reveals with it</dt>
            <dd>{units.full(one.volume.volume, 'volume', 2)}</dd>
          </div>
          <div>
            <dt>sprayed, rebound with it</dt>
            <dd>
              <PanelFigure
                figure="mortar"
                of={one.assembly}
                title="Mortar of {one.name}"
                value={units.show(one.volume.order, 'volume', 2)}
                unit={units.symbol('volume')}
                dimension="volume"
              />
            </dd>
          </div>
          <div>
            <dt>coats inside and outside</dt>
            <dd>{one.passes[0]} and {one.passes[1]}</dd>
          </div>
          <div>
            <dt>waits between them</dt>
            <dd>{units.full(one.waits, 'hours', 0)}</dd>
          </div>
          <div>
            <dt>splice mesh over seams</dt>
            <dd>{units.full(one.splice, 'area')}</dd>
          </div>
          <div>
            <dt>corner mesh</dt>
            <dd>{units.full(one.corners, 'area')}</dd>
          </div>
          <div>
            <dt>across corners of openings, {one.diagonals}</dt>
            <dd>{units.full(one.diagonal_area, 'area')}</dd>
          </div>
          <div>
            <dt>through wires</dt>
            <dd>{one.wires}</dd>
          </div>
          <div>
            <dt>dowels</dt>
            <dd>{one.dowels ?? 'no pattern stated'}</dd>
          </div>
          <div>
            <dt>trim panels</dt>
            <dd>{one.trims}</dd>
          </div>
        </dl>
      {/each}
      {#each sheet.plaster as one (one.assembly)}
        <h2>
          {one.name}
          <span>plaster on straw, {units.full(one.area, 'area')} of panels, {one.frames} infill frames</span>
        </h2>
        {#if one.plan}
          <CastingChart cast={one} days={sheet.days} beds={sheet.choices.beds} {units} />
          <p class="soft">
            Dotted: first side, face down. Bar: turned, second side. Bright: cure. Arrow: may be lifted.
            Hatched: too cold, the clock stands still.
          </p>
        {:else}
          <Notice
            tone="decision"
            title="These panels cannot be cast like that"
            text="One side is more than a day's plaster, or it never gets warm."
          />
        {/if}
        <dl data-testid="plaster" class="two">
          <div>
            <dt>plaster, bond coats and rolls with it</dt>
            <dd>
              <PanelFigure
                figure="plaster"
                of={one.assembly}
                title="Plaster of {one.name}"
                value={units.show(one.needed.volume, 'volume', 2)}
                unit={units.symbol('volume')}
                dimension="volume"
              />
            </dd>
          </div>
          <div>
            <dt>batches of {units.full(sheet.choices.batch, 'volume', 2)}</dt>
            <dd>{one.needed.batches}</dd>
          </div>
          <div>
            <dt>straw</dt>
            <dd>{units.full(one.straw, 'volume')}</dd>
          </div>
          <div>
            <dt>straw rolls in joints</dt>
            <dd>{units.full(one.rolls, 'distance')}</dd>
          </div>
          <div>
            <dt>box plates, foot and head</dt>
            <dd>{units.full(one.plates, 'distance')}</dd>
          </div>
          <div>
            <dt>infill frames</dt>
            <dd>{units.full(one.frame_length, 'distance')}</dd>
          </div>
          <div>
            <dt>panels that are no whole number of bales</dt>
            <dd>{one.loose}</dd>
          </div>
        </dl>
        <table aria-label="Parts of the plaster">
          <thead
            ><tr
              ><th>part</th><th class="n">of a batch</th><th class="n">of all</th><th class="n">bags</th></tr
            ></thead
          >
          <tbody>
            {#each one.needed.needed as part (part.name)}
              <tr>
                <td>{part.name}</td>
                <td class="n">{units.full(part.litres_per_batch / 1000, 'volume', 3)}</td>
                <td class="n">{units.full(part.litres / 1000, 'volume', 2)}</td>
                <td class="n">{part.bags ?? 'loose'}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/each}
      {#each sheet.boards as one (one.assembly)}
        <h2>{one.name} <span>straw boards in {counted(one.layers, 'layer')}</span></h2>
        <dl data-testid="boards" class="two">
          <div>
            <dt>wall</dt>
            <dd>{units.full(one.area, 'area')}</dd>
          </div>
          <div>
            <dt>joints foamed and meshed</dt>
            <dd>{units.full(one.joints, 'distance')}</dd>
          </div>
          <div>
            <dt>edges taped</dt>
            <dd>{units.full(one.edges, 'distance')}</dd>
          </div>
          <div>
            <dt>grooves for services</dt>
            <dd>{one.grooves}</dd>
          </div>
        </dl>
      {/each}
      {#if sheet.plaster.length}
        <EnteredTable
          title="Cast so far"
          note="days count from the first one"
          one="Panel cast"
          rows={building.wet?.cast ?? []}
          columns={LOG}
          fresh={() => ({ panel: panels[0]?.value ?? '', cast: 0, lifted: null })}
          {units}
          why={(path) => why(`/wet/cast${path}`)}
          onsave={(cast, words) => save({ cast }, words)}
        />
        <table aria-label="Cure clock">
          <thead>
            <tr>
              <th>panel</th><th class="n">turned from</th><th class="n">clock, warm days</th><th class="n"
                >still</th
              ><th class="n">lifted from</th><th>lifted on</th>
            </tr>
          </thead>
          <tbody>
            {#each sheet.log as one (one.panel)}
              <tr>
                <td class="mono">{one.panel}</td>
                <td class="n">{one.turn === null ? '–' : `day ${one.turn + 1}`}</td>
                <td class="n">{one.counted} of {sheet.choices.cure}</td>
                <td class="n">{one.still}</td>
                <td class="n">{one.lift === null ? '–' : `day ${one.lift + 1}`}</td>
                <td>
                  <Choice
                    label="{one.panel} lifted on"
                    showLabel={false}
                    value={String(one.lifted ?? '')}
                    options={[
                      { value: '', text: 'not yet' },
                      ...DAYS.filter((day) => Number(day.value) >= one.cast),
                    ]}
                    onsave={(to) => lift(one.panel, to === '' ? null : Number(to))}
                  />
                </td>
              </tr>
            {/each}
          </tbody>
        </table>
        <EnteredTable
          title="Bales"
          note="moisture before they are set"
          one="Bale"
          rows={building.wet?.bales ?? []}
          columns={BALES}
          fresh={() => ({ panel: panels[0]?.value ?? '', moisture: 0.15 })}
          {units}
          why={(path) => why(`/wet/bales${path}`)}
          onsave={(bales, words) => save({ bales }, words)}
        />
      {/if}
      {#if sheet.plaster.length}
        <EnteredTable
          title="The mix"
          note="by volume, loose"
          one="Part"
          rows={building.wet?.mix ?? []}
          columns={MIX}
          fresh={() => ({ name: 'sand', ratio: 1, density: 1500, bag: null })}
          {units}
          why={(path) => why(`/wet/mix${path}`)}
          onsave={(mix, words) => save({ mix }, words)}
        />
      {/if}
      {#if sheet.mortar.length}
        <EnteredTable
          title="Mortar probed"
          note="between {units.length(sheet.choices.least)} and {units.full(sheet.choices.most, 'length')}"
          one="Probe"
          rows={building.wet?.probes ?? []}
          columns={PROBES}
          fresh={() => ({ face: 'A', thickness: 0.035 })}
          {units}
          why={(path) => why(`/wet/probes${path}`)}
          onsave={(probes, words) => save({ probes }, words)}
        />
      {/if}
    </div>
    <aside class="side">
      <h2>How it is done</h2>
      <div class="stack">
        <Fields {fields} values={sheet.choices} why={(field) => why(`/wet/${field}`)} onsave={save} />
        {#if sheet.mortar.length}<Choice
            label="dowels on"
            value={String(sheet.choices.dowel_faces)}
            options={[
              { value: '1', text: 'one face' },
              { value: '2', text: 'both faces' },
            ]}
            onsave={(to) => save({ dowel_faces: Number(to) as 1 | 2 }, 'faces with dowels')}
          />{/if}
        {#if sheet.plaster.length}
          <Choice
            label="casting begins in"
            value={String(sheet.choices.month)}
            options={MONTHS.map((text, n) => ({ value: String(n + 1), text }))}
            onsave={(to) => save({ month: Number(to) }, 'month')}
          />
          {#key sheet.choices.days?.length}
            <Entry
              label="mean of day {(sheet.choices.days?.length ?? 0) + 1}, as read"
              dimension="temperature"
              value={null}
              optional
              onsave={temperature}
            />
          {/key}
        {/if}
      </div>
      <p class="soft">
        Lime and cement burn skin and eyes. Skins, dowels and lifting are a licensed engineer's; keep fresh
        faces from sun, rain and frost.
      </p>
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 290px;
  }
  .two {
    columns: 2;
    column-gap: 26px;
  }
  .two > div {
    break-inside: avoid;
  }
</style>
