<!-- The ledger's last cell: how much of the leakage that is asked for the seals use up. -->
<script lang="ts">
  import type { Building } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { whole } from '@/project/whole.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  const found = $derived(whole.of({ project: router.place.project, building: building.id }));
  const asked = $derived(building.plant?.tightness?.n50_asked ?? undefined);
  const [low = 0, likely = 0, high = 0] = $derived(found?.leaks.n50 ?? []);
  const used = $derived(asked === undefined ? undefined : likely / asked);
  const range = $derived(`n50 ${units.show(low, 'air_change')} to ${units.show(high, 'air_change')} 1/h`);
</script>

<div
  class="cell"
  class:pending={!found}
  class:open={used !== undefined && used > 1}
  data-stale={whole.stale}
  data-testid="leakage"
>
  <small>{used === undefined ? 'Air leakage, n50' : 'Air leakage used'}</small>
  {#if found}
    <div class="value">
      <Figure
        value={used === undefined ? units.show(likely, 'air_change') : units.show(used, 'share', 0)}
        unit={used === undefined ? '1/h' : '%'}
        label={used === undefined ? 'Air leakage, n50' : 'Air leakage used'}
        act="open its sheet"
        weight="figure"
        tone={used !== undefined && used > 1 ? 'decision' : 'ink'}
        onwork={() => router.go({ step: 7, view: 'air' })}
      />
      {#if asked !== undefined}<em>of {units.show(asked, 'air_change')} 1/h</em>{/if}
    </div>
    <span class="no">{range}</span>
  {:else}
    <span class="none">–</span><span class="no"
      >{building.bodies?.length ? 'being read' : 'not counted: no shape yet'}</span
    >
  {/if}
</div>
