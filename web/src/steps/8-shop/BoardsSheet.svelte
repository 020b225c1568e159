<!-- Raw boards with the skins that come out of them by through cuts; the first cut drawn. -->
<script lang="ts">
  import type { Building, Shop, ShopBoards } from '@/api/client';
  import { Solving } from '@/api/solving.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { counted } from '@/kit/reading';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { shop as store } from '@/project/shop.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
    why: (part: string) => string | undefined;
  }
  let { shop, building, units, why }: Props = $props();
  const solving = new Solving((done, of) => (of < 20 ? `board ${done + 1} of ${of}` : `round ${done + 1}`));
  const about = $derived(`${building.id} ${session.open?.revision ?? 0}`);
  let found = $state.raw<{ of: string; boards: ShopBoards[] }>();
  let wrong = $state('');
  $effect(() => {
    const of = about;
    wrong = '';
    void solving
      .run((ticket) => store.boards(building.id, ticket))
      .then((boards) => (found = { of, boards }))
      .catch((error: unknown) => (wrong = error instanceof Error ? error.message : 'They could not be cut.'));
  });
  const boards = $derived(found?.of === about ? found.boards : undefined);
  const strips = (one: ShopBoards) =>
    one.sheets.reduce((sum, board) => sum + board.parts.filter((part) => part.panel === 'packer').length, 0);
  const PER = 34;
  const SHOWN = 18;
</script>

<div class="controls">
  <Entry
    label="packing strips out of what is left, width"
    dimension="length"
    value={shop.choices.packers || null}
    optional
    refused={why('/shop/packers')}
    onsave={(value) => void store.save(building, { packers: value ?? 0 }, 'Packing strips')}
  />
</div>
{#if wrong}
  <p class="soft" role="status">{wrong}</p>
{:else if !boards}
  <SolvingBar {solving} name="Boards being cut" />
{:else}
  {#each boards as one (`${one.material} ${one.thick}`)}
    <h2>
      {one.material}, {units.full(one.thick, 'length')}
      <span
        >{one.reason ||
          `${counted(one.sheets.length, 'board')}, ${units.full(one.area, 'area')} for ${units.full(one.used, 'area')} of parts; no way takes less than ${units.full(one.bound, 'area')}`}</span
      >
    </h2>
    {#if shop.choices.packers && !one.reason}
      <p class="soft">
        {counted(strips(one), 'packing strip')} of {units.full(0.6, 'length')} come out of what is left.
      </p>
    {/if}
    <div class="boards">
      {#each one.sheets.slice(0, SHOWN) as board, n (n)}
        <svg
          width={board.h * PER + 2}
          height={board.w * PER + 2}
          viewBox="-1 -1 {board.h * PER + 2} {board.w * PER + 2}"
          role="img"
          aria-label="Board {n + 1}, {units.full(board.w, 'length')} by {units.full(
            board.h,
            'length',
          )}: {board.parts.map((part) => part.panel).join(', ')}"
        >
          <rect class="raw" width={board.h * PER} height={board.w * PER} />
          {#each board.parts as { panel: mark, x, y, w, h }, at (at)}
            <rect
              class="part"
              class:strip={mark === 'packer'}
              x={y * PER}
              y={x * PER}
              width={h * PER}
              height={w * PER}
            />
            {#if h * PER > 34 && w * PER > 14 && mark !== 'packer'}
              <text x={(y + h / 2) * PER} y={(x + w / 2) * PER + 4} text-anchor="middle">{mark}</text>
            {/if}
          {/each}
          {#if board.first_at !== null}
            {@const at = board.first_at * PER}
            <path
              class="first"
              d={board.first_upright ? `M0 ${at}H${board.h * PER}` : `M${at} 0V${board.w * PER}`}
            />
          {/if}
        </svg>
      {/each}
    </div>
    {#if one.sheets.length > SHOWN}<p class="soft">and {one.sheets.length - SHOWN} more</p>{/if}
  {:else}
    <p>No panel of this building has skins or boards that are cut here.</p>
  {/each}
  <p class="soft method">
    Long side across the page, grain along it. Dashed green: the first through cut of a board.
  </p>
{/if}

<style>
  .boards {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
  }
  svg {
    font: 10.5px var(--mono);
  }
  .raw {
    fill: url(#h-loss);
    stroke: var(--ink);
  }
  .part {
    fill: var(--sheet-bright);
    stroke: var(--ink-2);
  }
  .part.strip {
    fill: var(--limestone);
  }
  .first {
    stroke: var(--verdigris);
    stroke-width: 1.8;
    stroke-dasharray: 6 3;
  }
</style>
