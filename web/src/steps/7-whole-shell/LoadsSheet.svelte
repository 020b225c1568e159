<!-- What plant the building needs: the coldest day and the hottest, beside what a rule by floor area would take. -->
<script lang="ts">
  import type { Building, WholeBuilding } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { opens } from '@/project/whole.svelte';
  import HotDay from './HotDay.svelte';
  import PlantRows from './PlantRows.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found, building, units, refused }: Props = $props();
  const heating = $derived(found.heating);
  const cooling = $derived(found.cooling);
  const loads = $derived(building.plant?.loads);
  const work = (figure: string, title: string, dimension: string) =>
    opens(found, building.id, figure, title, dimension);
  const cold = $derived([
    { key: 'transmission', text: 'transmission', W: heating.transmission },
    { key: 'ground', text: 'ground', W: heating.ground },
    { key: 'ventilation', text: 'air', W: heating.ventilation },
    { key: 'reheat', text: 'heating up again', W: heating.reheat },
  ]);
  const most = $derived(
    Math.max(heating.total, heating.rule_total ?? 0, cooling.peak, cooling.rule_total, 1),
  );
  const hour = (at: number) => `${at}:00`;
  /** Parts of the greatest cooling load, alike ones together. */
  const hot = $derived.by(() => {
    const sums: Record<string, number> = {};
    for (const [name, hours] of Object.entries(cooling.parts)) {
      const plain = name.replace(/^\d+ /, '');
      sums[plain] = (sums[plain] ?? 0) + (hours[cooling.hour] ?? 0);
    }
    return Object.entries(sums)
      .filter(([, W]) => Math.abs(W) >= 0.5)
      .toSorted((a, b) => b[1] - a[1]);
  });
  const width = (W: number) => Math.max((W / most) * 100, 0);
  const swing = $derived(Math.max(...cooling.free) - Math.min(...cooling.free));
  const site = $derived(session.open?.project.basis.site);
</script>

<div class="columns">
  <div>
    <div class="two">
      <section data-testid="heating">
        <h2>
          Heating <span
            >at {units.full(site?.theta_winter ?? 0, 'temperature', 0)}, EN 12831 simplified, one zone</span
          >
        </h2>
        <p class="headline">
          <Figure
            value={units.show(heating.total, 'heat_flow', 0)}
            unit={units.symbol('heat_flow')}
            label="Heating load"
            weight="figure"
            onwork={work('heating_total', 'Heating load', 'heat_flow')}
          />
          {#if heating.ratio !== null && heating.ratio !== undefined}<b
              >by the rule {units.show(heating.ratio, 'ratio', 1)} times as much</b
            >{/if}
        </p>
        {@render beside(heating.total, heating.rule_total ?? 0)}
        <dl>
          {#each cold as one (one.key)}
            <div>
              <dt>{one.text}</dt>
              <dd>{units.full(one.W, 'heat_flow', 0)}</dd>
            </div>
          {/each}
          <div class="sum">
            <dt>over the floor, {units.full(found.sizes.A_F, 'area', 0)}</dt>
            <dd>{units.full(heating.per_area, 'flux', 1)}</dd>
          </div>
        </dl>
      </section>
      <section data-testid="cooling">
        <h2>Cooling <span>clear day of the hottest month, at {hour(cooling.hour)} solar time</span></h2>
        <p class="headline">
          <Figure
            value={units.show(Math.max(cooling.peak, 0), 'heat_flow', 0)}
            unit={units.symbol('heat_flow')}
            label="Greatest cooling load"
            weight="figure"
            onwork={work('cooling_peak', 'Greatest cooling load', 'heat_flow')}
          />
          {#if cooling.ratio !== null && cooling.peak > 0}<b
              >by the rule {units.show(cooling.ratio, 'ratio', 1)} times as much</b
            >{/if}
        </p>
        {@render beside(Math.max(cooling.peak, 0), cooling.rule_total)}
        <dl>
          {#each hot as [name, W] (name)}
            <div>
              <dt>{name}</dt>
              <dd>{units.full(W, 'heat_flow', 0)}</dd>
            </div>
          {/each}
          <div class="sum">
            <dt>over the floor</dt>
            <dd>{units.full(cooling.per_area, 'flux', 1)}</dd>
          </div>
        </dl>
      </section>
    </div>
    <h2>The day, hour by hour <span>load with the room held, and the room left alone</span></h2>
    <HotDay {cooling} {units} />
    <p class="soft method">
      Left alone the room reaches {units.full(Math.max(...cooling.free), 'temperature')} and swings by
      {units.full(swing, 'difference')} on a day that repeats itself; its mass moves and flattens the swing, its
      mean stays what sun, gains and air make it. Layer matrices of ISO 13786 with the masses of the build-ups;
      one room temperature, constant films, sensible heat alone.
    </p>
    <h2>
      Venting by height <span
        >openings near the floor and under the roof, open whenever it is colder outside</span
      >
    </h2>
    <p data-testid="venting">
      {#if cooling.vented}
        Left alone with them the room reaches <b
          >{units.full(Math.max(...cooling.vented.theta), 'temperature')}</b
        >
        in the place of {units.full(Math.max(...cooling.free), 'temperature')}; at most
        <Figure
          value={units.show(cooling.vented.q[cooling.vented.hour] ?? 0, 'leak_flow', 0)}
          unit={units.symbol('leak_flow')}
          label="Air through the vents at its greatest"
          weight="lead"
          onwork={work('vent_flow', 'Air through the vents at its greatest', 'leak_flow')}
        />
        go through, at {hour(cooling.vented.hour)}: {units.show(
          (cooling.vented.q[cooling.vented.hour] ?? 0) / found.sizes.V,
          'ratio',
          1,
        )} changes of its air an hour. The load above is that of the room held at its temperature, with them closed.
      {:else}
        None: both openings, and how far the one lies above the other, make it count.
      {/if}
      <span class="soft"
        >Without wind; free areas between slats and behind screens. What rain, insects, burglars and fire may
        do through them is for the local code.</span
      >
    </p>
  </div>
  <aside class="side">
    <PlantRows
      {building}
      {refused}
      part="loads"
      title="Loads"
      rows={[
        { field: 'rule_heating', text: 'rule for heating, by floor', dimension: 'flux', decimals: 0 },
        { field: 'rule_cooling', text: 'rule for cooling, by floor', dimension: 'flux', decimals: 0 },
        { field: 'persons_W', text: 'heat of a person', dimension: 'heat_flow', decimals: 0 },
        { field: 'gains', text: 'lamps and things, by floor', dimension: 'flux', decimals: 1 },
        { field: 'shade', text: 'sun that shades let in', dimension: 'share', decimals: 0 },
        { field: 'overhang', text: 'depth of an overhang', dimension: 'length' },
        { field: 'overhang_gap', text: 'above the heads', dimension: 'length' },
        { field: 'alpha', text: 'sun taken up outside', dimension: 'share', decimals: 0 },
        { field: 'night_air', text: 'more air in summer', dimension: 'leak_flow' },
        { field: 'inner_mass', text: 'inner mass, by floor', dimension: 'capacity', decimals: 0 },
        { field: 'reheat', text: 'heating up again, by floor', dimension: 'flux', decimals: 0 },
        { field: 'shielding', text: 'shielding e, EN 12831', dimension: 'ratio', decimals: 2 },
      ]}
    />
    <PlantRows
      {building}
      {refused}
      part="loads"
      title="Vents"
      rows={[
        { field: 'vent_low', text: 'low opening, free', dimension: 'area', decimals: 2 },
        { field: 'vent_high', text: 'high opening, free', dimension: 'area', decimals: 2 },
        { field: 'vent_rise', text: 'from the one to the other', dimension: 'distance' },
      ]}
    />
    <PlantRows
      {building}
      {refused}
      part=""
      title="Sizes"
      rows={[
        {
          field: 'floor_area',
          text: 'heated floor, of the shape if empty',
          dimension: 'area',
          optional: true,
        },
        { field: 'volume', text: 'volume, of the shape if empty', dimension: 'volume', optional: true },
      ]}
    />
    <Notice
      tone="caution"
      title="A start for sizing plant, not its design."
      text="Rooms, distribution, domestic hot water and reserve are not in it. The contractor and the local code decide; loads are checked by a licensed engineer."
    />
    <p>
      <a
        href="/api/v1/projects/{session.open?.project
          .id}/buildings/{building.id}/plant.pdf?units={session.system}"
        >Statement for the plant contractor, PDF</a
      >
    </p>
    <p class="soft">
      Overhang {loads?.overhang ? units.full(loads.overhang, 'length') : 'none'}; gains half by air, half as
      radiation.
    </p>
  </aside>
</div>

{#snippet beside(own: number, rule: number)}
  <svg
    class="beside"
    width="100%"
    height="34"
    role="img"
    aria-label="computed {units.full(own, 'heat_flow', 0)}, by the rule {units.full(rule, 'heat_flow', 0)}"
  >
    <rect x="0" y="2" width="{width(own)}%" height="12" fill="var(--ink)" />
    <rect class="rule" x="0" y="18" width="{width(rule)}%" height="12" />
    <text x="6" y="28">rule {units.full(rule, 'heat_flow', 0)}</text>
  </svg>
{/snippet}

<style>
  aside a {
    color: var(--verdigris);
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 24px;
  }
  .headline {
    display: flex;
    gap: 12px;
    align-items: baseline;
    margin: 2px 0;
  }
  .rule {
    fill: none;
    stroke: var(--ink);
    stroke-dasharray: 4 3;
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: 1fr;
    }
  }
</style>
