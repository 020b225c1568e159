<!-- One group of fixings: its cell drawn and solved, χ beside the formula, what is left of the build-up, its spacing. -->
<script lang="ts">
  import { MediaQuery } from 'svelte/reactivity';
  import type { Assembly, Building, Fixing } from '@/api/client';
  import JointField from '@/draw/JointField.svelte';
  import { bench } from '@/project/bench.svelte';
  import { fixings } from './fixings.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import FixingParts from './FixingParts.svelte';
  import FixingFigures from './FixingFigures.svelte';
  import FixingReading from './FixingReading.svelte';
  import FixingSpacing from './FixingSpacing.svelte';

  interface Props {
    building: Building;
    draft: Assembly;
    fixing: Fixing;
    zone: string;
    units: Units;
  }
  let { building, draft, fixing, zone, units }: Props = $props();
  const place = $derived(router.place);
  const revision = $derived(session.open?.revision ?? 0);
  const condition = $derived(place.condition === '0' ? 'winter' : place.condition);
  const question = $derived({
    project: place.project,
    building: building.id,
    assembly: draft,
    fixing: fixing.id,
    condition,
    revision,
  });
  $effect(() => {
    const newest = question;
    untrack(() => fixings.ask(newest));
  });
  const answer = $derived(fixings.live.of({ fixing: fixing.id }));
  const problem = $derived(fixings.live.problem);
  const stale = $derived(fixings.live.stale);
  let width = $state(1000);
  /** On a narrow window the reading stands below the drawing. */
  const below = new MediaQuery('max-width: 1023px');
  const reading = $derived(below.current ? 350 : Math.min(Math.max(width * 0.3, 270), 350));
  const work = $derived(below.current ? width : width - reading - 34);
  const asked = $derived(session.open?.project.basis.targets.f_rsi);
  const percent = $derived(units.full(session.shipped?.mould_phi ?? 0, 'share', 0));
  const words = new Map([
    ['inner', 'into what is inside'],
    ['outer', 'into what is outside'],
    ['depth', 'depth in the layer'],
  ]);

  const changed = (change: Partial<Fixing>) => (one: Assembly) => ({
    ...one,
    fixings: (one.fixings ?? []).map((each) => (each.id === fixing.id ? { ...each, ...change } : each)),
  });
  function turn(change: Partial<Fixing>, what: string): void {
    void bench.commit(changed(change), `${fixing.name}: ${what}`.slice(0, 200), zone);
  }
  function remove(): void {
    const rest = (draft.fixings ?? []).filter((one) => one.id !== fixing.id);
    void bench.commit((one) => ({ ...one, fixings: rest }), `${fixing.name} removed`, zone);
    router.go({ view: '' });
  }

  /** What the server refused of a part, in words, kept until the next edit. */
  function refused(key: string): string | undefined {
    const item = bench.refused?.items.find((one) => one.pointer.endsWith(`/${key}`));
    return item && `${item.detail}; ${item.hint}.`;
  }
</script>

<SheetHead {zone} title={fixing.name} aside={draft.name}>
  <label class="name"
    >called <input
      size="18"
      value={fixing.name}
      onchange={(event) => turn({ name: event.currentTarget.value.trim() || fixing.kind }, 'renamed')}
    /></label
  >
  <a
    class="sheet"
    href="/api/v1/projects/{place.project}/assemblies/{draft.id}/fixings/{fixing.id}/sheet.pdf?building_id={building.id}&units={session.system}"
    download>Sheet, PDF</a
  >
  <Button onclick={remove}>Remove this group</Button>
</SheetHead>
<p class="conditions">
  {#if answer}Solved as {answer.method}, at {units.full(
      answer.solved.temperatures['outside'] ?? 0,
      'temperature',
    )} / {units.full(answer.solved.temperatures['inside'] ?? 0, 'temperature')}; bold line {units.full(
      answer.solved.critical,
      'temperature',
    )}: room air at {percent} on a surface. {answer.solved.unknowns
      .toLocaleString('en')
      .replaceAll(',', '\u2009')}
    unknowns, {stale ? 'solving' : answer.solved.accuracy === 'final' ? 'final' : 'working accuracy'}{/if}
</p>
<SolvingBar solving={fixings.solving} name={fixing.name} />
{#if problem?.status === 409}<Notice
    tone="note"
    title={problem.body.title}
    text={problem.sentence}
    live
  /><Button onclick={() => fixings.ask(question)}>Solve it</Button>{:else if problem}<Notice
    title="This group cannot be solved."
    text={problem.sentence}
    live
  />{/if}
<div class="columns" bind:clientWidth={width} data-testid="fixing-bench">
  <div class="work">
    {#if answer}
      <JointField
        drawing={answer.drawing}
        solved={answer.solved}
        width={work}
        height={330}
        {units}
        name="{fixing.name}, cut through its middle"
        {stale}
        flowLines={false}
        {words}
        onturn={(key, value) => turn({ [key]: value }, words.get(key) ?? key)}
      />
      <p class="soft">
        A cut through its middle; its cell continues above and below. Length {units.full(
          answer.length,
          'length',
        )}{#each answer.says as one (one)}; <b>{one}</b>{/each}.
      </p>
      <FixingFigures {answer} {units} {asked} {stale} />
    {:else if !problem}
      <p role="status">Solving the cell</p>
    {/if}
    {#if answer}<FixingSpacing
        {draft}
        {fixing}
        {units}
        width={Math.min(work, 620)}
        onmove={(change) => bench.move(changed(change))}
        onturn={turn}
      />{/if}
  </div>
  <aside style:width="{reading}px">
    {#if answer}<FixingReading {answer} {building} {draft} {units} {stale} />{/if}
    <h2>Parts</h2>
    <FixingParts {fixing} {refused} onturn={turn} />
    <p class="caution">{fixings.offered?.caution ?? ''}</p>
  </aside>
</div>

<style>
  .conditions {
    color: var(--ink-2);
    margin: 4px 0 10px;
    min-height: 1.4em;
  }
  .columns {
    display: flex;
    gap: 18px;
    align-items: flex-start;
  }
  .work {
    flex: 1;
    min-width: 0;
  }
  aside {
    flex: none;
    border-left: 1px solid var(--hair);
    padding-left: 14px;
  }
  h2 {
    font-size: var(--fs-small);
    color: var(--verdigris);
    margin: 12px 0 4px;
  }
  h2:first-child {
    margin-top: 0;
  }
  .soft {
    color: var(--ink-2);
    margin: 4px 0 8px;
  }
  .caution {
    font-size: var(--fs-small);
    color: var(--ochre);
    border-left: 3px solid var(--ochre-line);
    padding-left: 8px;
    margin-top: 12px;
  }
  .name {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    min-height: 24px;
    padding: 1px 4px;
    font-size: var(--fs-small);
  }
  @media (max-width: 1023px) {
    .columns {
      flex-direction: column;
    }
    aside {
      border: 0;
      padding: 0;
    }
  }
</style>
