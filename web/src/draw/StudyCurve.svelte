<!-- What every thickness of the core gives: R against what is asked, cost beside it, the table under its own ticks. -->
<script lang="ts">
  import type { StudyOut, StudyPoint } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { lineThrough, scaleLinear, ticksOf } from './chart';

  interface Props {
    study: StudyOut;
    /** Whether screws, ties and wires are solved at the thickness that reaches what is asked. */
    settled: boolean;
    units: Units;
    width: number;
    stale: boolean;
    onadopt: (d: number) => void;
    onwork: (figure: string, title: string, dimension: string, d?: number) => void;
  }
  let { study, settled, units, width, stale, onadopt, onwork }: Props = $props();
  const LEFT = 44;
  const RIGHT = 10;
  const TOP = 8;
  const H = 92;
  const low = $derived(study.curve[0]?.d ?? 0);
  const high = $derived(study.curve.at(-1)?.d ?? 1);
  const R = $derived.by(() => {
    const values = [...study.curve.map((point) => point.R_clear), study.asked ?? study.present.R_clear];
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const pad = (most - least) * 0.08 + 0.05;
    return { low: Math.max(0, least - pad), high: most + pad };
  });
  const cost = $derived.by(() => {
    const values = study.curve.map((point) => point.cost);
    return { low: Math.min(...values), high: Math.max(...values) };
  });
  const x = $derived(scaleLinear([low, high], [LEFT, width - RIGHT]));
  const y = $derived(scaleLinear([R.low, R.high], [TOP + H, TOP]));
  const yCost = $derived(scaleLinear([cost.low, cost.high], [TOP + H - 6, TOP + 24]));
  const path = (f: (point: StudyPoint) => number) => lineThrough(study.curve, (point) => x(point.d), f);
  const ticks = $derived(ticksOf(units, 'resistance', R.low, R.high, 6));
  // The table's columns are the stock sizes and the present choice, where they do not collide.
  const columns = $derived.by(() => {
    const near = (a: number, b: number) => Math.abs(x(a) - x(b)) < (units.system === 'SI' ? 40 : 74);
    const chosen: StudyPoint[] = [study.present];
    for (const point of study.stock) if (!chosen.some((one) => near(one.d, point.d))) chosen.push(point);
    return chosen.toSorted((a, b) => a.d - b.d);
  });
  /** The next whole millimetre, or sixteenth of an inch. */
  function next(d: number): number {
    const step = units.system === 'SI' ? 0.001 : 0.0254 / 16;
    return Number((Math.ceil(d / step - 1e-9) * step).toFixed(7));
  }
  const isPresent = (point: StudyPoint) => point.d === study.present.d;
</script>

<div class="study" data-stale={stale} data-testid="study">
  <svg {width} height={H + TOP + 4} role="img" aria-label="Clear-wall R against thickness of the core">
    <rect class="ground" x={LEFT} y={TOP} width={width - LEFT - RIGHT} height={H} />
    {#each ticks as tick, at (at)}
      <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick.value)} y2={y(tick.value)} />
      <text class="axis" x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
    {/each}
    <path class="cost" d={path((point) => yCost(point.cost))} />
    <text class="soft" x={width - RIGHT - 4} y={TOP + H - 5} text-anchor="end">dashed: cost, own scale</text>
    <path class="result" d={path((point) => y(point.R_clear))} />
    {#each study.stock as point (point.d)}
      <circle class="knot" cx={x(point.d)} cy={y(point.R_clear)} r="3.2" />
    {/each}
    {#if study.asked !== null}
      <line
        class="asked"
        class:open={!study.met}
        x1={LEFT}
        x2={width - RIGHT}
        y1={y(study.asked)}
        y2={y(study.asked)}
      />
      <text class="limit" class:open={!study.met} x={LEFT + 5} y={y(study.asked) - 5}
        >asked {units.show(study.asked, 'resistance')}</text
      >
      {#if study.d_asked !== null && study.d_asked >= low && study.d_asked <= high}
        <path class="drop" d="M{x(study.d_asked)} {y(study.asked)}V{TOP + H}" />
        <rect class="cross" x={x(study.d_asked) - 3.5} y={y(study.asked) - 3.5} width="7" height="7" />
      {/if}
    {/if}
    <path class="present" d="M{x(study.present.d)} {y(study.present.R_clear)}V{TOP + H + 4}" />
    <circle class="now" cx={x(study.present.d)} cy={y(study.present.R_clear)} r="5.5" />
  </svg>
  <table>
    <caption class="visually-hidden">Thickness study of the core</caption>
    <tbody>
      <tr>
        <th scope="row">core</th>
        {#each columns as point (point.d)}
          <td class:on={isPresent(point)} style:left="{x(point.d)}px">
            {#if isPresent(point)}<b>{units.length(point.d)}</b>{:else}
              <button onclick={() => onadopt(point.d)} aria-label="Adopt {units.full(point.d, 'length')}"
                >{units.length(point.d)}</button
              >
            {/if}
          </td>
        {/each}
      </tr>
      <tr>
        <th scope="row">R</th>
        {#each columns as point (point.d)}
          <td class:on={isPresent(point)} style:left="{x(point.d)}px">
            <button
              class="work"
              onclick={() =>
                onwork('R_clear', `Clear-wall R at ${units.full(point.d, 'length')}`, 'resistance', point.d)}
              >{units.show(point.R_clear, 'resistance')}</button
            >
          </td>
        {/each}
      </tr>
      <tr>
        <th scope="row">cost</th>
        {#each columns as point (point.d)}
          <td class:on={isPresent(point)} style:left="{x(point.d)}px"
            ><button
              class="work"
              onclick={() => onwork('cost', `Cost at ${units.full(point.d, 'length')}`, 'cost', point.d)}
              >{units.show(point.cost, 'cost', 0)}</button
            ></td
          >
        {/each}
      </tr>
      <tr>
        <th scope="row">wall</th>
        {#each columns as point (point.d)}
          <td class:on={isPresent(point)} style:left="{x(point.d)}px"
            ><button
              class="work"
              onclick={() =>
                onwork('thickness', `Wall at ${units.full(point.d, 'length')} of core`, 'length', point.d)}
              >{units.length(point.thickness)}</button
            ></td
          >
        {/each}
      </tr>
    </tbody>
  </table>
  <p class="reach">
    {#if study.asked === null}
      No R is asked of walls.
    {:else if study.d_asked !== null}
      {settled ? 'Exactly' : 'About'}
      <button
        class="exact"
        onclick={() => onwork('d_core', 'Core that reaches what is asked', 'length')}
        data-testid="d-asked"
        >{units.system === 'SI'
          ? `${units.show(study.d_asked, 'length', 1)} mm`
          : units.length(study.d_asked)}</button
      >
      of core reach the asked {units.full(study.asked, 'resistance')}{settled
        ? '.'
        : ': its screws, ties and wires are taken as at the thickness they were solved at.'}
      <button class="take" onclick={() => study.d_asked !== null && onadopt(next(study.d_asked))}
        >Take {units.full(next(study.d_asked), 'length')}</button
      >
    {:else}
      No thickness of this core reaches {units.full(study.asked, 'resistance')}: {study.why_not}.
    {/if}
  </p>
</div>

<style>
  .axis,
  .soft {
    fill: var(--ink-3);
  }
  .cost {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 1.25;
    stroke-dasharray: 5 4;
  }
  .knot {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .asked {
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .asked.open {
    stroke: var(--oxide);
  }
  .limit.open {
    fill: var(--oxide);
  }
  .limit {
    font-weight: 500;
    paint-order: stroke;
    stroke: var(--sheet-bright);
    stroke-width: 4px;
  }
  .drop {
    stroke: var(--ink-2);
    stroke-dasharray: 2 3;
  }
  .cross {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .present {
    stroke: var(--verdigris);
  }
  .now {
    fill: var(--verdigris);
  }
  table {
    display: block;
    position: relative;
    font: 400 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
  }
  tbody {
    display: block;
  }
  tr {
    display: block;
    position: relative;
    height: 24px;
  }
  th {
    font: 400 var(--fs-small) var(--sans);
    color: var(--ink-2);
    position: absolute;
    left: 0;
    top: 4px;
  }
  td {
    position: absolute;
    transform: translateX(-50%);
    min-width: 42px;
    height: 24px;
    line-height: 24px;
    text-align: center;
    white-space: nowrap;
  }
  td.on {
    background: var(--verdigris-wash);
    color: var(--ink);
    font-weight: 600;
  }
  td b {
    color: var(--verdigris);
  }
  td button,
  .exact {
    border: 0;
    background: none;
    font: inherit;
    min-height: 24px;
    min-width: 24px;
    text-decoration: underline solid var(--line) 1px;
    text-underline-offset: 3px;
    min-width: 24px;
    height: 24px;
  }
  td .work,
  .exact {
    text-decoration-style: dotted;
  }
  td button:hover,
  .exact:hover {
    color: var(--verdigris);
  }
  .exact {
    font: 600 var(--fs-small) var(--mono);
  }
  .reach {
    font-size: 12.5px;
    margin-top: 6px;
  }
  .take {
    border: 0;
    background: none;
    color: var(--verdigris);
    font-weight: 600;
    text-decoration: underline;
    min-height: 24px;
  }
</style>
