<!-- Variants of the core with all their figures: what stops each, what passes first, each to be adopted. -->
<script lang="ts">
  import type { Assembly, Decision } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import type { Units } from '@/kit/units';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { working } from '@/project/working.svelte';

  interface Props {
    draft: Assembly;
    decision: Decision;
    units: Units;
    zone: string;
    chosen: string;
    stockOnly: boolean;
    stale: boolean;
    name: (core: string) => string;
  }
  let { draft, decision, units, zone, chosen, stockOnly, stale, name }: Props = $props();
  const place = $derived(router.place);

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
</script>

<div class="scroll">
  <table data-stale={stale} data-testid="variants">
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
          <th scope="row">{name(row.core)}{row.knee ? ' · more foam buys less' : ''}</th>
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

<style>
  .scroll {
    overflow-x: auto;
  }
  table {
    font-size: var(--fs-small);
  }
  th,
  td {
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
