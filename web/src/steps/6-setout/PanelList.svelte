<!-- All panels of the building: searched, sorted, and only those drawn that are in sight. -->
<script lang="ts">
  import type { SetOutSheet } from '@/api/client';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';

  interface Props {
    sheet: SetOutSheet;
    units: Units;
  }
  let { sheet, units }: Props = $props();
  const COLUMNS = [
    { key: 'mark', text: 'mark' },
    { key: 'width', text: 'width' },
    { key: 'height', text: 'height' },
    { key: 'area', text: 'area' },
    { key: 'mass', text: 'mass' },
    { key: 'people', text: 'by hand' },
    { key: 'openings', text: 'openings' },
    { key: 'edges', text: 'left and right edge' },
    { key: 'alike', text: 'alike' },
  ] as const;
  type Key = (typeof COLUMNS)[number]['key'];
  interface Row {
    mark: string;
    width: number;
    height: number;
    area: number;
    mass: number;
    people: number;
    crane: boolean;
    openings: string;
    edges: string;
    alike: number;
    hand: string;
    off: boolean;
  }
  let by = $state<Key>('mark');
  let down = $state(false);
  let sought = $state('');
  const every = $derived<Row[]>(
    sheet.faces.flatMap((face) =>
      face.panels.map((one) => ({
        mark: one.mark,
        width: one.u1 - one.u0,
        height: one.v1 - one.v0,
        area: one.area,
        mass: one.mass,
        people: one.people,
        crane: one.crane,
        openings: one.openings.join(' '),
        edges: `${one.left}, ${one.right}`,
        alike: one.shape,
        hand: one.hand,
        off: one.off_module,
      })),
    ),
  );
  const rows = $derived.by(() => {
    const words = sought.trim().toLowerCase();
    const found = words
      ? every.filter((one) => `${one.mark} ${one.openings} ${one.edges}`.toLowerCase().includes(words))
      : every;
    return found.toSorted((a, b) => {
      const [p, q] = [a[by], b[by]];
      const order =
        typeof p === 'number' && typeof q === 'number'
          ? p - q
          : String(p).localeCompare(String(q), 'en', { numeric: true });
      return down ? -order : order;
    });
  });
  // Three thousand rows are a long page: only those in sight are there.
  const ROW = 24;
  let top = $state(0);
  let tall = $state(360);
  const fits = $derived(Math.ceil(tall / ROW));
  // Fewer rows than were scrolled past, as a search leaves them, begin further up.
  const first = $derived(Math.max(0, Math.min(Math.floor(top / ROW) - 5, rows.length - fits)));
  const seen = $derived(rows.slice(first, first + fits + 10));
  const mass = $derived(rows.reduce((sum, one) => sum + one.mass, 0));
  const area = $derived(rows.reduce((sum, one) => sum + one.area, 0));
  function sort(key: Key): void {
    down = by === key ? !down : false;
    by = key;
  }
</script>

<div class="controls">
  <label>find <input type="search" bind:value={sought} placeholder="mark, opening, edge" /></label>
  <span class="soft" role="status"
    >{sheet.lacking.length ? `so far, without ${sheet.lacking.join(', ')}: ` : ''}{counted(
      rows.length,
      'panel',
    )}, {units.full(area, 'area')}, {units.full(mass, 'mass', 0)}</span
  >
  {#each [['panels.csv', 'panels as CSV'], ['setout.dxf', 'faces as DXF']] as [file, text] (file)}
    <a href="/api/v1/projects/{router.place.project}/buildings/{router.place.building}/{file}" download
      >{text}</a
    >
  {/each}
</div>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="list"
  role="region"
  tabindex="0"
  aria-label="Panels of the building"
  bind:clientHeight={tall}
  onscroll={(event) => (top = event.currentTarget.scrollTop)}
>
  <table aria-rowcount={rows.length + 1}>
    <thead>
      <tr>
        {#each COLUMNS as one (one.key)}
          <th aria-sort={by === one.key ? (down ? 'descending' : 'ascending') : undefined}>
            <button class="choose" onclick={() => sort(one.key)}
              >{one.text}{by === one.key ? (down ? ' ↓' : ' ↑') : ''}</button
            >
          </th>
        {/each}
      </tr>
    </thead>
    <tbody>
      <tr aria-hidden="true" style:height="{first * ROW}px"></tr>
      {#each seen as one, n (one.mark)}
        <tr aria-rowindex={first + n + 2} class:off={one.off}>
          <td class="mono">{one.mark}</td>
          <td class="mono">{units.full(one.width, 'length')}</td>
          <td class="mono">{units.full(one.height, 'length')}</td>
          <td class="mono">{units.full(one.area, 'area')}</td>
          <td class="mono">{units.full(one.mass, 'mass', 0)}</td>
          <td>{one.crane ? 'crane' : `${one.people} ${one.people === 1 ? 'person' : 'people'}`}</td>
          <td>{one.openings}</td>
          <td>{one.edges}</td>
          <td>{one.alike}{one.hand ? `, ${one.hand} hand` : ''}</td>
        </tr>
      {/each}
      <tr aria-hidden="true" style:height="{Math.max(0, rows.length - first - seen.length) * ROW}px"></tr>
    </tbody>
  </table>
</div>

<style>
  .list {
    height: 380px;
    overflow-y: auto;
    border-top: 1px solid var(--hair);
  }
  thead th {
    position: sticky;
    top: 0;
    background: var(--sheet);
  }
  tbody tr {
    height: 24px;
  }
  .mono {
    font: 12px var(--mono);
    white-space: nowrap;
  }
  tr.off td {
    color: var(--ochre);
  }
  input {
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet-bright);
    min-height: 24px;
    padding: 2px 6px;
  }
</style>
