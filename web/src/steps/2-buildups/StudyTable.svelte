<!-- Variants of the core with all their figures: what stops each, what passes first, each to be adopted. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { Assembly, Decision } from '@/api/client';
  import { stream } from '@/api/stream.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import type { Units } from '@/kit/units';
  import { bench } from '@/project/bench.svelte';
  import { withCore } from '@/project/core';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import type { Wholes } from '@/project/wholes.svelte';
  import { working } from '@/project/working.svelte';
  import { byTheMonths, COLUMNS, figureOf, inOrder, rowsOf } from './variants';
  import type { Order, Row, Sizes } from './variants';

  interface Props {
    wholes: Wholes;
    draft: Assembly;
    decision: Decision;
    units: Units;
    zone: string;
    chosen: string;
    stale: boolean;
    revision: number;
    name: (core: string) => string;
  }
  let { wholes, draft, decision, units, zone, chosen, stale, revision, name }: Props = $props();
  const place = $derived(router.place);

  let sizes = $state<Sizes>('picks');
  let passing = $state(false);
  let withJoints = $state(false);
  let reason = $state('');
  let order = $state<Order>({ column: '', down: false });
  /** Solving joints for more rows than these would take minutes. */
  const MOST_SOLVED = 8;

  const candidates = $derived(rowsOf(decision, chosen, sizes));
  const sumsOf = (row: Row) => (withJoints ? wholes.get(row.key)?.sums : undefined);
  const value = (row: Row, column: string): number | null => {
    const known = wholes.get(row.key);
    if (column === 'd') return row.d;
    if (column === 'moisture') return known?.margin ?? (known?.passes ? 1 : null);
    if (column === 'R_shell') return sumsOf(row)?.R_effective ?? null;
    if (column === 'H_joints') return sumsOf(row)?.H_joints ?? null;
    return row.value(column);
  };
  const fails = (row: Row) => wholes.get(row.key)?.passes === false;
  const rows = $derived(
    inOrder(
      passing ? candidates.filter((row) => !row.stops.length && !fails(row)) : candidates,
      order,
      value,
      name,
      (row) => row.stops.length > 0 || fails(row),
    ),
  );
  const solved = $derived(withJoints ? rows.slice(0, MOST_SOLVED) : []);
  const unsolved = $derived(
    solved.some((row) => {
      const sums = sumsOf(row);
      return !sums || sums.waiting > 0;
    }),
  );
  $effect(() => {
    const at = {
      of: JSON.stringify([place.project, place.building, revision, draft]),
      project: place.project,
      building: place.building,
      assembly: draft.id,
    };
    const instead = (some: Row[]) =>
      some.map((row) => ({ key: row.key, assembly: withCore(draft, row.d, row.core) }));
    const all = instead(candidates);
    const whole = instead(solved);
    void stream.answers;
    untrack(() => wholes.follow(at, all, whole));
  });
  // Who leaves lets go of what is being solved for nobody.
  $effect(() => () => wholes.stop());

  /** Columns in which any row has a value. */
  const columns = $derived(COLUMNS.filter(([key]) => candidates.some((row) => row.value(key) !== null)));
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
  const size = (row: Row) => `${name(row.core)} ${units.full(row.d, 'length')}`;
  function adopt(row: Row): void {
    const why = [row.pick, reason.trim()].filter(Boolean).join('; ');
    const text = `Core: ${size(row)}${why ? `, ${why}` : ''}`.slice(0, 200);
    void bench.commit((one) => withCore(one, row.d, row.core), text, zone);
    reason = '';
  }
  const compares = (column: string) => column === 'floor' || column === 'payback';
  function work(row: Row, column: string, title: string): void {
    void working.show({
      figure: figureOf[column] ?? column,
      title: `${title}, ${size(row)}`,
      dimension: dimension(column),
      project: place.project,
      building: place.building,
      condition: place.condition,
      assembly: compares(column) ? draft : withCore(draft, row.d, row.core),
      of: compares(column) ? { kind: 'variant', core: row.core, d: row.d } : undefined,
    });
  }
  function sort(column: string): void {
    order = order.column === column ? { column, down: !order.down } : { column, down: false };
  }
  /** Of the room's humidity, up to where a variant fails. */
  function damp(row: Row): { text: string; title: string; over: boolean } {
    const known = wholes.get(row.key);
    const title = byTheMonths(known);
    if (!known || !title) return { text: '…', title: 'being judged', over: false };
    if (known.why_not) return { text: '?', title, over: false };
    if (known.margin === null) return { text: known.passes ? 'passes' : 'fails', title, over: !known.passes };
    const points = Math.round(known.margin * 100);
    return { text: points < 0 ? `−${-points}` : `+${points}`, title, over: !known.passes };
  }
  function whole(row: Row, column: 'R_effective' | 'H_joints'): { text: string; title: string } {
    const sums = sumsOf(row);
    if (!sums) return { text: solved.includes(row) ? '…' : '–', title: 'not asked' };
    if (sums.missing.length) return { text: '?', title: sums.missing.join('; ') };
    if (sums.waiting) return { text: '…', title: `${sums.waiting} still to be solved` };
    const value = sums[column];
    if (value === null) return { text: '–', title: 'no joint is drawn' };
    return {
      text: units.show(value, column === 'H_joints' ? 'coupling' : 'resistance'),
      title: 'with every joint and fixing of the building solved',
    };
  }
</script>

{#snippet head(column: string, title: string, unit: string, number = true)}
  <th
    class:n={number}
    aria-sort={order.column === column ? (order.down ? 'descending' : 'ascending') : undefined}
    ><button title={unit ? `${unit}: sort` : 'sort'} onclick={() => sort(column)}
      >{title}{order.column === column ? (order.down ? ' ↓' : ' ↑') : ''}</button
    ></th
  >
{/snippet}

<div class="controls" role="group" aria-label="What the table shows">
  <label><input type="checkbox" bind:checked={passing} /> what passes only</label>
  <Choice
    label="sizes"
    value={sizes}
    options={[
      { value: 'picks', text: 'stock and what is named' },
      { value: 'stock', text: 'stock only' },
      ...(chosen ? [{ value: 'every', text: 'every size' }] : []),
    ]}
    onsave={(one) => (sizes = one as Sizes)}
  />
  {#if withJoints}
    <span class="soft" role="status"
      >{unsolved ? `${wholes.waiting || ''} joints and fixings still to be solved` : 'joints solved'}</span
    >
    <Button
      onclick={() => {
        wholes.stop();
        withJoints = false;
      }}>{unsolved ? 'Stop' : 'Without joints'}</Button
    >
  {:else}
    <Button onclick={() => (withJoints = true)}>Solve the joints of the first {MOST_SOLVED}</Button>
  {/if}
  <label class="why-field"
    >because <input placeholder="kept with what you adopt" maxlength="120" bind:value={reason} /></label
  >
</div>
{#if wholes.problem}<p class="over" role="alert">{wholes.problem.sentence}</p>{/if}
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" role="region" aria-label="Variants" tabindex="0">
  <table data-stale={stale} data-testid="variants">
    <thead>
      <tr>
        {@render head('core', 'core', '', false)}
        {@render head('d', units.system === 'SI' ? 'mm' : 'in', 'thickness of the core')}
        <th class="last"><span class="visually-hidden">adopt</span></th>
        <th>passes, or is stopped by</th>
        {@render head(
          'moisture',
          'moisture',
          'points of room humidity in the cold months up to where it fails',
        )}
        {@render head('R_shell', 'building R', `effective, ${units.symbol('resistance')}`)}
        {@render head('H_joints', 'at joints', units.symbol('coupling'))}
        {#each columns as [key, title] (key)}{@render head(key, title, units.symbol(dimension(key)))}{/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.key)}
        {@const wet = damp(row)}
        <tr class:present={row.present} class:passes={!row.stops.length && wholes.get(row.key)?.passes}>
          <th scope="row" title={name(row.core)}>{name(row.core)}</th>
          <td class="n">{units.length(row.d)}</td>
          <td class="last"
            >{#if row.present}as it is{:else}<Button label="Adopt {size(row)}" onclick={() => adopt(row)}
                >Adopt</Button
              >{/if}</td
          >
          <td class="why"
            >{[
              ...row.stops.map((stop) => session.shipped?.stops[stop] ?? stop),
              ...(fails(row) ? [`moisture ${wet.title}`] : []),
            ].join('; ') ||
              row.pick ||
              [
                wholes.get(row.key)?.passes ? 'passes' : 'within the limits',
                row.knee && 'more foam buys less',
              ]
                .filter(Boolean)
                .join('; ')}</td
          >
          <td class="n" class:over={wet.over} title={wet.title}>{wet.text}</td>
          {#each ['R_effective', 'H_joints'] as const as column (column)}
            {@const found = whole(row, column)}
            <td class="n" title={found.title}>{found.text}</td>
          {/each}
          {#each columns as [key, title] (key)}
            <td class="n"
              >{#if figureOf[key] && row.value(key) !== null}<button
                  class="work"
                  aria-label="{shown(row, key)}, {title}, {name(row.core)} {units.length(row.d)}, working"
                  onclick={() => work(row, key, title)}>{shown(row, key)}</button
                >{:else}{shown(row, key)}{/if}</td
            >
          {/each}
        </tr>
      {:else}
        <tr><td colspan="22">Nothing passes every limit: show what does not, or change the limits.</td></tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: center;
    margin: 6px 0;
    font-size: var(--fs-small);
  }
  .why-field input {
    width: 24ch;
  }
  .scroll {
    overflow: auto;
    max-height: min(56vh, 520px);
    border-bottom: 1px solid var(--line);
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--sheet);
    z-index: 2;
  }
  thead button {
    border: 0;
    background: none;
    padding: 0;
    font: inherit;
    color: inherit;
    min-height: 24px;
    min-width: 24px;
    text-align: inherit;
  }
  thead button:hover {
    color: var(--verdigris);
  }
  /* A variant's name and size stay beside its figures, and the way to adopt it within reach. */
  tbody th,
  thead th:first-child {
    position: sticky;
    left: 0;
    background: var(--sheet);
    z-index: 1;
    min-width: 160px;
    max-width: 160px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  :is(td, th):nth-child(2) {
    position: sticky;
    left: 160px;
    min-width: 46px;
    max-width: 46px;
    background: var(--sheet);
    z-index: 1;
  }
  thead th:nth-child(-n + 2),
  thead th.last {
    z-index: 3;
  }
  .last {
    position: sticky;
    left: 206px;
    z-index: 1;
    background: var(--sheet);
    padding-left: 8px;
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
    min-width: 124px;
    padding-left: 4px;
    line-height: 1.15;
  }
  .passes .why {
    color: var(--ink-2);
  }
  .passes th {
    color: var(--ink);
    font-weight: 500;
  }
  .present,
  .present :is(th, .last, td:nth-child(2)) {
    background: var(--verdigris-wash);
  }
</style>
