<!-- The shell of a building by station: rough gross areas, and the build-up or entered U of each. -->
<script lang="ts">
  import type { Building, Ledger, ShellElement } from '@/api/client';
  import { router } from './router.svelte';
  import { session } from './session.svelte';
  import { PLACES, STATIONS } from './stations';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { working } from './working.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    units: Units;
    ledger: Ledger | undefined;
    only?: string;
  }
  let { building, units, ledger, only = '' }: Props = $props();
  const elements = $derived((building.elements ?? []).filter((element) => !only || element.station === only));
  const line = (id: string) => ledger?.lines.find((one) => one.element_id === id);
  const assemblies = $derived(session.open?.project.assemblies ?? []);
  /** An area that nobody has typed is that of the shape. */
  const follows = $derived(building.bodies.length > 0);
  const zone = $derived(only ? `${only}2` : '1');

  function save(elementsNow: ShellElement[], text: string): void {
    void session.saveBuilding({ ...building, elements: elementsNow }, text, zone);
  }
  function set(id: string, change: Partial<ShellElement>, text: string): void {
    save(
      (building.elements ?? []).map((element) => (element.id === id ? { ...element, ...change } : element)),
      text,
    );
  }
  function work(element: ShellElement): void {
    opened(`H_${element.id}`, `Transmission, ${element.name}`, 'coupling');
  }
  /** From the U of the field to the one that counts. */
  function workU(element: ShellElement): void {
    opened(`U_of_${element.id}`, `U counted for ${element.name}`, 'transmittance');
  }
  function opened(figure: string, title: string, dimension: string): void {
    const { project, condition } = router.place;
    void working.show({ figure, title, dimension, project, building: building.id, condition });
  }
  function add(): void {
    const id = `e${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
    const station = (only || 'D') as 'D';
    save(
      [
        ...(building.elements ?? []),
        { id, station, name: STATIONS[station] ?? 'Element', area: 10, origin: '' },
      ],
      `${STATIONS[station]} added`,
    );
  }
</script>

<div class="scroll">
  <table>
    <thead>
      <tr
        ><th>station</th><th>element</th><th>gross area</th><th>build-up</th><th>U entered</th><th
          class="number">net area</th
        ><th class="number">U counted</th><th class="number">{units.symbol('coupling')}</th><th
          ><span class="visually-hidden">open or remove</span></th
        ></tr
      >
    </thead>
    <tbody>
      {#each elements as element (element.id)}
        {@const row = line(element.id)}
        <tr>
          <td>
            <Choice
              label="Station of {element.name}"
              showLabel={false}
              value={element.station}
              options={Object.entries(STATIONS).map(([value, text]) => ({ value, text: `${value} ${text}` }))}
              onsave={(station) =>
                set(element.id, { station: station as 'D' }, `${element.name} to station ${station}`)}
            />
          </td>
          <td>
            <input
              class="name"
              aria-label="Name of {element.name}"
              value={element.name}
              onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
              onchange={(event) =>
                event.currentTarget.value.trim() &&
                set(element.id, { name: event.currentTarget.value.trim() }, `${element.name} renamed`)}
            />
          </td>
          <td
            ><Entry
              label="Area of {element.name}"
              showLabel={false}
              dimension="area"
              value={element.area || null}
              optional={follows}
              positive
              onsave={(area) =>
                (area !== null || follows) && set(element.id, { area: area ?? 0 }, `Area of ${element.name}`)}
            />{#if follows && !element.area}<small>from the shape</small>{/if}</td
          >
          <td>
            {#if element.station in PLACES}
              <Choice
                label="Build-up of {element.name}"
                showLabel={false}
                value={element.assembly_id ?? ''}
                options={[
                  { value: '', text: 'not drawn' },
                  ...assemblies.map((one) => ({ value: one.id, text: one.name })),
                ]}
                onsave={(id) => set(element.id, { assembly_id: id || null }, `Build-up of ${element.name}`)}
              />
            {:else}<span class="soft">not drawn yet</span>{/if}
          </td>
          <td>
            <Entry
              label="U of {element.name}"
              showLabel={false}
              dimension="transmittance"
              value={element.U}
              optional
              positive
              decimals={3}
              onsave={(U) => set(element.id, { U }, `U of ${element.name}`)}
            />
            {#if element.U && !element.assembly_id}<small>{element.origin}</small>{/if}
          </td>
          <td class="number">{row ? units.show(row.area, 'area') : '–'}</td>
          <td class="number"
            >{#if row && row.U !== null && row.from_assembly}<Figure
                value={units.show(row.U, 'transmittance')}
                label="U of {element.name}, {row.U_kind}"
                onwork={() => workU(element)}
              /><small>{row.U_kind}</small>{:else if row && row.U !== null}{units.show(
                row.U,
                'transmittance',
              )}<small>{row.U_kind}</small>{:else}–{/if}</td
          >
          <td class="number"
            >{#if row && row.H !== null}<Figure
                value={units.show(row.H, 'coupling', 2)}
                label="Transmission of {element.name}"
                onwork={() => work(element)}
              />{:else}not counted{/if}</td
          >
          <td class="acts">
            {#if element.station in PLACES}<Button
                onclick={() => router.go({ station: element.station, step: 2, element: element.id })}
                >Open</Button
              >{/if}
            <Button
              label="Remove {element.name}"
              onclick={() =>
                save(
                  (building.elements ?? []).filter((one) => one.id !== element.id),
                  `${element.name} removed`,
                )}>Remove</Button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<p>
  <Button onclick={add}>Add {only ? (STATIONS[only] ?? '').toLowerCase() : 'an element'}</Button>
  {#if ledger?.missing.length}<span class="open"
      >Not counted, without a U or a ψ: {ledger.missing.join(', ')}.</span
    >{/if}
  {#if ledger}<span class="soft"
      >Transmission of the areas; joints stand in step 3. Not counted yet: {ledger.not_counted.join(
        ', ',
      )}.</span
    >{/if}
</p>

<style>
  table {
    font-size: 12.5px;
  }
  th {
    border-bottom: 1px solid var(--line);
    padding: 2px 8px 2px 0;
  }
  td {
    padding: 3px 8px 3px 0;
    vertical-align: middle;
  }
  .number {
    text-align: right;
    font-family: var(--mono);
    white-space: nowrap;
  }
  th.number {
    font-family: var(--sans);
  }
  .name {
    border: 1px solid transparent;
    background: none;
    min-height: 24px;
    width: 170px;
    padding: 0 4px;
    text-overflow: ellipsis;
  }
  .name:hover,
  .name:focus {
    border-color: var(--line);
    background: var(--sheet-bright);
  }
  .acts {
    text-align: right;
    white-space: nowrap;
  }
  small,
  .soft {
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  small {
    display: block;
  }
  p {
    margin-top: 8px;
    display: flex;
    gap: 12px;
    align-items: center;
    flex-wrap: wrap;
  }
  .open {
    color: var(--oxide);
    font-weight: 500;
  }
</style>
