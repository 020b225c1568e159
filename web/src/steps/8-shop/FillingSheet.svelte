<!-- Beads blown into frames: how much, out of how many bags, through which ports, and what is closed before. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, Shop } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import { session } from '@/project/session.svelte';
  import { shop as store } from '@/project/shop.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { shop, building, units, why }: Props = $props();
  const SHOWN = 40;
  const question = $derived({
    project: session.open?.project.id ?? '',
    building: building.id,
    revision: session.open?.revision ?? 0,
  });
  const live = asking(
    () => question,
    ({ project, building: id }) =>
      take(
        api.GET(
          '/api/v1/projects/{project_id}/buildings/{building_id}/shop/filling',
          inBuilding(project, id),
        ),
      ),
  );
  const found = $derived(live.of(question));
</script>

<div class="columns">
  <div>
    {#each found ?? [] as one (one.assembly)}
      <h2>
        {one.name}
        <span
          >{counted(one.panels.length, 'panel')}, in set order{one.lacking.length
            ? `; so far, ${one.lacking.join(', ')} cannot be set out`
            : ''}</span
        >
      </h2>
      <dl class="sum" data-testid="filling">
        <div>
          <dt>to be filled</dt>
          <dd>{units.full(one.cavity, 'volume', 2)}</dd>
        </div>
        <div>
          <dt>blown, settling {units.show(one.settlement, 'share', 1)} %</dt>
          <dd>
            {#if one.lacking.length}{units.full(one.blown, 'volume', 2)}{:else}
              <PanelFigure
                figure="beads"
                of={one.assembly}
                title="Beads blown into {one.name}"
                value={units.show(one.blown, 'volume', 2)}
                unit={units.symbol('volume')}
                dimension="volume"
              />{/if}
          </dd>
        </div>
        <div>
          <dt>bags of {units.full(shop.choices.bag ?? 0.25, 'volume', 2)}</dt>
          <dd>{one.bags}</dd>
        </div>
        <div>
          <dt>beads</dt>
          <dd>{units.full(one.mass, 'mass', 0)}</dd>
        </div>
      </dl>
      <p><strong>Before any port is opened:</strong></p>
      <ul>
        {#each one.before as each (each)}<li>{each}</li>{/each}
      </ul>
      <table>
        <thead>
          <tr>
            <th>panel</th>
            <th class="n">to be filled, {units.symbol('volume')}</th>
            <th class="n">blown, {units.symbol('volume')}</th>
            <th class="n">{units.symbol('mass')}</th>
            <th>ports in order: from the left, above the foot of the face</th>
          </tr>
        </thead>
        <tbody>
          {#each one.panels.slice(0, SHOWN) as panel (panel.panel)}
            <tr>
              <td class="mono">{panel.panel}</td>
              <td class="n">{units.show(panel.cavity, 'volume', 3)}</td>
              <td class="n">{units.show(panel.blown, 'volume', 3)}</td>
              <td class="n">{units.show(panel.mass, 'mass', 1)}</td>
              <td class="ports"
                >{panel.ports
                  .map((p) => `${units.length(p[0] ?? 0)}, ${units.length(p[1] ?? 0)}`)
                  .join('; ')}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      {#if one.panels.length > SHOWN}<p class="soft">
          and {counted(one.panels.length - SHOWN, 'more panel')}
        </p>{/if}
    {:else}
      {#if found}<p>No frame of this building is filled with beads.</p>{/if}
    {/each}
  </div>
  <aside class="side">
    <h2>What is blown</h2>
    <div class="stack">
      <Entry
        label="volume of a bag"
        dimension="volume"
        decimals={2}
        value={shop.choices.bag}
        refused={why('/shop/bag')}
        onsave={(bag) => bag !== null && void store.save(building, { bag }, 'Volume of a bag of beads')}
      />
      <Entry
        label="settles by, else as usual"
        dimension="share"
        value={shop.choices.settlement}
        optional
        refused={why('/shop/settlement')}
        onsave={(settlement) => void store.save(building, { settlement }, 'Settlement of beads')}
      />
      <Entry
        label="driven up from a port"
        dimension="length"
        value={shop.choices.port_rise}
        refused={why('/shop/port_rise')}
        onsave={(port_rise) =>
          port_rise !== null && void store.save(building, { port_rise }, 'Rise of beads from a port')}
      />
    </div>
    <p class="soft">
      Lowest ports first, field by field. Weigh a filled panel against its figure: what lacks by more than a
      tenth has a void.
    </p>
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 280px;
  }
  ul {
    margin: 2px 0 8px;
    padding-left: 18px;
  }
  .mono {
    font: 500 12px var(--mono);
    white-space: nowrap;
  }
  .ports {
    font: 11px var(--mono);
    color: var(--ink-2);
  }
  .sum {
    max-width: 420px;
  }
</style>
