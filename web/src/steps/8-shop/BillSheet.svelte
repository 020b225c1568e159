<!-- What is bought: net amounts out of shape, set-out and joints, waste, rounded to what is sold, cost. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Bill, BillChoices, Building } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import Fields from '@/project/Fields.svelte';
  import type { Field } from '@/project/fields';
  import { forms } from '@/project/forms.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { building, units, why }: Props = $props();
  const question = $derived(forms.question(building));
  const live = asking(
    () => question,
    ({ project, building: id }): Promise<Bill> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/bill', {
          params: { ...inBuilding(project, id).params, query: { ticket: '' } },
        }),
      ),
  );
  const bill = $derived(live.of({ project: question.project, building: building.id }));
  const groups = $derived([...new Set(bill?.rows.map((one) => one.group) ?? [])]);
  type Row = Bill['rows'][number];
  function save(change: Partial<BillChoices>, words: string): void {
    const next = { ...(building.bill ?? {}), ...change } as BillChoices;
    void session.saveBuilding({ ...building, bill: next }, `Quantities: ${words}`, 'D8');
  }
  /** A price is for one piece, or for one unit as it is read here. */
  const per = (one: Row) => (one.count === null ? units.unit(one.dimension).per_si : 1);
  /** The row whose price was written last, and where it stands: behind those of the others. */
  let asked = $state('');
  let behind = $state(0);
  function price(one: Row, value: number | null): void {
    const others = (building.bill?.prices ?? []).filter((each) => each.key !== one.key);
    asked = one.key;
    behind = others.length;
    const prices = value === null ? others : [...others, { key: one.key, price: value * per(one) }];
    save({ prices }, `price of ${one.what}`);
  }
  const money = (value: number) => units.show(value, 'ratio', 0);
  const FIELDS: Field[] = [
    { field: 'bead', text: 'diameter of a bead', dimension: 'length' },
    { field: 'tube', text: 'a tube', dimension: 'volume', decimals: 4 },
    { field: 'roll', text: 'a roll of tape', dimension: 'distance' },
    { field: 'overlap', text: 'overlap of tapes', dimension: 'length' },
    { field: 'can', text: 'a can of foam fills', dimension: 'distance' },
    { field: 'mesh', text: 'a roll of mesh', dimension: 'area' },
    { field: 'sealing', text: 'waste of seals', dimension: 'share' },
    { field: 'layers', text: 'waste of layers', dimension: 'share' },
  ];
  const file = $derived(`/api/v1/projects/${question.project}/buildings/${building.id}/bill`);
</script>

{#if live.problem && !bill}
  <Notice
    tone="note"
    title={live.problem.items[0]?.detail ?? 'It cannot be counted'}
    text={live.problem.items[0]?.hint ?? ''}
  />
{:else if !bill}
  <p role="status">Being counted</p>
{:else}
  {#if bill.lacking.length}
    <Notice
      tone="decision"
      title="So far: {bill.lacking.join(', ')} cannot be set out or laid"
      text="Rows that lack them are marked and have no cost."
    />
  {/if}
  <div class="columns" data-stale={live.stale}>
    <div>
      <p data-testid="bill">
        {#if bill.cost !== null}<b>{money(bill.cost)}</b> for all of it
        {:else}<b>{money(bill.so_far)}</b> so far: {counted(bill.priceless, 'row')} without a price{bill.rows.some(
            (one) => !one.whole,
          )
            ? ', others lack a part'
            : ''}
        {/if}
        · <a href="{file}.xlsx" download>XLSX</a> · <a href="{file}.csv" download>CSV</a>
      </p>
      {#each groups as group (group)}
        <h2>{group}</h2>
        <table aria-label={group}>
          <thead>
            <tr>
              <th>what</th>
              <th>where</th>
              <th class="n">net</th>
              <th class="n">with waste</th>
              <th class="n">bought</th>
              <th class="n">price</th>
              <th class="n">cost</th>
            </tr>
          </thead>
          <tbody>
            {#each bill.rows.filter((one) => one.group === group) as one (one.key)}
              <tr class:part={!one.whole}>
                <td>{one.what}{one.thick === null ? '' : `, ${units.full(one.thick, 'length')}`}</td>
                <td class="soft">{one.where}</td>
                <td class="n"
                  >{one.dimension === 'ratio'
                    ? units.show(one.net, 'ratio', 0)
                    : units.full(one.net, one.dimension, one.dimension === 'volume' ? 3 : undefined)}</td
                >
                <td class="n"
                  >{one.waste
                    ? units.show(one.ordered, one.dimension, one.dimension === 'volume' ? 3 : undefined)
                    : ''}</td
                >
                <td class="n"
                  >{one.whole
                    ? one.count === null
                      ? ''
                      : one.of === 'piece'
                        ? one.count
                        : counted(one.count, one.of, one.of === 'box' ? 'boxes' : `${one.of}s`)
                    : 'so far'}</td
                >
                <td class="n">
                  <Entry
                    label="Price of {one.what}{one.thick === null
                      ? ''
                      : ` ${units.full(one.thick, 'length')}`}"
                    showLabel={false}
                    showUnit={false}
                    width="tiny"
                    dimension="ratio"
                    decimals={2}
                    optional
                    value={one.price === null ? null : one.price / per(one)}
                    refused={asked === one.key ? why(`/bill/prices/${behind}/price`) : undefined}
                    onsave={(value) => price(one, value)}
                  />
                </td>
                <td class="n">{one.cost === null ? '–' : money(one.cost)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/each}
    </div>
    <aside class="side">
      <h2>As it is sold</h2>
      <div class="stack">
        <Fields fields={FIELDS} values={bill.choices} why={(field) => why(`/bill/${field}`)} onsave={save} />
      </div>
      <p class="soft">
        Layers at the catalogue's example rates or the practice's own; everything else at the price entered
        beside it. Forms, mortar, plaster and blown beads stand in rows of their own and in no layer.
      </p>
    </aside>
  </div>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 240px;
  }
  tr.part td {
    color: var(--ink-3);
  }
</style>
