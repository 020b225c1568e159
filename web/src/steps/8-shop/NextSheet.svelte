<!-- One next act, and everything that explains why it is next: its panel, its bar, its truck. -->
<script lang="ts">
  import type { Building, Shop, ShopPiece } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import { shop as store } from '@/project/shop.svelte';
  import BarDrawing from './BarDrawing.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
  }
  let { shop, building, units }: Props = $props();
  const next = $derived(shop.next === null ? undefined : shop.pieces[shop.next]);
  const panel = $derived(shop.pieces.filter((one) => one.panel === next?.panel));
  const section = $derived(
    shop.sections.find((one) => next && same(one.thick, next.thick) && same(one.deep, next.deep)),
  );
  const bar = $derived(next?.bar !== null && next ? section?.bars[next.bar ?? 0] : undefined);
  const older = $derived(shop.pieces.filter((one) => one.state === 'older'));
  let wrong = $state(false);
  const same = (a: number, b: number) => Math.abs(a - b) < 1e-6;
  /** Panels that come after this one, each with what is left of it. */
  const after = $derived.by(() => {
    const found: Record<string, { panel: string; left: number; truck: number }> = {};
    for (const one of shop.pieces.slice(shop.next ?? 0)) {
      if (one.panel === next?.panel || one.state === 'cut') continue;
      const here = found[one.panel] ?? { panel: one.panel, left: 0, truck: one.truck };
      found[one.panel] = { ...here, left: here.left + one.count };
    }
    return Object.values(found);
  });
  const size = (one: ShopPiece) =>
    one.stuff === 'bar'
      ? units.length(one.length)
      : `${units.length(one.width)} × ${units.length(one.length)}`;
  const from = (one: ShopPiece) =>
    one.stuff === 'bar'
      ? one.bar === null
        ? 'bar'
        : `bar ${one.bar + 1}`
      : { sheet: 'board', block: 'block', panel: 'as ordered' }[one.stuff];
  const ends = (one: ShopPiece) =>
    one.ends[0] === 90 && one.ends[1] === 90
      ? 'both ends square'
      : `both ends ${units.show(one.ends[0] ?? 90, 'angle', 1)}°`;
  function key(event: KeyboardEvent): void {
    const typing =
      event.target instanceof HTMLElement && /INPUT|SELECT|TEXTAREA|BUTTON|A/.test(event.target.tagName);
    if (event.key !== 'Enter' || typing || !next) return;
    event.preventDefault();
    void store.cut(building, next);
  }
</script>

<svelte:window onkeydown={key} />

<p class="soft conditions">
  Truck after truck; on each what lies lowest is made first. Nothing is cut that no truck asks for.
</p>
<div class="columns">
  <div>
    {#if next}
      <section class="act" aria-label="Next cut">
        <p class="soft">
          Next cut <span
            >{next.stuff === 'bar' && next.bar !== null ? `bar ${next.bar + 1}` : from(next)}, truck {next.truck +
              1}</span
          >
        </p>
        <h2>{next.name} of {next.panel}</h2>
        <p class="big">
          <b>{next.count > 1 ? `${next.count} × ` : ''}{size(next)}</b>
          <span
            >{units.system === 'SI' ? 'mm' : ''}{next.stuff === 'bar'
              ? `, ${ends(next)}`
              : `, grain along the ${units.length(next.length)}`}</span
          >
        </p>
        <p class="soft">
          {next.material}, {next.stuff === 'bar'
            ? `${units.length(next.thick)} × ${units.full(next.deep, 'length')}`
            : units.full(next.thick, 'length')}{next.shaped
            ? '; its panel is no rectangle: cut to the laydown'
            : ''}
        </p>
        <div class="controls">
          <Button strong onclick={() => void store.cut(building, next)}>Cut. Next one</Button>
          {#if next.stuff === 'bar'}<Button onclick={() => (wrong = !wrong)}>Wrong length</Button>{/if}
        </div>
        {#if wrong && next.stuff === 'bar'}
          <Entry
            label="it came out"
            dimension="length"
            value={null}
            optional
            autofocus
            onsave={(value) => {
              wrong = false;
              if (value !== null) void store.wrong(building, next, value, units.full(value, 'length'));
            }}
          />
          <p class="soft">It goes to the rack, and what is left is nested anew.</p>
        {/if}
      </section>
      <h2>
        {next.panel}, {counted(
          panel.reduce((sum, one) => sum + one.count, 0),
          'piece',
        )}
      </h2>
      <table>
        <thead
          ><tr
            ><th>piece</th><th class="n">{units.system === 'SI' ? 'mm' : 'ft in'}</th><th>from</th><th
              >state</th
            ></tr
          ></thead
        >
        <tbody>
          {#each panel as one (one.key)}
            <tr class:on={one.key === next.key}>
              <td>{one.count > 1 ? `${one.count} ` : ''}{one.name}</td>
              <td class="n">{size(one)}</td>
              <td class="soft">{from(one)}</td>
              <td>
                {#if one.state === 'cut'}<button
                    class="choose"
                    onclick={() => void store.uncut(building, one)}
                    aria-label="cut: {one.key}, cut it again">cut</button
                  >
                {:else if one.state === 'older'}<span class="older">cut as {units.length(one.was ?? 0)}</span>
                {:else}<span class="soft">to cut</span>{/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    {:else}
      <h2>Everything is cut</h2>
    {/if}
    {#if older.length}
      <p class="older" data-testid="older">
        {counted(older.length, 'piece')} were cut for an older set-out: {older
          .slice(0, 4)
          .map((one) => `${one.key} as ${units.length(one.was ?? 0)}, asked ${units.length(one.length)}`)
          .join('; ')}
      </p>
    {/if}
  </div>
  <aside class="side">
    {#if bar && section && next}
      <h2>
        Bar {(next.bar ?? 0) + 1}, {units.length(section.thick)} × {units.full(section.deep, 'length')}
        <span>{section.fewer ? `at most ${section.fewer} fewer` : 'none fewer is possible'}</span>
      </h2>
      <BarDrawing
        {bar}
        {units}
        number={(next.bar ?? 0) + 1}
        longest={Math.max(...section.bars.map((one) => one.length))}
        on={next.key}
        kerf={shop.choices.kerf}
      />
    {/if}
    <h2>After it <span>{counted(shop.left, 'piece')} left to cut</span></h2>
    <div class="list" role="region" aria-label="Panels that come after it">
      <table>
        <thead><tr><th>panel</th><th class="n">pieces</th><th class="n">truck</th></tr></thead>
        <tbody>
          {#each after.slice(0, 14) as one (one.panel)}
            <tr
              ><td class="mono">{one.panel}</td><td class="n">{one.left}</td><td class="n">{one.truck + 1}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      {#if after.length > 14}<p class="soft">and {counted(after.length - 14, 'more panel')}</p>{/if}
    </div>
  </aside>
</div>

<style>
  .conditions {
    margin: 0 0 8px;
  }
  .columns {
    --columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  .act {
    border-left: 4px solid var(--verdigris);
    background: var(--verdigris-wash);
    padding: 10px 14px;
    margin-bottom: 12px;
  }
  .act h2 {
    font-size: 16px;
    margin: 2px 0;
  }
  .act .soft {
    color: var(--ink-2);
    margin: 0;
  }
  .act .soft span {
    float: right;
  }
  .big {
    margin: 0 0 4px;
  }
  .big b {
    font: 600 20px var(--mono);
    color: var(--verdigris);
  }
  .older {
    color: var(--ochre);
  }
  .mono {
    font-family: var(--mono);
    font-size: 12px;
  }
</style>
