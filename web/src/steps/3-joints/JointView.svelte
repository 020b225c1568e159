<!-- Joints of one station: which, the bench of two variants, what the other one changes, a curve of ψ. -->
<script lang="ts">
  import type { Building, Joint, JointWarmer, Ledger } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import { families } from '@/project/families.svelte';
  import { joints } from './joints.svelte';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { STATIONS } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import Which from '@/kit/Which.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import JointCurve from './JointCurve.svelte';
  import JointStandardView from './JointStandardView.svelte';
  import JointSide from './JointSide.svelte';
  import JointStarts from './JointStarts.svelte';
  import SealSchedule from './SealSchedule.svelte';
  import JointChange from './JointChange.svelte';
  import JointParameters from './JointParameters.svelte';
  import JointReferences from './JointReferences.svelte';

  interface Props {
    building: Building;
    units: Units;
    ledger: Ledger | undefined;
  }
  let { building, units, ledger }: Props = $props();
  const place = $derived(router.place);
  const here = $derived((building.joints ?? []).filter((one) => one.station === place.station));
  const stored = $derived(here.find((one) => one.id === place.element) ?? here[0]);
  const adding = $derived(place.view === 'add' || !stored);
  const revision = $derived(session.open?.revision ?? 0);
  const basis = $derived(session.open?.project.basis);
  const dimensions = $derived(basis?.schools.dimensions ?? 'external');
  const condition = $derived(place.condition === '0' ? 'winter' : place.condition);
  void families.start();
  $effect(() => {
    const [project, at, joint, now] = [place.project, condition, stored, revision];
    if (joint) untrack(() => joints.follow(project, at, joint, now));
  });
  const draft = $derived(joints.draft?.id === stored?.id ? joints.draft : stored);
  /** A length that nobody has typed is that of the shape. */
  const follows = $derived((joints.draft?.follows.length ?? 0) > 0);
  const family = $derived(draft && families.of(draft.family));
  const first = $derived(session.assembly(draft?.roles[0]?.assembly_id));
  const variant = $derived(family?.variants.find((one) => one.key === draft?.variant));
  const answerA = $derived(joints.a.answered?.joint.id === draft?.id ? joints.a.answer : undefined);
  const answerB = $derived(
    draft?.other && joints.b.answered?.joint.id === draft.id ? joints.b.answer : undefined,
  );
  const problemA = $derived(joints.a.problem);
  const problemB = $derived(draft?.other ? joints.b.problem : undefined);
  const line = $derived(ledger?.joints.find((one) => one.joint_id === draft?.id));
  let width = $state(1000);
  let flowLines = $state(false);
  const sizes = $derived([answerA, answerB].flatMap((one) => (one ? [one.drawing.view] : [])));
  const beside = $derived<[number, number]>([
    Math.max(...sizes.map(([x0 = 0, , x1 = 0]) => x1 - x0)),
    Math.max(...sizes.map(([, y0 = 0, , y1 = 0]) => y1 - y0)),
  ]);
  /** On a narrow window the reading stands below the drawings. */
  const below = new MediaQuery('max-width: 1023px');
  const reading = $derived(below.current ? 330 : Math.min(Math.max(width * 0.24, 240), 330));
  const room = $derived(below.current ? width : width - reading - 24);
  const each = $derived(draft?.other ? (room - 20) / 2 : room - 6);

  // --- turning ----------------------------------------------------------------------------------------------
  function turn(key: string, value: number | string): void {
    const parameter = variant?.parameters.find((one) => one.key === key);
    const shown =
      typeof value === 'string' ? value : units.full(value, parameter?.dimension ?? 'length', undefined);
    void joints.commit(
      building,
      joints.turned(key, value),
      `${draft?.name ?? ''}: ${parameter?.text ?? key} ${shown}`,
    );
  }
  function choose(key: string): void {
    const text = family?.variants.find((one) => one.key === key)?.text ?? key;
    void joints.commit(
      building,
      { variant: key, values: kept(key), decided: true },
      `${draft?.name ?? ''}: ${text}`,
    );
  }
  // Of the parameters those that the other variant has and that lie in its range.
  function kept(key: string): Joint['values'] {
    const turned = family?.variants.find((one) => one.key === key)?.parameters ?? [];
    return (draft?.values ?? []).filter((value) => {
      const parameter = turned.find((one) => one.key === value.key);
      if (!parameter) return false;
      if (typeof value.number === 'number')
        return value.number >= (parameter.least ?? -Infinity) && value.number <= (parameter.most ?? Infinity);
      return (parameter.options ?? []).includes(value.word ?? '');
    });
  }
  function swap(): void {
    if (!draft?.other) return;
    const text = family?.variants.find((one) => one.key === draft.other)?.text ?? draft.other;
    void joints.commit(
      building,
      { variant: draft.other, other: draft.variant, values: kept(draft.other), decided: true },
      `${draft.name}: ${text}`,
    );
  }
  function remove(): void {
    if (!draft) return;
    const rest = (building.joints ?? []).filter((one) => one.id !== draft.id);
    void session.saveBuilding({ ...building, joints: rest }, `${draft.name} removed`, `${draft.station}3`);
  }

  // --- how much warmer B is, point by point -----------------------------------------------------------------
  let compared = $state(false);
  const difference = asking(
    () =>
      compared && stored?.other ? { project: place.project, condition, revision, joint: stored } : undefined,
    ({ project, joint, condition }): Promise<JointWarmer> =>
      joints.solvingB.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/joint-difference', {
            ...inProject(project),
            body: { joint, building_id: router.place.building, condition, ticket },
          }),
        ),
      ),
  );
  const warmer = $derived(
    compared && stored && draft === stored ? difference.of({ joint: stored }) : undefined,
  );
  /** Why "B less A" is not drawn. */
  const notYet = $derived(
    !compared || !draft?.other || warmer
      ? ''
      : draft !== stored
        ? 'it follows once the change is saved.'
        : difference.problem
          ? difference.problem.sentence
          : 'being solved.',
  );
  const change = $derived.by(() => {
    const [a, b] = [answerA?.solved?.psi_out[dimensions], answerB?.solved?.psi_out[dimensions]];
    return a === undefined || b === undefined ? undefined : b - a;
  });
  function key(event: KeyboardEvent): void {
    const target = event.target instanceof HTMLElement ? event.target : undefined;
    if (target?.matches('input, select, textarea') || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'x' && draft?.other) swap();
  }
</script>

<svelte:window onkeydown={key} />
{#if here.length}
  <Which
    label="Joints of this station"
    options={[...here, { id: 'walk', name: 'Round the building' }, { id: 'add', name: 'Add a joint' }]}
    chosen={adding ? 'add' : stored?.id}
    onchoose={(id) => router.go(id === 'walk' || id === 'add' ? { view: id } : { element: id, view: '' })}
  />
{/if}
{#if adding}
  <JointStarts {building} {units} />
{:else if draft && place.view === 'standard'}
  <JointStandardView {building} joint={draft} {units} {revision} />
{:else if draft && family && variant}
  <SheetHead zone="{place.station}3" title={draft.name} aside={family.name}>
    <label class="check"><input type="checkbox" bind:checked={flowLines} /> heat-flow lines</label>
    {#if draft.other}<label class="check"><input type="checkbox" bind:checked={compared} /> B less A</label
      >{/if}
    <a
      class="sheet"
      href="/api/v1/projects/{place.project}/buildings/{building.id}/joints/{draft.id}/sheet.pdf?units={session.system}"
      download>Sheet, PDF</a
    >
    <Button onclick={() => router.go({ view: 'standard' })}>Practice standard</Button>
    <Button onclick={remove}>Remove this joint</Button>
  </SheetHead>
  <p class="conditions">
    {answerA?.drawing.kind === 'axisymmetric'
      ? 'Body of revolution, its axis below'
      : answerA?.drawing.plan
        ? 'Plan'
        : 'Upright section'}{#if answerA?.solved}, solved at {units.full(
        answerA.solved.temperatures['outside'] ?? 0,
        'temperature',
      )} / {units.full(answerA.solved.temperatures['inside'] ?? 0, 'temperature')}; bold line {units.full(
        answerA.solved.critical,
        'temperature',
      )}: room air at {units.full(session.shipped?.mould_phi ?? 0, 'share', 0)} on a surface. {answerA.solved.unknowns
        .toLocaleString('en')
        .replaceAll(',', '\u2009')} unknowns{/if}
  </p>
  {#if notYet}<p class="conditions" role="status" data-testid="not-yet">B less A: {notYet}</p>{/if}
  <div class="columns" bind:clientWidth={width} data-testid="joint-bench">
    <div class="work">
      <div class="sides">
        <JointSide
          letter="A"
          joint={draft}
          variant={draft.variant}
          {family}
          system={first?.system ?? ''}
          answer={answerA}
          problem={problemA}
          stale={joints.a.stale}
          width={each}
          height={draft.other ? 430 : 520}
          {units}
          {dimensions}
          asked={basis?.targets.f_rsi}
          {flowLines}
          {beside}
          solving={joints.solvingA}
          yours={false}
          onvariant={choose}
          onturn={turn}
        />
        {#if draft.other}
          <JointSide
            letter="B"
            joint={draft}
            variant={draft.other}
            {family}
            system={first?.system ?? ''}
            answer={answerB}
            problem={problemB}
            stale={joints.b.stale}
            width={each}
            height={430}
            {units}
            {dimensions}
            asked={basis?.targets.f_rsi}
            {flowLines}
            {beside}
            {warmer}
            solving={joints.solvingB}
            yours={change === undefined || change <= 0}
            onvariant={(other) =>
              void joints.commit(building, { other }, `${draft.name}: compared with ${other}`)}
          />
        {/if}
      </div>
      {#if answerA}<SealSchedule {building} joint={draft} sealing={answerA.sealing} {units} />{/if}
    </div>
    <aside style:width="{reading}px">
      <JointChange
        {draft}
        {family}
        system={first?.system ?? ''}
        {change}
        stale={joints.a.stale || joints.b.stale}
        {units}
        length={draft.length || (line?.length ?? 0)}
        onswap={swap}
        onother={(other, words) => void joints.commit(building, { other }, `${draft.name}: ${words}`)}
      />
      <h2>In the building</h2>
      <Entry
        label={family.point ? 'pieces' : 'length'}
        dimension={family.point ? 'ratio' : 'air_layer'}
        value={follows && !draft.length ? null : draft.length}
        optional={follows}
        onsave={(length) =>
          (length !== null || follows) &&
          void joints.commit(building, { length: length ?? 0 }, `${draft.name}: length`)}
      />
      {#if follows && !draft.length && line}<p class="soft">
          {units.full(line.length, 'distance')} from the shape
        </p>{/if}
      {#if !draft.decided}
        <p>
          Several variants suit, nobody has chosen: this one stands in.
          <Button
            onclick={() => void joints.commit(building, { decided: true }, `${draft.name}: variant kept`)}
            >Keep it</Button
          >
        </p>
      {/if}
      {#if line?.H !== null && line?.H !== undefined}
        <p class="soft">{units.full(line.H, 'coupling')} of the shell's heat loss, {dimensions} dimensions</p>
      {:else if ledger?.pending.includes(draft.name)}<p class="soft">being solved for the ledger</p>{/if}
      {#if stored}<JointCurve
          joint={stored}
          {family}
          {variant}
          {condition}
          {revision}
          values={answerA?.drawing.values ?? {}}
          {units}
          width={reading - 20}
          onturn={turn}
        />{/if}
      <JointParameters {variant} values={answerA?.drawing.values ?? {}} onturn={turn} />
      {#if answerA?.solved}<JointReferences
          solved={answerA.solved}
          drawing={answerA.drawing}
          point={family.point}
          note={variant.note ?? ''}
          {dimensions}
          {units}
        />{/if}
    </aside>
  </div>
{:else}
  <SheetHead zone="{place.station}3" title={STATIONS[place.station] ?? ''} />
  <p role="status">Loading the joints</p>
{/if}

<style>
  .conditions,
  .soft {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
  .conditions {
    margin-bottom: 8px;
  }
  .columns {
    display: flex;
    gap: 20px;
    align-items: flex-start;
  }
  .work {
    flex: 1;
    min-width: 0;
  }
  .sides {
    display: flex;
    gap: 20px;
  }
  aside {
    flex: none;
    border-left: 1px solid var(--hair);
    padding-left: 16px;
  }
  h2:first-child {
    margin-top: 0;
  }
  .check {
    font-size: var(--fs-small);
    color: var(--ink-2);
    display: flex;
    gap: 4px;
    align-items: center;
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
