<!-- Furring or direct: what a lining on webs and one on battens come to, by how straight the walls were read. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, LiningSheet, PourChoices } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { href, router } from '@/project/router.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  const question = $derived(forms.question(building));
  const live = asking(
    () => question,
    ({ project, building: id }): Promise<LiningSheet> =>
      take(api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/lining', inBuilding(project, id))),
  );
  const sheet = $derived(live.of({ building: building.id }));
  const FIELDS: Field[] = [
    { field: 'flat', text: 'bridged without packing', dimension: 'length' },
    { field: 'packing', text: 'packed out at most', dimension: 'length' },
    { field: 'furring', text: 'depth of battens', dimension: 'length' },
    { field: 'direct_cost', text: 'on webs', dimension: 'cost', optional: true },
    { field: 'furred_cost', text: 'on battens', dimension: 'cost', optional: true },
  ];
  const save = (change: Partial<PourChoices>, words: string) =>
    forms.savePour(building, change, `Lining: ${words}`);
</script>

{#if live.problem && !sheet}
  <Notice
    tone="note"
    title={live.problem.items[0]?.detail ?? 'It cannot be told'}
    text={live.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet}
  <p role="status">Being asked</p>
{:else if !sheet.linings.length}
  <Notice
    tone="note"
    title="No form of this building has foam inside"
    text="Bare concrete is lined by nothing; panels bring their own lining."
  />
{:else}
  <div class="columns" data-stale={live.stale}>
    <div>
      {#each sheet.linings as one (one.assembly)}
        <h2>
          {one.name}
          <span
            >{one.bow === null
              ? 'no string line read after the pour: taken as straight'
              : `${counted(one.read, 'string line')} read after the pour, ${units.full(one.bow, 'length')} from the highest to the lowest`}</span
          >
        </h2>
        <table aria-label="Ways to line {one.name}">
          <thead>
            <tr>
              <th>lining</th>
              <th class="n">thickness</th>
              <th class="n">places packed</th>
              <th class="n">R, {units.symbol('resistance')}</th>
              <th class="n">room, {units.symbol('area')}</th>
              <th class="n">cost</th>
            </tr>
          </thead>
          <tbody>
            {#each [one.direct, one.furred] as way (way.furred)}
              <tr>
                <td
                  >{way.furred ? 'on battens' : 'on the webs'}{#if !way.possible}<span class="over"
                      >: {way.why}</span
                    >{/if}</td
                >
                <td class="n">{units.full(way.thickness, 'length')}</td>
                <td class="n">{way.furred ? '–' : way.packed}</td>
                <td class="n">{units.show(way.R, 'resistance')}</td>
                <td class="n">{units.show(way.room, 'area', 2)}</td>
                <td class="n">{way.cost === null ? 'no rate' : units.show(way.cost, 'ratio', 0)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
        <p class="soft">
          On battens {units.delta(one.furred.R - one.direct.R, 'resistance')}
          {units.symbol('resistance')} and {units.full(one.furred.room - one.direct.room, 'area', 2)} of floor more,
          along
          {units.full(one.length, 'distance')} of wall.
        </p>
      {/each}
      <p>
        <a href={href({ ...router.place, view: 'pour' })}>String lines are read on the sheet of the pour.</a>
      </p>
    </div>
    <aside class="side">
      <h2>What counts</h2>
      <div class="stack">
        <Fields fields={FIELDS} values={sheet.choices} why={(field) => why(`/pour/${field}`)} onsave={save} />
      </div>
      <p class="soft">Foam inside is covered by a board that local codes accept as protection from fire.</p>
    </aside>
  </div>
{/if}
