<!-- What a group of fixings comes to: in the build-up, and in the building. -->
<script lang="ts">
  import type { Assembly, Building, FixingOut } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { working } from '@/project/working.svelte';

  interface Props {
    answer: FixingOut;
    building: Building;
    draft: Assembly;
    units: Units;
    stale: boolean;
  }
  let { answer, building, draft, units, stale }: Props = $props();
  const place = $derived(router.place);
</script>

{#snippet row(name: string, value: string, unit: string, testid = '')}
  <div>
    <dt>{name}</dt>
    <dd><b data-testid={testid || undefined}>{value}</b> <small>{unit}</small></dd>
  </div>
{/snippet}

<h2>In the build-up</h2>
<dl data-stale={stale}>
  {@render row('number', units.show(answer.per_area, 'count_per_area', 2), units.symbol('count_per_area'))}
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

<style>
  h2 {
    font-size: var(--fs-small);
    color: var(--verdigris);
    margin: 12px 0 4px;
  }
  h2:first-child {
    margin-top: 0;
  }
  dl div {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: 2px 0;
    font-size: var(--fs-small);
  }
  small {
    color: var(--ink-3);
    font: 400 var(--fs-cap) var(--sans);
  }
</style>
