<!-- Basis: site, climate, indoor conditions, what is asked, units and schools; and the buildings with their areas. -->
<script lang="ts">
  import type { Basis, Building, Ledger } from '@/api/client';
  import YearChart from '@/draw/YearChart.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import { refusals } from '@/kit/refusals.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import TargetSets from './TargetSets.svelte';
  import type { Units } from '@/kit/units';
  import DampPanel from './DampPanel.svelte';
  import Elements from '@/project/Elements.svelte';
  import BasisTabs from './BasisTabs.svelte';
  import SchoolsFields from './SchoolsFields.svelte';
  import ClimateBar from './ClimateBar.svelte';
  import RegisterView from './RegisterView.svelte';
  import RoomPanel from './RoomPanel.svelte';

  interface Props {
    basis: Basis;
    building: Building;
    units: Units;
    ledger: Ledger | undefined;
    onfile: () => void;
  }
  let { basis, building, units, ledger, onfile }: Props = $props();
  const name = $derived(session.open?.project.name ?? '');
  const why = (part: string) => refusals.current?.items.find((item) => item.pointer.endsWith(part))?.detail;

  type Part = 'site' | 'indoor' | 'targets' | 'schools' | 'climate';
  function set(part: Part, change: Record<string, unknown>, text: string): void {
    void session.saveBasis({ ...basis, [part]: { ...basis[part], ...change } } as Basis, name, text);
  }
  function month(kind: 'theta_e' | 'phi_e', at: number, value: number): void {
    const values = basis.climate[kind].map((old, index) => (index === at ? value : old));
    set('climate', { [kind]: values }, kind === 'theta_e' ? 'Monthly temperature' : 'Monthly humidity');
  }
  function addBuilding(): void {
    const id = `b${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
    const count = (session.open?.project.buildings?.length ?? 0) + 1;
    // Its plant, set-out, shop and site begin with the usual values, which the server knows.
    const fresh: Omit<
      Building,
      'plant' | 'setout' | 'shop' | 'forms' | 'pour' | 'lifting' | 'wet' | 'work' | 'bill'
    > = {
      id,
      name: `Building ${count}`,
      use: '',
      elements: [],
      asked_H: null,
      joints: [],
      bodies: [],
      openings: [],
      faces: [],
      north: 0,
      floor_thickness: 0.3,
    };
    void session
      .saveBuilding(fresh as Building, `${fresh.name} added`, '1')
      .then((good) => good && router.go({ building: id }));
  }
  function removeBuilding(): void {
    const other = session.open?.project.buildings?.find((one) => one.id !== building.id);
    void session.removeBuilding(building).then((good) => good && router.go({ building: other?.id ?? '' }));
  }
</script>

{#snippet words(label: string, value: string, save: (value: string) => void, wide = false)}
  <label class="words" class:wide
    ><span>{label}</span><input
      {value}
      onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      onchange={(event) => save(event.currentTarget.value.trim())}
    /></label
  >
{/snippet}

<SheetHead zone="1" title="Basis" aside="what everything else rests on; every screen follows a change here">
  <BasisTabs />
  <a href="/api/v1/projects/{session.open?.project.id}/file" download>Export project, JSON</a>
  <Button onclick={onfile}>Import a project</Button>
</SheetHead>

<div class="columns">
  <div>
    <h2>Site and climate <span>{units.symbol('temperature')}, %</span></h2>
    <div class="row">
      {@render words(
        'project',
        name,
        (value) => value && void session.saveBasis(basis, value, `Project renamed ${value}`.slice(0, 200)),
      )}
      {@render words('place', basis.site.place ?? '', (place) => set('site', { place }, 'Place'), true)}
    </div>
    <div class="row">
      <Entry
        label="latitude °"
        dimension="ratio"
        decimals={1}
        value={basis.site.latitude}
        width="tiny"
        refused={why('/latitude')}
        onsave={(latitude) => set('site', { latitude }, 'Latitude')}
      />
      <Entry
        label="altitude"
        dimension="height"
        value={basis.site.altitude}
        width="tiny"
        refused={why('/altitude')}
        onsave={(altitude) => altitude !== null && set('site', { altitude }, 'Altitude')}
      />
      <Entry
        label="winter design"
        dimension="temperature"
        value={basis.site.theta_winter}
        width="tiny"
        refused={why('/theta_winter')}
        onsave={(theta_winter) => set('site', { theta_winter }, 'Winter design temperature')}
      />
      <Entry
        label="summer design"
        dimension="temperature"
        value={basis.site.theta_summer}
        width="tiny"
        refused={why('/theta_summer')}
        onsave={(theta_summer) => set('site', { theta_summer }, 'Summer design temperature')}
      />
    </div>
    <YearChart climate={basis.climate} heatedBelow={basis.indoor.heated_below ?? 15} {units} onsave={month} />
    <ClimateBar {basis} {name} {units} />
  </div>
  <div class="side">
    <h2>Indoor</h2>
    <RoomPanel
      room={basis.indoor}
      refused={(part) => why(`/basis/indoor${part}`)}
      onsave={(change, text) => set('indoor', change, text)}
    />
    <h2>Asked <span>check your local code</span></h2>
    <div class="stack">
      <TargetSets
        targets={basis.targets}
        ontake={(one) => set('targets', one.targets, `Targets: ${one.name}`)}
      />
      <Entry
        label="clear-wall R of walls"
        dimension="resistance"
        value={basis.targets.R_wall}
        optional
        positive
        refused={why('/R_wall')}
        onsave={(R_wall) =>
          set(
            'targets',
            { R_wall },
            R_wall === null ? 'No R asked of walls' : `Asked of walls: R ${units.show(R_wall, 'resistance')}`,
          )}
      />
      <Entry
        label="clear R of roofs"
        dimension="resistance"
        value={basis.targets.R_roof}
        optional
        positive
        refused={why('/R_roof')}
        onsave={(R_roof) => set('targets', { R_roof }, 'Asked of roofs')}
      />
      <Entry
        label="clear R of floors"
        dimension="resistance"
        value={basis.targets.R_floor}
        optional
        positive
        refused={why('/R_floor')}
        onsave={(R_floor) => set('targets', { R_floor }, 'Asked of floors')}
      />
      <Entry
        label="effective R of the shell"
        dimension="resistance"
        value={basis.targets.R_shell}
        optional
        positive
        refused={why('/R_shell')}
        onsave={(R_shell) => set('targets', { R_shell }, 'Asked effective R')}
      />
      <Entry
        label="lowest surface factor fRsi"
        dimension="ratio"
        decimals={2}
        value={basis.targets.f_rsi}
        optional
        positive
        refused={why('/f_rsi')}
        onsave={(f_rsi) => set('targets', { f_rsi }, 'Asked surface factor')}
      />
    </div>
    <h2>Units and schools in use</h2>
    <div class="stack">
      <Choice
        label="units you read in"
        value={session.system}
        options={[
          { value: 'SI', text: 'SI' },
          { value: 'IP', text: 'inch-pound' },
        ]}
        onsave={(system) => session.readAs(system === 'IP' ? 'IP' : 'SI')}
      />
      <SchoolsFields
        schools={basis.schools}
        {units}
        onchange={(change, words) => set('schools', change, words)}
      />
    </div>
  </div>
</div>

<h2 class="shell">
  Shell of <input
    class="building"
    aria-label="Name of the building"
    value={building.name}
    onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    onchange={(event) =>
      event.currentTarget.value.trim() &&
      void session.saveBuilding(
        { ...building, name: event.currentTarget.value.trim() },
        'Building renamed',
        '1',
      )}
  />
  <Entry
    label="asked heat loss"
    dimension="coupling"
    value={building.asked_H}
    optional
    positive
    refused={why('/asked_H')}
    onsave={(asked_H) => void session.saveBuilding({ ...building, asked_H }, 'Asked heat loss', '1')}
  />
  <span class="acts"
    ><Button onclick={addBuilding}>Add a building</Button><Button
      onclick={removeBuilding}
      disabled={(session.open?.project.buildings?.length ?? 0) < 2}>Remove this building</Button
    ></span
  >
</h2>
<Elements {building} {units} {ledger} />
<section class="own" aria-label="Room of {building.name}" data-testid="own-room">
  <Choice
    label="room of {building.name}"
    value={building.indoor ? 'own' : 'basis'}
    options={[
      { value: 'basis', text: 'as the Basis has it' },
      { value: 'own', text: 'of its own' },
    ]}
    onsave={(to) =>
      void session.saveBuilding(
        { ...building, indoor: to === 'own' ? { ...basis.indoor } : null },
        to === 'own' ? 'Room of its own' : 'Room as the Basis has it',
        '1',
      )}
  />
  {#if building.indoor}
    <RoomPanel
      room={building.indoor}
      refused={(part) => why(`/building/indoor${part}`)}
      onsave={(change, text) =>
        void session.saveBuilding(
          { ...building, indoor: { ...basis.indoor, ...building.indoor, ...change } },
          text,
          '1',
        )}
    />
  {/if}
</section>
<DampPanel {basis} {name} refused={why} />
<RegisterView {basis} {name} {units} refused={why} />

<style>
  .own {
    display: flex;
    gap: 28px;
    align-items: start;
    margin-top: 12px;
  }
  .columns {
    --columns: minmax(0, 2fr) minmax(300px, 1fr);
  }
  h2 {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    margin-bottom: 6px;
  }
  .side h2:not(:first-child) {
    margin-top: 14px;
  }
  h2 > span:not(.acts) {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  .shell {
    margin-top: 14px;
    justify-content: flex-start;
    align-items: center;
    border-top: 1px solid var(--line);
    padding-top: 10px;
    font-weight: 600;
  }
  .acts {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
  .building,
  .words input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    border-radius: var(--radius);
    padding: 2px 6px;
    min-height: 24px;
  }
  .building {
    font-weight: 600;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    margin-bottom: 8px;
  }
  .words {
    display: inline-flex;
    gap: 8px;
    align-items: center;
  }
  .words span {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  .words input {
    width: 210px;
  }
  .words.wide input {
    width: 260px;
  }
</style>
