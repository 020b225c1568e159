<!-- The foam decision: cores by thicknesses in one chart and one table, the cheapest within the limits, and what moves it. -->
<script lang="ts">
  import type { Assembly, Decision } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import FoamChart from '@/draw/FoamChart.svelte';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { Wholes } from '@/project/wholes.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';

  import StudyCores from './StudyCores.svelte';
  import StudyPicks from './StudyPicks.svelte';
  import StudyTable from './StudyTable.svelte';

  interface Props {
    draft: Assembly;
    units: Units;
    zone: string;
    revision: number;
  }
  let { draft, units, zone, revision }: Props = $props();
  const place = $derived(router.place);
  const wholes = new Wholes();
  let extra = $state.raw<string[]>([]);
  let dropped = $state.raw<string[]>([]);
  let chosen = $state('');
  let width = $state(680);

  const system = $derived(session.shipped?.systems.find((one) => one.key === draft.system));
  const own = $derived(draft.layers.find((layer) => layer.studied)?.material ?? '');
  const name = (key: string) => session.materials.get(key)?.name ?? key;
  const panels = $derived(
    draft.layers
      .filter((layer) => layer.goes_with_core)
      .map((layer) => `${name(layer.material ?? '')} ${units.full(layer.d, 'length')}`),
  );
  const cores = $derived(
    [...(system?.cores ?? []), ...extra].filter((key) => !dropped.includes(key)).slice(0, 11),
  );
  const live = asking(
    () => ({ project: place.project, building: place.building, assembly: draft, cores, revision }),
    ({ project, building, assembly, cores }): Promise<Decision> =>
      take(
        api.POST('/api/v1/projects/{project_id}/variants', {
          ...inProject(project),
          body: { building_id: building, assembly, cores },
        }),
      ),
  );
  const decision = $derived(live.answer);
  const problem = $derived(live.problem);
</script>

{#if problem}
  <Notice title="No study of this build-up." text={problem.sentence} live />
{:else if !decision}
  <p role="status">Sweeping cores and thicknesses</p>
{:else}
  <div class="columns" data-stale={live.stale} data-testid="foam-study">
    <div bind:clientWidth={width}>
      <h2>
        Clear-wall R by core and thickness <span
          >{units.symbol('resistance')}, core in {units.system === 'SI' ? 'mm' : 'in'}; squares: exact
          crossing, diamond: cheapest within the limits</span
        >
      </h2>
      <FoamChart
        {decision}
        materials={session.materials}
        {units}
        {width}
        {chosen}
        onchoose={(core) => (chosen = chosen === core ? '' : core)}
      />
    </div>
    <StudyPicks {decision} {units} {name} {wholes} />
  </div>
  <StudyCores
    {own}
    {cores}
    bind:chosen
    {name}
    onadd={(core) => {
      extra = [...extra, core];
      dropped = dropped.filter((one) => one !== core);
    }}
    ondrop={(core) => {
      dropped = [...dropped, core];
      if (chosen === core) chosen = '';
    }}
  />
  {#if panels.length}
    <p class="soft">
      Sizes are the core’s; {panels.join(' and ')} changes with it, in material and in proportion.
    </p>
  {/if}
  <StudyTable {wholes} {draft} {decision} {units} {zone} {chosen} {name} {revision} stale={live.stale} />
  <p class="soft">
    R: {units.symbol('resistance')}; floor: gained or lost per length of wall, {units.symbol('floor_area')};
    weight {units.symbol('surface_mass')}; cost {units.symbol('cost')}; heat and cool {units.symbol('energy')} by
    degree hours of the Basis, air temperature only; CO₂e {units.symbol('carbon')}. Pays in years against the
    wall as it is. Moisture: points of room humidity in the cold months up to where the build-up fails by the
    months; step 5 has its joints. Building R and what is lost at joints, {units.symbol('coupling')}, are
    solved on demand.
  </p>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 330px;
    gap: 20px;
    margin-top: 6px;
  }
</style>
