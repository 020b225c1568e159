<!-- Air that people need, what its recovery is worth, and what it does to the room's humidity. -->
<script lang="ts">
  import type { Building, WholeBuilding } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Figure from '@/kit/Figure.svelte';
  import { MONTHS } from '@/kit/months';
  import type { Units } from '@/kit/units';
  import { session } from '@/project/session.svelte';
  import { opens } from '@/project/whole.svelte';
  import PlantRows from './PlantRows.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found, building, units, refused }: Props = $props();
  const air = $derived(found.air);
  const plant = $derived(building.plant?.air);
  const work = (figure: string, title: string, dimension: string) =>
    opens(found, building.id, figure, title, dimension);
  const NEEDS: Record<string, string> = {
    persons: 'persons and floor',
    extract: 'extract of kitchens and baths',
    minimum: 'least change of air',
  };
  const apart = $derived(plant?.apart ?? undefined);
  const close = $derived(apart !== undefined && apart < (plant?.apart_asked ?? 3));
  const indoor = $derived(building.indoor ?? session.open?.project.basis.indoor);
  const carried = $derived(found.leaks.q_inf[1] ?? 0);
  /** The air that carries moisture off, as the room of step 5 takes it. [m³/s] */
  const drying = $derived((air.q_mean * (1 - (plant?.eta_x ?? 0)) + carried) / 3600);
  const follows = $derived(
    indoor?.regime === 'production' &&
      Math.abs((indoor.ventilation ?? 0) - drying) < 1e-6 &&
      Math.abs((indoor.production ?? 0) - (plant?.moisture ?? 0) / 3600) < 1e-9,
  );
  function follow(): void {
    if (!indoor) return;
    const room = {
      ...indoor,
      regime: 'production',
      ventilation: drying,
      production: (plant?.moisture ?? 0) / 3600,
    };
    void session.saveBuilding(
      { ...building, indoor: room } as Building,
      'The room follows its ventilation',
      'D7',
    );
  }
  const W = 520;
  const x = (month: number) => 34 + (month * (W - 44)) / 11;
  const y = (phi: number) => 130 - Math.min(phi, 1) * 116;
</script>

<div class="columns">
  <div>
    <p class="verdict" data-testid="air-required">
      <strong>{units.full(air.q_required, 'leak_flow')} are required</strong>{#if air.governing}, by
        {NEEDS[air.governing]}{/if}; {units.full(air.q_mean, 'leak_flow')} are moved on average.
    </p>
    <table>
      <tbody>
        {#each Object.entries(air.needs) as [need, q] (need)}
          <tr class:governs={need === air.governing}
            ><th scope="row">{NEEDS[need]}</th><td class="n">{units.full(q, 'leak_flow')}</td></tr
          >
        {/each}
      </tbody>
    </table>
    <dl class="figures">
      <div>
        <dt>air, with recovery</dt>
        <dd>
          <Figure
            value={units.show(air.H_ve, 'coupling')}
            unit={units.symbol('coupling')}
            label="Air with recovery"
            weight="lead"
            onwork={work('H_ve', 'Air', 'coupling')}
          />
        </dd>
      </div>
      <div>
        <dt>without</dt>
        <dd>
          <Figure
            value={units.show(air.H_ve_without, 'coupling')}
            unit={units.symbol('coupling')}
            label="Air without recovery"
            weight="lead"
            onwork={work('H_ve_without', 'Air without recovery', 'coupling')}
          />
        </dd>
      </div>
      <div>
        <dt>recovered</dt>
        <dd>
          <Figure
            value={units.show(air.saved, 'coupling')}
            unit={units.symbol('coupling')}
            label="Recovered"
            weight="lead"
            onwork={work('saved', 'Recovered', 'coupling')}
          />
        </dd>
      </div>
      {#if air.fan_W !== null}<div>
          <dt>fans, mean</dt>
          <dd>
            <Figure
              value={units.show(air.fan_W, 'heat_flow', 0)}
              unit={units.symbol('heat_flow')}
              label="Fans"
              weight="lead"
              onwork={work('fan_W', 'Fans, mean', 'heat_flow')}
            />
          </dd>
        </div>{/if}
    </dl>
    <h2>The room's humidity <span>relative, by month, at the room’s temperature then</span></h2>
    <svg
      width={W}
      height="156"
      role="img"
      aria-label={found.rooms
        .map((one, at) => `${MONTHS[at]} ${units.show(one.phi_i, 'share', 0)} %`)
        .join(', ')}
    >
      {#each [0.2, 0.4, 0.6, 0.8] as phi (phi)}
        <path class="grid" d="M34 {y(phi)}H{W - 10}" /><text x="28" y={y(phi) + 4} text-anchor="end"
          >{phi * 100}</text
        >
      {/each}
      <polyline class="result" points={found.rooms.map((one, at) => `${x(at)},${y(one.phi_i)}`).join(' ')} />
      {#each found.rooms as one, at (at)}
        <circle cx={x(at)} cy={y(one.phi_i)} r="2.5" />
        <text x={x(at)} y="148" text-anchor="middle">{MONTHS[at]?.slice(0, 3)}</text>
      {/each}
      <text x={W - 10} y="10" text-anchor="end">%</text>
    </svg>
    <p>
      {#if follows}The room of step 5 follows it.{:else}<Button onclick={follow}
          >Let the room of step 5 follow it</Button
        >
        <span class="soft"
          >production over ventilation, {units.full(drying * 3600, 'leak_flow')} that carry moisture off; undo gives
          the room back</span
        >{/if}
    </p>
    <p class="soft">
      Supply air in January comes at {units.full(found.rooms[0]?.theta_supply ?? 0, 'temperature')}.
    </p>
  </div>
  <aside class="side">
    <PlantRows
      {building}
      {refused}
      part="air"
      title="Fresh air"
      rows={[
        { field: 'persons', text: 'persons', dimension: 'ratio', decimals: 0 },
        { field: 'q_person', text: 'air of a person', dimension: 'leak_flow' },
        { field: 'q_area', text: 'air by floor', dimension: 'leak_surface' },
        { field: 'extract', text: 'extract of kitchens and baths', dimension: 'leak_flow' },
        { field: 'n_min', text: 'least change of air', dimension: 'air_change' },
        { field: 'q_design', text: 'flow of the unit', dimension: 'leak_flow', optional: true },
        { field: 'eta_t', text: 'recovery of heat', dimension: 'share', decimals: 0 },
        { field: 'eta_x', text: 'recovery of moisture', dimension: 'share', decimals: 0 },
        { field: 'sfp', text: 'fan power', dimension: 'fan_power' },
        { field: 'low_share', text: 'share of time at low speed', dimension: 'share', decimals: 0 },
        { field: 'low_factor', text: 'flow then', dimension: 'share', decimals: 0 },
        { field: 'moisture', text: 'moisture set free', dimension: 'moisture_rate' },
        { field: 'apart', text: 'intake and exhaust apart', dimension: 'distance', optional: true },
        { field: 'apart_asked', text: 'asked by the local code', dimension: 'distance' },
      ]}
    />
    <p class="verdict" class:decision={close} data-testid="apart">
      {#if apart === undefined}How far intake and exhaust are apart is not known.{:else if close}<strong
          >Intake and exhaust are {units.full(apart, 'distance')} apart</strong
        >, asked {units.full(plant?.apart_asked ?? 3, 'distance')}: used air would come back.{:else}Intake and
        exhaust are
        {units.full(apart, 'distance')} apart, as asked.{/if}
    </p>
  </aside>
</div>

<style>
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 22px;
    margin: 8px 0;
  }
  .figures dt {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
  .figures dd {
    margin: 0;
  }
  .governs {
    font-weight: 600;
  }
  .grid {
    stroke: var(--hair);
  }
  .result {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  circle {
    fill: var(--ink);
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
</style>
