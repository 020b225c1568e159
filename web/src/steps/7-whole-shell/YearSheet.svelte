<!-- The year in twelve bars: what is lost, what the sun and the rooms give back, what is left to heat. -->
<script lang="ts">
  import type { Building, WholeBuilding } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import { MONTHS } from '@/kit/months';
  import { ticksOf } from '@/draw/chart';
  import type { Units } from '@/kit/units';
  import { opens } from '@/project/whole.svelte';
  import PlantRows from './PlantRows.svelte';
  import StatesTable from './StatesTable.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found, building, units, refused }: Props = $props();
  const year = $derived(found.energy);
  const work = (figure: string, title: string, dimension: string) =>
    opens(found, building.id, figure, title, dimension);
  const H = 250;
  let width = $state(700);
  const most = $derived(Math.max(...year.months.map((one) => one.Q_ht), 1));
  const step = $derived((width - 60) / 12);
  const y = (Q: number) => H - 24 - (Math.max(Q, 0) / most) * (H - 44);
  const used = (one: WholeBuilding['energy']['months'][number]) => Math.max(one.Q_ht - one.Q_nd, 0);
</script>

<div class="columns">
  <div>
    <dl class="figures" data-testid="year">
      <div>
        <dt>heating need of the year</dt>
        <dd>
          <Figure
            value={units.show(year.Q_nd, 'heat')}
            unit={units.symbol('heat')}
            label="Heating need"
            weight="figure"
            onwork={work('Q_nd', 'Heating need of the year', 'heat')}
          />
        </dd>
      </div>
      <div>
        <dt>over the floor</dt>
        <dd>
          <Figure
            value={units.show(year.per_area, 'energy')}
            unit={units.symbol('energy')}
            label="Heating need over the floor"
            weight="lead"
            onwork={work('per_area', 'Heating need over the floor', 'energy')}
          />
        </dd>
      </div>
      <div>
        <dt>time constant</dt>
        <dd>
          <Figure
            value={units.show(year.tau, 'hours', 0)}
            unit="h"
            label="Time constant"
            weight="lead"
            onwork={work('tau', 'Time constant', 'hours')}
          />
        </dd>
      </div>
      <div>
        <dt>degree hours</dt>
        <dd>
          <Figure
            value={year.degree_kKh.toFixed(1)}
            unit="kK·h"
            label="Degree hours"
            weight="lead"
            onwork={work('degree_kKh', 'Degree hours', 'ratio')}
          />
        </dd>
      </div>
    </dl>
    <div bind:clientWidth={width}>
      <svg
        {width}
        height={H}
        role="img"
        aria-label={year.months
          .map(
            (one, at) =>
              `${MONTHS[at]}: lost ${units.full(one.Q_ht, 'heat')}, to heat ${units.full(one.Q_nd, 'heat')}`,
          )
          .join('; ')}
      >
        {#each ticksOf(units, 'heat', 0, most, 5) as tick (tick.shown)}
          <path class="grid" d="M50 {y(tick.value)}H{width - 4}" /><text
            x="44"
            y={y(tick.value) + 4}
            text-anchor="end">{tick.shown}</text
          >
        {/each}
        {#each year.months as one, at (at)}
          {@const left = 54 + at * step}
          <rect class="need" x={left} y={y(one.Q_nd)} width={step * 0.62} height={H - 24 - y(one.Q_nd)} />
          <rect
            class="gain"
            x={left}
            y={y(one.Q_ht)}
            width={step * 0.62}
            height={Math.max(y(one.Q_nd) - y(one.Q_ht), 0)}
          />
          <text x={left + step * 0.31} y={H - 8} text-anchor="middle">{MONTHS[at]?.slice(0, 3)}</text>
        {/each}
        <text x={width - 4} y="10" text-anchor="end"
          >{units.symbol('heat')}: solid to heat, dotted covered by sun and rooms</text
        >
      </svg>
    </div>
    <table>
      <thead
        ><tr
          ><th>month</th><th class="n">lost</th><th class="n">gained</th><th class="n">of use</th><th
            class="n">to heat</th
          ></tr
        ></thead
      >
      <tbody>
        {#each year.months as one, at (at)}
          <tr
            ><th scope="row">{MONTHS[at]}</th><td class="n">{units.show(one.Q_ht, 'heat')}</td><td class="n"
              >{units.show(one.Q_gn, 'heat')}</td
            ><td class="n">{units.show(used(one), 'heat')}</td><td class="n"
              >{units.show(one.Q_nd, 'heat')}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    <StatesTable {building} {units} />
  </div>
  <aside class="side">
    <p class="soft">
      Monthly method of ISO 13790, one zone, held at its temperature. The ground by its own months (ISO 13370,
      annex H). Sun of clear days times the clearness below: the months carry no measured sunshine.
    </p>
    <PlantRows
      {building}
      {refused}
      part="loads"
      title="Year"
      rows={[
        { field: 'clearness', text: 'sun, of that of clear days', dimension: 'share', decimals: 0 },
        { field: 'gains', text: 'lamps and things, by floor', dimension: 'flux', decimals: 1 },
        { field: 'inner_mass', text: 'inner mass, by floor', dimension: 'capacity', decimals: 0 },
      ]}
    />
  </aside>
</div>

<style>
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 28px;
    margin: 4px 0 8px;
  }
  .figures dt {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
  .figures dd {
    margin: 0;
  }
  .grid {
    stroke: var(--hair);
  }
  .need {
    fill: var(--ink);
  }
  .gain {
    fill: url(#whole-dots);
    stroke: var(--ink);
    stroke-width: 0.75;
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
</style>
