<!-- The foam decision: cores by thicknesses in one chart and one table, the cheapest that passes, and what moves it. -->
<script lang="ts">
  import type { Assembly, Decision } from '@/api/client';
  import { api, asProblem, take } from '@/api/client';
  import FoamChart from '@/draw/FoamChart.svelte';
  import SwingBars from '@/draw/SwingBars.svelte';
  import { bench } from '@/project/bench.svelte';
  import { Live } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { working } from '@/project/working.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { untrack } from 'svelte';

  interface Props {
    draft: Assembly;
    units: Units;
    zone: string;
    revision: number;
  }
  let { draft, units, zone, revision }: Props = $props();
  const place = $derived(router.place);
  const currency = $derived(session.open?.project.basis.economy?.currency ?? '');
  const limits = $derived(session.open?.project.basis.limits);
  let extra = $state.raw<string[]>([]);
  let dropped = $state.raw<string[]>([]);
  let chosen = $state('');
  let width = $state(680);
  let stockOnly = $state(true);

  const live = new Live<
    { project: string; building: string; assembly: Assembly; cores: string[]; revision: number },
    Decision
  >(({ project, building, assembly, cores }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/variants', {
        params: { path: { project_id: project } },
        body: { building_id: building, assembly, cores },
      }),
    ),
  );
  const system = $derived(session.shipped?.systems.find((one) => one.key === draft.system));
  const own = $derived(draft.layers.find((layer) => layer.studied)?.material ?? '');
  const cores = $derived(
    [...(system?.cores ?? []), ...extra].filter((key) => !dropped.includes(key)).slice(0, 11),
  );
  $effect(() => {
    const question = { project: place.project, building: place.building, assembly: draft, cores, revision };
    untrack(() => live.ask(question));
  });
  const decision = $derived(live.answer);
  const problem = $derived(live.error ? asProblem(live.error) : undefined);
  const name = (key: string) => session.materials.get(key)?.name ?? key;
  const cheapest = $derived(decision?.cheapest ? decision.cores[decision.cheapest.core] : undefined);
  const least = $derived(decision?.cores[decision.least_life.core]);

  interface Row {
    core: string;
    at: number;
    d: number;
    stops: string[];
    value: (column: string) => number | null;
    present: boolean;
    cheapest: boolean;
    least: boolean;
    knee: boolean;
    exact: boolean;
  }
  // Rows worth reading: what is stocked, the exact crossing, the present wall and the picks; or all of one core.
  const rows = $derived.by(() => {
    if (!decision) return [];
    const found: Row[] = [];
    decision.cores.forEach((core, index) => {
      if (chosen && core.core !== chosen) return;
      core.d.forEach((d, at) => {
        const row: Row = {
          core: core.core,
          at,
          d,
          stops: core.stops[at] ?? [],
          value: (column) => core.columns[column]?.[at] ?? null,
          present: core.present === at,
          cheapest: decision.cheapest?.core === index && decision.cheapest.at === at,
          least: decision.least_life.core === index && decision.least_life.at === at,
          knee: core.knee === at,
          exact: core.exact !== null && Math.ceil(core.exact * 1000 - 1e-6) / 1000 === d,
        };
        const worth = core.stocked[at] || row.present || row.cheapest || row.least || row.exact;
        if (worth || (chosen && !stockOnly)) found.push(row);
      });
    });
    // What passes comes first, the cheapest on top.
    return found.toSorted(
      (a, b) =>
        Number(a.stops.length > 0) - Number(b.stops.length > 0) ||
        (a.value('cost') ?? 0) - (b.value('cost') ?? 0),
    );
  });
  const columns = [
    ['R_nominal', 'R label'],
    ['R_fresh', 'fresh'],
    ['R_clear', 'clear'],
    ['R_winter', 'winter'],
    ['R_summer', 'summer'],
    ['thickness', 'wall'],
    ['floor', 'floor'],
    ['weight', 'weight'],
    ['cost', 'cost'],
    ['carbon', 'CO₂e'],
    ['heat', 'heat'],
    ['cool', 'cool'],
    ['money', 'life cost'],
    ['carbon_life', 'life CO₂e'],
    ['payback', 'pays in'],
  ] as const;
  const dimension = (column: string) => session.shipped?.columns[column] ?? 'ratio';
  function shown(row: Row, column: string): string {
    const value = row.value(column);
    if (value === null) return '–';
    if (column === 'payback') return value > 999 ? '> 999' : units.show(value, 'years', 0);
    if (dimension(column) === 'length') return units.length(value);
    const digits =
      units.system === 'SI'
        ? { cost: 0, money: 0, carbon: 1, carbon_life: 0, weight: 0 }[column as 'cost']
        : undefined;
    const text = units.show(value, dimension(column), digits);
    return column === 'floor' && value > 0 ? `+${text}` : text;
  }
  function withVariant(assembly: Assembly, core: string, d: number): Assembly {
    return {
      ...assembly,
      layers: assembly.layers.map((layer) =>
        layer.studied
          ? { ...layer, material: core, d, lambda: layer.material === core ? (layer.lambda ?? null) : null }
          : layer,
      ),
    };
  }
  function adopt(row: Row): void {
    const text = `Core: ${name(row.core)} ${units.full(row.d, 'length')}`.slice(0, 200);
    void bench.commit((one) => withVariant(one, row.core, row.d), text, zone);
  }
  // Columns that are a figure of the build-up at that variant open to its working.
  const figureOf: Record<string, string> = {
    R_nominal: 'R_nominal',
    R_fresh: 'R_fresh',
    R_clear: 'R_clear',
    R_winter: 'R_winter_clear',
    R_summer: 'R_summer_clear',
    thickness: 'thickness',
    weight: 'weight',
    cost: 'cost',
    carbon: 'carbon',
    heat: 'heat',
    cool: 'cool',
    money: 'money',
    carbon_life: 'carbon_life',
    U_clear: 'U_clear',
    f_rsi: 'f_rsi',
    inside_share: 'inside_share',
    floor: 'floor',
    payback: 'payback',
  };
  const compares = (column: string) => column === 'floor' || column === 'payback';
  function work(row: Row, column: string, title: string): void {
    void working.show({
      figure: figureOf[column] ?? column,
      title: `${title}, ${name(row.core)} ${units.full(row.d, 'length')}`,
      dimension: dimension(column),
      project: place.project,
      building: place.building,
      condition: place.condition,
      assembly: compares(column) ? draft : withVariant(draft, row.core, row.d),
      of: compares(column) ? { kind: 'variant', core: row.core, d: row.d } : undefined,
    });
  }
  const addable = $derived(
    [...session.materials.values()].filter(
      (one) =>
        (one.family === 'foam' || one.family === 'fibre') && one.key !== own && !cores.includes(one.key),
    ),
  );
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
          crossing, diamond: cheapest that passes</span
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
    <div class="side">
      {#if cheapest && decision.cheapest}
        {@const d = cheapest.d[decision.cheapest.at] ?? 0}
        <p class="pick">
          <b>Cheapest that passes: {name(cheapest.core)}, {units.full(d, 'length')}</b>
          {units.show(cheapest.columns['cost']?.[decision.cheapest.at] ?? 0, 'cost')}
          {currency}
          {units.symbol('cost')}, R {units.show(
            cheapest.columns['R_clear']?.[decision.cheapest.at] ?? 0,
            'resistance',
          )}.
        </p>
      {:else}
        <Notice
          title="No variant passes every limit."
          text="The table says for each which one stops it; limits are set in the Basis."
        />
      {/if}
      {#if least}
        <p>
          Least money over the life: {name(least.core)}, {units.full(
            least.d[decision.least_life.at] ?? 0,
            'length',
          )},
          {units.show(least.columns['money']?.[decision.least_life.at] ?? 0, 'cost')}
          {units.symbol('cost')}.
        </p>
      {/if}
      {#if decision.step}
        <p data-testid="next-step">
          The next step up, {units.full(decision.step.d, 'length')}, saves {units.full(
            decision.step.saves,
            'flux',
          )} at the winter design temperature, costs {units.show(decision.step.costs, 'cost')} more, and {decision
            .step.life < 0
            ? 'saves'
            : 'loses'}
          {units.show(Math.abs(decision.step.life), 'cost')} over the life.
        </p>
      {/if}
      <p class="soft">
        Limits: {[
          decision.asked !== null && `R ${units.show(decision.asked, 'resistance')}`,
          limits?.thickness && `wall ${units.full(limits.thickness, 'length')}`,
          limits?.weight && units.full(limits.weight, 'surface_mass', 0),
          limits?.inside_share && `${units.show(limits.inside_share, 'share', 0)} % inside the vapour plane`,
          limits?.stock_only && 'stock sizes only',
        ]
          .filter(Boolean)
          .join(', ') || 'none'}.
        <button class="link" onclick={() => router.go({ step: 1 })}>Basis</button>
      </p>
      <h3>What moves it most <span>money over the life, {units.symbol('cost')}</span></h3>
      <SwingBars swings={decision.swings} {units} />
    </div>
  </div>
  <div class="pickers">
    <span class="soft">Cores</span>
    {#each [own, ...cores.filter((key) => key !== own)] as key (key)}
      <span class="chip" class:on={chosen === key}>
        <button aria-pressed={chosen === key} onclick={() => (chosen = chosen === key ? '' : key)}
          >{name(key)}</button
        >
        {#if key !== own}<button
            aria-label="Leave out {name(key)}"
            onclick={() => {
              dropped = [...dropped, key];
              if (chosen === key) chosen = '';
            }}>leave out</button
          >{/if}
      </span>
    {/each}
    <select
      aria-label="Add a core"
      value=""
      onchange={(event) => {
        const key = event.currentTarget.value;
        if (key) {
          extra = [...extra, key];
          dropped = dropped.filter((one) => one !== key);
        }
        event.currentTarget.value = '';
      }}
    >
      <option value="">add a core</option>
      {#each addable as one (one.key)}<option value={one.key}>{one.name}</option>{/each}
    </select>
    {#if chosen}<label><input type="checkbox" bind:checked={stockOnly} /> stock sizes only in the table</label
      >{/if}
  </div>
  <div class="scroll">
    <table data-stale={live.stale} data-testid="variants">
      <thead>
        <tr>
          <th>core</th><th class="n">{units.system === 'SI' ? 'mm' : 'in'}</th>
          {#each columns as [key, title] (key)}<th class="n" title={units.symbol(dimension(key))}>{title}</th
            >{/each}
          <th>stopped by</th><th></th>
        </tr>
      </thead>
      <tbody>
        {#each rows as row (`${row.core}/${row.at}`)}
          <tr class:present={row.present} class:passes={!row.stops.length}>
            <th scope="row">{name(row.core)}{row.knee ? ' · knee' : ''}</th>
            <td class="n">{units.length(row.d)}</td>
            {#each columns as [key, title] (key)}
              <td class="n"
                >{#if figureOf[key] && row.value(key) !== null}<button
                    class="work"
                    aria-label="{title}, {name(row.core)} {units.length(row.d)}: {shown(row, key)}, working"
                    onclick={() => work(row, key, title)}>{shown(row, key)}</button
                  >{:else}{shown(row, key)}{/if}</td
              >
            {/each}
            <td class="why"
              >{row.stops.map((stop) => session.shipped?.stops[stop] ?? stop).join('; ') ||
                (row.cheapest ? 'cheapest that passes' : row.least ? 'least over the life' : 'passes')}</td
            >
            <td
              >{#if row.present}as it is{:else}<Button
                  label="Adopt {name(row.core)} {units.full(row.d, 'length')}"
                  onclick={() => adopt(row)}>Adopt</Button
                >{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <p class="soft">
    R: {units.symbol('resistance')}; floor: gained or lost per length of wall, {units.symbol('floor_area')};
    weight {units.symbol('surface_mass')}; cost {units.symbol('cost')}; heat and cool {units.symbol('energy')} by
    degree hours of the Basis, air temperature only; CO₂e {units.symbol('carbon')}. Pays in years against the
    wall as it is. The moisture step judges a variant's moisture.
  </p>
{/if}

<style>
  .columns {
    --columns: minmax(0, 1fr) 330px;
    gap: 20px;
    margin-top: 6px;
  }
  .side {
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  h2,
  h3 {
    font-size: 13.5px;
    font-weight: 600;
  }
  h2 span,
  h3 span,
  .soft {
    font-weight: 400;
    font-size: var(--fs-small);
    color: var(--ink-3);
  }
  .pick b {
    color: var(--verdigris);
    display: block;
  }
  .link {
    border: 0;
    background: none;
    color: var(--verdigris);
    text-decoration: underline;
    min-height: 24px;
  }
  .pickers {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
    margin: 8px 0 4px;
  }
  .chip {
    border: 1px solid var(--line);
    display: inline-flex;
  }
  .chip button {
    border: 0;
    background: none;
    min-height: 24px;
    padding: 0 6px;
    font-size: var(--fs-small);
  }
  .chip button + button {
    border-left: 1px solid var(--hair);
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .chip.on {
    background: var(--verdigris-wash);
    border-color: var(--verdigris);
  }
  .scroll {
    overflow-x: auto;
  }
  table {
    font-size: var(--fs-small);
  }
  th,
  td {
    text-align: left;
    padding: 0 6px 0 0;
    height: 25px;
    white-space: nowrap;
  }
  tbody th {
    font-weight: 400;
    color: var(--ink-2);
  }
  .n {
    font-family: var(--mono);
    letter-spacing: -0.03em;
  }
  thead .n {
    font-family: var(--sans);
    letter-spacing: 0;
  }
  .work {
    border: 0;
    background: none;
    font: inherit;
    letter-spacing: inherit;
    min-width: 24px;
    min-height: 24px;
    text-align: right;
    text-decoration: underline dotted var(--line) 1px;
    text-underline-offset: 3px;
  }
  .work:hover {
    color: var(--verdigris);
  }
  .why {
    color: var(--ochre);
    white-space: normal;
    min-width: 110px;
    line-height: 1.15;
  }
  .passes .why {
    color: var(--ink-2);
  }
  .passes th {
    color: var(--ink);
    font-weight: 500;
  }
  .present {
    background: var(--verdigris-wash);
  }
</style>
