<!-- What could be done, each re-run on this building; several picked together; the cheapest set that is good enough. -->
<script lang="ts">
  import { api, asProblem, inBuilding, take } from '@/api/client';
  import type { Building, Enough, Measure, Together, WholeBuilding } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { reruns, Solving } from '@/api/solving.svelte';
  import { stream } from '@/api/stream.svelte';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import { counted, points } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { savePlant } from '@/project/whole.svelte';
  import StatesTable from './StatesTable.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
  }
  let { found, building, units }: Props = $props();
  const project = $derived(session.open?.project.id ?? '');
  const revision = $derived(session.open?.revision ?? 0);
  const currency = $derived(session.open?.project.basis.economy?.currency ?? '');
  const years = $derived(session.open?.project.basis.economy?.life ?? 50);

  let answers = $state(0);
  const listing = new Solving(reruns);
  const list = asking(
    () => ({ project, building: building.id, revision, answers, system: units.system }),
    ({ project, building }): Promise<Measure[]> =>
      listing.run((ticket) =>
        take(
          api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/measures', {
            params: { ...inBuilding(project, building).params, query: { ticket } },
          }),
        ),
      ),
  );
  const rows = $derived(list.of({ project, building: building.id }) ?? []);
  const useful = $derived(rows.filter((one) => !one.gains || one.gains.dH > 0.005 || one.gains.dq50 > 0.05));

  let picked = $state<string[]>([]);
  const there = $derived(picked.filter((key) => useful.some((one) => one.key === key)));
  const both = asking(
    () => (there.length ? { project, building: building.id, revision, answers, keys: there } : undefined),
    ({ project, building, keys }): Promise<Together> =>
      take(
        api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/measures/together', {
          ...inBuilding(project, building),
          body: { keys },
        }),
      ),
  );
  const together = $derived(there.length && !both.stale ? both.answer : undefined);
  const waiting = $derived(
    rows.reduce((sum, one) => sum + one.waiting, 0) + (there.length ? (both.answer?.waiting ?? 0) : 0),
  );
  $effect(() => {
    if (waiting) answers = stream.answers;
  });
  function pick(key: string, on: boolean): void {
    picked = on ? [...picked, key] : picked.filter((one) => one !== key);
  }
  function price(key: string, cost: number | null): void {
    const others = (building.plant?.prices ?? []).filter((one) => one.key !== key);
    savePlant(
      building,
      '',
      'prices',
      cost === null ? others : [...others, { key, cost }],
      'Cost of a measure',
    );
  }

  let proved = $state<{ of: string; enough: Enough }>();
  const asked = $derived(`${building.id} ${revision}`);
  /** Of the building as it now is: an edit ends the proof. */
  const enough = $derived(proved?.of === asked ? proved.enough : undefined);
  let searching = $state(false);
  let trouble = $state('');
  const search = new Solving(reruns);
  async function findEnough(): Promise<void> {
    searching = true;
    trouble = '';
    const of = asked;
    try {
      const found = await search.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/measures/enough', {
            ...inBuilding(project, building.id),
            body: { ticket },
          }),
        ),
      );
      proved = { of, enough: found };
      if (of === asked && found.keys?.length) picked = found.keys;
    } catch (error) {
      trouble = asProblem(error).sentence;
    }
    searching = false;
  }
  async function adopt(): Promise<void> {
    const texts = useful.filter((one) => there.includes(one.key)).map((one) => one.text);
    const text = texts.length === 1 ? (texts[0] ?? '') : `${texts.length} measures`;
    if (await session.adopt(building.id, there, text)) picked = [];
  }
  const nameOf = (key: string) => rows.find((one) => one.key === key)?.text ?? key;
  const MISSED: Record<string, string> = { R_effective: 'effective R', H_shell: 'heat loss', n50: 'n50' };
  const missed = (keys: string[]) => keys.map((one) => MISSED[one] ?? one).join(', ');
  const money = (value: number) =>
    Math.round(value).toLocaleString('en').replaceAll(',', ' ').replace('-', '−');
  const margin = (one: Measure | Together) => {
    if (one.margin !== null) return `${units.show(one.margin, 'share', 0)} ${points(one.margin)}`;
    return one.waiting ? 'being judged' : '';
  };
  const signed = (value: number, dimension: string) => units.delta(-value, dimension);
</script>

<p class="soft">
  Each is re-run on this building by itself, its joints solved with it. Taken together they are not the sum of
  one another. Money is over {years} years at the Basis’s energy price{currency ? `, in ${currency}` : ''};
  costs are materials at your rates, or what you type.
</p>
{#if !found.whole}
  <Notice
    tone="note"
    title="The sum of the building lacks a part."
    text="Measures are compared once everything is known."
  />
{/if}
{#if !rows.length}<SolvingBar solving={listing} name="the list of measures" />{/if}
{#if list.problem}<Notice tone="note" title={list.problem.sentence} text="" />{/if}
<table data-testid="measures">
  <thead>
    <tr>
      <th><span class="visually-hidden">pick</span></th><th><span class="visually-hidden">station</span></th
      ><th>measure</th><th class="n">cost</th><th class="n">{units.symbol('coupling')}</th><th class="n"
        >{units.symbol('heat')}/a</th
      ><th class="n">{units.symbol('leak_flow')} at 50 Pa</th><th class="n"
        >load, {units.symbol('heat_flow')}</th
      ><th class="n">{units.symbol('mass')} CO₂e/a</th><th class="n">moisture margin</th><th class="n"
        >money over life</th
      >
    </tr>
  </thead>
  <tbody>
    {#each useful as one (one.key)}
      <tr class:on={there.includes(one.key)}>
        <td
          ><input
            type="checkbox"
            aria-label="Pick: {units.said(one.text)}"
            checked={there.includes(one.key)}
            disabled={!one.gains}
            onchange={(event) => pick(one.key, event.currentTarget.checked)}
          /></td
        >
        <td class="station">{one.station}</td>
        <td>{units.said(one.text)}</td>
        <td class="n"
          ><Entry
            label="cost of {units.said(one.text)}"
            showLabel={false}
            showUnit={false}
            width="small"
            optional
            dimension="ratio"
            decimals={0}
            value={one.cost}
            onsave={(cost) => price(one.key, cost)}
          /></td
        >
        {#if one.gains}
          <td class="n">{signed(one.gains.dH, 'coupling')}</td>
          <td class="n">{signed(one.gains.dQ, 'heat')}</td>
          <td class="n">{Math.abs(one.gains.dq50) < 0.05 ? '' : signed(one.gains.dq50, 'leak_flow')}</td>
          <td class="n">{signed(one.gains.dload, 'heat_flow')}</td>
          <td class="n">{signed(one.gains.carbon_year, 'mass')}</td>
          <td class="n">{margin(one)}</td>
          <td class="n">{one.gains.money_life === null ? 'no rate' : money(one.gains.money_life)}</td>
        {:else}
          <td colspan="7" class="soft"
            >{one.waiting ? `${counted(one.waiting, 'part')} being solved` : units.said(one.why_not)}</td
          >
        {/if}
      </tr>
    {:else}
      <tr
        ><td colspan="11"
          >{list.stale
            ? 'Being re-run'
            : 'Nothing more to be had from stock, variants, seals, glass or edge foam.'}</td
        ></tr
      >
    {/each}
  </tbody>
  {#if there.length}
    <tfoot data-testid="together">
      <tr class="sum">
        <td></td><td></td>
        <td>{counted(there.length, 'measure')} together</td>
        <td class="n"
          >{together?.cost === null || together?.cost === undefined ? '–' : money(together.cost)}</td
        >
        {#if together?.gains}
          <td class="n">{signed(together.gains.dH, 'coupling')}</td>
          <td class="n">{signed(together.gains.dQ, 'heat')}</td>
          <td class="n">{signed(together.gains.dq50, 'leak_flow')}</td>
          <td class="n">{signed(together.gains.dload, 'heat_flow')}</td>
          <td class="n">{signed(together.gains.carbon_year, 'mass')}</td>
          <td class="n">{margin(together)}</td>
          <td class="n"
            >{together.gains.money_life === null ? 'no rate' : money(together.gains.money_life)}</td
          >
        {:else}<td colspan="7" class="soft"
            >{together?.waiting ? `${counted(together.waiting, 'part')} being solved` : 'being re-run'}</td
          >{/if}
      </tr>
      {#if together?.gains && together.singly !== null}
        <tr
          ><td></td><td></td><td colspan="9" class="soft"
            >One by one they would come to {signed(together.singly, 'coupling')}
            {units.symbol('coupling')}.{together.misses.length
              ? ` Still missed: ${missed(together.misses)}.`
              : ' Everything asked is reached.'}</td
          ></tr
        >
      {/if}
    </tfoot>
  {/if}
</table>
<div class="controls">
  <Button onclick={() => void adopt()} disabled={!there.length || !together?.gains}
    >Build with what is picked</Button
  >
  <Button onclick={() => void findEnough()} disabled={searching || !found.whole}>What is good enough?</Button>
  <SolvingBar solving={search} name="the search for what is good enough" />
  {#if searching && !search.text}<span role="status">The building is being re-run</span>{/if}
  {#if trouble}<span role="alert">{trouble}</span>{/if}
</div>
{#if enough}
  <div class="verdict" data-testid="enough">
    {#if enough.reached}
      <strong>Everything asked is reached as it is.</strong>
    {:else if enough.keys}
      <strong>The cheapest of {enough.tried} sets that were re-run</strong> reaches everything asked:
      <ul>
        {#each enough.keys as key (key)}
          {@const less = enough.without.find((one) => one.key === key)}
          <li>
            {units.said(nameOf(key))}{#if less?.misses.length}; without it {missed(less.misses)} is missed{/if}
          </li>
        {/each}
      </ul>
      {#if rows.some((one) => enough?.keys?.includes(one.key) && one.cost === null)}<span class="soft"
          >What has no rate is taken last and counted as nothing: type its cost to compare it.</span
        >{/if}
    {:else}
      <strong>Even all of them at once miss {missed(enough.together?.misses ?? [])}</strong>: change the
      shape, the system, or what is asked.
    {/if}
  </div>
{/if}
{#if there.length}<StatesTable {building} {units} keys={there} />{/if}
<p class="soft">A variant changes the drawing, too: look at it in its zone before it is built.</p>

<style>
  .station {
    font: 600 11.5px var(--mono);
    width: 14px;
  }
  td {
    vertical-align: middle;
  }
  tfoot .sum td {
    font-weight: 600;
  }
  ul {
    margin: 4px 0 4px 18px;
    padding: 0;
  }
</style>
