<!-- Trucks to scale: first set on top, mass and height against what one may carry. -->
<script lang="ts">
  import type { Building, Shop } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { shop as store } from '@/project/shop.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { shop, building, units, why }: Props = $props();
  const FIELDS = [
    { field: 'truck_stacks', text: 'stacks beside one another', dimension: 'ratio', decimals: 0 },
    { field: 'truck_height', text: 'height of a stack', dimension: 'length', decimals: undefined },
    { field: 'truck_length', text: 'longest piece', dimension: 'length', decimals: undefined },
    { field: 'truck_mass', text: 'mass of a load', dimension: 'mass', decimals: 0 },
    { field: 'overhang', text: 'longer than one below it by', dimension: 'length', decimals: undefined },
  ] as const;
</script>

<div class="columns">
  <div>
    {#if shop.no_truck}
      <Notice tone="decision" title="These panels cannot be brought" text={shop.no_truck} />
    {:else}
      <p class="soft">
        {counted(shop.trucks.length, 'truck')}, fewer are not possible in this set order. The first to be set
        lies on top.
      </p>
      <div class="trucks">
        {#each shop.trucks as one, n (n)}
          <section aria-label="Truck {n + 1}">
            <h2>Truck {n + 1}</h2>
            <div class="stacks">
              {#each one.stacks as stack, at (at)}
                <ol reversed>
                  {#each stack.toReversed() as mark (mark)}<li>{mark}</li>{/each}
                </ol>
              {/each}
            </div>
            <p class="bed"></p>
            <dl>
              <div>
                <dt>mass</dt>
                <dd>{units.full(one.mass, 'mass', 0)} of {units.full(shop.choices.truck_mass, 'mass', 0)}</dd>
              </div>
              <div>
                <dt>height</dt>
                <dd>
                  {units.full(one.height, 'distance')} of {units.full(shop.choices.truck_height, 'distance')}
                </dd>
              </div>
              <div>
                <dt>longest</dt>
                <dd>{units.full(one.length, 'distance')}</dd>
              </div>
            </dl>
          </section>
        {/each}
      </div>
    {/if}
  </div>
  <aside class="side">
    <h2>What one truck takes</h2>
    <div class="stack">
      {#each FIELDS as one (one.field)}
        <Entry
          label={one.text}
          dimension={one.dimension}
          decimals={one.decimals}
          value={shop.choices[one.field]}
          refused={why(`/shop/${one.field}`)}
          onsave={(value) =>
            value !== null && void store.save(building, { [one.field]: value }, `Truck: ${one.text}`)}
        />
      {/each}
    </div>
    <p class="soft">Lashing, axle loads and the road are the haulier's.</p>
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 300px;
  }
  .trucks {
    display: flex;
    flex-wrap: wrap;
    gap: 14px 26px;
  }
  .stacks {
    display: flex;
    gap: 8px;
    align-items: end;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    font: 11px var(--mono);
    border: 1px solid var(--ink-2);
    background: var(--sheet-bright);
    padding: 1px 8px;
    margin-top: -1px;
    min-width: 90px;
    text-align: center;
  }
  .bed {
    height: 5px;
    margin: 0 0 6px;
    background: var(--ink);
  }
</style>
