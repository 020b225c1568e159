<!-- What leaks, what nature and a hood draw through it, and what that means for a fire. -->
<script lang="ts">
  import type { Building, WholeBuilding } from '@/api/client';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { opens, savePlant } from '@/project/whole.svelte';
  import PlantRows from './PlantRows.svelte';
  import PressureHeight from './PressureHeight.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found, building, units, refused }: Props = $props();
  const leaks = $derived(found.leaks);
  const rows = $derived(leaks.rows.toSorted((a, b) => (b.q[1] ?? 0) - (a.q[1] ?? 0)));
  const most = $derived(Math.max(...rows.map((one) => one.q[2] ?? 0), 1e-9));
  const asked = $derived(building.plant?.tightness?.n50_asked ?? undefined);
  const [low = 0, likely = 0, high = 0] = $derived(leaks.n50);
  const missed = $derived(asked !== undefined && likely > asked);
  const fire = $derived(building.plant?.fire);
  const drawn = $derived(found.drawn);
  const work = (figure: string, title: string, dimension: string) =>
    opens(found, building.id, figure, title, dimension);
  const saveFlue = (flue: boolean) =>
    savePlant(
      building,
      'fire',
      'flue',
      flue,
      flue ? 'A fire takes air from the room' : 'No fire takes air from the room',
    );
  const width = (q: number | undefined) => ((q ?? 0) / most) * 220;
</script>

<div class="columns">
  <div>
    <p class="verdict" class:decision={missed} data-testid="n50-verdict">
      <strong>n50 {units.show(likely, 'air_change')} 1/h</strong>, by its seals {units.show(
        low,
        'air_change',
      )} to
      {units.show(high, 'air_change')}.
      {#if asked === undefined}Nothing is asked of it.{:else if missed}Asked {units.show(
          asked,
          'air_change',
        )}: needs a decision. “{rows[0]?.name}” leaks most: one more line of seal there, or another grade.{:else}Asked
        {units.show(asked, 'air_change')}{high > asked
          ? ', which the high end of its range misses'
          : ''}.{/if}
    </p>
    <h2>Leak budget <span>{units.symbol('leak_flow')} at 50 Pa, likely, with low and high</span></h2>
    <table data-testid="leaks">
      <tbody>
        {#each rows as one (one.id)}
          <tr>
            <td class="station">{one.station}</td>
            <th scope="row"
              >{#if one.joint}<a
                  href={href({
                    ...router.place,
                    station: one.station,
                    step: 3,
                    element: one.joint,
                    view: '',
                  })}
                  onclick={(event) => {
                    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                    event.preventDefault();
                    router.go({ station: one.station, step: 3, element: one.joint, view: '' });
                  }}>{one.name}</a
                >{:else}{one.name}{/if}</th
            >
            <td
              ><svg width="230" height="16" aria-hidden="true"
                ><rect x="0" y="3" width={width(one.q[1])} height="10" fill="url(#h-loss)" /><path
                  d="M{width(one.q[0])} 8H{width(one.q[2])}M{width(one.q[0])} 5v6M{width(one.q[2])} 5v6"
                /></svg
              ></td
            >
            <td class="n">{units.show(one.q[1] ?? 0, 'leak_flow', 1)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <dl class="figures">
      <div>
        <dt>q50</dt>
        <dd>
          <Figure
            value={units.show(leaks.q50[1] ?? 0, 'leak_flow')}
            unit={units.symbol('leak_flow')}
            label="Leakage at 50 Pa"
            weight="lead"
            onwork={work('q50', 'Leakage at 50 Pa', 'leak_flow')}
          />
        </dd>
      </div>
      <div>
        <dt>n50</dt>
        <dd>
          <Figure
            value={units.show(likely, 'air_change')}
            unit="1/h"
            label="n50"
            weight="lead"
            tone={missed ? 'decision' : 'ink'}
            onwork={work('n50', 'Changes of air at 50 Pa', 'air_change')}
          />
        </dd>
      </div>
      <div>
        <dt>over the envelope</dt>
        <dd>
          <Figure
            value={units.show(leaks.qE50[1] ?? 0, 'leak_surface')}
            unit={units.symbol('leak_surface')}
            label="Leakage over the envelope"
            weight="lead"
            onwork={work('qE50', 'Leakage over the envelope', 'leak_surface')}
          />
        </dd>
      </div>
      <div>
        <dt>leakage area, ELA4</dt>
        <dd>
          <Figure
            value={units.show(leaks.ELA4[1] ?? 0, 'leak_area')}
            unit={units.symbol('leak_area')}
            label="Effective leakage area"
            weight="lead"
            onwork={work('ELA4', 'Effective leakage area', 'leak_area')}
          />
        </dd>
      </div>
      <div>
        <dt>infiltration of the year</dt>
        <dd>
          <Figure
            value={units.show(leaks.q_inf[1] ?? 0, 'leak_flow', 1)}
            unit={units.symbol('leak_flow')}
            label="Infiltration"
            weight="lead"
            onwork={work('q_inf', 'Infiltration', 'leak_flow')}
          />
        </dd>
      </div>
    </dl>
    <p class="soft method">
      Leakage by grade of seal is a range of the trade, set in the Basis; a joint whose seals nobody has
      decided counts by its schedule. Only a fan test says what was built.
    </p>
    <PlantRows
      {building}
      {refused}
      part="tightness"
      title="Air line"
      rows={[
        { field: 'n50_asked', text: 'n50 asked', dimension: 'air_change', optional: true },
        { field: 'openings', text: 'gaps of windows and doors', dimension: 'joint_flow', three: true },
        { field: 'services', text: 'passages of services, number', dimension: 'ratio', decimals: 0 },
        { field: 'service', text: 'each of them', dimension: 'leak_flow', decimals: 1, three: true },
        { field: 'surfaces', text: 'panels and boards themselves', dimension: 'leak_surface', three: true },
        { field: 'exponent', text: 'flow exponent n', dimension: 'ratio', decimals: 2 },
        { field: 'shelter_e', text: 'shelter e, ISO 13789', dimension: 'ratio' },
      ]}
    />
  </div>
  <aside class="side">
    <h2>
      Pressure over the height <span>at {units.full(found.natural.theta_e, 'temperature')}, no wind</span>
    </h2>
    <PressureHeight natural={found.natural} sizes={found.sizes} {units} />
    <h2>A fire or hood in the tight building</h2>
    {#if drawn?.ok === false}
      <p class="verdict decision" data-testid="draught">
        <strong>{units.full(drawn.depressurisation ?? 0, 'small_pressure')} below the outside</strong> at the
        flue, with a limit of {units.full(fire?.limit ?? 4, 'small_pressure')}: smoke may come back into the
        room.
        {#if drawn.makeup_A}A make-up opening of {units.full(drawn.makeup_A * 1e4, 'leak_area')} keeps the limit,
          or
        {/if}an extract of at most {units.full(drawn.allowed_extract ?? 0, 'leak_flow')}.
      </p>
    {:else if drawn?.ok}
      <p class="verdict" data-testid="draught">
        <strong>{units.full(drawn.depressurisation ?? 0, 'small_pressure')}</strong> below the outside at the
        flue, within
        {units.full(fire?.limit ?? 4, 'small_pressure')}. At most {units.full(
          drawn.allowed_extract ?? 0,
          'leak_flow',
        )} may be drawn.
      </p>
    {:else}
      <p class="soft">
        {drawn
          ? 'The hood draws the room to ' +
            units.full(-drawn.p_int, 'small_pressure') +
            ' below the outside at the floor. '
          : ''}No fire takes its air from the room.
      </p>
    {/if}
    <PlantRows
      {building}
      {refused}
      part="fire"
      title="Fire and hood"
      rows={[
        { field: 'hood', text: 'extract of the hood', dimension: 'leak_flow' },
        { field: 'flue_z', text: 'flue opens above the floor', dimension: 'distance' },
        { field: 'limit', text: 'limit of the appliance', dimension: 'small_pressure' },
        { field: 'wind', text: 'wind', dimension: 'speed' },
      ]}
    />
    <label class="check"
      ><input
        type="checkbox"
        checked={fire?.flue ?? false}
        onchange={(event) => saveFlue(event.currentTarget.checked)}
      /> a fire takes its air from the room</label
    >
    <Notice
      tone="caution"
      title="Combustion in a tight room can kill."
      text="These figures screen a plan. Appliance, flue and make-up air are decided by the local code and a licensed installer, and tried with all fans running."
    />
  </aside>
</div>

<style>
  .station {
    width: 14px;
    font: 600 11.5px var(--mono);
  }
  th {
    color: var(--ink);
    font-size: var(--fs-small);
  }
  th a {
    color: inherit;
  }
  rect {
    stroke: var(--ochre-line);
    stroke-width: 0.75;
  }
  path {
    stroke: var(--ink);
    fill: none;
  }
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
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 24px;
    margin: 6px 0;
  }
</style>
