<!-- What the shape comes to, in figures: areas and lengths with where they come from, edges without a joint, the ground. -->
<script lang="ts">
  import type { Building, Quantity, ShapeSheet } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    building: Building;
    sheet: ShapeSheet;
    before: ShapeSheet | null | undefined;
    units: Units;
  }
  let { building, sheet, before, units }: Props = $props();
  const elements = $derived(
    (building.elements ?? []).map((one) => ({ one, of: sheet.areas.find((each) => each.id === one.id) })),
  );
  const joints = $derived(
    (building.joints ?? []).map((one) => ({ one, of: sheet.lengths.find((each) => each.id === one.id) })),
  );
  const without = $derived(sheet.edges.filter((one) => !one.joint));
  const bare = $derived(without.filter((one) => one.missing));
  const typed = $derived(
    [...sheet.areas, ...sheet.lengths].filter((one) => one.origin === 'typed' && one.derived !== null).length,
  );
  const change = (of: Quantity | undefined, then: readonly Quantity[] | undefined, dimension: string) => {
    const old = then?.find((one) => one.id === of?.id);
    const by = of && old ? of.value - old.value : 0;
    return Math.abs(by) > 5e-4 ? units.delta(by, dimension) : '';
  };
  function setArea(id: string, area: number, name: string): void {
    const next = (building.elements ?? []).map((one) => (one.id === id ? { ...one, area } : one));
    void session.saveBuilding({ ...building, elements: next }, `Area of ${name}`, '1');
  }
  function setLength(id: string, length: number, name: string): void {
    const next = (building.joints ?? []).map((one) => (one.id === id ? { ...one, length } : one));
    void session.saveBuilding({ ...building, joints: next }, `Length of ${name}`, '1');
  }
</script>

{#snippet row(
  id: string,
  station: string,
  name: string,
  of: Quantity | undefined,
  then: readonly Quantity[] | undefined,
  dimension: string,
  set: (value: number) => void,
)}
  <tr data-testid="quantity-{id}">
    <td><b>{station}</b></td>
    <td>{name}</td>
    <td class="number"
      ><Entry
        label="{dimension === 'area' ? 'Area' : 'Length'} of {name}"
        showLabel={false}
        {dimension}
        value={of && of.origin !== 'unknown' ? of.value : null}
        optional
        yours={of?.origin === 'typed'}
        onsave={(value) => set(value ?? 0)}
      /></td
    >
    <td class="change">{change(of, then, dimension)}</td>
    <td class="soft"
      >{#if of?.origin === 'derived'}from the shape{:else if of?.origin === 'read'}<span
          title="read, and not changed since">from {of.source}</span
        >{:else if of?.origin === 'typed'}typed{#if of.derived !== null}, the shape has {units.full(
            of.derived,
            dimension,
          )}
          <Button onclick={() => set(0)} label="Give {name} back to the shape">Give back</Button>{/if}
      {:else}not known{/if}</td
    >
  </tr>
{/snippet}

{#if bare.length || typed}
  <p class="bar">
    {#if bare.length}
      <span class="caution"
        >{counted(bare.length, 'edge')} of the shape without a joint: no sum is whole until each has one.</span
      >
      <Button strong onclick={() => void session.drawJoints(building)}>Draw a joint for each</Button>
    {/if}
    {#if typed}
      <span>{counted(typed, 'quantity', 'quantities')} typed where the shape has one.</span>
      <Button onclick={() => void session.followShape(building)}>Give all back to the shape</Button>
    {/if}
  </p>
{/if}
<div class="two">
  <table>
    <caption>Areas <span>gross, {units.symbol('area')}</span></caption>
    <tbody>
      {#each elements as { one, of } (one.id)}
        {@render row(one.id, one.station, one.name, of, before?.areas, 'area', (value) =>
          setArea(one.id, value, one.name),
        )}
      {/each}
    </tbody>
  </table>
  <table>
    <caption>Joints <span>{units.symbol('distance')}</span></caption>
    <tbody>
      {#each joints as { one, of } (one.id)}
        {@render row(one.id, one.station, one.name, of, before?.lengths, 'distance', (value) =>
          setLength(one.id, value, one.name),
        )}
      {/each}
      {#each without as edge (edge.key)}
        <tr class="open" data-testid="edge-{edge.key}">
          <td><b>{edge.station}</b></td>
          <td>{edge.name}</td>
          <td class="number">{units.show(edge.length, 'distance')}</td>
          <td></td>
          <td class="soft"
            >{#if edge.kind === 'seam' || edge.kind === 'roof_seam'}in the area shares until it is a joint
            {:else if edge.kind === 'ground_line'}no joint{:else}no joint yet{/if}
            {#if edge.kind !== 'ground_line'}<Button
                onclick={() => router.go({ step: 3, station: edge.station, view: 'add' })}
                label="Draw it: a joint for {edge.name}">Draw it</Button
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<dl>
  <div>
    <dt>Heated volume</dt>
    <dd>
      {units.full(sheet.volume.overall_internal, 'volume')} inside, {units.full(
        sheet.volume.external,
        'volume',
      )} outside
    </dd>
  </div>
  <div>
    <dt>Floor area</dt>
    <dd>
      {units.full(sheet.floor_area.overall_internal, 'area')} inside, {units.full(
        sheet.floor_area.external,
        'area',
      )} outside
    </dd>
  </div>
  <div>
    <dt>Envelope, overall inner</dt>
    <dd>{units.full(sheet.envelope, 'area')}</dd>
  </div>
  {#if sheet.ground_area && sheet.perimeter}
    <div>
      <dt>On the ground</dt>
      <dd>
        {units.full(sheet.ground_area.external, 'area')}, exposed perimeter {units.full(
          sheet.perimeter.external,
          'distance',
        )}
      </dd>
    </div>
    <div>
      <dt>B′ (ISO 13370)</dt>
      <dd>{sheet.B ? units.full(sheet.B.external, 'distance') : '–, nothing of it is exposed'}</dd>
    </div>
  {/if}
</dl>
<p class="bar">
  <a
    href="/api/v1/projects/{router.place.project}/buildings/{building.id}/quantities.csv"
    title="areas, lengths, bearings and heights, as stored"
    download>Export quantities, CSV</a
  >
</p>
{#if sheet.approximate}
  <p class="soft">
    Thicknesses of walls and roofs that meet in one corner do not suit one another: inner dimensions are taken
    at their mean by area.
  </p>
{/if}

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(360px, 1fr));
    gap: 8px 28px;
    align-items: start;
  }
  caption {
    text-align: left;
    font-weight: 600;
    font-size: 13.5px;
    padding-bottom: 2px;
  }
  caption span {
    font-weight: 400;
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
  td {
    padding: 1px 8px 1px 0;
  }
  .number {
    text-align: right;
    font-family: var(--mono);
  }
  .change {
    font: 500 12.5px var(--mono);
    color: var(--verdigris);
  }
  .open td {
    border-left: 0;
    font-style: italic;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  .bar a {
    color: var(--verdigris);
    font-weight: 500;
  }
  .caution {
    color: var(--ochre);
  }
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 28px;
    margin: 10px 0 0;
  }
  dl div {
    display: grid;
  }
  dt {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
  dd {
    margin: 0;
    font-family: var(--mono);
    font-size: 13px;
  }
</style>
