<!-- What the set-out puts between panels, beside what the build-ups assume; and what panels keep to. -->
<script lang="ts">
  import type { Building, SetOutChoices, SetOutSheet } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import type { Units } from '@/kit/units';
  import { setout } from '@/project/setout.svelte';

  interface Props {
    sheet: SetOutSheet;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { sheet, building, units, why }: Props = $props();
  const ORDERS = [
    { value: 'panels off_module members waste', text: 'fewest panels' },
    { value: 'off_module panels members waste', text: 'on the module' },
    { value: 'members panels off_module waste', text: 'fewest joints' },
    { value: 'panels members waste', text: 'least waste' },
    { value: 'panels lopsided off_module members', text: 'fewest panels, then symmetric' },
    { value: 'lopsided panels off_module members', text: 'symmetric above all' },
    { value: 'panels astray off_module members', text: 'joints above one another' },
  ];
  const order = $derived(sheet.choices.order.join(' '));
  const FIELDS = [
    { field: 'least_strip', text: 'narrowest panel', dimension: 'length' },
    { field: 'clear', text: 'joint clear of an opening', dimension: 'length' },
    { field: 'longest', text: 'longest that can be brought', dimension: 'length' },
    { field: 'heaviest', text: 'heaviest that can be lifted', dimension: 'mass', optional: true },
    { field: 'people_kg', text: 'carried by each person', dimension: 'mass' },
  ] as const;
  const share = (value: number | null) => (value === null ? 'none' : `${units.show(value, 'share', 1)} %`);
</script>

<div class="columns">
  <div>
    <table>
      <caption class="visually-hidden">Timber, seams and resistance by set-out beside what is assumed</caption
      >
      <thead>
        <tr>
          <th>build-up</th>
          <th class="n">panels</th>
          <th class="n">seams, {units.symbol('distance')}</th>
          <th class="n">assumed</th>
          <th class="n">posts, {units.symbol('distance')}</th>
          <th class="n">plates, {units.symbol('distance')}</th>
          <th class="n">timber</th>
          <th class="n">assumed</th>
          <th class="n">R, {units.symbol('resistance')}</th>
          <th class="n">assumed</th>
        </tr>
      </thead>
      <tbody>
        {#each sheet.thermal as one (one.assembly)}
          <tr>
            <th scope="row">{one.name}</th>
            <td class="n">{one.panels}</td>
            <td class="n">{units.show(one.seams, 'distance', 1)}</td>
            <td class="n soft">{units.show(one.seams_assumed, 'distance', 1)}</td>
            <td class="n">{units.show(one.posts, 'distance', 1)}</td>
            <td class="n">{units.show(one.plates, 'distance', 1)}</td>
            <td class="n"
              >{#if one.timber === null}none{:else}<PanelFigure
                  figure="timber"
                  of={one.assembly}
                  title="Timber of {one.name} as set out"
                  value={units.show(one.timber, 'share', 1)}
                  unit="%"
                  dimension="share"
                />{/if}</td
            >
            <td class="n soft">{share(one.timber_assumed)}</td>
            <td class="n"
              ><PanelFigure
                figure="R"
                of={one.assembly}
                title="Clear R of {one.name} as set out"
                value={units.show(one.R, 'resistance', 2)}
                dimension="resistance"
              /></td
            >
            <td class="n soft">{units.show(one.R_assumed, 'resistance', 2)}</td>
          </tr>
        {:else}
          <tr><td colspan="10">No build-up has all of its faces set out.</td></tr>
        {/each}
      </tbody>
    </table>
    <p class="source" data-testid="source">
      <label
        ><input
          type="checkbox"
          checked={sheet.choices.counts}
          onchange={(event) =>
            setout.save(
              building,
              { counts: event.currentTarget.checked },
              event.currentTarget.checked ? 'Timber and seams by set-out' : 'Timber and seams as assumed',
            )}
        />
        Timber and seams of this building count as they are set out</label
      >
      {#if sheet.effect}
        <span
          >Effective R {units.show(sheet.effect.R_assumed, 'resistance', 2)} assumed,
          <b>{units.full(sheet.effect.R, 'resistance', 2)}</b>
          by set-out; heat loss {units.show(sheet.effect.H_assumed, 'coupling', 1)} assumed,
          <b>{units.full(sheet.effect.H, 'coupling', 1)}</b> by set-out.</span
        >
      {:else}
        <span class="soft">What the shell loses is not whole yet: both sums wait for it.</span>
      {/if}
    </p>
    <p class="soft method">
      Clear section, members by the set-out: splines by their length over the panels' area, plates by theirs,
      posts of two pieces at each joint on an opening's edge, headers over the openings. What is assumed is a
      seam at every whole module and plates over the height of a panel. Joints that are solved take their
      members over from both.
    </p>
    {#if sheet.others.length}
      <h2>Not of panels</h2>
      <ul class="soft">
        {#each [...new Map(sheet.others.map((one) => [one.reason, one])).values()] as one (one.reason)}
          <li>
            {one.reason}: {sheet.others
              .filter((each) => each.reason === one.reason)
              .map((each) => each.mark)
              .join(', ')}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
  <aside class="side">
    <h2>What panels keep to</h2>
    <div class="stack">
      <Choice
        label="what counts most"
        value={order}
        options={ORDERS.some((one) => one.value === order)
          ? ORDERS
          : [...ORDERS, { value: order, text: order }]}
        onsave={(value) =>
          setout.save(
            building,
            { order: value.split(' ') as SetOutChoices['order'] },
            'What counts most in panels',
          )}
      />
      {#each FIELDS as one (one.field)}
        <Entry
          label={one.text}
          dimension={one.dimension}
          value={sheet.choices[one.field]}
          optional={'optional' in one}
          refused={why(`/setout/${one.field}`)}
          onsave={(value) => setout.save(building, { [one.field]: value }, `Panels: ${one.text}`)}
        />
      {/each}
    </div>
    <p>
      <label
        ><input
          type="checkbox"
          checked={sheet.choices.crane ?? true}
          onchange={(event) =>
            setout.save(
              building,
              { crane: event.currentTarget.checked },
              event.currentTarget.checked ? 'A crane comes' : 'No crane',
            )}
        />
        a crane comes</label
      >
    </p>
    <p class="soft">Spans and bearing come from the supplier's tested table and a licensed engineer.</p>
  </aside>
</div>

<style>
  .source {
    display: grid;
    gap: 4px;
    margin: 10px 0;
    padding: 8px 12px;
    border-left: 3px solid var(--verdigris);
    background: var(--sheet-bright);
  }
  .source label {
    font-weight: 600;
  }
  .columns {
    --columns: minmax(0, 1fr) 300px;
  }
  tbody th {
    color: var(--ink);
  }
</style>
