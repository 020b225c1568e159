<!-- Form walls in courses: what is bought and cut, where an opening stands better, corners, what is cast in. -->
<script lang="ts">
  import type { BuckMove, Building, FormChoices } from '@/api/client';
  import { Solving } from '@/api/solving.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { untrack } from 'svelte';
  import type { Column } from '@/project/columns';
  import CourseDrawing from './CourseDrawing.svelte';
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
    untrack(() => forms.courses.askNew(question));
  });
  const sheet = $derived(forms.courses.of({ building: building.id }));
  const walls = $derived(sheet?.runs.flatMap((run) => run.walls.map((wall) => ({ run, wall }))) ?? []);
  const here = $derived(walls.find((one) => one.wall.id === router.place.element) ?? walls[0]);
  const drafted = $derived(!!here && forms.draft?.wall === here.wall.id);
  const drawn = $derived(forms.drawn.of({ building: building.id }));
  const shown = $derived(drafted && drawn?.id === here?.wall.id ? drawn : here?.wall);
  const problem = $derived(drafted ? forms.drawn.problem : undefined);

  const solving = new Solving((done, of) => `opening ${done + 1} of ${of}`);
  let moves = $state.raw<{ of: string; found: BuckMove[] }>();
  let wrong = $state('');
  const key = $derived(`${here?.wall.id} ${session.open?.revision ?? 0}`);
  $effect(() => {
    const of = key;
    const wall = here?.wall;
    if (!wall?.bucks.length) return;
    wrong = '';
    void solving
      .run((ticket) => forms.moves(building, wall.id, ticket))
      .then((found) => (moves = { of, found }))
      .catch(
        (error: unknown) => (wrong = error instanceof Error ? error.message : 'It could not be looked for.'),
      );
  });
  const better = $derived(moves?.of === key ? moves.found : undefined);
  let kept = $state<string[]>([]);
  const first = $derived(better?.find((one) => !kept.includes(one.opening)));
  const cuts = (of: { courses: { blocks: { cut: boolean }[] }[] } | undefined) =>
    of?.courses.flatMap((one) => one.blocks.filter((b) => b.cut)).length ?? 0;
  const pieces = (of: { courses: { blocks: unknown[] }[] } | undefined) =>
    of?.courses.flatMap((one) => one.blocks).length ?? 0;
  const way = (by: number) => `${units.full(Math.abs(by), 'length')} ${by < 0 ? 'left' : 'right'}`;
  const changes = (by: number, word: string) =>
    by ? `${counted(Math.abs(by), word)} ${by < 0 ? 'less' : 'more'}` : '';
  const said = (one: BuckMove) =>
    [changes(one.pieces, 'piece'), changes(one.cuts, 'cut'), changes(one.single, 'cut on one web')]
      .filter(Boolean)
      .join(', ');

  function buck(id: string, by: number): void {
    if (!here) return;
    const mark = here.wall.bucks.find((one) => one.id === id)?.mark ?? id;
    forms.move(building, here.wall.id, id, by, `${mark} moved ${way(by)}`);
  }
  function stack(u: number): void {
    if (!here) return;
    forms.stack(building, here.wall.id, u, `Stack joint of ${here.wall.mark} at ${units.full(u, 'length')}`);
  }
  function keys(event: KeyboardEvent): void {
    const typing = event.target instanceof HTMLElement && /INPUT|SELECT|TEXTAREA/.test(event.target.tagName);
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    if (drafted && event.key === 'Escape') {
      event.stopPropagation();
      forms.drop();
    } else if (drafted && event.key === 'Enter') {
      event.preventDefault();
      event.stopPropagation();
      if (!problem && !forms.drawn.stale) void forms.apply();
    } else if (event.key.toLowerCase() === 'f' && here) {
      event.preventDefault();
      event.stopPropagation();
      const at = walls.indexOf(here);
      const next = walls[(at + (event.shiftKey ? -1 : 1) + walls.length) % walls.length];
      go(next?.wall.id ?? '');
    }
  }
  function go(element: string): void {
    forms.drop();
    router.go({ element });
  }
  const FIELDS: Field[] = [
    ['block', 'block'],
    ['height', 'course'],
    ['half', 'half course'],
    ['web', 'webs every'],
    ['min_cut', 'shortest piece'],
    ['long', 'long leg of a corner'],
    ['short', 'short leg'],
    ['bond', 'bond at least'],
    ['buck', 'buck'],
    ['shim', 'shim, each side'],
    ['flashing', 'flashing, each side'],
    ['bearing', 'a lintel bears'],
  ].map(([field = '', text = '']) => ({ field, text, dimension: 'length', optional: field === 'half' }));
  const GAPS: Field[] = [
    { field: 'gap_low', text: 'a foamed gap leaks, low', dimension: 'joint_flow' },
    { field: 'gap_high', text: 'high', dimension: 'joint_flow' },
  ];
  const save = (change: object, text: string) => forms.save(building, change, `Form: ${text}`);
  const refused = (field: string) => why(`/forms/${field}`);
  type Cast = NonNullable<FormChoices['cast']>[number];
  const KINDS = ['hanger', 'sleeve', 'strap', 'dowel', 'buck anchor', 'sill anchor', 'service sleeve'].map(
    (value) => ({ value, text: value }),
  );
  const CAST = $derived<Column<Cast>[]>([
    { key: 'kind', label: 'what', kind: 'choice', options: KINDS },
    { key: 'name', label: 'called', kind: 'text' },
    {
      key: 'wall',
      label: 'wall',
      kind: 'choice',
      options: walls.map((one) => ({ value: one.wall.id, text: one.wall.mark })),
    },
    { key: 'z', label: 'above the foot', kind: 'figure', dimension: 'length' },
    {
      key: 'spacing',
      label: 'every',
      kind: 'figure',
      dimension: 'length',
      optional: true,
      clears: { at: [] },
    },
    { key: 'at', label: 'or at', kind: 'places', clears: { spacing: null } },
    { key: 'by', label: 'by whom', kind: 'text' },
  ]);
</script>

<svelte:window onkeydowncapture={keys} />

{#if forms.courses.problem && !sheet}
  <Notice
    tone="note"
    title={forms.courses.problem.items[0]?.detail ?? 'It cannot be laid'}
    text={forms.courses.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet || !here || !shown}
  <p role="status">Being laid</p>
  <SolvingBar solving={forms.solving} name="courses" />
{:else}
  <WallTabs
    title="Form walls"
    shown={here.wall.id}
    ongo={go}
    tabs={walls.map(({ run, wall }) => ({
      id: wall.id,
      mark: wall.mark,
      label: `Wall ${wall.mark}${run.reason ? ', cannot be laid' : ''}`,
      open: !!run.reason || wall.single > 0,
    }))}
  >
    <span class="soft"
      ><kbd>F</kbd> next wall ·
      <a href="/api/v1/projects/{session.open?.project.id}/buildings/{building.id}/courses.pdf" download
        >all walls as PDF</a
      ></span
    >
  </WallTabs>
  <p class="conditions soft">
    Wall {here.wall.mark}, seen from outside, along the outer face of the form: block {units.length(
      sheet.choices.block,
    )} × {units.full(sheet.choices.height, 'length')}, webs at {units.full(sheet.choices.web, 'length')}.
    Courses count from the foot.{here.wall.off
      ? ` Its length lies ${units.full(Math.abs(here.wall.off), 'length')} off the webs, so a stack joint closes it.`
      : ''}
  </p>
  <div class="columns" data-stale={(drafted && forms.drawn.stale) || forms.courses.stale}>
    <div>
      <CourseDrawing
        wall={shown}
        saved={here.wall}
        {units}
        web={sheet.choices.web}
        height={here.run.height}
        move={drafted ? undefined : first}
        onbuck={buck}
        onstack={stack}
      />
      <EnteredTable
        title="Cast in"
        note="set before the pour; whose they are stands beside them"
        one="Thing cast in"
        rows={building.forms?.cast ?? []}
        columns={CAST}
        fresh={() => ({
          kind: 'hanger' as const,
          name: '',
          wall: here.wall.id,
          z: 0.3,
          at: [],
          spacing: 0.6,
          by: '',
        })}
        {units}
        why={(path) => why(`/forms/cast${path}`)}
        onsave={(cast, words) => forms.save(building, { cast }, words)}
      />
      {#if sheet.cast.length}
        <table aria-label="Cast in, course by course">
          <thead>
            <tr>
              <th>wall</th>
              <th>what</th>
              <th class="n">course</th>
              <th class="n">lift</th>
              <th class="n">pieces</th>
              <th>from the left</th>
            </tr>
          </thead>
          <tbody>
            {#each sheet.cast as one, n (n)}
              <tr>
                <td>{one.mark}</td>
                <td>{one.kind} {one.name}</td>
                <td class="n">{one.course || '–'}</td>
                <td class="n">{one.lift || '–'}</td>
                <td class="n">{one.at.length}</td>
                <td class="mono"
                  >{one.at
                    .slice(0, 6)
                    .map((u) => units.length(u))
                    .join('; ')}{one.at.length > 6 ? ` … ${units.length(one.at.at(-1) ?? 0)}` : ''}</td
                >
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
    </div>
    <aside class="side">
      {#if drafted}
        <h2>Not applied yet: {forms.words}</h2>
        {#if problem}
          <Notice
            tone="decision"
            title={problem.items[0]?.detail ?? problem.sentence}
            text={problem.items[0]?.hint ?? ''}
          />
        {:else}
          <p data-testid="wall-change">
            {[
              changes(pieces(shown) - pieces(here.wall), 'piece'),
              changes(cuts(shown) - cuts(here.wall), 'cut'),
              changes(shown.single - here.wall.single, 'cut on one web'),
            ]
              .filter(Boolean)
              .join(', ') || 'Nothing changes in what is laid.'}
          </p>
        {/if}
        <div class="controls">
          <Button strong disabled={!!problem || forms.drawn.stale} onclick={() => void forms.apply()}
            >Apply</Button
          >
          <Button onclick={() => forms.drop()}>Back</Button>
        </div>
      {:else if here.run.reason}
        <Notice tone="decision" title="This run cannot be laid" text={here.run.reason} />
      {:else if here.wall.single}
        <Notice
          tone="decision"
          title="{counted(here.wall.single, 'piece')} held by fewer than two webs."
          text={first ? '' : 'Brace them on both faces, or cut otherwise.'}
        />
      {/if}
      {#if !drafted && first}
        <h2>Move {first.mark} {way(first.by)}</h2>
        <p data-testid="buck-saves">{said(first)}.</p>
        <div class="controls">
          <Button
            strong
            onclick={() => {
              buck(first.opening, first.by);
              void forms.apply();
            }}>Move {first.mark} {way(first.by)}</Button
          >
          <Button onclick={() => (kept = [...kept, first.opening])}>Keep it</Button>
        </div>
      {:else if !drafted && here.wall.bucks.length && !better && !wrong}
        <p role="status" class="soft">
          Better places are looked for{solving.text ? `: ${solving.text}` : ''}
        </p>
      {:else if wrong}<p class="soft">{wrong}</p>{/if}
      {#if here.run.whole && here.run.half}
        <h2>
          Blocks of this run <span
            >{here.run.proved
              ? 'none fewer, proved'
              : `at most ${here.run.pieces - here.run.bound} fewer`}</span
          >
        </h2>
        <dl data-testid="blocks">
          <div>
            <dt>whole, {units.length(sheet.choices.block)}</dt>
            <dd>{here.run.whole.full + here.run.half.full}</dd>
          </div>
          {#if sheet.choices.corners === 'factory'}
            <div>
              <dt>corner, left hand</dt>
              <dd>{here.run.whole.left + here.run.half.left}</dd>
            </div>
            <div>
              <dt>corner, right hand</dt>
              <dd>{here.run.whole.right + here.run.half.right}</dd>
            </div>
          {/if}
          {#if here.run.half.bought}<div>
              <dt>of them half height</dt>
              <dd>{here.run.half.bought}</dd>
            </div>{/if}
          <div>
            <dt>cut</dt>
            <dd>
              {here.run.cuts} out of {counted(
                here.run.bought - here.run.whole.full - here.run.half.full,
                'block',
              )}
            </dd>
          </div>
          <div>
            <dt>of them out of offcuts</dt>
            <dd>{here.run.cuts - (here.run.bought - here.run.whole.full - here.run.half.full)}</dd>
          </div>
          <div class="sum">
            <dt>straight blocks bought</dt>
            <dd>{here.run.bought}</dd>
          </div>
          <div>
            <dt>left over</dt>
            <dd>{units.full(here.run.offcut, 'distance')}</dd>
          </div>
          {#if here.run.ripped}<div>
              <dt>top course ripped to</dt>
              <dd>{units.full(here.run.ripped, 'length')}</dd>
            </div>{/if}
        </dl>
        {#if sheet.lacking.length}<p class="over">
            {sheet.lacking.join(', ')} cannot be laid: nothing over all runs is whole.
          </p>{/if}
      {/if}
      <h2>Corners</h2>
      <div class="stack">
        <Choice
          label="corner blocks"
          value={sheet.choices.corners}
          options={[
            { value: 'factory', text: 'made, left and right hand' },
            { value: 'site', text: 'cut and foamed on site' },
          ]}
          onsave={(to) =>
            forms.save(
              building,
              { corners: to as FormChoices['corners'] },
              to === 'site' ? 'Corners cut and foamed on site' : 'Corner blocks from the factory',
            )}
        />
        <Choice
          label="long leg of course 1"
          value={sheet.choices.first_long}
          options={[
            { value: 'before', text: 'on the wall left of it' },
            { value: 'after', text: 'on the wall right of it' },
          ]}
          onsave={(to) =>
            forms.save(
              building,
              { first_long: to as FormChoices['first_long'] },
              'Hand of all corners swapped',
            )}
        />
      </div>
      {#if here.run.corners}
        <dl data-testid="site-corners">
          <div>
            <dt>mitred pieces</dt>
            <dd>{here.run.corners.pieces}</dd>
          </div>
          <div>
            <dt>blocks more</dt>
            <dd>{here.run.corners.blocks}</dd>
          </div>
          <div>
            <dt>foam along mitres</dt>
            <dd>{units.full(here.run.corners.foam, 'distance')}</dd>
          </div>
          <div>
            <dt>strong backs</dt>
            <dd>{here.run.corners.strong_backs}</dd>
          </div>
          <div>
            <dt>held against uplift at</dt>
            <dd>{here.run.corners.holds}</dd>
          </div>
        </dl>
      {/if}
      <h2>Back into the model</h2>
      <div class="stack">
        <Choice
          label="webs and gaps of the model"
          value={sheet.choices.counts ? 'laid' : 'assumed'}
          options={[
            { value: 'assumed', text: 'as assumed' },
            { value: 'laid', text: 'as they are laid' },
          ]}
          onsave={(to) =>
            forms.save(
              building,
              { counts: to === 'laid' },
              to === 'laid' ? 'Webs and gaps count as they are laid' : 'Webs count as assumed',
            )}
        />
        <Fields fields={GAPS} values={sheet.choices} why={refused} onsave={save} />
      </div>
      <h2>The form</h2>
      <div class="stack">
        <Fields fields={FIELDS} values={sheet.choices} why={refused} onsave={save} />
      </div>
      <p class="soft">
        Lintels, bars and bearing are a licensed engineer's; forms and bracing are their supplier's.
      </p>
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 290px;
  }
  .conditions {
    margin: 0 0 4px;
  }
</style>
