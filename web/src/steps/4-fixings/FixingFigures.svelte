<!-- χ of a group, solved and by the approximate formula, and its surface. -->
<script lang="ts">
  import type { FixingOut } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { working } from '@/project/working.svelte';

  interface Props {
    answer: FixingOut;
    units: Units;
    /** Surface factor asked of every surface. */
    asked: number | null | undefined;
    stale: boolean;
  }
  let { answer, units, asked, stale }: Props = $props();
  /** Its working, where the answer has one. */
  function opener(figure: string, title: string, dimension: string): (() => void) | undefined {
    const steps = (answer.working[figure] ?? answer.solved.working[figure])?.steps;
    if (!steps) return undefined;
    const { project, building, condition } = router.place;
    return () =>
      working.lay(
        {
          figure,
          title: `${title}, ${answer.fixing.name}`,
          dimension,
          decimals: dimension === 'coupling' ? 5 : undefined,
          project,
          building,
          condition,
        },
        steps,
      );
  }
</script>

<dl class="figures" data-stale={stale}>
  <div>
    <dt>χ, solved</dt>
    <dd>
      <span data-testid="chi"
        ><Figure
          weight="lead"
          value={units.show(answer.chi, 'coupling', 5)}
          unit={units.symbol('coupling')}
          label="χ, solved"
          onwork={opener('chi', 'χ, solved', 'coupling')}
        /></span
      >
    </dd>
    <dd class="under">±{units.show(Math.max(answer.error, 1e-6), 'coupling', 6)} estimated</dd>
  </div>
  <div>
    <dt>by the approximate formula</dt>
    <dd>
      <span data-testid="chi-approximate"
        ><Figure
          weight="lead"
          value={units.show(answer.chi_approximate, 'coupling', 5)}
          unit={units.symbol('coupling')}
          label="χ by the approximate formula"
          onwork={opener('chi_approximate', 'χ by the approximate formula', 'coupling')}
        /></span
      >
    </dd>
    <dd class="under">
      {#if answer.approximate_counts}solved over formula {units.show(answer.ratio, 'ratio', 2)}{:else}the
        procedure counts nothing below 1 W/(m·K); ratio {units.show(answer.ratio, 'ratio', 2)}{/if}
    </dd>
  </div>
  <div>
    <dt>f<sub>Rsi</sub> at it</dt>
    <dd class:decision={answer.solved.falls_short}>
      {#if answer.solved.f_rsi === null}–{:else}<Figure
          weight="lead"
          value={units.show(answer.solved.f_rsi, 'ratio', 3)}
          label="fRsi at it"
          tone={answer.solved.falls_short ? 'decision' : 'ink'}
          onwork={opener('f_rsi', 'f Rsi', 'ratio')}
        />{/if}
      {#if asked}<small>asked {units.show(asked, 'ratio', 2)}</small>{/if}
    </dd>
    <dd class="under">coldest {units.full(answer.solved.coldest, 'temperature')}</dd>
  </div>
</dl>

<style>
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 28px;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  .figures :global(.figure b) {
    font: 600 18px var(--mono);
  }
  .under {
    font: 400 var(--fs-small) var(--sans);
    color: var(--ink-2);
  }
  small {
    color: var(--ink-3);
    font: 400 var(--fs-cap) var(--sans);
  }
</style>
