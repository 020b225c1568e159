<!-- Panels by their marks: the table twin of the drawing. -->
<script lang="ts">
  import type { SetPanel } from '@/api/client';
  import type { Units } from '@/kit/units';
  interface Props {
    panels: readonly SetPanel[];
    units: Units;
  }
  let { panels, units }: Props = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="list scroll" role="region" tabindex="0" aria-label="Panels of the face">
  <table>
    <thead>
      <tr>
        <th>mark</th>
        <th class="n">width × height, {units.system === 'SI' ? 'mm' : 'ft in'}</th>
        <th>holds</th>
        <th class="n">{units.symbol('mass')}</th>
        <th>by hand</th>
      </tr>
    </thead>
    <tbody>
      {#each panels as one (one.mark)}
        <tr class:off={one.off_module}>
          <td>{one.mark}</td>
          <td class="n">{units.length(one.u1 - one.u0)} × {units.length(one.v1 - one.v0)}</td>
          <td class="soft">{one.openings.join(' ')}</td>
          <td class="n">{units.show(one.mass, 'mass', 0)}</td>
          <td>{one.crane ? 'crane' : `${one.people} ${one.people === 1 ? 'person' : 'people'}`}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .list {
    max-height: 250px;
    overflow-y: auto;
  }
  td:first-child {
    font-family: var(--mono);
    font-size: 12px;
    white-space: nowrap;
  }
  tr.off td {
    color: var(--ochre);
  }
</style>
