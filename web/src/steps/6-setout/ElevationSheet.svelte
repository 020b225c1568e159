<!-- A face: its drawing on top, then where it could be better, what it comes to, and its panels. -->
<script lang="ts">
  import type { Building, FaceSetOut, OpeningMove, SetOutChoices } from '@/api/client';
  import { Solving } from '@/api/solving.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import { rounded, setout } from '@/project/setout.svelte';
  import ElevationDrawing from './ElevationDrawing.svelte';
  import PanelTable from './PanelTable.svelte';
  import { saving } from './saving';

  interface Props {
    face: FaceSetOut;
    building: Building;
    units: Units;
    nameOf: (element: string) => string;
  }
  let { face, building, units, nameOf }: Props = $props();
  const drafted = $derived(setout.draft?.face === face.face);
  /** As it is drawn, as far as that is answered. */
  const drawn = $derived(setout.drawn.of({ building: building.id }));
  const answered = $derived(drafted && drawn?.face === face.face ? drawn : face);
  /** What cannot be set out leaves the last panels standing, marked. */
  let good = $state.raw<FaceSetOut>();
  $effect(() => {
    if (answered.sum) good = answered;
  });
  const shown = $derived(answered.sum || !good ? answered : { ...good, openings: answered.openings });
  const cannot = $derived(answered.sum === null);
  const problem = $derived(drafted ? setout.drawn.problem : undefined);
  const pins = $derived(setout.pins(building, face.face));
  let chosen = $state('');

  // Better places are looked for once a face as saved has been looked at.
  const solving = new Solving((done, of) => `opening ${done + 1} of ${of}`);
  let moves = $state.raw<{ of: string; found: OpeningMove[] }>();
  // Once nothing of the shell is lacking its seams are solved, and what they lose is known.
  const solved = $derived(setout.saved.answer?.effect ? 'solved' : 'in part');
  const key = $derived(`${face.face} ${session.open?.revision ?? 0} ${solved}`);
  let wrong = $state('');
  $effect(() => {
    const of = key;
    if (!face.openings.length || !face.sum) return;
    wrong = '';
    void solving
      .run((ticket) => setout.moves(building.id, face.face, ticket))
      .then((found) => (moves = { of, found }))
      .catch(
        (error: unknown) => (wrong = error instanceof Error ? error.message : 'It could not be looked for.'),
      );
  });
  const better = $derived(moves?.of === key ? moves.found : undefined);
  const offered = $derived(better?.find((one) => one.opening === chosen) ?? better?.[0]);
  let kept = $state<string[]>([]);
  const open = $derived(better?.filter((one) => !kept.includes(one.opening)) ?? []);
  const first = $derived(offered && !kept.includes(offered.opening) ? offered : open[0]);
  const waste = $derived(shown.sum ? shown.sum.waste : 0);
  const area = $derived(shown.panels.reduce((sum, one) => sum + one.area, 0));
  const butts = $derived(shown.plates.reduce((sum, one) => sum + one.butts.length, 0));
  const heaviest = $derived(Math.max(0, ...shown.panels.map((one) => one.mass)));

  /** Joints that were pinned when a hand began to move one. */
  let begun: typeof pins = [];
  function joint(storey: number, from: number, to: number): void {
    const others = begun.filter((one) => !(one.storey === storey && Math.abs(one.u - from) < 1e-4));
    const next: NonNullable<SetOutChoices['pins']> = [...others, { face: face.face, u: rounded(to), storey }];
    setout.pin(building, face.face, next, `Joint of ${face.mark} at ${units.full(to, 'length')}`);
  }
  function loose(storey: number, u: number): void {
    const next = pins.filter((one) => !(one.storey === storey && Math.abs(one.u - u) < 1e-4));
    setout.pin(building, face.face, next, `Joint of ${face.mark} at ${units.full(u, 'length')} let go`);
    void setout.apply();
  }
  function opening(id: string, by: number): void {
    const now = building.openings?.find((one) => one.id === id);
    if (!now) return;
    const words = `${now.mark || id} moved ${units.full(Math.abs(by), 'length')} ${by < 0 ? 'left' : 'right'}`;
    setout.move(building, face.face, id, now.u + by, words);
  }
  function take(move: OpeningMove): void {
    opening(move.opening, move.by);
    void setout.apply();
  }
  function keys(event: KeyboardEvent): void {
    const typing = event.target instanceof HTMLElement && /INPUT|SELECT|TEXTAREA/.test(event.target.tagName);
    if (typing || !drafted) return;
    if (event.key === 'Escape') {
      event.stopPropagation();
      setout.drop();
    } else if (event.key === 'Enter') {
      event.preventDefault();
      event.stopPropagation();
      if (!cannot && !setout.drawn.stale) void setout.apply();
    }
  }
</script>

<svelte:window onkeydowncapture={keys} />

{#snippet figure(key: 'joints' | 'plates' | 'waste', text: string, title: string, dimension: string)}
  {#if drafted}{text}{:else}<PanelFigure
      figure={key}
      of={face.face}
      title="{title} of {face.mark}"
      value={text}
      {dimension}
    />{/if}
{/snippet}

<p class="conditions soft">
  {nameOf(face.element)}, seen from outside: {face.words}; module {units.full(face.module, 'length')}. Drag a
  joint or an opening: the rest goes round it.
</p>
<div data-stale={(drafted && setout.drawn.stale) || cannot} class:cannot>
  <ElevationDrawing
    face={shown}
    saved={face}
    {units}
    {chosen}
    move={drafted ? undefined : first}
    onchoose={(id) => (chosen = id)}
    onbegin={() => (begun = pins)}
    onjoint={joint}
    onloose={loose}
    onopening={opening}
  />
</div>

{#if cannot}
  <Notice tone="decision" title="Face {face.mark} cannot be set out like that" text={answered.reason} />
{:else if problem}
  <Notice
    tone="decision"
    title={problem.items[0]?.detail ?? problem.sentence}
    text={problem.items[0]?.hint ?? ''}
  />
{/if}

<div class="three">
  <section aria-label="What could be better">
    {#if drafted}
      <h2>Not applied yet: {setout.words}</h2>
      {#if !cannot && shown.sum && face.sum}
        <p>{saving(shown.sum, face.sum, units) || 'Nothing changes in what it comes to.'}</p>
      {/if}
      <div class="controls">
        <Button strong disabled={cannot || setout.drawn.stale} onclick={() => void setout.apply()}
          >Apply</Button
        >
        <Button onclick={() => setout.drop()}>Back</Button>
      </div>
      <p class="soft">
        <kbd>Enter</kbd> applies, <kbd>Esc</kbd> goes back. Arrow keys nudge by {units.full(0.005, 'length')}.
      </p>
    {:else if first}
      <h2 class="yours">
        Move {first.mark}
        {units.full(Math.abs(first.by), 'length')}
        {first.by < 0 ? 'left' : 'right'}
      </h2>
      <dl data-testid="saves">
        {#each [['panels', first.panels, ''], ['joints', first.joints, ''], ['off the module', first.off_module, '']] as const as [name, value] (name)}
          {#if value}<div>
              <dt>{name}</dt>
              <dd>{value > 0 ? '+' : '−'}{Math.abs(value)}</dd>
            </div>{/if}
        {/each}
        {#if Math.abs(first.length) > 1e-6}
          <div>
            <dt>joint</dt>
            <dd>{units.delta(first.length, 'distance')} {units.symbol('distance')}</dd>
          </div>
        {/if}
        <div>
          <dt>heat</dt>
          <dd>
            {first.heat === null
              ? 'not known: its seams are no solved joint'
              : `${units.delta(first.heat, 'coupling')} ${units.symbol('coupling')}`}
          </dd>
        </div>
        <div>
          <dt>waste</dt>
          <dd>{units.delta(first.waste_kg, 'mass')} {units.symbol('mass')}</dd>
        </div>
      </dl>
      <div class="controls">
        <Button strong onclick={() => take(first)}
          >Move {first.mark}
          {units.full(Math.abs(first.by), 'length')}
          {first.by < 0 ? 'left' : 'right'}</Button
        >
        <Button onclick={() => (kept = [...kept, first.opening])}>Keep it</Button>
      </div>
      {#if open.length > 1}<p class="soft">
          {counted(open.length - 1, 'more opening')} would stand better elsewhere.
        </p>{/if}
    {:else if wrong}
      <h2>Better places</h2>
      <p class="soft">{wrong}</p>
    {:else if better}
      <h2>No opening would stand better nearby</h2>
      <p class="soft">
        Looked at every {units.full(0.1, 'length')} and on the module up to {units.full(0.6, 'length')} each way,
        by what counts most.
      </p>
    {:else if face.openings.length && face.sum}
      <h2>Better places</h2>
      <p role="status" class="soft">Being looked for{solving.text ? `: ${solving.text}` : ''}</p>
    {:else if !face.sum}
      <h2>Nothing is set out here yet</h2>
      <p class="soft">What stands in the way comes first; places of openings are looked at after it.</p>
    {:else}
      <h2>No openings</h2>
      <p class="soft">Only joints can be moved here.</p>
    {/if}
  </section>
  <section aria-label="What it comes to">
    <h2>What it comes to <span>{shown.sum ? 'none better by these rules, proved' : 'not known'}</span></h2>
    {#if shown.sum}
      <dl>
        <div>
          <dt>panels</dt>
          <dd>{shown.sum.panels}</dd>
        </div>
        <div>
          <dt>off the module</dt>
          <dd>{shown.sum.off_module}</dd>
        </div>
        {#if setout.saved.answer?.choices.order.includes('lopsided')}<div>
            <dt>joints without their mirror image</dt>
            <dd>{shown.sum.lopsided}</dd>
          </div>{/if}
        {#if setout.saved.answer?.choices.order.includes('astray')}<div>
            <dt>joints off those of the storey below</dt>
            <dd>{shown.sum.astray}</dd>
          </div>{/if}
        <div>
          <dt>joints, {face.spline} or post</dt>
          <dd>
            {shown.sum.members}, {@render figure(
              'joints',
              units.full(shown.sum.member_length, 'distance'),
              'Length of joints',
              'distance',
            )}
          </dd>
        </div>
        <div>
          <dt>plates, bottom and top</dt>
          <dd>
            {@render figure(
              'plates',
              units.full(shown.bottom + shown.top, 'distance'),
              'Length of plates',
              'distance',
            )}
          </dd>
        </div>
        {#if butts}<div>
            <dt>butt joints in plates</dt>
            <dd>{butts}</dd>
          </div>{/if}
        {#if shown.anchors.length}<div>
            <dt>anchors and hold-downs</dt>
            <dd>{shown.anchors.length}</dd>
          </div>{/if}
        {#if shown.screws !== null}<div>
            <dt>screws in its skins</dt>
            <dd>{shown.screws}</dd>
          </div>{/if}
        {#if shown.headers}<div>
            <dt>headers</dt>
            <dd>{units.full(shown.headers, 'distance')}</dd>
          </div>{/if}
        <div>
          <dt>in the face</dt>
          <dd>{units.full(area, 'area')}</dd>
        </div>
        <div>
          <dt>cut from the blanks and left</dt>
          <dd>
            {@render figure('waste', units.full(waste, 'area'), 'Cut from the blanks and left', 'area')}, {units.show(
              (100 * waste) / (waste + area || 1),
              'ratio',
              0,
            )} %
          </dd>
        </div>
        <div>
          <dt>heaviest</dt>
          <dd>{units.full(heaviest, 'mass')}</dd>
        </div>
      </dl>
    {/if}
    <p class="soft">
      Bearing, headers, hold-downs and lifting points are the engineer's; lifting is the lift supervisor's.
    </p>
  </section>
  <section aria-label="Panels">
    <h2>
      Panels <a
        class="svg"
        href="/api/v1/projects/{session.open?.project
          .id}/buildings/{building.id}/setout.svg?face={encodeURIComponent(face.face)}"
        download>this face as SVG</a
      >
    </h2>
    <PanelTable panels={shown.panels} {units} />
  </section>
</div>

<style>
  .cannot {
    opacity: 0.6;
  }
  .conditions {
    margin: 0 0 4px;
  }
  .three {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.15fr);
    gap: 20px;
    border-top: 1px solid var(--hair);
    padding-top: 10px;
  }
  .three section + section {
    border-left: 1px solid var(--hair);
    padding-left: 16px;
  }
  h2 {
    margin-top: 0;
  }
  .yours {
    color: var(--verdigris);
  }
  @media (max-width: 1023px) {
    .three {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
