<!-- The building's own section with its stations marked, and a leader from each to its rows. -->
<script lang="ts">
  import type { BuildingSection } from '@/api/client';
  import type { Units } from '@/kit/units';
  import type { StationSpan } from './hung';

  interface Props {
    cut: BuildingSection;
    spans: StationSpan[];
    units: Units;
    width: number;
    height: number;
    /** Conditions that are written outside and inside. */
    outside: string;
    inside: string;
  }
  let { cut, spans, units, width, height, outside, inside }: Props = $props();
  const RINGS = 30; // for rings and brackets at the right

  const points = $derived(cut.faces.flatMap((one) => [...one.outer, ...one.inner]));
  const us = $derived(points.map(([u = 0]) => u));
  const zs = $derived(points.map(([, z = 0]) => z));
  const low = $derived(Math.min(...zs, cut.ground ?? 0) - 0.5);
  const high = $derived(Math.max(...zs));
  const middle = $derived((Math.min(...us) + Math.max(...us)) / 2);
  const scale = $derived(
    Math.min((width - RINGS - 90) / (Math.max(...us) - Math.min(...us)), (height - 70) / (high - low)),
  );
  const x = (u: number) => (width - RINGS - 40) / 2 + (u - middle) * scale;
  const y = (z: number) => 40 + (high - z) * scale;
  const ring = (pairs: number[][]) =>
    pairs.map(([u = 0, z = 0]) => `${x(u).toFixed(1)},${y(z).toFixed(1)}`).join(' ');

  /** Where each station is, on the right half where there is a choice. */
  const anchors = $derived.by(() => {
    const of = (kind: string) => cut.faces.filter((one) => one.kind === kind);
    const mid = ([[a = 0, b = 0] = [], [c = 0, d = 0] = []]: number[][]) =>
      [(a + c) / 2, (b + d) / 2] as const;
    const right = <T extends { outer: number[][] }>(some: T[]) =>
      some.toSorted((a, b) => mid(b.outer)[0] - mid(a.outer)[0])[0];
    const wall = right(of('wall').filter((one) => one.to !== 'ground')) ?? right(of('wall'));
    const roof = right(of('roof'));
    const floor = of('floor')[0];
    const ends = (one: { outer: number[][] } | undefined) =>
      (one?.outer ?? []).toSorted((a, b) => (b[1] ?? 0) - (a[1] ?? 0));
    const [top, foot] = ends(wall);
    const along = (share: number) =>
      top &&
      foot &&
      ([
        (top[0] ?? 0) * (1 - share) + (foot[0] ?? 0) * share,
        (top[1] ?? 0) * (1 - share) + (foot[1] ?? 0) * share,
      ] as const);
    const ridge = cut.faces.flatMap((one) => one.outer).toSorted((a, b) => (b[1] ?? 0) - (a[1] ?? 0))[0];
    const floorAt = cut.floors[0];
    // Openings are marked above the floor line, so that no leader crosses another.
    const tall = (top?.[1] ?? 0) - (foot?.[1] ?? 0) || 1;
    const eye = floorAt === undefined ? 0.45 : Math.min((((top?.[1] ?? 0) - floorAt) / tall) * 0.7, 0.6);
    return {
      A: ridge && ([ridge[0] ?? 0, ridge[1] ?? 0] as const),
      B: roof && mid(roof.outer),
      C: top && ([top[0] ?? 0, top[1] ?? 0] as const),
      D: along(eye * 0.4),
      E: along(eye),
      F: floorAt !== undefined && top ? ([top[0] ?? 0, floorAt] as const) : along(0.5),
      G: along(0.97),
      H: floor && ([mid(floor.outer)[0] + (Math.max(...us) - middle) * 0.55, mid(floor.outer)[1]] as const),
    } as Record<string, readonly [number, number] | undefined>;
  });
  /** Where the room's condition is written: in the middle of the lowest storey. */
  const roomAt = $derived.by(() => {
    const base = Math.min(
      ...cut.faces.filter((one) => one.kind === 'floor').flatMap((one) => one.inner.map(([, z = 0]) => z)),
    );
    return (base + (cut.floors[0] ?? base + 2.6)) / 2;
  });
  const inner = $derived(
    cut.faces.filter((one) => one.kind === 'wall').flatMap((one) => one.inner.map(([u = 0]) => u)),
  );
</script>

<svg {width} {height} role="img" aria-label="Section of the building with its stations">
  <text class="note" x="0" y="14">{outside}</text>
  {#if cut.ground !== null}
    <path class="ground" d="M0 {y(cut.ground)}H{width - RINGS - 40}" />
  {/if}
  {#each cut.faces as one, at (at)}
    {@const pair = [one.outer[0], one.outer[1], one.inner[1], one.inner[0]].filter((p) => p !== undefined)}
    <polygon class="bright" points={ring(pair)} />
    <polygon
      class="cut"
      points={ring(pair)}
      fill={one.to === 'ground' ? 'url(#h-concrete-s)' : 'url(#h-foam-s)'}
    />
  {/each}
  {#each cut.floors as floor (floor)}
    <path class="floor" d="M{x(Math.min(...inner))} {y(floor)}H{x(Math.max(...inner))}" />
  {/each}
  <text class="room" x={x(middle)} y={y(roomAt)} text-anchor="middle">{inside}</text>
  <path
    class="dim"
    d="M{x(Math.min(...us))} {height - 16}H{x(Math.max(...us))}m0-4v8M{x(Math.min(...us))} {height - 20}v8"
  />
  <text class="size" x={x(middle)} y={height - 20} text-anchor="middle">{units.length(cut.width)}</text>
  {#each spans.filter((one) => one.station) as span (span.station)}
    {@const anchor = anchors[span.station]}
    {@const at = (span.top + span.bottom) / 2}
    {#if anchor}
      <path class="leader" d="M{x(anchor[0])} {y(anchor[1])}L{width - RINGS - 22} {at}H{width - RINGS}" />
      <circle class="place" cx={x(anchor[0])} cy={y(anchor[1])} r="3.2" />
    {/if}
    <circle class="ring" cx={width - RINGS + 9} cy={at} r="9" />
    <text class="letter" x={width - RINGS + 9} y={at + 4} text-anchor="middle">{span.station}</text>
    <path class="dim" d="M{width} {span.top + 2}h-6V{span.bottom - 2}h6M{width - 12} {at}h6" />
  {/each}
</svg>

<style>
  .bright {
    fill: var(--sheet-bright);
  }
  .cut {
    stroke: var(--ink);
    stroke-width: 1.25;
    stroke-linejoin: round;
  }
  .ground {
    stroke: var(--ink);
    stroke-width: 2.5;
  }
  .floor {
    stroke: var(--ink);
    stroke-width: 3;
  }
  .leader,
  .dim {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.75;
  }
  .place {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1.25;
  }
  .ring {
    fill: var(--sheet);
    stroke: var(--ink);
    stroke-width: 1;
  }
  text {
    font-size: var(--fs-small);
    fill: var(--ink-2);
  }
  .letter {
    font: 600 11.5px var(--mono);
    fill: var(--ink);
  }
  .size {
    font: 500 12px var(--mono);
    fill: var(--ink);
  }
</style>
