<!-- The order of work: operations at their earliest days, hold points as gates, a proposed order checked. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, WorkChoices, WorkSheet } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import type { Column } from '@/project/columns';
  import EnteredTable from '@/project/EnteredTable.svelte';
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
    ({ project, building: id }): Promise<WorkSheet> =>
      take(api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/work', inBuilding(project, id))),
  );
  const sheet = $derived(live.of({ project: question.project, building: building.id }));
  const days = $derived(Math.max(1, sheet?.days ?? 1));
  function save(change: Partial<WorkChoices>, words: string): void {
    const work = { ...(building.work ?? {}), ...change } as WorkChoices;
    void session.saveBuilding({ ...building, work }, words, 'D8');
  }
  function move(at: number, by: number): void {
    const order = sheet?.rows.map((one) => one.id) ?? [];
    const one = order[at];
    const other = order[at + by];
    if (!one || !other) return;
    order[at] = other;
    order[at + by] = one;
    save({ proposed: order }, `${sheet?.rows[at]?.text} moved ${by < 0 ? 'up' : 'down'}`);
  }
  /** The operation whose hours were written last, and where they stand: behind those of the others. */
  let asked = $state('');
  let behind = $state(0);
  function hours(id: string, text: string, value: number): void {
    const others = (building.work?.hours ?? []).filter((one) => one.id !== id);
    asked = id;
    behind = others.length;
    save({ hours: [...others, { id, hours: value }] }, `${text}: ${units.full(value, 'hours')}`);
  }
  function through(id: string, text: string, done: boolean): void {
    const others = (building.work?.done ?? []).filter((one) => one !== id);
    save({ done: done ? [...others, id] : others }, `${text}: ${done ? 'through' : 'open again'}`);
  }
  type More = NonNullable<WorkChoices['more']>[number];
  const options = $derived(sheet?.rows.map((one) => ({ value: one.id, text: one.text })) ?? []);
  const MORE = $derived<Column<More>[]>([
    { key: 'id', label: 'this', kind: 'choice', options },
    { key: 'after', label: 'waits for', kind: 'choice', options },
    { key: 'wait', label: 'and then', kind: 'figure', dimension: 'hours' },
  ]);
  const waits = (one: WorkSheet['rows'][number]) =>
    one.after
      .map(
        (each) =>
          `${each.text}${each.wait ? `, then ${units.full(each.wait, 'hours', 0)}` : ''}${
            each.within !== null ? `, within ${units.full(each.within, 'hours', 0)}` : ''
          }`,
      )
      .join('; ');
  const broken = $derived(sheet?.rows.filter((one) => one.before.length) ?? []);
</script>

{#if live.problem && !sheet}
  <Notice
    tone="note"
    title={live.problem.items[0]?.detail ?? 'It cannot be told'}
    text={live.problem.items[0]?.hint ?? ''}
  />
{:else if !sheet}
  <p role="status">Being ordered</p>
{:else}
  {#if sheet.problem}
    <Notice tone="decision" title="There is no such order" text={sheet.problem} />
  {:else}
    <p data-testid="work-days">
      <b>{counted(days, 'day')}</b> at the earliest, with {units.full(sheet.crane, 'hours', 0)} of a crane. Hours
      of work run {units.full(sheet.choices.day, 'hours', 0)} a day; waits run day and night.
    </p>
  {/if}
  {#if broken.length}
    <Notice
      tone="decision"
      title="The proposed order cannot be kept: {broken[0]?.text} comes before {broken[0]?.before[0]}."
      text={broken.length > 1 ? `And ${counted(broken.length - 1, 'more')}.` : ''}
    />
  {/if}
  <div data-stale={live.stale}>
    <table aria-label="Order of work">
      <thead>
        <tr>
          <th>operation</th>
          <th class="n">hours</th>
          <th class="n">day</th>
          <th class="days">at the earliest</th>
          <th>waits for</th>
          <th><span class="visually-hidden">order</span></th>
        </tr>
      </thead>
      <tbody>
        {#each sheet.rows as one, n (one.id)}
          <tr class:hold={one.hold} class:shut={one.shut} class:broken={one.before.length > 0}>
            <td>
              {#if one.hold}
                <button
                  class="gate"
                  class:up={one.done}
                  aria-pressed={one.done}
                  aria-label="{one.text}: {one.done ? 'through' : 'not through'}"
                  onclick={() => through(one.id, one.text, !one.done)}
                  ><svg width="22" height="14" aria-hidden="true"
                    ><path d={one.done ? 'M3 14V3M19 14V3M3 4L14 0' : 'M3 14V3M19 14V3M3 6H19'} /></svg
                  ></button
                >
              {/if}
              {one.text}{one.critical ? ' ' : ''}{#if one.critical}<span class="critical">critical</span>{/if}
            </td>
            <td class="n">
              <Entry
                label="Hours of {one.text}"
                showLabel={false}
                showUnit={false}
                width="tiny"
                dimension="hours"
                value={one.hours}
                refused={asked === one.id ? why(`work/hours/${behind}/hours`) : undefined}
                onsave={(value) => value !== null && hours(one.id, one.text, value)}
              />
            </td>
            <td class="n">{one.day ?? '–'}</td>
            <td class="days">
              {#if one.day !== null && one.ends !== null}
                <svg width="180" height="12" aria-hidden="true">
                  <rect
                    class:hold={one.hold}
                    class:critical={one.critical}
                    x={((one.day - 1) / days) * 180}
                    y="2"
                    width={Math.max(3, ((one.ends - one.day + 1) / days) * 180)}
                    height="8"
                  />
                </svg>
              {/if}
            </td>
            <td class="soft">{waits(one)}</td>
            <td class="order">
              <button
                class="choose"
                aria-label="{one.text}, up"
                disabled={n === 0}
                onclick={() => move(n, -1)}>↑</button
              >
              <button
                class="choose"
                aria-label="{one.text}, down"
                disabled={n === sheet.rows.length - 1}
                onclick={() => move(n, 1)}>↓</button
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if sheet.choices.proposed?.length}
      <p class="controls">
        <Button onclick={() => save({ proposed: [] }, 'Order of work as it follows')}>As it follows</Button>
        {#if sheet.missing.length}<span class="over">The order lacks {sheet.missing.join(', ')}.</span>{/if}
      </p>
    {/if}
    <EnteredTable
      title="Further rules"
      note="of a supplier, an engineer, this site"
      one="Rule"
      rows={building.work?.more ?? []}
      columns={MORE}
      fresh={() => ({ id: sheet.rows[1]?.id ?? '', after: sheet.rows[0]?.id ?? '', wait: 0 })}
      {units}
      why={(path) => why(`work/more${path}`)}
      onsave={(more, words) => save({ more }, words)}
    />
    <p class="soft">
      Usual waits and exposures to start from. A gate is opened with evidence at the place; what is behind a
      shut one is not covered.
    </p>
  </div>
{/if}

<style>
  tr.shut td:first-child {
    border-left: 3px solid var(--oxide);
    padding-left: 6px;
  }
  tr.broken td {
    background: var(--oxide-wash);
  }
  tr.hold td {
    font-weight: 500;
  }
  .gate {
    border: 0;
    background: none;
    padding: 2px;
    min-width: 28px;
    min-height: 24px;
    vertical-align: middle;
  }
  .gate path {
    fill: none;
    stroke: var(--oxide);
    stroke-width: 2.2;
  }
  .gate.up path {
    stroke: var(--verdigris);
  }
  .critical {
    font-size: var(--fs-small);
    color: var(--ink-3);
    font-style: normal;
  }
  .days {
    width: 186px;
  }
  rect {
    fill: var(--limestone-deep);
    stroke: var(--ink-2);
  }
  rect.critical {
    fill: var(--ink-2);
  }
  rect.hold {
    fill: none;
    stroke: var(--oxide);
  }
  .order {
    white-space: nowrap;
  }
  .order button {
    min-width: 24px;
    text-align: center;
  }
</style>
