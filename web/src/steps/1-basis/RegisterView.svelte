<!-- Criteria register with the kit's envelope, handling, limits of build-ups, and the economy that is reckoned with. -->
<script lang="ts">
  import type { Basis } from '@/api/client';
  import { session } from '@/project/session.svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    basis: Basis;
    name: string;
    units: Units;
    refused: (part: string) => string | undefined;
  }
  let { basis, name, units, refused }: Props = $props();
  type Criterion = NonNullable<Basis['criteria']>[number];
  const kinds = $derived(session.shipped?.criteria ?? []);
  const found = (key: string): Criterion =>
    basis.criteria?.find((one) => one.key === key) ?? {
      key: key as Criterion['key'],
      site: '',
      kit: '',
      responsible: '',
      stamped: false,
    };

  function save(change: Partial<Basis>, text: string): void {
    void session.saveBasis({ ...basis, ...change }, name, text.slice(0, 200));
  }
  function criterion(key: string, change: Partial<Criterion>, text: string): void {
    const changed = { ...found(key), ...change };
    const others = (basis.criteria ?? []).filter((one) => one.key !== key);
    const empty = !changed.site && !changed.kit && !changed.responsible && !changed.stamped;
    save({ criteria: empty ? others : [...others, changed] }, `Criteria: ${text}`);
  }
  const findings = $derived(session.open?.derived.findings ?? {});
  const limits = $derived(basis.limits);
  const handling = $derived(basis.handling);
  const economy = $derived(basis.economy);
  const set = (part: 'limits' | 'handling' | 'economy', change: Record<string, unknown>, text: string) =>
    save({ [part]: { ...basis[part], ...change } } as Partial<Basis>, text);
  const ECONOMY = [
    ['heat_price', 'heat, price', 'energy_price', undefined],
    ['heat_yield', 'heat, seasonal efficiency', 'ratio', 2],
    ['heat_carbon', 'heat, carbon', 'energy_carbon', undefined],
    ['cool_price', 'cooling, price', 'energy_price', undefined],
    ['cool_yield', 'cooling, seasonal efficiency', 'ratio', 2],
    ['cool_carbon', 'cooling, carbon', 'energy_carbon', undefined],
    ['life', 'years counted', 'ratio', 0],
  ] as const;
  // A criterion with a dimension is a number, kept in SI; what cannot be read goes as it is and is refused there.
  const isNumber = (field: string, dimension: string) => dimension !== '' && field !== 'responsible';
  function told(kept: string | undefined, field: string, dimension: string): string {
    const value = Number((kept ?? '').replace(',', '.'));
    if (!kept || !isNumber(field, dimension) || !Number.isFinite(value)) return kept ?? '';
    return units
      .show(value, dimension)
      .replace(/(\.\d*?)0+$/, '$1')
      .replace(/\.$/, '');
  }
  function read(typed: string, field: string, dimension: string): string {
    const value = isNumber(field, dimension) ? units.parse(typed, dimension) : undefined;
    return value === undefined ? typed.trim() : String(Number(value.toPrecision(6)));
  }
</script>

<div class="columns">
  <div>
    <h2>
      Criteria register <span
        >in your own words; the check compares texts and numbers, it judges no structure</span
      >
    </h2>
    <div class="scroll">
      <table data-testid="criteria">
        <thead
          ><tr
            ><th>criterion</th><th>this site</th><th>kit engineered for</th><th>responsible</th><th
              >stamped</th
            ><th>kit envelope</th></tr
          ></thead
        >
        <tbody>
          {#each kinds as kind (kind.key)}
            {@const one = found(kind.key)}
            {@const says = findings[kind.key] ?? 'not stated'}
            <tr>
              <th scope="row">{kind.text} <span>{kind.dimension && units.symbol(kind.dimension)}</span></th>
              {#each ['site', 'kit', 'responsible'] as const as field (field)}
                <td
                  ><input
                    class:wide={field === 'responsible' || !kind.dimension}
                    aria-label="{kind.text}, {field === 'site'
                      ? 'this site'
                      : field === 'kit'
                        ? 'kit'
                        : 'responsible'}"
                    value={told(one[field], field, kind.dimension)}
                    onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                    onchange={(event) =>
                      criterion(
                        kind.key,
                        { [field]: read(event.currentTarget.value, field, kind.dimension) },
                        kind.text,
                      )}
                  /></td
                >
              {/each}
              <td
                ><input
                  type="checkbox"
                  aria-label="{kind.text}, stamped"
                  checked={one.stamped ?? false}
                  onchange={(event) =>
                    criterion(kind.key, { stamped: event.currentTarget.checked }, `${kind.text} stamped`)}
                /></td
              >
              <td class:open={says === 'needs an engineer'} class:soft={says === 'not stated'}>{says}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  </div>
  <div class="side">
    <h2>Limits of a build-up</h2>
    <div class="stack">
      <Entry
        label="thickest"
        dimension="length"
        value={limits?.thickness}
        optional
        positive
        refused={refused('/thickness')}
        onsave={(thickness) => set('limits', { thickness }, 'Thickest build-up')}
      />
      <Entry
        label="heaviest"
        dimension="surface_mass"
        value={limits?.weight}
        optional
        positive
        refused={refused('/limits/weight')}
        onsave={(weight) => set('limits', { weight }, 'Heaviest build-up')}
      />
      <Entry
        label="R inside the vapour plane, at most"
        dimension="share"
        decimals={0}
        value={limits?.inside_share}
        optional
        positive
        refused={refused('/inside_share')}
        onsave={(inside_share) => set('limits', { inside_share }, 'Rule of ratio')}
      />
      <label class="check"
        ><input
          type="checkbox"
          checked={limits?.stock_only ?? false}
          onchange={(event) => set('limits', { stock_only: event.currentTarget.checked }, 'Stock sizes only')}
        /> stock sizes only</label
      >
    </div>
    <h2>Handling</h2>
    <div class="stack">
      <label class="check"
        ><input
          type="checkbox"
          checked={handling?.crane ?? true}
          onchange={(event) =>
            set(
              'handling',
              { crane: event.currentTarget.checked },
              event.currentTarget.checked ? 'Crane' : 'No crane',
            )}
        /> a crane can stand here</label
      >
      <Entry
        label="people at one piece"
        dimension="ratio"
        decimals={0}
        value={handling?.people}
        width="tiny"
        positive
        refused={refused('/people')}
        onsave={(people) =>
          people !== null && set('handling', { people: Math.round(people) }, 'People at one piece')}
      />
      <Entry
        label="a person carries"
        dimension="mass"
        value={handling?.kg_per_person}
        width="tiny"
        positive
        refused={refused('/kg_per_person')}
        onsave={(kg_per_person) => set('handling', { kg_per_person }, 'Mass per person')}
      />
      <Entry
        label="narrowest access"
        dimension="length"
        value={handling?.access}
        width="tiny"
        positive
        refused={refused('/access')}
        onsave={(access) => set('handling', { access }, 'Access')}
      />
    </div>
    <h2>Energy and life <span>examples; enter your own</span></h2>
    <div class="stack">
      <label class="check"
        >currency <input
          class="short"
          value={economy?.currency ?? ''}
          maxlength="12"
          onchange={(event) => set('economy', { currency: event.currentTarget.value.trim() }, 'Currency')}
        /></label
      >
      {#each ECONOMY as [key, label, dimension, decimals] (key)}
        <Entry
          {label}
          {dimension}
          {decimals}
          value={economy?.[key]}
          width="tiny"
          refused={refused(`/${key}`)}
          onsave={(value) => value !== null && set('economy', { [key]: value }, label)}
        />
      {/each}
      <Entry
        label="discount, real, a year"
        dimension="share"
        decimals={1}
        value={economy?.discount}
        width="tiny"
        refused={refused('/discount')}
        onsave={(discount) => set('economy', { discount }, 'Discount')}
      />
    </div>
    <p class="soft">
      Money here is {economy?.currency || 'in your own currency'}; units {units.symbol('cost')}.
    </p>
  </div>
</div>

<style>
  .columns {
    --columns: minmax(0, 2fr) minmax(300px, 1fr);
    border-top: 1px solid var(--line);
    margin-top: 14px;
    padding-top: 10px;
  }
  h2 {
    margin-bottom: 6px;
    display: flex;
    justify-content: space-between;
    gap: 10px;
  }
  .stack + h2 {
    margin-top: 14px;
  }
  h2 span,
  th span,
  .soft {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  th {
    color: var(--ink-2);
  }
  td,
  th {
    padding: 3px 8px 3px 0;
    border-bottom: 1px solid var(--hair);
    font-size: var(--fs-small);
  }
  input:not([type]) {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    min-height: 24px;
    padding: 1px 5px;
    width: 70px;
  }
  input:not([type]).wide {
    width: 116px;
  }
  input.short {
    width: 60px;
  }
  input[type='checkbox'] {
    width: 16px;
    height: 16px;
    margin: 4px;
  }
  .open {
    color: var(--oxide);
    font-weight: 600;
  }
  .check {
    display: inline-flex;
    align-items: center;
    gap: 4px;
    color: var(--ink-2);
    font-size: var(--fs-small);
    min-height: 24px;
  }
</style>
