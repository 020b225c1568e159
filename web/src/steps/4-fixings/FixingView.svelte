<!-- One group of fixings: its cell drawn and solved, χ beside the formula, what is left of the build-up, its spacing. -->
<script lang="ts">
  import type { Assembly, Building, Fixing, FixingSweepPoint } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import JointField from '@/draw/JointField.svelte';
  import PsiCurve from '@/draw/PsiCurve.svelte';
  import { bench } from '@/project/bench.svelte';
  import { fixings } from './fixings.svelte';
  import { Live } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { working } from '@/project/working.svelte';
  import Button from '@/kit/Button.svelte';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';
  import FixingParts from './FixingParts.svelte';

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
  const answer = $derived(fixings.live.answered?.fixing === fixing.id ? fixings.live.answer : undefined);
  const problem = $derived(fixings.live.error ? asProblem(fixings.live.error) : undefined);
  const stale = $derived(fixings.live.stale);
  let width = $state(1000);
  const reading = $derived(Math.min(Math.max(width * 0.3, 270), 350));
  const work = $derived(width - reading - 34);
  const asked = $derived(session.open?.project.basis.targets.f_rsi);
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

  // --- ΔU over the spacing ----------------------------------------------------------------------------------
  const spacing = $derived(fixing.across ?? Math.sqrt(1 / (fixing.n ?? 1)));
  const [least, most] = $derived([spacing / 3, spacing * 2]);
  /** The pattern keeps its proportion; what runs through keeps its height. */
  function spaced(to: number): Partial<Fixing> {
    const across = fixing.across ?? spacing;
    const along = fixing.along ?? spacing;
    const runs = (fixing.h ?? 0) >= along * 0.999999;
    return { n: null, across: to, along: runs ? along : (along * to) / across };
  }
  const sweeping = new Solving();
  const sweep = new Live<
    { project: string; building: string; assembly: Assembly; fixing: string; values: number[] },
    FixingSweepPoint[]
  >(async ({ project, building, assembly, fixing, values }) => {
    const found = await sweeping.run((ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/fixing-sweep', {
          params: { path: { project_id: project } },
          body: { building_id: building, assembly, fixing_id: fixing, values, ticket },
        }),
      ),
    );
    return found.points;
  });
  const saved = $derived(session.assembly(draft.id));
  $effect(() => {
    const one = saved?.fixings?.find((each) => each.id === fixing.id);
    if (!saved || !one) return;
    const from = one.across ?? Math.sqrt(1 / (one.n ?? 1));
    const values = Array.from({ length: 9 }, (_, n) => Number(((from / 3) * 6 ** (n / 8)).toPrecision(4)));
    const question = {
      project: place.project,
      building: building.id,
      assembly: saved,
      fixing: one.id,
      values,
    };
    untrack(() => sweep.ask(question));
  });
  const points = $derived(sweep.answered?.fixing === fixing.id ? (sweep.answer ?? []) : []);
</script>

{#snippet row(name: string, value: string, unit: string, testid = '')}
  <div>
    <dt>{name}</dt>
    <dd><b data-testid={testid || undefined}>{value}</b> <small>{unit}</small></dd>
  </div>
{/snippet}

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
    href="/api/v1/projects/{place.project}/assemblies/{draft.id}/fixings/{fixing.id}/sheet.pdf?building_id={building.id}"
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
    )}: room air at 80 % on a surface. {answer.solved.unknowns.toLocaleString('en').replaceAll(',', '\u2009')}
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
      <dl class="figures" data-stale={stale}>
        <div>
          <dt>χ, solved</dt>
          <dd>
            <b data-testid="chi">{units.show(answer.chi, 'coupling', 5)}</b>
            <small>{units.symbol('coupling')}</small>
          </dd>
          <dd class="under">±{units.show(Math.max(answer.error, 1e-6), 'coupling', 6)} estimated</dd>
        </div>
        <div>
          <dt>by the approximate formula</dt>
          <dd>
            <b data-testid="chi-approximate">{units.show(answer.chi_approximate, 'coupling', 5)}</b>
            <small>{units.symbol('coupling')}</small>
          </dd>
          <dd class="under">
            {#if answer.approximate_counts}solved over formula {units.show(
                answer.ratio,
                'ratio',
                2,
              )}{:else}the procedure counts nothing below 1 W/(m·K); ratio {units.show(
                answer.ratio,
                'ratio',
                2,
              )}{/if}
          </dd>
        </div>
        <div>
          <dt>f<sub>Rsi</sub> at it</dt>
          <dd class:decision={asked && answer.solved.f_rsi !== null && answer.solved.f_rsi < asked}>
            <b>{answer.solved.f_rsi === null ? '–' : units.show(answer.solved.f_rsi, 'ratio', 3)}</b>
            {#if asked}<small>asked {units.show(asked, 'ratio', 2)}</small>{/if}
          </dd>
          <dd class="under">coldest {units.full(answer.solved.coldest, 'temperature')}</dd>
        </div>
      </dl>
    {:else if !problem}
      <p role="status">Solving the cell</p>
    {/if}
    {#if points.length}
      <h2>ΔU over the spacing across, {units.symbol('transmittance')}</h2>
      <PsiCurve
        points={points.map((one) => ({
          value: one.value,
          psi: one.delta_U,
          f_rsi: null,
          why_not: one.why_not,
        }))}
        beside={points.map((one) => one.delta_U_approximate)}
        of="transmittance"
        value={spacing}
        least={points[0]?.value ?? least}
        most={points[points.length - 1]?.value ?? most}
        dimension="length"
        name="spacing across"
        {units}
        width={Math.min(work, 620)}
        stale={sweep.stale}
        onmove={(to) => bench.move(changed(spaced(to)))}
        onrest={(to) => turn(spaced(Number(to.toPrecision(4))), `spacing ${units.full(to, 'length')}`)}
      />
      <p class="soft">Solved in ink, the approximate formula dashed.</p>
    {:else if answer}<p role="status" class="soft">Solving nine spacings</p>{/if}
    <SolvingBar solving={sweeping} name="the spacings" />
  </div>
  <aside style:width="{reading}px">
    {#if answer}
      <h2>In the build-up</h2>
      <dl data-stale={stale}>
        {@render row(
          'number',
          units.show(answer.per_area, 'count_per_area', 2),
          units.symbol('count_per_area'),
        )}
        {@render row(
          'ΔU = n·χ',
          units.show(answer.delta_U, 'transmittance', 4),
          units.symbol('transmittance'),
          'delta-U',
        )}
        {@render row(
          'R without this group',
          units.show(answer.R_without, 'resistance', 3),
          units.symbol('resistance'),
        )}
        <div class="sum">
          <dt>R that remains</dt>
          <dd>
            <Figure
              value={units.show(answer.R_all, 'resistance', 3)}
              unit={units.symbol('resistance')}
              label="R that remains"
              onwork={() =>
                void working.show({
                  figure: 'R_clear',
                  title: 'Clear-wall R with fixings',
                  dimension: 'resistance',
                  project: place.project,
                  building: building.id,
                  condition: place.condition,
                  assembly: draft,
                })}
            />
          </dd>
        </div>
      </dl>
      <h2>In the building</h2>
      <dl data-stale={stale}>
        {@render row('area of this build-up', units.show(answer.area, 'area', 1), units.symbol('area'))}
        {@render row('pieces', Math.ceil(answer.count).toLocaleString('en').replaceAll(',', '\u2009'), '')}
        {@render row('heat loss', units.show(answer.H, 'coupling', 2), units.symbol('coupling'))}
      </dl>
    {/if}
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
  aside dl div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: 2px 0;
    font-size: var(--fs-small);
  }
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 28px;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  .figures b {
    font: 600 18px var(--mono);
  }
  .under {
    font: 400 var(--fs-small) var(--sans);
    color: var(--ink-2);
  }
  .decision b {
    color: var(--oxide);
    border-top: 2px solid var(--oxide);
  }
  small {
    color: var(--ink-3);
    font: 400 var(--fs-cap) var(--sans);
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
