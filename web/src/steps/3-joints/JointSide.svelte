<!-- One side of the joints bench: its variant, its drawing, its figures. -->
<script lang="ts">
  import type { Joint, JointFamily, JointOut, JointWarmer, Problem } from '@/api/client';
  import JointField from '@/draw/JointField.svelte';
  import { joints } from './joints.svelte';
  import type { Solving } from '@/api/solving.svelte';
  import Button from '@/kit/Button.svelte';
  import { router } from '@/project/router.svelte';
  import { working } from '@/project/working.svelte';
  import { certainty } from '@/kit/reading';
  import Figure from '@/kit/Figure.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    letter: 'A' | 'B';
    joint: Joint;
    variant: string;
    family: JointFamily;
    system: string;
    answer: JointOut | undefined;
    problem: Problem | undefined;
    stale: boolean;
    width: number;
    height: number;
    units: Units;
    dimensions: 'internal' | 'overall' | 'external';
    asked: number | null | undefined;
    flowLines: boolean;
    yours: boolean;
    solving: Solving;
    /** How much warmer it is than the other side. */
    warmer?: JointWarmer | undefined;
    beside?: [number, number] | undefined;
    onvariant: (key: string) => void;
    onturn?: ((key: string, value: number) => void) | undefined;
  }
  let {
    letter,
    joint,
    variant,
    family,
    system,
    answer,
    problem,
    stale,
    width,
    height,
    units,
    dimensions,
    asked,
    flowLines,
    yours,
    solving,
    warmer,
    beside,
    onvariant,
    onturn,
  }: Props = $props();
  const variants = $derived(family.variants.filter((one) => one.suits.includes(system)));
  const own = $derived(family.variants.find((one) => one.key === variant));
  const words = $derived(new Map((own?.parameters ?? []).map((one) => [one.key, one.text])));
  const solved = $derived(answer?.solved ?? undefined);
  const psi = $derived(solved?.psi_out[dimensions]);
  const dimension = $derived(family.point ? 'coupling' : 'linear');
  function open(figure: string, name: string, dimension: string): void {
    const { project, building, condition } = router.place;
    working.lay(
      { figure, title: `${name}, ${joint.name}, side ${letter}`, dimension, project, building, condition },
      solved?.working[figure]?.steps ?? [],
    );
  }
  const inside = $derived(solved?.heat_flow['inside'] ?? 0);
</script>

<section class:yours style:max-width="{width}px" aria-label="Side {letter}" data-testid="side-{letter}">
  <header>
    <b>{letter}</b>
    <Choice
      label="Variant {letter}"
      showLabel={false}
      value={variant}
      options={variants.map((one) => ({ value: one.key, text: one.text }))}
      onsave={onvariant}
    />
  </header>
  <p class="state">
    {#if stale}solving{:else if solved?.accuracy === 'final'}final{:else if solved}working accuracy{/if}
    <SolvingBar {solving} name="side {letter}" />
  </p>
  {#if problem?.status === 409}
    <Notice tone="note" title={problem.body.title} text={problem.sentence} live />
    <Button onclick={() => joints.again()}>Solve it</Button>
  {:else if problem}
    <Notice title="This joint cannot be solved." text={problem.sentence} live />
  {/if}
  {#if answer}
    <JointField
      drawing={answer.drawing}
      {solved}
      {width}
      {height}
      {units}
      name="{joint.name}, {own?.text ?? variant}"
      {stale}
      {flowLines}
      {words}
      {beside}
      {warmer}
      {onturn}
    />
    {#if warmer}<p class="under">
        B is {units.delta(warmer.low, 'difference')} to {units.delta(warmer.high, 'difference')}
        {units.symbol('difference')} warmer than A: slate colder, clay warmer, bold where nothing changes.
      </p>{/if}
    {#if solved && psi !== undefined}
      <dl class="figures" data-stale={stale}>
        <div>
          <dt>{family.point ? 'χ' : 'ψ'}</dt>
          <dd data-testid="psi-{letter}">
            <Figure
              value={units.show(psi, dimension, 4)}
              unit={units.symbol(dimension)}
              label={family.point ? `χ of side ${letter}` : `ψ of side ${letter}`}
              onwork={() => open('psi', family.point ? 'χ' : 'ψ', dimension)}
            />
          </dd>
          <dd class="under">
            {certainty(solved.error * units.unit(dimension).per_si)}
          </dd>
        </div>
        <div>
          <dt>f<sub>Rsi</sub></dt>
          <dd class:decision={solved.falls_short}>
            {#if solved.f_rsi === null}–{:else}<Figure
                value={units.show(solved.f_rsi, 'ratio', 3)}
                label="fRsi of side {letter}"
                tone={solved.falls_short ? 'decision' : 'ink'}
                onwork={() => open('f_rsi', 'f Rsi', 'ratio')}
              />{/if}
            {#if asked}<small>asked {units.show(asked, 'ratio', 2)}</small>{/if}
          </dd>
          <dd class="under">
            coldest {units.full(solved.coldest, 'temperature')}{#if solved.f_error !== null}, {certainty(
                solved.f_error,
              )}{/if}
          </dd>
        </div>
        <div>
          <dt>from the room</dt>
          <dd>
            <Figure
              value={units.show(inside, family.point ? 'heat_flow' : 'line_flow')}
              unit={units.symbol(family.point ? 'heat_flow' : 'line_flow')}
              label="Heat from the room, side {letter}"
              onwork={() => open('heat', 'Heat from the room', family.point ? 'heat_flow' : 'line_flow')}
            />
          </dd>
          <dd class="under">whole section</dd>
        </div>
      </dl>
    {/if}
  {:else if !problem}
    <p role="status">Solving</p>
  {/if}
</section>

<style>
  section {
    flex: 1 1 0;
    min-width: 0;
  }
  header {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  header :global(.choice) {
    min-width: 0;
  }
  header :global(select) {
    max-width: 100%;
  }
  /* As high while it is solved as after: nothing below moves. */
  .state {
    display: flex;
    gap: 8px;
    align-items: center;
    height: 30px;
    font-size: var(--fs-cap);
    color: var(--ink-3);
    white-space: nowrap;
    overflow: hidden;
  }
  .yours header b {
    color: var(--verdigris);
  }
  dl {
    display: grid;
    grid-template-columns: repeat(3, auto);
    gap: 4px 16px;
    justify-content: start;
    margin-top: 8px;
  }
  dd small {
    display: block;
  }
  small,
  .under {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
</style>
