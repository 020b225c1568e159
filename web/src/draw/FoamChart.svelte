<!-- R of every core against thickness on one pair of axes: what is asked, where each crosses it, and the picks. -->
<script lang="ts">
  import type { Decision, Material } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { apart, lineThrough, scaleLinear, ticksOf } from './chart';

  interface Props {
    decision: Decision;
    materials: Map<string, Material>;
    units: Units;
    width: number;
    /** Core pointed at: the others step back. */
    chosen: string;
    onchoose: (core: string) => void;
  }
  let { decision, materials, units, width, chosen, onchoose }: Props = $props();
  const LEFT = 40;
  const RIGHT = 178;
  const TOP = 10;
  const H = 236;
  const R = (core: number, at: number) => decision.cores[core]?.columns['R_clear']?.[at] ?? 0;
  const low = $derived(Math.min(...decision.cores.flatMap((core) => core.d)));
  const high = $derived(Math.max(...decision.cores.flatMap((core) => core.d)));
  const most = $derived(
    Math.max(
      ...decision.cores.flatMap((core) => core.columns['R_clear'] ?? []).map((r) => r ?? 0),
      decision.asked ?? 0,
    ) * 1.03,
  );
  const x = $derived(scaleLinear([low, high], [LEFT, width - RIGHT]));
  const y = $derived(scaleLinear([0, most], [TOP + H, TOP]));
  const ticks = $derived(ticksOf(units, 'resistance', 0, most, 9));
  const marks = $derived(ticksOf(units, 'length', low, high, 10));
  const path = (core: number) => lineThrough(decision.cores[core]?.d ?? [], x, (_, at) => y(R(core, at)));
  // Labels at the ends of the lines, pushed apart where they would touch.
  const labels = $derived(
    apart(
      decision.cores.map((core, at) => ({ core, at, y: y(R(at, core.d.length - 1)) })),
      (end) => end.y,
      25,
    ).map(({ item, y: place }) => ({ ...item, place })),
  );
  const own = $derived(decision.cores[0]);
</script>

<svg {width} height={H + TOP + 24} role="img" aria-label="Clear-wall R of each core against its thickness">
  <rect class="ground" x={LEFT} y={TOP} width={width - LEFT - RIGHT} height={H} />
  {#each ticks as tick, at (at)}
    <line class="grid" x1={LEFT} x2={width - RIGHT} y1={y(tick.value)} y2={y(tick.value)} />
    <text class="axis" x={LEFT - 6} y={y(tick.value) + 4} text-anchor="end">{tick.shown}</text>
  {/each}
  {#each marks as mark, at (at)}
    <line class="tick" x1={x(mark.value)} x2={x(mark.value)} y1={TOP + H} y2={TOP + H + 5} />
    <text class="axis" x={x(mark.value)} y={TOP + H + 18} text-anchor="middle">{mark.shown}</text>
  {/each}
  {#each decision.cores as core, at (core.core)}
    <path
      class="line"
      class:own={at === 0}
      class:on={chosen === core.core}
      class:back={chosen && chosen !== core.core}
      d={path(at)}
    />
  {/each}
  {#if decision.asked !== null}
    <line class="asked" x1={LEFT} x2={width - RIGHT} y1={y(decision.asked)} y2={y(decision.asked)} />
    <text class="limit" x={LEFT + 5} y={y(decision.asked) - 5}
      >asked {units.show(decision.asked, 'resistance')}</text
    >
    {#each decision.cores as core (core.core)}
      {#if core.exact !== null && core.exact <= high}
        <rect
          class="cross"
          class:back={chosen && chosen !== core.core}
          x={x(core.exact) - 3}
          y={y(decision.asked) - 3}
          width="6"
          height="6"
        />
      {/if}
    {/each}
  {/if}
  {#each labels as label (label.core.core)}
    {@const end = x(label.core.d.at(-1) ?? 0)}
    <path class="lead" d="M{end + 2} {label.y}L{width - RIGHT + 8} {label.place - 4}" />
    <text
      class="name"
      class:own={label.at === 0}
      class:on={chosen === label.core.core}
      x={width - RIGHT + 12}
      y={label.place}
      role="presentation"
      onclick={() => onchoose(label.core.core)}
      >{materials.get(label.core.core)?.name ?? label.core.core}<tspan
        class="exact"
        x={width - RIGHT + 12}
        dy="12"
        >{label.core.exact === null
          ? label.core.why_not.slice(0, 27)
          : `asked at ${units.full(label.core.exact, 'length')}`}</tspan
      ></text
    >
  {/each}
  {#if own && own.present !== null}
    <circle class="now" cx={x(own.d[own.present] ?? 0)} cy={y(R(0, own.present))} r="5.5" />
    <text class="halo" x={x(own.d[own.present] ?? 0) + 9} y={y(R(0, own.present)) + 15}>as it is</text>
  {/if}
  {#if decision.cheapest}
    {@const pick = decision.cheapest}
    {@const d = decision.cores[pick.core]?.d[pick.at] ?? 0}
    <path class="pick" d="M{x(d)} {y(R(pick.core, pick.at)) - 7}l7 7l-7 7l-7 -7z" />
  {/if}
</svg>

<style>
  .tick {
    stroke: var(--line);
  }
  .axis {
    font-family: var(--mono);
  }
  .line {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 1.25;
  }
  .line.own {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .line.on {
    stroke: var(--verdigris);
    stroke-width: 3;
  }
  .back {
    opacity: 0.3;
  }
  .asked {
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .limit {
    font-weight: 600;
  }
  .cross {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .lead {
    fill: none;
    stroke: var(--line);
    stroke-width: 0.75;
  }
  .name {
    cursor: pointer;
  }
  .name.own {
    font-weight: 600;
  }
  .name.on {
    fill: var(--verdigris);
    font-weight: 600;
  }
  .exact {
    font: 400 11px var(--mono);
    fill: var(--ink-3);
  }
  .now {
    fill: var(--verdigris);
  }
  .halo {
    fill: var(--verdigris);
    font-weight: 600;
  }
  .pick {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
  }
</style>
