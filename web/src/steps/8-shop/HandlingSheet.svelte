<!-- How each panel is moved: its weight and where that acts, who carries it, what it takes to stand it up. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, Shop } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { counted } from '@/kit/reading';
  import type { Units } from '@/kit/units';
  import PanelFigure from '@/project/PanelFigure.svelte';
  import { router } from '@/project/router.svelte';

  interface Props {
    shop: Shop;
    building: Building;
    units: Units;
  }
  let { shop, building, units }: Props = $props();
  const SHOWN = 60;
  let sought = $state('');
  let chosen = $state('');
  const rows = $derived(
    shop.weights
      .filter((one) => one.panel.toLowerCase().includes(sought.trim().toLowerCase()))
      .toSorted((a, b) => b.mass - a.mass),
  );
  const mark = $derived(rows.some((one) => one.panel === chosen) ? chosen : (rows[0]?.panel ?? ''));
  const live = asking(
    () => (mark ? { mark } : undefined),
    ({ mark: asked }) => {
      const place = inBuilding(router.place.project, router.place.building);
      return take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/shop/panel', {
          params: { ...place.params, query: { mark: asked } },
        }),
      );
    },
  );
  const card = $derived(live.of({ mark }));
  const limit = $derived(building.setout?.heaviest ?? null);
  const carried = (one: Shop['weights'][number]) =>
    one.crane ? 'crane' : counted(one.people, 'person', 'people');
  const per = $derived(card ? Math.min(300 / card.weight.width, 300 / card.weight.height) : 1);
  const path = (points: readonly (readonly number[])[]) =>
    card
      ? `M${points.map((p) => `${20 + (p[0] ?? 0) * per} ${20 + (card.weight.height - (p[1] ?? 0)) * per}`).join('L')}Z`
      : '';
</script>

<div class="columns">
  <div>
    <p class="controls">
      <label class="find">find <input type="search" bind:value={sought} placeholder="mark" /></label>
      <span class="soft"
        >{counted(shop.weights.filter((one) => one.crane).length, 'panel')} of {shop.weights.length} want a crane;
        {limit === null
          ? 'no limit of weight is set'
          : `none may be heavier than ${units.full(limit, 'mass', 0)}`}</span
      >
    </p>
    <table>
      <thead>
        <tr>
          <th>panel</th>
          <th class="n">{units.system === 'SI' ? 'mm' : 'ft in'}</th>
          <th class="n">{units.symbol('mass')}</th>
          <th>carried by</th>
          <th class="n">centre of gravity</th>
          <th class="n">to stand it up, {units.symbol('force')}</th>
        </tr>
      </thead>
      <tbody>
        {#each rows.slice(0, SHOWN) as one (one.panel)}
          <tr class:on={one.panel === mark}>
            <td
              ><button
                class="choose mono"
                aria-label="{one.panel}, show it"
                aria-pressed={one.panel === mark}
                onclick={() => (chosen = one.panel)}>{one.panel}</button
              ></td
            >
            <td class="n">{units.length(one.width)} × {units.length(one.height)}</td>
            <td class="n">{units.show(one.mass, 'mass', 0)}</td>
            <td class:caution-text={one.crane}>{carried(one)}</td>
            <td class="n">{units.length(one.u)}, {units.length(one.v)}</td>
            <td class="n">{units.show(one.turn, 'force')}</td>
          </tr>
        {:else}
          <tr><td colspan="6">No panel is called like that.</td></tr>
        {/each}
      </tbody>
    </table>
    {#if rows.length > SHOWN}<p class="soft">
        and {counted(rows.length - SHOWN, 'lighter panel')}: find one by its mark
      </p>{/if}
  </div>
  <aside class="side">
    {#if card}
      <h2>{card.weight.panel} <span>seen from outside</span></h2>
      <dl>
        <div>
          <dt>mass</dt>
          <dd>
            <PanelFigure
              figure="mass"
              of={card.weight.panel}
              title="Mass of {card.weight.panel}"
              value={units.show(card.weight.mass, 'mass', 1)}
              unit={units.symbol('mass')}
              dimension="mass"
            />
          </dd>
        </div>
        <div>
          <dt>to stand it up</dt>
          <dd>
            <PanelFigure
              figure="turn"
              of={card.weight.panel}
              title="Force that begins to turn {card.weight.panel}"
              value={units.show(card.weight.turn, 'force')}
              unit={units.symbol('force')}
              dimension="force"
            />
          </dd>
        </div>
      </dl>
      <svg
        width={card.weight.width * per + 40}
        height={card.weight.height * per + 40}
        role="img"
        aria-label="{card.weight.panel}, centre of gravity {units.full(
          card.weight.u,
          'length',
        )} from the left and {units.full(card.weight.v, 'length')} above the foot"
      >
        <path class="panel" d={path(card.outline)} />
        {#each card.holes as hole, n (n)}<path class="hole" d={path(hole)} />{/each}
        {#each card.works.filter((one) => one.kind !== 'recess' && one.kind !== 'bevel') as one, n (n)}
          <circle class="fitted" cx={20 + one.u * per} cy={20 + (card.weight.height - one.v) * per} r="4" />
        {/each}
        <g
          class="cg"
          transform="translate({20 + card.weight.u * per} {20 + (card.weight.height - card.weight.v) * per})"
        >
          <circle r="7" />
          <path d="M-11 0H11M0 -11V11" />
        </g>
      </svg>
      <h2>Worked into it</h2>
      <table>
        <thead
          ><tr><th>what</th><th>where</th><th class="n">{units.system === 'SI' ? 'mm' : 'ft in'}</th></tr
          ></thead
        >
        <tbody>
          {#each card.works as one, n (n)}
            <tr>
              <td>{one.kind}</td>
              <td>{one.where}</td>
              <td class="n"
                >{one.kind === 'bevel'
                  ? `${units.show(one.angle, 'angle', 1)}°`
                  : `${units.length(one.length)}, ${units.length(one.deep)} deep`}</td
              >
            </tr>
          {:else}
            <tr><td colspan="3">Nothing.</td></tr>
          {/each}
        </tbody>
      </table>
    {:else if live.problem}
      <p class="soft">{live.problem.items[0]?.detail ?? live.problem.sentence}</p>
    {/if}
    <p class="soft">
      The force at the top edge begins to turn a flat panel about its foot; lifting points, slings and the
      lift are planned by a licensed person.
    </p>
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 360px;
  }
  .mono {
    font: 500 12px var(--mono);
  }
  .caution-text {
    color: var(--ochre);
  }
  .find input {
    width: 110px;
    min-height: 24px;
    border: 1px solid var(--line);
    border-radius: var(--radius);
    background: var(--sheet-bright);
    padding: 2px 6px;
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .hole {
    fill: var(--sheet);
    stroke: var(--ink-2);
  }
  .fitted {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .cg circle {
    fill: none;
    stroke: var(--oxide);
    stroke-width: 1.6;
  }
  .cg path {
    stroke: var(--oxide);
  }
</style>
