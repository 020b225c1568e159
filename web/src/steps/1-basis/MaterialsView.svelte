<!-- Materials of this project: shipped ones with the practice's rates, and the practice's own, with CSV out and in. -->
<script lang="ts">
  import BasisTabs from './BasisTabs.svelte';
  import type { Basis, OwnMaterial, Problem } from '@/api/client';
  import { asProblem } from '@/api/client';
  import { base64 } from '@/kit/file';
  import { session } from '@/project/session.svelte';
  import { counted } from '@/kit/reading';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    basis: Basis;
    units: Units;
  }
  let { basis, units }: Props = $props();
  let find = $state('');
  let problem = $state.raw<Problem>();
  let input = $state<HTMLInputElement>();
  const name = $derived(session.open?.project.name ?? '');
  const own = $derived(session.open?.project.materials ?? []);
  const ownKeys = $derived(new Set(own.map((one) => one.key)));
  const rows = $derived(
    [...session.materials.values()].filter((one) => {
      const text = `${one.name} ${one.family} ${one.key}`.toLowerCase();
      return find
        .toLowerCase()
        .split(/\s+/)
        .every((word) => text.includes(word));
    }),
  );
  const rate = (key: string) => basis.rates?.find((one) => one.material === key);

  async function attempt(work: () => Promise<boolean>): Promise<void> {
    problem = undefined;
    try {
      if (!(await work())) problem = session.saves.takeRefusal();
    } catch (error) {
      problem = asProblem(error);
    }
  }
  function setRate(
    key: string,
    change: { cost?: number | null; carbon?: number | null; stock?: number[] | null },
  ): void {
    const now = rate(key) ?? { material: key };
    const next = { ...now, ...change };
    const empty = next.cost == null && next.carbon == null && next.stock == null;
    const rates = [...(basis.rates ?? []).filter((one) => one.material !== key), ...(empty ? [] : [next])];
    void attempt(() =>
      session.saveBasis(
        { ...basis, rates },
        name,
        `Rates of ${session.materials.get(key)?.name ?? key}`.slice(0, 200),
      ),
    );
  }
  function setOwn(key: string, change: Partial<OwnMaterial>): void {
    const known = own.find((one) => one.key === key);
    if (known) void attempt(() => session.saveMaterial({ ...known, ...change }, `Material ${key} changed`));
  }
  function add(): void {
    const key = `own-${crypto.randomUUID().slice(0, 6)}`;
    const fresh: OwnMaterial = {
      key,
      name: 'Own material',
      family: 'foam',
      hatch: 'foam',
      lambda: 0.035,
      rho: 20,
      c: 1450,
      mu: 40,
      sd: null,
      lambda_fresh: null,
      lambda_T: [],
      emissivity: 0.9,
      cost: 0,
      carbon: 0,
      stock: [],
      usual: null,
      w_fresh: 0,
      source: '',
      rates: 'entered',
    };
    find = '';
    void attempt(() => session.saveMaterial(fresh, 'Own material added'));
  }
  function addLike(like: string): void {
    const name = session.materials.get(like)?.name ?? like;
    find = '';
    void attempt(() => session.addMaterialLike(like, `Own material like ${name}`.slice(0, 200)));
  }
  function remove(key: string): void {
    void attempt(() => session.removeMaterial(key, `Material ${key} removed`));
  }
  let chosen = $state.raw<File>();
  const replaced = $derived(
    problem?.items.length && problem.items.every((one) => one.code === 'would_replace') ? problem.items : [],
  );
  async function bringIn(file: File | undefined, instead = false): Promise<void> {
    if (!file) return;
    chosen = file;
    await attempt(async () =>
      session.importMaterials(await base64(file), `Materials from ${file.name}`.slice(0, 200), instead),
    );
    if (input) input.value = '';
  }
  const stockText = (stock: readonly number[]) => stock.map((d) => units.length(d)).join('  ');
  function readStock(text: string): number[] | undefined {
    const found = text
      .trim()
      .split(/[;,]\s*|\s{2,}/)
      .filter(Boolean)
      .map((one) => units.parseLength(one));
    return found.some((d) => d === undefined || d <= 0) ? undefined : (found as number[]);
  }
</script>

<SheetHead
  zone="1"
  title="Materials and rates"
  aside="shipped values stay as they are; cost and carbon are examples until you enter yours"
>
  <BasisTabs />
  <a href="/api/v1/projects/{session.open?.project.id}/materials.csv" download>Export own, CSV</a>
  <a href="/api/v1/projects/{session.open?.project.id}/materials.csv?every=true" download>all, CSV</a>
  <Button onclick={() => input?.click()}>Import CSV</Button>
  <select
    aria-label="Add a material like"
    value=""
    onchange={(event) => {
      const like = event.currentTarget.value;
      event.currentTarget.value = '';
      if (like) addLike(like);
    }}
  >
    <option value="">Add one like …</option>
    {#each session.materials.values() as one (one.key)}<option value={one.key}>{one.name}</option>{/each}
  </select>
  <Button strong onclick={add}>Add a material</Button>
</SheetHead>
<input
  class="visually-hidden"
  type="file"
  accept=".csv,text/csv"
  aria-label="Materials file to import"
  tabindex="-1"
  bind:this={input}
  onchange={(event) => void bringIn(event.currentTarget.files?.[0])}
/>
{#if replaced.length}
  <Notice
    title={replaced.length === 1
      ? 'One material would be replaced; nothing was changed yet.'
      : `${replaced.length} materials would be replaced; nothing was changed yet.`}
    text="{replaced.map((one) => one.detail).join('; ')}."
    live
  >
    <Button strong onclick={() => bringIn(chosen, true)}>Replace and import</Button>
    <Button onclick={() => (problem = undefined)}>Leave all as it is</Button>
  </Notice>
{:else if problem}
  <Notice
    title="Nothing was changed."
    text={problem.items.map((item) => `${item.detail}: ${item.hint}.`).join(' ') || problem.sentence}
    live
  />
{/if}
<p>
  <input
    class="find"
    type="search"
    aria-label="Find a material"
    placeholder="find by name or family"
    bind:value={find}
  /> <span class="soft">{counted(rows.length, 'material')}, {own.length} of them your own</span>
</p>
<div class="scroll">
  <table>
    <thead>
      <tr
        ><th>material</th><th>family</th><th class="n">λ {units.symbol('conductivity')}</th><th class="n"
          >fresh</th
        ><th class="n">ρ {units.symbol('density')}</th><th class="n">c {units.symbol('specific_heat')}</th><th
          class="n">μ</th
        ><th class="n">cost {units.symbol('volume_cost')}</th><th class="n"
          >CO₂e {units.symbol('carbon_share')}</th
        ><th>stock</th><th>source</th><th><span class="visually-hidden">copy or remove</span></th></tr
      >
    </thead>
    <tbody>
      {#each rows as one (one.key)}
        {@const mine = ownKeys.has(one.key)}
        <tr class:mine>
          {#if mine}
            <td
              ><input
                aria-label="Name of {one.key}"
                value={one.name}
                onchange={(event) => setOwn(one.key, { name: event.currentTarget.value.trim() })}
              /></td
            >
            <td>{one.family}</td>
            <td class="n"
              ><Entry
                label="λ of {one.name}"
                showLabel={false}
                showUnit={false}
                dimension="conductivity"
                value={one.conductivity}
                width="tiny"
                onsave={(lambda) => lambda !== null && setOwn(one.key, { lambda })}
              /></td
            >
            <td class="n"
              ><Entry
                label="Fresh λ of {one.name}"
                showLabel={false}
                showUnit={false}
                dimension="conductivity"
                value={one.conductivity_fresh}
                optional
                width="tiny"
                onsave={(lambda_fresh) => setOwn(one.key, { lambda_fresh })}
              /></td
            >
            <td class="n"
              ><Entry
                label="Density of {one.name}"
                showLabel={false}
                showUnit={false}
                dimension="density"
                value={one.rho}
                width="tiny"
                onsave={(rho) => rho !== null && setOwn(one.key, { rho })}
              /></td
            >
            <td class="n"
              ><Entry
                label="Heat capacity of {one.name}"
                showLabel={false}
                showUnit={false}
                dimension="specific_heat"
                value={one.c}
                width="tiny"
                onsave={(c) => c !== null && setOwn(one.key, { c })}
              /></td
            >
            <td class="n"
              ><Entry
                label="μ of {one.name}"
                showLabel={false}
                showUnit={false}
                dimension="ratio"
                decimals={0}
                value={one.mu}
                width="tiny"
                onsave={(mu) => mu !== null && setOwn(one.key, { mu })}
              /></td
            >
          {:else}
            <th scope="row">{one.name}</th>
            <td>{one.family}</td>
            <td class="n">{units.show(one.conductivity, 'conductivity')}</td>
            <td class="n"
              >{one.conductivity_fresh === null ? '' : units.show(one.conductivity_fresh, 'conductivity')}</td
            >
            <td class="n">{units.show(one.rho, 'density')}</td>
            <td class="n">{units.show(one.c, 'specific_heat')}</td>
            <td class="n"
              >{one.sd === null
                ? one.mu.toLocaleString('en').replaceAll(',', '\u2009')
                : `sd ${units.full(one.sd, 'air_layer', one.sd < 1 ? 2 : one.sd < 10 ? 1 : 0)}`}</td
            >
          {/if}
          <td class="n"
            ><Entry
              label="Cost of {one.name}"
              showLabel={false}
              showUnit={false}
              dimension="volume_cost"
              value={one.cost}
              yours={rate(one.key)?.cost != null}
              optional
              width="tiny"
              onsave={(cost) => setRate(one.key, { cost })}
            /></td
          >
          <td class="n"
            ><Entry
              label="Carbon of {one.name}"
              showLabel={false}
              showUnit={false}
              dimension="carbon_share"
              value={one.carbon}
              yours={rate(one.key)?.carbon != null}
              optional
              width="tiny"
              onsave={(carbon) => setRate(one.key, { carbon })}
            /></td
          >
          <td
            ><input
              class="stock"
              class:yours={rate(one.key)?.stock != null}
              aria-label="Stock sizes of {one.name}"
              value={stockText(one.stock ?? [])}
              onchange={(event) => {
                const stock = readStock(event.currentTarget.value);
                if (stock) setRate(one.key, { stock: stock.length ? stock : null });
                else event.currentTarget.value = stockText(one.stock ?? []);
              }}
            /></td
          >
          <td class="source"
            >{#if mine}<input
                aria-label="Source of {one.name}"
                value={one.source}
                onchange={(event) => setOwn(one.key, { source: event.currentTarget.value.trim() })}
              />{:else}{one.source}{/if}</td
          >
          <td
            >{#if mine}<Button label="Remove {one.name}" onclick={() => remove(one.key)}>Remove</Button
              >{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .soft,
  .source {
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
  table {
    font-size: var(--fs-small);
    margin-top: 6px;
  }
  th,
  td {
    font-weight: 400;
    padding: 1px 8px 1px 0;
    border-bottom: 1px solid var(--hair);
  }
  thead th {
    position: sticky;
    top: -16px;
    background: var(--sheet);
    z-index: 1;
  }
  .n {
    font-family: var(--mono);
    letter-spacing: -0.02em;
  }
  thead .n {
    font-family: var(--sans);
  }
  .mine {
    background: var(--verdigris-wash);
  }
  input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    min-height: 24px;
    padding: 1px 5px;
    width: 130px;
  }
  .find {
    width: 240px;
  }
  .stock {
    width: 260px;
    font: 400 11.5px var(--mono);
    letter-spacing: -0.03em;
  }
  .yours {
    color: var(--verdigris);
  }
</style>
