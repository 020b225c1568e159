<!-- Where the heat goes: every loss a bar that hangs from its place, and their sum. -->
<script lang="ts">
  import type { Building, BuildingSection, HungLoss, WholeBuilding } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Figure from '@/kit/Figure.svelte';
  import type { Units } from '@/kit/units';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { opens, savePlant } from '@/project/whole.svelte';
  import BuildingCut from './BuildingCut.svelte';
  import { HATCH, KINDS, ROW, hung, stationsOf, type Order } from './hung';
  import PlantRows from './PlantRows.svelte';

  interface Props {
    found: WholeBuilding;
    cut: BuildingSection | undefined;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found, cut, building, units, refused }: Props = $props();
  const place = $derived(router.place);
  const GAS = [
    { field: 'gas_pipe', text: 'passive pipe under the floor' },
    { field: 'gas_membrane', text: 'membrane, taped to the walls’ air line' },
    { field: 'gas_fan', text: 'place and power for a fan' },
  ] as const;
  const SPACE = 'unheated space';
  const b = $derived(found.sums.b[SPACE]);
  const sun = $derived(building.plant?.buffer?.sun ?? 0);
  const gasSaid = $derived.by(() => {
    const said = GAS.map((one) => building.plant?.ground?.[one.field] ?? 'unknown');
    if (said.every((one) => one === 'yes')) return 'The path of soil gas is closed, and ready for a fan.';
    return said.includes('no')
      ? 'The path of soil gas is broken.'
      : 'It is not known whether the path of soil gas is closed.';
  });
  let order = $state<Order>('station');
  let width = $state(1044);
  const rows = $derived(hung(found.losses, order));
  const height = $derived((rows.at(-1)?.y ?? 0) + ROW + 6);
  const spans = $derived(order === 'station' ? stationsOf(rows) : []);
  const known = $derived(found.losses.map((one) => one.H ?? 0));
  const most = $derived(Math.max(...known, 1e-9));
  const least = $derived(Math.min(...known, 0));
  const left = $derived(order === 'station' ? Math.max(300, Math.min(470, width * 0.42)) : 40);
  const room = $derived(Math.max(160, width - left - 150 - 250));
  const scale = $derived(room / (most - least));
  const datum = $derived(-least * scale);
  const H = $derived(found.sums.H);
  const climate = $derived(session.open?.project.basis.site?.theta_winter ?? 0);
  const inside = $derived(session.open?.project.basis.indoor?.theta_heating ?? 20);

  function way(loss: HungLoss) {
    const id = loss.id.split('/')[0] ?? '';
    if (loss.kind === 'air') return { step: 7, view: loss.id === 'infiltration' ? 'air' : 'fresh' };
    if (loss.kind === 'ground') return { step: 7, view: '' };
    if (loss.kind === 'joints') return { step: 3, station: loss.station, element: id };
    if (loss.kind === 'fixings')
      return { step: loss.id.includes('/') ? 4 : 3, station: loss.station, element: id };
    return { step: 2, station: loss.station, element: id };
  }
  function go(event: MouseEvent, loss: HungLoss): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ element: '', view: '', ...way(loss) });
  }
  function toMeasures(event: MouseEvent): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ view: 'measures' });
  }
  const amount = (loss: HungLoss) => {
    if (loss.unit === 'air') return units.full(loss.amount, 'leak_flow', 0);
    if (loss.unit === '') return `${loss.amount}`;
    const per = loss.H === null || !loss.amount ? undefined : loss.H / loss.amount;
    const by = loss.unit === 'area' ? 'transmittance' : 'linear';
    return `${units.full(loss.amount, loss.unit, 1)}${per === undefined ? '' : ` × ${units.show(per, by, 3)}`}`;
  };
  const parts = $derived(
    KINDS.map(({ kind, text }) => ({
      kind,
      text,
      H: found.losses.filter((one) => one.kind === kind).reduce((sum, one) => sum + (one.H ?? 0), 0),
    })).filter((one) => one.H > 0),
  );
  const all = $derived(parts.reduce((sum, one) => sum + one.H, 0));
  const small = $derived(parts.filter((one) => (width * one.H) / all <= 86));
  const soFar = $derived(found.whole ? '' : ', so far');
</script>

<div class="ways" role="group" aria-label="Order">
  {#each [{ key: 'station', text: 'by station' }, { key: 'loss', text: 'by loss' }] as const as one (one.key)}
    <button class:on={order === one.key} aria-pressed={order === one.key} onclick={() => (order = one.key)}
      >{one.text}</button
    >
  {/each}
  <a href={href({ ...place, view: 'measures' })} onclick={toMeasures}>by gain for the money</a>
  <span class="soft">At one scale. What is negative was counted too large by its areas.</span>
</div>

<div class="hung" bind:clientWidth={width}>
  {#if order === 'station' && cut}
    <BuildingCut
      {cut}
      {spans}
      {units}
      width={left}
      height={Math.max(height, 360)}
      outside="outside {units.full(climate, 'temperature', 0)} by design"
      inside={units.full(inside, 'temperature', 0)}
    />
  {/if}
  <table style:--row="{ROW}px" data-testid="losses">
    <caption class="visually-hidden"
      >Heat loss of every area, joint, fixing, of the ground and the air</caption
    >
    <thead class="visually-hidden">
      <tr><th>station</th><th>what</th><th>loss</th><th>share</th></tr>
    </thead>
    <tbody>
      {#each rows as { loss, first }, at (loss.id)}
        {#if first && at > 0}<tr class="gap" aria-hidden="true"><td colspan="4"></td></tr>{/if}
        <tr>
          <td class="station"
            >{#if order === 'loss'}{loss.station}{:else}<span class="visually-hidden">{loss.station}</span
              >{/if}</td
          >
          <th
            scope="row"
            class:strong={loss.kind === 'areas' || loss.kind === 'glazing' || loss.kind === 'ground'}
            ><a
              href={href({ ...place, element: '', view: '', ...way(loss) })}
              onclick={(event) => go(event, loss)}>{loss.name}</a
            ></th
          >
          <td class="bar"
            ><div>
              <svg width={datum + most * scale + 4} height={ROW} aria-hidden="true">
                {#if loss.H === null}
                  <rect class="unknown" x={datum} y="4.5" width={room * 0.12} height={ROW - 9} />
                {:else}
                  <rect
                    x={datum + Math.min(loss.H, 0) * scale}
                    y="4.5"
                    width={Math.max(Math.abs(loss.H) * scale, 1)}
                    height={ROW - 9}
                    fill={HATCH[loss.kind]}
                  />
                {/if}
                <path class="datum" d="M{datum} 0V{ROW}" />
              </svg>
              <span class="amount"
                ><b>{loss.H === null ? '–' : units.show(loss.H, 'coupling', Math.abs(loss.H) < 10 ? 2 : 1)}</b
                >
                <i>{loss.H === null ? `${amount(loss)}, being solved` : amount(loss)}</i></span
              >
            </div></td
          >
          <td class="n"
            >{loss.H === null || !H || !found.whole ? '' : `${units.show(loss.H / H, 'share', 1)} %`}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<figure class="string" class:part={!found.whole}>
  <svg
    {width}
    height="40"
    role="img"
    aria-label={parts.map((one) => `${one.text} ${units.full(one.H, 'coupling')}`).join(', ')}
  >
    {#each parts as one, at (one.kind)}
      {@const before = parts.slice(0, at).reduce((sum, each) => sum + each.H, 0)}
      {@const from = (width * before) / all}
      {@const long = (width * one.H) / all}
      <rect x={from} y="1" width={long} height="15" fill={HATCH[one.kind]} />
      <path class="tick" d="M{from} 16v8" />
      {#if long > 86}<text x={from + 4} y="32">{one.text} {units.show(one.H, 'coupling')}</text>{/if}
    {/each}
    <path class="tick" d="M0 20H{width}M{width} 16v8" />
  </svg>
  {#if small.length}<figcaption>
      {small.map((one) => `${one.text} ${units.show(one.H, 'coupling')}`).join(', ')}
    </figcaption>{/if}
</figure>

<dl class="figures" data-testid="whole-sums">
  <div>
    <dt>heat loss{soFar}</dt>
    <dd>
      <Figure
        value={units.show(found.sums.H, 'coupling')}
        unit={units.symbol('coupling')}
        label="Heat loss"
        weight="figure"
        onwork={opens(found, building.id, 'H', 'Heat loss, transmission and air', 'coupling')}
      />
    </dd>
  </div>
  <div>
    <dt>transmission{soFar}</dt>
    <dd>
      <Figure
        value={units.show(found.sums.H_tr, 'coupling')}
        unit={units.symbol('coupling')}
        label="Transmission"
        weight="lead"
        onwork={opens(found, building.id, 'H_tr', 'Transmission', 'coupling')}
      />
    </dd>
  </div>
  <div>
    <dt>effective R over {units.full(found.A, 'area', 0)}, air apart{soFar}</dt>
    <dd>
      <Figure
        value={found.R_effective === null ? '–' : units.show(found.R_effective, 'resistance')}
        unit={units.symbol('resistance')}
        label="Effective R"
        weight="lead"
        onwork={opens(found, building.id, 'R_effective', 'Effective R, ground and all', 'resistance')}
      />
    </dd>
  </div>
  {#each Object.entries(found.sums.groups) as [station, group] (station)}
    <div>
      <dt>{station} whole R, clear {units.show(group.R_clear, 'resistance')}</dt>
      <dd>
        <Figure
          value={units.show(group.R_whole, 'resistance')}
          unit={units.symbol('resistance')}
          label="Whole R of {station}"
          weight="lead"
          onwork={opens(
            found,
            building.id,
            `R_whole_${station}`,
            `Whole R of station ${station}`,
            'resistance',
          )}
        />
      </dd>
    </div>
  {/each}
  {#if found.ground}
    <div>
      <dt>ground, {found.ground.kind}, U</dt>
      <dd>
        <Figure
          value={units.show(found.ground.U, 'transmittance')}
          unit={units.symbol('transmittance')}
          label="U of the ground floor"
          weight="lead"
          onwork={opens(found, building.id, 'ground_U', 'Floor with its ground, ISO 13370', 'transmittance')}
        />
      </dd>
    </div>
  {/if}
</dl>

<p class="paper">
  <a
    href="/api/v1/projects/{session.open?.project
      .id}/buildings/{building.id}/specification.pdf?units={session.system}"
    >Specification of the whole shell, PDF</a
  >
</p>

<details>
  <summary>Ground and spaces beside the rooms</summary>
  <PlantRows
    {building}
    {refused}
    part="ground"
    title="Ground"
    rows={[
      { field: 'lambda', text: 'conductivity of the soil', dimension: 'conductivity' },
      { field: 'rho_c', text: 'heat capacity of the soil', dimension: 'soil_capacity' },
      { field: 'edge_depth', text: 'upright foam at the edge, depth', dimension: 'length' },
      { field: 'edge_width', text: 'level foam at the edge, width', dimension: 'length' },
      { field: 'edge_d', text: 'its thickness', dimension: 'length' },
      { field: 'edge_lambda', text: 'its conductivity', dimension: 'conductivity' },
      { field: 'frost', text: 'frost reaches', dimension: 'length', optional: true },
      { field: 'footing', text: 'the footing stands', dimension: 'length', optional: true },
    ]}
  />
  <section data-testid="soil-gas">
    <h3>Soil gas <span>lines under the floor, from the soil up</span></h3>
    <div class="gas">
      {#each GAS as one (one.field)}
        <Choice
          label={one.text}
          value={building.plant?.ground?.[one.field] ?? 'unknown'}
          options={[
            { value: 'unknown', text: 'nobody has said' },
            { value: 'yes', text: 'there' },
            { value: 'no', text: 'not there' },
          ]}
          onsave={(value) =>
            savePlant(building, 'ground', one.field, value, `Soil gas: ${one.text} ${value}`)}
        />
      {/each}
    </div>
    <p class="soft">
      {gasSaid} Where soil gas has to be kept out the local code and a reading in the finished room decide.
    </p>
  </section>
  <PlantRows
    {building}
    {refused}
    part="buffer"
    title="Unheated space"
    rows={[
      { field: 'H_outwards', text: 'from it to the outside', dimension: 'coupling' },
      { field: 'V', text: 'its air', dimension: 'volume' },
      { field: 'n', text: 'changes of its air', dimension: 'air_change' },
      { field: 'sun', text: 'winter sun that its glass takes in, mean', dimension: 'heat_flow', decimals: 0 },
    ]}
  />
  <p class="soft" data-testid="buffer">
    {#if b === undefined}
      No face looks to an unheated space of which anything is known: without figures it counts as the outside{sun
        ? ', and its winter sun is not counted'
        : ''}.
    {:else}
      It lies below the rooms by this share of their difference to the outside: b
      <Figure
        value={units.show(b, 'ratio')}
        unit=""
        label="b of the unheated space"
        weight="lead"
        onwork={opens(found, building.id, `b_${SPACE}`, 'b of the unheated space', 'ratio')}
      />. {sun
        ? `Of its winter sun ${units.full((1 - b) * sun, 'heat_flow', 0)} reach the rooms, in the year’s need alone.`
        : 'If it is glazed, its winter sun is not counted: none is entered.'}
    {/if}
  </p>
  <p class="soft">
    Slabs by ISO 13370 lie 5 % below to 1 % above a solution in finite volumes, foam at edges 8 % below to 4 %
    above, basements 3 to 10 % below.
  </p>
</details>

<style>
  .paper a {
    color: var(--verdigris);
  }
  .ways a {
    padding: 2px 10px;
    color: inherit;
  }
  .hung {
    display: flex;
    align-items: flex-start;
  }
  table {
    flex: 1;
    margin: 4px 0 0;
  }
  tr {
    height: var(--row);
  }
  tr.gap {
    height: 7px;
  }
  td,
  th {
    border: 0;
    padding: 0 6px 0 0;
    line-height: 1;
  }
  tr.gap td {
    height: 7px;
  }
  .station {
    width: 12px;
    font: 600 11.5px var(--mono);
  }
  th {
    text-align: right;
    width: 170px;
    padding-right: 10px;
    font-size: var(--fs-small);
    color: var(--ink);
  }
  th.strong {
    font-weight: 600;
  }
  th a {
    color: inherit;
    text-decoration: none;
  }
  th a:hover {
    text-decoration: underline;
  }
  .bar div {
    display: flex;
    align-items: center;
    white-space: nowrap;
  }
  .bar svg {
    flex: none;
  }
  rect {
    stroke: var(--ink);
    stroke-width: 0.9;
  }
  rect.unknown {
    fill: none;
    stroke-dasharray: 4 3;
  }
  .datum {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .amount b {
    font: 600 12.5px var(--mono);
  }
  .amount i {
    font: 400 11.5px var(--mono);
    color: var(--ink-2);
    margin-left: 6px;
  }
  .n {
    font-size: 12px;
    width: 52px;
  }
  .string {
    margin: 10px 0 4px;
  }
  .string text {
    font: 500 12px var(--mono);
    fill: var(--ink);
  }
  .string.part rect {
    stroke-dasharray: 4 3;
  }
  .tick {
    stroke: var(--ink-2);
    stroke-width: 0.75;
  }
  figcaption {
    font: 500 12px var(--mono);
    text-align: right;
  }
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 28px;
    margin: 8px 0;
  }
  .figures dt {
    font-size: var(--fs-cap);
    color: var(--ink-3);
  }
  .figures dd {
    margin: 0;
  }
  .gas {
    display: grid;
    gap: 2px;
    justify-items: end;
    max-width: 460px;
  }
  details {
    margin-top: 10px;
  }
</style>
