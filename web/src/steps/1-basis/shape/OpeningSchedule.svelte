<!-- The opening schedule: the table twin of the openings on the walls; sorted by any column, out and in as CSV. -->
<script lang="ts">
  import { api, asProblem } from '@/api/client';
  import type { BodyOpening, Building, Problem } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import { base64 } from '@/kit/file';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import type { Chosen } from '@/project/shape.svelte';

  interface Props {
    building: Building;
    openings: readonly BodyOpening[];
    units: Units;
    chosen: Chosen;
    onchoose: (chosen: Chosen) => void;
  }
  let { building, openings, units, chosen, onchoose }: Props = $props();
  const COLUMNS = [
    { key: 'mark', text: 'mark' },
    { key: 'wall', text: 'wall' },
    { key: 'kind', text: 'kind' },
    { key: 'w', text: 'width' },
    { key: 'h', text: 'height' },
    { key: 'sill', text: 'sill' },
    { key: 'u', text: 'from left' },
    { key: 'unit', text: 'type' },
    { key: 'zone', text: 'counted with' },
  ] as const;
  type Key = (typeof COLUMNS)[number]['key'];
  let by = $state<Key>('mark');
  let down = $state(false);
  const bodyName = (id: string) => building.bodies.find((one) => one.id === id)?.name || id;
  const wallOf = (one: BodyOpening) => `${bodyName(one.body)} ${one.side + 1}`;
  const elementOf = (one: BodyOpening) =>
    building.elements?.find((each) => each.id === one.zone)?.name ?? 'nothing yet';
  const typeOf = (one: BodyOpening) => session.open?.project.units?.find((each) => each.id === one.unit);
  const otherSize = (one: BodyOpening) => {
    const type = typeOf(one);
    return type !== undefined && (type.w !== one.w || type.h !== one.h);
  };
  const value = (one: BodyOpening, key: Key): string | number =>
    key === 'wall'
      ? wallOf(one)
      : key === 'zone'
        ? elementOf(one)
        : key === 'unit'
          ? (typeOf(one)?.name ?? '')
          : (one[key] ?? '');
  const rows = $derived(
    openings.toSorted((a, b) => {
      const [p, q] = [value(a, by), value(b, by)];
      const order =
        typeof p === 'number' && typeof q === 'number'
          ? p - q
          : String(p).localeCompare(String(q), 'en', { numeric: true });
      return down ? -order : order;
    }),
  );
  const total = $derived(openings.reduce((sum, one) => sum + one.w * one.h, 0));
  function sort(key: Key): void {
    down = by === key ? !down : false;
    by = key;
  }
  let input = $state<HTMLInputElement>();
  let problem = $state.raw<Problem>();
  async function open(file: File | undefined): Promise<void> {
    if (!file) return;
    problem = undefined;
    try {
      const content = await base64(file);
      const good = await session.saves.save(`Opening schedule ${file.name}`.slice(0, 200), (project, since) =>
        api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/openings/csv', {
          params: { path: { project_id: project, building_id: building.id }, query: { since } },
          body: { content, text: `Opening schedule ${file.name}`.slice(0, 200), zone: '1' },
        }),
      );
      if (!good) problem = session.saves.takeRefusal();
    } catch (error) {
      problem = asProblem(error);
    } finally {
      if (input) input.value = '';
    }
  }
</script>

<h2>
  Opening schedule <span>{openings.length} openings, {units.full(total, 'area')}</span>
</h2>
<p class="bar">
  <a href="/api/v1/projects/{router.place.project}/buildings/{building.id}/openings.csv" download
    >Export CSV</a
  >
  <Button onclick={() => input?.click()}>Import CSV</Button>
  <input
    class="visually-hidden"
    type="file"
    accept=".csv,text/csv"
    aria-label="Opening schedule to read"
    tabindex="-1"
    bind:this={input}
    onchange={(event) => void open(event.currentTarget.files?.[0])}
  />
</p>
{#if problem}
  <Notice
    tone="decision"
    title="The schedule was not read. Nothing was changed."
    text={problem.items.map((item) => `${item.detail}: ${item.hint}.`).join(' ') || problem.sentence}
    live
  />
{/if}
<div class="scroll">
  <table data-testid="openings">
    <thead>
      <tr>
        {#each COLUMNS as { key, text } (key)}
          <th aria-sort={by === key ? (down ? 'descending' : 'ascending') : undefined}
            ><button onclick={() => sort(key)}>{text}{by === key ? (down ? ' ↓' : ' ↑') : ''}</button></th
          >
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as one (one.id)}
        <tr class:on={chosen?.kind === 'opening' && chosen.id === one.id}>
          <td
            ><button class="mark" onclick={() => onchoose({ kind: 'opening', id: one.id })}
              >{one.mark || one.id}</button
            ></td
          >
          <td>{wallOf(one)}</td>
          <td>{one.kind}</td>
          <td class="n">{units.full(one.w, 'length')}</td>
          <td class="n">{units.full(one.h, 'length')}</td>
          <td class="n">{units.full(one.sill, 'length')}</td>
          <td class="n">{units.full(one.u, 'length')}</td>
          <td
            >{typeOf(one)?.name ?? 'none'}{#if otherSize(one)}<small>, another size</small>{/if}</td
          >
          <td>{elementOf(one)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .bar {
    display: flex;
    gap: 12px;
    align-items: center;
  }
  .bar a {
    color: var(--verdigris);
    font-weight: 500;
  }
  .scroll {
    overflow-x: auto;
  }
  th button,
  .mark {
    border: 0;
    background: none;
    padding: 2px 0;
    min-height: 24px;
    font: inherit;
    font-weight: 600;
    color: inherit;
  }
  .mark {
    color: var(--verdigris);
    min-width: 24px;
    text-align: left;
  }
  td,
  th {
    padding: 0 14px 0 0;
  }
  th:nth-child(n + 4):nth-child(-n + 7) {
    text-align: right;
  }
  .n {
    text-align: right;
    font-family: var(--mono);
  }
  .on {
    background: var(--verdigris-wash);
  }
</style>
