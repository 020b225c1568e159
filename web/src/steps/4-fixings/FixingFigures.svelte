<!-- χ of a group, solved and by the approximate formula, and its surface. -->
<script lang="ts">
  import type { FixingOut } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    answer: FixingOut;
    units: Units;
    /** Surface factor asked of every surface. */
    asked: number | null | undefined;
    stale: boolean;
  }
  let { answer, units, asked, stale }: Props = $props();
</script>

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
      {#if answer.approximate_counts}solved over formula {units.show(answer.ratio, 'ratio', 2)}{:else}the
        procedure counts nothing below 1 W/(m·K); ratio {units.show(answer.ratio, 'ratio', 2)}{/if}
    </dd>
  </div>
  <div>
    <dt>f<sub>Rsi</sub> at it</dt>
    <dd class:decision={answer.solved.falls_short}>
      <b>{answer.solved.f_rsi === null ? '–' : units.show(answer.solved.f_rsi, 'ratio', 3)}</b>
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
</style>
