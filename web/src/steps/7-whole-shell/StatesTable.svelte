<!-- The building beside itself: as it is, as it was, with measures, and as a plain framed one would be. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, BuildingState } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { stream } from '@/api/stream.svelte';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';

  interface Props {
    building: Building;
    units: Units;
    keys?: string[]; // of measures, which make one more state
  }
  let { building, units, keys = [] }: Props = $props();
  let answers = $state(0);
  const live = asking(
    () => ({
      project: session.open?.project.id ?? '',
      building: building.id,
      revision: session.open?.revision ?? 0,
      answers,
      keys,
    }),
    ({ project, building, keys }): Promise<BuildingState[]> =>
      take(
        api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/states', {
          ...inBuilding(project, building),
          body: { keys },
        }),
      ),
  );
  const found = $derived(live.answer ?? []);
  const lacking = $derived(found.some((one) => !one.figures));
  $effect(() => {
    if (lacking) answers = stream.answers;
  });
  type Figures = NonNullable<BuildingState['figures']>;
  const ROWS: { key: keyof Figures; text: string; dimension: string; decimals?: number }[] = [
    { key: 'R_effective', text: 'effective R', dimension: 'resistance' },
    { key: 'H_tr', text: 'transmission', dimension: 'coupling' },
    { key: 'H_ve', text: 'air', dimension: 'coupling' },
    { key: 'n50', text: 'n50', dimension: 'air_change' },
    { key: 'heating', text: 'heating load', dimension: 'heat_flow', decimals: 0 },
    { key: 'cooling', text: 'cooling load', dimension: 'heat_flow', decimals: 0 },
    { key: 'free_max', text: 'room left alone, at most', dimension: 'temperature' },
    { key: 'Q_nd', text: 'heating need', dimension: 'heat' },
    { key: 'per_area', text: 'over the floor', dimension: 'energy' },
  ];
</script>

<h2>Beside other states</h2>
<table data-testid="states">
  <thead>
    <tr>
      <th><span class="visually-hidden">figure</span></th>
      {#each found as one (one.key)}<th class="n">{units.said(one.text)}</th>{/each}
    </tr>
  </thead>
  <tbody>
    {#each ROWS as row (row.key)}
      <tr>
        <th scope="row">{row.text}</th>
        {#each found as one (one.key)}
          {@const value = one.figures?.[row.key]}
          <td class="n" title={units.said(one.why_not)}
            >{value === null || value === undefined
              ? '–'
              : units.full(value, row.dimension, row.decimals)}</td
          >
        {/each}
      </tr>
    {/each}
  </tbody>
</table>
{#each found.filter((one) => one.why_not) as one (one.key)}
  <p class="soft">{units.said(one.text)}: {units.said(one.why_not)}.</p>
{/each}

<style>
  thead th.n {
    white-space: normal;
    max-width: 150px;
  }
</style>
