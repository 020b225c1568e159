<!-- One-sided forms: blocks measured one after another, how far they drift from the sheets, and what brings them back. -->
<script lang="ts">
  import type { Building, DriftWall, FormChoices } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import { refusals } from '@/kit/refusals.svelte';
  import type { Units } from '@/kit/units';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { untrack } from 'svelte';
  import type { Column } from '@/project/columns';
  import DriftChart from './DriftChart.svelte';
  import WallTabs from './WallTabs.svelte';
  import EnteredTable from '@/project/EnteredTable.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  $effect(() => {
    const question = forms.question(building);
    untrack(() => forms.drift.askNew(question));
  });
  const sheet = $derived(forms.drift.of({ building: building.id }));
  const read = $derived(sheet?.walls.find((one) => one.courses.length));
  const wall = $derived(
    sheet?.walls.find((one) => one.id === router.place.element) ?? read ?? sheet?.walls[0],
  );
  /** The place that is measured next, all from 0. */
  const next = $derived.by(() => {
    const rows = stored(building, wall?.id ?? '');
    const at = rows.findIndex((row) => row.length < (wall?.blocks ?? 0));
    const course = at < 0 ? rows.length : at;
    return { course, block: rows[course]?.length ?? 0 };
  });

  /** Courses of a wall as they are written, which the sheet's own answer follows a moment later. */
  function stored(of: Building, id: string): number[][] {
    return of.forms?.read?.find((one) => one.wall === id)?.courses.map((row) => [...row]) ?? [];
  }
  /** One reading after another: each is put behind what the one before it has left written. */
  let writing = Promise.resolve();
  function write(
    to: DriftWall,
    change: (now: number[][], sheets: number[]) => Partial<{ courses: number[][]; sheets: number[] }>,
    words: string,
  ): void {
    const field = refusals.sender;
    writing = writing.then(async () => {
      const now = session.building(building.id) ?? building;
      const before = now.forms?.read?.find((one) => one.wall === to.id);
      const others = now.forms?.read?.filter((one) => one.wall !== to.id) ?? [];
      const kept = { wall: to.id, courses: before?.courses ?? [], sheets: before?.sheets ?? [] };
      const sheets = to.sheets.map((one, n) => kept.sheets[n] ?? one);
      const read = [...others, { ...kept, ...change(stored(now, to.id), sheets) }];
      await refusals.writing(field, () => forms.save(now, { read }, words));
    });
  }
  function add(length: number): void {
    if (!wall) return;
    const { blocks, mark } = wall;
    write(
      wall,
      (courses) => {
        const begun = courses.find((row) => row.length < blocks);
        if (begun) begun.push(length);
        else courses.push([length]);
        return { courses };
      },
      `Block ${next.block + 1} of course ${next.course + 1}, wall ${mark}: ${units.full(length, 'length')}`,
    );
  }
  /** Where a wall's readings stand once they are written: behind those of the others. */
  const written = $derived(building.forms?.read?.filter((one) => one.wall !== wall?.id).length ?? 0);
  let wrong = $state('');
  async function tape(): Promise<void> {
    if (!wall) return;
    wrong = '';
    try {
      add(await forms.tape(building, wall.id, next.course, next.block));
    } catch (error) {
      wrong = error instanceof Error ? error.message : 'The tape did not answer.';
    }
  }
  function back(): void {
    if (!wall?.courses.length) return;
    write(
      wall,
      (courses) => {
        courses.at(-1)?.pop();
        return { courses: courses.filter((row) => row.length) };
      },
      `Last reading of wall ${wall.mark} taken back`,
    );
  }
  function trim(): void {
    if (!wall) return;
    const off = new Map([...wall.to_nominal, ...wall.trims].map((one) => [one.sheet, one.left]));
    const sheets = wall.sheets.map((one, n) => off.get(n + 1) ?? one);
    write(wall, () => ({ sheets }), `${counted(wall.trims.length, 'sheet')} of wall ${wall.mark} trimmed`);
  }
  function sheetAt(n: number, length: number): void {
    if (!wall) return;
    const change = (sheets: number[]) => sheets.map((one, k) => (k === n ? length : one));
    write(
      wall,
      (_, sheets) => ({ sheets: change(sheets) }),
      `Sheet ${n + 1} of wall ${wall.mark}: ${units.full(length, 'length')}`,
    );
  }
  const FIELDS: Field[] = [
    { field: 'tolerance', text: 'ties hold square within', dimension: 'length' },
    { field: 'step', text: 'trims in steps of', dimension: 'length' },
    { field: 'max_trim', text: 'off one sheet at most', dimension: 'length' },
    { field: 'sheet', text: 'thickness of a sheet', dimension: 'length' },
    { field: 'platform', text: 'working platform', dimension: 'length' },
    { field: 'sheet_uses', text: 'uses of the sheets so far', dimension: 'ratio', whole: true },
    { field: 'sheet_most', text: 'they are good for', dimension: 'ratio', whole: true },
  ];
  type Level = NonNullable<FormChoices['levels']>[number];
  const LEVELS = $derived<Column<Level>[]>([
    {
      key: 'wall',
      label: 'wall',
      kind: 'choice',
      options: sheet?.footing.map((one) => ({ value: one.id, text: one.mark })) ?? [],
    },
    { key: 'u', label: 'from the left', kind: 'figure', dimension: 'length' },
    { key: 'z', label: 'too high by', kind: 'figure', dimension: 'length' },
  ]);
</script>

{#if forms.drift.problem && !sheet}
  <Notice
    tone="note"
    title={forms.drift.problem.items[0]?.detail ?? 'There is nothing to measure'}
    text={forms.drift.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet}
  <p role="status">Being asked</p>
{:else}
  <div class="columns" data-stale={forms.drift.stale}>
    <div>
      {#if wall}
        <WallTabs
          title="One-sided walls"
          shown={wall.id}
          tabs={sheet.walls.map((one) => ({
            id: one.id,
            mark: one.mark,
            label: `Wall ${one.mark}, ${
              one.courses.length
                ? counted(one.courses.length, 'course measured', 'courses measured')
                : 'not measured'
            }`,
            open: one.worst > sheet.choices.tolerance + 1e-9,
          }))}
        />
        <h2>
          Wall {wall.mark}: foam against rigid sheets
          <span
            >{wall.courses.length
              ? counted(wall.courses.length, 'course measured', 'courses measured')
              : 'not measured yet'}; ties drawn ten times too far</span
          >
        </h2>
        <DriftChart {wall} {units} tolerance={sheet.choices.tolerance} block={sheet.choices.block} />
        <p class="soft">
          Dashed: left alone, sheets over nominal cut first. Full: with the trims beside. Foam that is long
          can be rasped, foam that is short cannot be stretched, so the sheet is trimmed.
        </p>
        <table aria-label="Blocks of wall {wall.mark} as measured">
          <thead>
            <tr>
              <th>course</th>
              {#each { length: wall.blocks }, n}<th class="n">{n + 1}</th>{/each}
            </tr>
          </thead>
          <tbody>
            {#each wall.courses as row, c (c)}
              <tr>
                <td>{c + 1}</td>
                {#each { length: wall.blocks }, n}
                  {@const rasp = wall.rasps.find((one) => one.course === c + 1 && one.block === n + 1)}
                  <td class="n"
                    >{row[n] === undefined ? '–' : units.length(row[n])}{#if rasp}
                      <span class="yours">rasp {units.length(rasp.off)}</span>{/if}</td
                  >
                {/each}
              </tr>
            {/each}
            <tr>
              <td>sheet</td>
              {#each wall.sheets as one, n (n)}
                <td class="n">
                  <Entry
                    label="Sheet {n + 1}"
                    showLabel={false}
                    showUnit={false}
                    width="tiny"
                    dimension="length"
                    value={one}
                    refused={why(`/forms/read/0/sheets/${n}`)}
                    onsave={(to) => to !== null && sheetAt(n, to)}
                  />
                </td>
              {/each}
            </tr>
          </tbody>
        </table>
      {:else}
        <p>No wall of this building has a one-sided form: nothing drifts.</p>
      {/if}
      <EnteredTable
        title="The footing, levelled"
        note="above nought is too high; rigid sheets hang off a line at its highest place"
        one="Level"
        rows={building.forms?.levels ?? []}
        columns={LEVELS}
        fresh={() => ({ wall: sheet.footing[0]?.id ?? '', u: 0.5, z: 0 })}
        {units}
        why={(path) => why(`/forms/levels${path}`)}
        onsave={(levels, words) => forms.save(building, { levels }, words)}
      />
      <table aria-label="Foot of each wall">
        <thead>
          <tr>
            <th>wall</th>
            <th class="n">foot at</th>
            <th class="n">highest</th>
            <th class="n">lowest</th>
            <th class="n">packed under course 1</th>
            <th class="n">platform moved up</th>
          </tr>
        </thead>
        <tbody>
          {#each sheet.footing as one (one.id)}
            <tr>
              <td>{one.mark}</td>
              <td class="n">{units.full(one.base, 'distance')}</td>
              <td class="n">{one.high === null ? '–' : units.full(one.high, 'length')}</td>
              <td class="n">{one.low === null ? '–' : units.full(one.low, 'length')}</td>
              <td class="n">{one.packing === null ? 'not levelled' : units.full(one.packing, 'length')}</td>
              <td class="n">{one.moves}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <aside class="side">
      {#if wall}
        <section class="act" aria-label="Measure next">
          <h2>Block {next.block + 1} of course {next.course + 1}, wall {wall.mark}</h2>
          {#key `${wall.id} ${next.course} ${next.block}`}
            <Entry
              label="measured"
              dimension="length"
              value={null}
              optional
              refused={why(`/forms/read/${written}/courses/${next.course}/${next.block}`)}
              autofocus={next.block > 0}
              onsave={(value) => value !== null && add(value)}
            />
          {/key}
          <div class="controls">
            <Button onclick={() => void tape()}>Read the tape (simulated)</Button>
            <Button disabled={!wall.courses.length} onclick={back}>Take the last back</Button>
          </div>
          {#if wrong}<p class="over" role="alert">{wrong}</p>{/if}
        </section>
        {#if wall.before.length}
          <h2>
            Trim list <span>{wall.proved ? 'none fewer will do, proved' : 'the best found'}</span>
          </h2>
          {#if !wall.can}
            <Notice
              tone="decision"
              title="No trim within its limits brings this back"
              text="Other blocks, more off one sheet, or another tolerance."
            />
          {:else if !wall.trims.length && !wall.rasps.length}
            <p data-testid="trims">Nothing to trim: every joint lies within the tolerance.</p>
          {:else}
            <table data-testid="trims">
              <tbody>
                {#each wall.trims as one (one.sheet)}
                  <tr
                    ><td>sheet {one.sheet}</td><td class="n">{units.length(one.left)}</td><td class="n yours"
                      >{units.full(one.off, 'length')} off</td
                    ></tr
                  >
                {/each}
              </tbody>
            </table>
            {#if wall.trims.length}<div class="controls">
                <Button strong onclick={trim}>They are trimmed</Button>
              </div>{/if}
            <p class="soft">
              {counted(wall.back.length, 'trim')} if each joint were brought back to nought.
            </p>
          {/if}
          {#if wall.to_nominal.length}<p class="soft">
              First cut to nominal: sheet {wall.to_nominal.map((one) => one.sheet).join(', ')}.
            </p>{/if}
          <dl>
            <div>
              <dt>left alone, ties out of square</dt>
              <dd>{units.full(wall.tie, 'angle')}</dd>
            </div>
            {#if wall.tie_after !== null}<div>
                <dt>trimmed</dt>
                <dd>{units.full(wall.tie_after, 'angle')}</dd>
              </div>{/if}
          </dl>
        {/if}
      {/if}
      <h2>Rules</h2>
      <div class="stack">
        <Fields
          fields={FIELDS}
          values={sheet.choices}
          why={(field) => why(`/forms/${field}`)}
          onsave={(change, text) => forms.save(building, change, `Drift: ${text}`)}
        />
      </div>
      {#if sheet.worn}<Notice
          tone="caution"
          title="The sheets have seen all their uses"
          text="Look at edges and faces before the next pour."
        />{/if}
      <p class="soft">
        Sheets stand off the footing by {units.full(sheet.stand_offs, 'length')} at its lowest place, so that they
        come off. Snap the starter line by the highest.
      </p>
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 290px;
  }
  .act {
    background: var(--verdigris-wash);
    border-left: 4px solid var(--verdigris);
    padding: 8px 12px;
    margin-bottom: 10px;
  }
  .act h2 {
    margin-top: 0;
  }
  .yours {
    color: var(--verdigris);
  }
</style>
