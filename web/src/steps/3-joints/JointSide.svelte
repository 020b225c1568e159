<!-- One side of the joints bench: its variant, its drawing, its figures. -->
<script lang="ts">
  import type { Joint, JointFamily, JointOut, JointWarmer, Problem } from '@/api/client';
  import JointField from '@/draw/JointField.svelte';
  import { joints } from './joints.svelte';
  import type { Solving } from '@/api/solving.svelte';
  import Button from '@/kit/Button.svelte';
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
          <dd>
            <b data-testid="psi-{letter}">{units.show(psi, dimension, 4)}</b>
            <small>{units.symbol(dimension)}</small>
          </dd>
          <dd class="under">
            ±{units.show(Math.max(solved.error, 1e-5), dimension, 5)}
            {#if solved.certain && !family.point}
              {@const L2D = solved.coupling['inside|outside'] ?? 0}
              <span
                title="between a conforming field and one in equilibrium on the last mesh: not an estimate"
                >certainly {units.show(psi + (solved.certain[0] ?? L2D) - L2D, 'linear', 4)} to {units.show(
                  psi + (solved.certain[1] ?? L2D) - L2D,
                  'linear',
                  4,
                )}</span
              >
            {:else}estimated{/if}
          </dd>
        </div>
        <div>
          <dt>f<sub>Rsi</sub></dt>
          <dd class:decision={solved.falls_short}>
            <b>{solved.f_rsi === null ? '–' : units.show(solved.f_rsi, 'ratio', 3)}</b>
            {#if asked}<small>asked {units.show(asked, 'ratio', 2)}</small>{/if}
          </dd>
          <dd class="under">
            coldest {units.full(solved.coldest, 'temperature')}{#if solved.f_error !== null}, f ±{units.show(
                solved.f_error,
                'ratio',
                3,
              )}{/if}
          </dd>
        </div>
        <div>
          <dt>from the room</dt>
          <dd>
            <b>{units.show(inside, family.point ? 'heat_flow' : 'line_flow')}</b>
            <small>{units.symbol(family.point ? 'heat_flow' : 'line_flow')}, whole section</small>
          </dd>
          <dd class="under">balance {solved.balance.toExponential(0).replace('-', '−')}</dd>
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
  dd b {
    font: 600 19px var(--mono);
    letter-spacing: -0.03em;
  }
  .yours dd b {
    color: var(--verdigris);
  }
  dd.decision b {
    color: var(--oxide);
  }
  .under span {
    display: block;
  }
  small,
  .under {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
</style>
