<!-- Bars of what is left, section by section; and the stock, saw and rack they come from. -->
<script lang="ts">
  import type { Building, Shop } from '@/api/client';
  import Entry from '@/kit/Entry.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { shop as store } from '@/project/shop.svelte';
  import BarDrawing from './BarDrawing.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { shop, building, units, why }: Props = $props();
  const SHOWN = 24;
  let all = $state<string[]>([]);
  const id = (one: Shop['sections'][number]) => `${one.material} ${one.thick} ${one.deep}`;
  const bars = (at: number, value: number | null) => {
    const kept = shop.choices.bars.filter((_, n) => n !== at);
    const next =
      value === null
        ? kept
        : at < shop.choices.bars.length
          ? shop.choices.bars.with(at, value)
          : [...kept, value];
    if (next.length)
      void store.save(building, { bars: next.toSorted((a, b) => a - b) }, 'Lengths of bars in stock');
  };
</script>

<div class="columns">
  <div>
    {#each shop.sections as one (id(one))}
      <h2>
        {one.material}, {units.length(one.thick)} × {units.full(one.deep, 'length')}
        <span
          >{one.reason
            ? ''
            : `${counted(one.bars.length, 'bar')}, ${units.full(one.stock, 'distance')}; lost ${units.show((100 * one.waste) / (one.stock || 1), 'ratio', 1)} %; ${one.fewer ? `at most ${one.fewer} fewer` : 'none fewer is possible'}`}</span
        >
      </h2>
      {#if one.reason}
        <Notice tone="decision" title="These cannot be cut" text={one.reason} />
      {:else}
        <div class="bars">
          {#each all.includes(id(one)) ? one.bars : one.bars.slice(0, SHOWN) as bar, n (n)}
            <BarDrawing
              {bar}
              {units}
              number={n + 1}
              longest={Math.max(...one.bars.map((each) => each.length))}
              kerf={shop.choices.kerf}
            />
          {/each}
        </div>
        {#if one.bars.length > SHOWN && !all.includes(id(one))}
          <button class="choose" onclick={() => (all = [...all, id(one)])}>show all {one.bars.length}</button>
        {/if}
      {/if}
    {:else}
      <p>No bars are left to be cut.</p>
    {/each}
  </div>
  <aside class="side">
    <h2>Stock and saw</h2>
    <div class="stack">
      {#each shop.choices.bars as length, n (n)}
        <Entry
          label="length {n + 1} of bars"
          dimension="length"
          value={length}
          optional={shop.choices.bars.length > 1}
          refused={why(`/bars/${n}`)}
          onsave={(value) => bars(n, value)}
        />
      {/each}
      <Entry
        label="another length"
        dimension="length"
        value={null}
        optional
        onsave={(value) => value !== null && bars(shop.choices.bars.length, value)}
      />
      {#each [['kerf', 'kerf of the saw'], ['end_trim', 'trimmed at both ends'], ['keep', 'shortest that is kept']] as const as [field, text] (field)}
        <Entry
          label={text}
          dimension="length"
          value={shop.choices[field]}
          refused={why(`/shop/${field}`)}
          onsave={(value) => value !== null && void store.save(building, { [field]: value }, `Shop: ${text}`)}
        />
      {/each}
    </div>
    <p>
      <a
        href="/api/v1/projects/{router.place.project}/buildings/{router.place.building}/cut-list.csv"
        download>the whole cut list as CSV</a
      >
    </p>
    <h2>Rack <span>tried before new stock</span></h2>
    {#if shop.choices.rack.length}
      <table>
        <thead><tr><th>section</th><th class="n">length</th><th class="n">count</th></tr></thead>
        <tbody>
          {#each shop.choices.rack as one, n (n)}
            <tr>
              <td>{units.length(one.thick)} × {units.length(one.deep)}</td>
              <td class="n">{units.length(one.length)}</td>
              <td class="n">{one.count}</td>
              <td
                ><button
                  class="choose"
                  aria-label="take {units.full(one.length, 'length')} off the rack"
                  onclick={() =>
                    void store.save(
                      building,
                      { rack: shop.choices.rack.filter((_, at) => at !== n) },
                      'Off the rack',
                    )}>take off</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    {:else}
      <p class="soft">Nothing lies on it.</p>
    {/if}
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 300px;
  }
  .bars {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
    gap: 2px 16px;
  }
</style>
