<!-- The smallest change of each kind that turns a verdict; what does not turn it is said as well. -->
<script lang="ts">
  import type { Advice, Assembly } from '@/api/client';
  import { layerName } from '@/project/layers';
  import { session } from '@/project/session.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    assembly: Assembly;
    advice: Advice[];
    units: Units;
    /** The room is told by points that it is drier, not by its humidity. */
    byPoints?: boolean;
  }
  let { assembly, advice, units, byPoints = false }: Props = $props();
  /** ISO 13788, 4.2: permeance is δ₀ over s_d. */
  const perm = $derived(session.open?.project.basis.schools.vapour === 'perm');
  const percent = (share: number) => `${units.show(share, 'share', 0)} %`;
  function words(one: Advice): string {
    const of = one.layer === null ? '' : layerName(assembly, session.materials, one.layer);
    const size = (d: number) => units.full(d, 'length');
    const sd = (value: number) =>
      perm
        ? units.full(2e-10 / Math.max(value, 1e-9), 'permeance')
        : `s_d ${units.full(value, 'air_layer', 1)}`;
    const none = !one.found;
    switch (one.kind) {
      case 'vapour':
        return none
          ? `no vapour layer turns it, up to ${sd(one.amount)}`
          : `a vapour layer of ${sd(one.amount)} on the warm side; ${sd(one.step)} still fails`;
      case 'outside':
        return none
          ? `no insulation outside turns it, up to ${size(one.amount)}`
          : `${size(one.amount)} of open insulation outside; ${size(one.step)} still fails`;
      case 'core':
        return none
          ? `no thickness of ${of} turns it, up to ${size(one.amount)}`
          : `${of} of ${size(one.amount)}; ${size(one.step)} still fails`;
      case 'gap':
        return none
          ? 'a ventilated gap alone does not turn it'
          : 'a ventilated gap behind the outermost layer';
      case 'room':
        if (byPoints)
          return none
            ? `no drier room turns it, up to ${percent(one.amount)} less`
            : `a room drier by ${units.show(one.amount, 'share', 0)} points; ${units.show(one.step, 'share', 0)} still fails`;
        return `a room at ${percent(one.amount)} through the cold months; ${percent(one.step)} still fails`;
      case 'seal':
        return none
          ? 'no tighter joint turns it'
          : `a joint of ${units.full(one.amount, 'joint_flow')} at 50 Pa; ${units.full(one.step, 'joint_flow')} still fails`;
    }
  }
</script>

<ul data-testid="advice">
  {#each advice as one (one.kind)}
    <li class:none={!one.found}>{words(one)}</li>
  {/each}
</ul>

<style>
  ul {
    margin: 4px 0 0;
    padding-left: 18px;
  }
  li {
    padding: 1px 0;
  }
  .none {
    color: var(--ink-3);
  }
</style>
