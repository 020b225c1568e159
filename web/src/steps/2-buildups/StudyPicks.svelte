<!-- What the foam study has found: the cheapest within the limits, the least over the life, the next step, what moves it. -->
<script lang="ts">
  import type { Decision } from '@/api/client';
  import SwingBars from '@/draw/SwingBars.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import type { Wholes } from '@/project/wholes.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { byTheMonths, keyOf } from './variants';

  interface Props {
    decision: Decision;
    units: Units;
    name: (core: string) => string;
    wholes: Wholes;
  }
  let { decision, units, name, wholes }: Props = $props();
  const currency = $derived(session.open?.project.basis.economy?.currency ?? '');
  const limits = $derived(session.open?.project.basis.limits);
  const cheapest = $derived(decision.cheapest ? decision.cores[decision.cheapest.core] : undefined);
  const damp = $derived(
    decision.cheapest && wholes.get(keyOf(cheapest?.core ?? '', cheapest?.d[decision.cheapest.at] ?? 0)),
  );
  const least = $derived(at(decision.least_life));
  const beyond = $derived(at(decision.least_beyond));
  /** What is shown of a pick. */
  function at(pick: Decision['least_life']) {
    const core = pick && decision.cores[pick.core];
    if (!core) return undefined;
    const stops = (core.stops[pick.at] ?? []).map((stop) => session.shipped?.stops[stop] ?? stop);
    return {
      size: `${name(core.core)}, ${units.full(core.d[pick.at] ?? 0, 'length')}`,
      money: units.show(core.columns['money']?.[pick.at] ?? 0, 'cost'),
      stops: stops.join('; '),
    };
  }
</script>

<div class="side">
  {#if cheapest && decision.cheapest}
    {@const d = cheapest.d[decision.cheapest.at] ?? 0}
    <p class="pick">
      <b>Cheapest within the limits: {name(cheapest.core)}, {units.full(d, 'length')}</b>
      {units.show(cheapest.columns['cost']?.[decision.cheapest.at] ?? 0, 'cost')}
      {currency}
      {units.symbol('cost')}, R {units.show(
        cheapest.columns['R_clear']?.[decision.cheapest.at] ?? 0,
        'resistance',
      )}.
      <span class:fails={damp?.passes === false} data-testid="pick-moisture"
        >Moisture {byTheMonths(damp) ?? 'is being judged'}.</span
      >
    </p>
  {:else}
    <Notice
      title="No variant passes every limit."
      text="The table says for each which one stops it; limits are set in the Basis."
    />
  {/if}
  {#if least}
    <p>
      Least money over the life within the limits: {least.size}, {least.money}
      {units.symbol('cost')}.
    </p>
  {/if}
  {#if beyond}
    <p class="soft" data-testid="beyond">
      Beyond the limits still less: {beyond.size}, {beyond.money} ({beyond.stops}).
    </p>
  {/if}
  {#if decision.step}
    <p data-testid="next-step">
      The next step up from {units.full(decision.step.now, 'length')}, {units.full(
        decision.step.d,
        'length',
      )}, saves {units.full(decision.step.saves, 'flux')} at the winter design temperature, costs {units.show(
        decision.step.costs,
        'cost',
      )} more, and {decision.step.life < 0 ? 'saves' : 'loses'}
      {units.show(Math.abs(decision.step.life), 'cost')} over the life.
    </p>
  {/if}
  <p class="soft">
    Limits: {[
      decision.asked !== null && `R ${units.show(decision.asked, 'resistance')}`,
      limits?.thickness && `wall ${units.full(limits.thickness, 'length')}`,
      limits?.weight && units.full(limits.weight, 'surface_mass', 0),
      limits?.inside_share && `${units.show(limits.inside_share, 'share', 0)} % inside the vapour plane`,
      limits?.stock_only && 'stock sizes only',
    ]
      .filter(Boolean)
      .join(', ') || 'none'}.
    <button class="link" onclick={() => router.go({ step: 1 })}>Basis</button>
  </p>
  <h3>What moves it most <span>money over the life, {units.symbol('cost')}</span></h3>
  <SwingBars swings={decision.swings} {units} />
</div>

<style>
  .side {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  .pick b {
    color: var(--verdigris);
    display: block;
  }
  .fails {
    color: var(--oxide);
  }
  .link {
    border: 0;
    background: none;
    color: var(--verdigris);
    text-decoration: underline;
    min-height: 24px;
  }
</style>
