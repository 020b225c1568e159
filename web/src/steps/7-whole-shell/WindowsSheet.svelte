<!-- Which glass where: the share that a wall bears, and the sun that an overhang keeps out and lets in. -->
<script lang="ts">
  import { api, inBuilding, take } from '@/api/client';
  import type { Building, Glazed, WholeBuilding } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { stream } from '@/api/stream.svelte';
  import { lineThrough, scaleLinear, ticksOf } from '@/draw/chart';
  import { bearing } from '@/kit/bearing';
  import { MONTHS } from '@/kit/months';
  import type { Units } from '@/kit/units';
  import { families } from '@/project/families.svelte';
  import { session } from '@/project/session.svelte';
  import PlantRows from './PlantRows.svelte';
  import WindowPlace from './WindowPlace.svelte';

  interface Props {
    found: WholeBuilding;
    building: Building;
    units: Units;
    refused: (pointer: string) => string | undefined;
  }
  let { found: sum, building, units, refused }: Props = $props();
  let answers = $state(0);
  const live = asking(
    () => ({
      project: session.open?.project.id ?? '',
      building: building.id,
      revision: session.open?.revision ?? 0,
      answers,
    }),
    ({ project, building }): Promise<Glazed> =>
      take(
        api.GET(
          '/api/v1/projects/{project_id}/buildings/{building_id}/glazing',
          inBuilding(project, building),
        ),
      ),
  );
  const found = $derived(live.answer);
  const lacking = $derived(found?.lacking ?? []);
  $effect(() => {
    if (lacking.length) answers = stream.answers;
  });
  void families.start();
  /** Joints round openings, whose frame has a place in the depth of the wall. */
  const set = $derived(
    (building.joints ?? []).flatMap((joint) => {
      const family = families.of(joint.family);
      const variant = family?.variants.find((one) => one.key === joint.variant);
      return family && variant?.parameters.some((one) => one.key === 'position') ? [{ joint, family }] : [];
    }),
  );
  const name = (azimuth: number | null | undefined) =>
    azimuth === null || azimuth === undefined
      ? 'the building'
      : `${bearing(azimuth)}, ${Math.round(azimuth)}°`;
  const H = 230;
  let width = $state(560);
  const x = $derived(scaleLinear([0, 0.6], [54, width - 130]));
  const most = $derived(
    Math.max(...(found?.orientations.flatMap((one) => one.curve) ?? []), found?.R_plain ?? 1) * 1.06,
  );
  const y = $derived(scaleLinear([0, most], [H - 28, 10]));
  const all = $derived(found?.orientations.find((one) => one.azimuth === null));
  const percent = (share: number | null | undefined) =>
    share === null || share === undefined ? '–' : `${units.show(share, 'share', 0)} %`;
  const CELL = 13;
</script>

{#if live.problem}<p role="alert">{live.problem.sentence}</p>{/if}
{#if found}
  <div class="columns">
    <div>
      {#if all}
        <p class="verdict" class:part={lacking.length} data-testid="break-even">
          {#if lacking.length}
            <strong
              >Not known yet, without {lacking.slice(0, 3).join(', ')}{lacking.length > 3
                ? ' …'
                : ''}.</strong
            >
            What is drawn and listed is so far.
          {:else}
            {#if all.break_even === null}<strong
                >No share of glazing makes these walls as a plain framed one.</strong
              >{:else}<strong
                >At {percent(all.break_even)} glazing the walls are as a plain framed wall</strong
              >
              of R {units.full(found.R_plain, 'resistance')}.{/if}
            Now {percent(all.share)} of them is glass, and their R with it is {all.R === null
              ? '–'
              : units.show(all.R, 'resistance')} in the place of {units.show(all.R_opaque, 'resistance')}.
          {/if}
        </p>
        <div bind:clientWidth={width}>
          <svg
            {width}
            height={H}
            role="img"
            aria-label="Resistance of the walls over the share that is glazed"
          >
            {#each ticksOf(units, 'resistance', 0, most, 5) as tick (tick.shown)}
              <path class="grid" d="M54 {y(tick.value)}H{width - 130}" /><text
                x="48"
                y={y(tick.value) + 4}
                text-anchor="end">{tick.shown}</text
              >
            {/each}
            {#each [0, 0.2, 0.4, 0.6] as share (share)}<text x={x(share)} y={H - 10} text-anchor="middle"
                >{share * 100} %</text
              >{/each}
            {#if lacking.length}<text x={width - 140} y="24" text-anchor="end">so far</text>{/if}
            <path class="plain" d="M54 {y(found.R_plain)}H{width - 130}" />
            <text x={width - 126} y={y(found.R_plain) + 4}>plain framed</text>
            {#each found.orientations as one (one.azimuth)}
              <path
                class:whole={one.azimuth === null}
                class="line"
                d={lineThrough(
                  one.curve,
                  (_, at) => x(at * 0.05),
                  (R) => y(R),
                )}
              />
              {#if one.R !== null}<circle
                  class:whole={one.azimuth === null}
                  cx={x(Math.min(one.share, 0.6))}
                  cy={y(one.R)}
                  r={one.azimuth === null ? 4.5 : 3}
                />{/if}
            {/each}
            <text x={width - 126} y={y(all.curve.at(-1) ?? 0) + 4}>the building</text>
            <text x="54" y="10"
              >R, {units.symbol('resistance')}, over the share of the wall that is glass; rings are as drawn</text
            >
          </svg>
        </div>
      {/if}
      <table data-testid="orientations">
        <thead
          ><tr
            ><th>walls that look</th><th class="n">gross</th><th class="n">glazed</th><th class="n"
              >R opaque</th
            ><th class="n">R with it</th><th class="n">as plain framed at</th><th class="n"
              >sun let in, summer</th
            ><th class="n">winter</th></tr
          ></thead
        >
        <tbody>
          {#each found.orientations as one (one.azimuth)}
            {@const sun = found.shadings.find((each) => each.azimuth === one.azimuth)}
            <tr>
              <th scope="row">{name(one.azimuth)}</th><td class="n">{units.full(one.A, 'area', 0)}</td><td
                class="n">{percent(one.share)}</td
              >
              <td class="n">{units.show(one.R_opaque, 'resistance')}</td><td class="n"
                >{one.R === null ? '–' : units.show(one.R, 'resistance')}</td
              >
              <td class="n">{percent(one.break_even)}</td><td class="n">{sun ? percent(sun.summer) : ''}</td
              ><td class="n">{sun ? percent(sun.winter) : ''}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if set.length}
        <h2>
          Place in the depth of the wall <span
            >installed ψ; 0 % is flush with the outer face, 100 % with the inner one</span
          >
        </h2>
        {#each set as { joint, family } (joint.id)}
          <WindowPlace {joint} {family} found={sum} {building} {units} />
        {/each}
      {/if}
      <h2>
        Sun on the windows <span
          >hour by month on clear days, at this latitude; dark is shaded, empty is no sun</span
        >
      </h2>
      <div class="fields">
        {#each found.shadings as one (one.azimuth)}
          <figure>
            <figcaption><b>{name(one.azimuth)}</b> {units.full(one.area, 'area')}</figcaption>
            <svg
              width={12 * CELL + 30}
              height={16 * 8 + 22}
              role="img"
              aria-label="{name(one.azimuth)}: {percent(one.summer)} of the summer beam and {percent(
                one.winter,
              )} of the winter beam come in"
            >
              {#each one.hours as hours, month (month)}
                {#each hours.slice(4, 20) as lit, at (at)}
                  {#if lit !== null}
                    <rect
                      x={28 + month * CELL}
                      y={at * 8}
                      width={CELL}
                      height="8"
                      fill="var(--ink)"
                      fill-opacity={0.06 + 0.8 * (1 - lit)}
                    />
                  {/if}
                {/each}
                <text x={28 + month * CELL + CELL / 2} y={16 * 8 + 14} text-anchor="middle"
                  >{MONTHS[month]?.slice(0, 1)}</text
                >
              {/each}
              {#each [6, 12, 18] as hour (hour)}<text x="24" y={(hour - 4) * 8 + 4} text-anchor="end"
                  >{hour}</text
                >{/each}
            </svg>
            <p class="soft">
              {#if one.best.d_max === null || one.best.d_min < 0.001}no sun on it at noon then{:else}an
                endless plate from {units.length(one.best.d_min)}
                shades all of it at noon on 1 July, up to {units.length(one.best.d_max)} leaves it whole on 21 December{one
                  .best.feasible
                  ? ''
                  : ': not both'}{/if}
            </p>
          </figure>
        {/each}
      </div>
    </div>
    <aside class="side">
      <PlantRows
        {building}
        {refused}
        part="loads"
        title="Overhang above all windows"
        rows={[
          { field: 'overhang', text: 'depth', dimension: 'length' },
          { field: 'overhang_gap', text: 'above the heads', dimension: 'length' },
          { field: 'shade', text: 'sun that shades let in, summer', dimension: 'share', decimals: 0 },
        ]}
      />
      <p class="soft">
        A level plate, half a metre longer than the window on either side. What it keeps out is in the cooling
        day.
      </p>
    </aside>
  </div>
{:else}<p role="status">Being worked out</p>{/if}

<style>
  .verdict.part {
    border-left-style: dashed;
  }
  .grid {
    stroke: var(--hair);
  }
  .plain {
    stroke: var(--ink-2);
    stroke-dasharray: 6 3;
  }
  .line {
    fill: none;
    stroke: var(--ink-3);
    stroke-width: 1;
  }
  .line.whole {
    stroke: var(--ink);
    stroke-width: 2;
  }
  circle {
    fill: var(--sheet);
    stroke: var(--ink-2);
    stroke-width: 1.25;
  }
  circle.whole {
    stroke: var(--ink);
    stroke-width: 2;
  }
  text {
    font-size: var(--fs-cap);
    fill: var(--ink-2);
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 20px;
  }
  figure {
    margin: 0;
    max-width: 190px;
  }
  figcaption {
    font-size: var(--fs-small);
  }
</style>
