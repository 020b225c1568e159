<!-- Heights: a cut across the ridge of one body, with its storeys, roof and ground. -->
<script lang="ts">
  import type { Body, ShapeSheet } from '@/api/client';
  import type { Units } from '@/kit/units';
  import { bounds } from './outline';

  interface Props {
    body: Body;
    sheet: ShapeSheet | undefined;
    wall: number;
    roof: number;
    floors: number;
    perMetre: number;
    units: Units;
  }
  let { body, sheet, wall, roof, floors, perMetre, units }: Props = $props();
  const uid = $props.id();
  const heights = $derived(sheet?.bodies.find((one) => one.id === body.id));
  const eaves = $derived((body.base ?? 0) + body.storeys.reduce((sum, one) => sum + one, 0));
  const ridge = $derived(heights?.ridge ?? eaves);
  const base = $derived(body.base ?? 0);
  // Across the ridge: the extent of the plan along the way in which the roof falls.
  const towards = $derived(((body.roof?.towards ?? 180) * Math.PI) / 180);
  const span = $derived.by(() => {
    const turned = body.outline.map((p) => [
      (p[0] ?? 0) * Math.sin(towards) + (p[1] ?? 0) * Math.cos(towards),
      0,
    ]);
    const box = bounds(turned);
    return box.right - box.left;
  });
  const overhang = $derived(body.roof?.overhang ?? 0);
  const parapet = $derived(body.roof?.form === 'flat' ? (body.roof.parapet ?? 0) : 0);
  const MARGIN = { left: 58, right: 88, top: 16, bottom: 26 };
  const low = $derived(Math.min(base, body.ground ?? base) - 0.15);
  const high = $derived(Math.max(ridge, eaves + parapet));
  const width = $derived(span * perMetre + MARGIN.left + MARGIN.right);
  const height = $derived((high - low) * perMetre + MARGIN.top + MARGIN.bottom);
  const X = (x: number) => MARGIN.left + x * perMetre;
  const Y = (z: number) => MARGIN.top + (high - z) * perMetre;
  const form = $derived(body.roof?.form ?? 'flat');
  /** The roof's upper line from left to right. */
  const line = $derived.by((): [number, number][] => {
    const slope = Math.tan(((form === 'flat' ? 0 : (body.roof?.pitch ?? 0)) * Math.PI) / 180);
    const out = form === 'flat' ? 0 : overhang;
    if (form === 'one pitch')
      return [
        [-out, eaves - out * slope],
        [span + out, eaves + (span + out) * slope],
      ];
    if (form === 'flat')
      return [
        [0, eaves],
        [span, eaves],
      ];
    // A hip is seen from its longer side: it rises to its ridge from every side.
    const run = form === 'hip' ? Math.min((ridge - eaves) / (slope || 1), span / 2) : span / 2;
    return [
      [-out, eaves - out * slope],
      [run, eaves + run * slope],
      ...(run < span / 2 - 1e-6 ? ([[span - run, eaves + run * slope]] as [number, number][]) : []),
      [span + out, eaves - out * slope],
    ];
  });
  const drawn = (points: [number, number][]) =>
    points.map(([x, z]) => `${X(x).toFixed(1)} ${Y(z).toFixed(1)}`).join('L');
  const cos = $derived(Math.cos(((form === 'flat' ? 0 : (body.roof?.pitch ?? 0)) * Math.PI) / 180));
  const band = $derived(
    `M${drawn(line)}L${drawn(line.toReversed().map(([x, z]): [number, number] => [x, z - roof / cos]))}Z`,
  );
  const levels = $derived(
    body.storeys.map((height, at) => ({
      from: base + body.storeys.slice(0, at).reduce((sum, one) => sum + one, 0),
      height,
    })),
  );
</script>

<svg {width} {height} role="img" aria-label="Heights of {body.name || 'the body'}">
  <clipPath id="{uid}-walls"
    ><path
      d="M{X(0)} {Y(base)}L{drawn(
        form === 'flat'
          ? [
              [0, eaves],
              [span, eaves],
            ]
          : line.map(([x, z]): [number, number] => [Math.min(Math.max(x, 0), span), z]),
      )}L{X(span)} {Y(base)}Z"
    /></clipPath
  >
  <g clip-path="url(#{uid}-walls)">
    {#each [0, span - wall] as x (x)}
      <rect class="mass" x={X(x)} y={Y(high)} width={wall * perMetre} height={(high - base) * perMetre} />
      <rect
        fill="url(#h-foam-s)"
        x={X(x)}
        y={Y(high)}
        width={wall * perMetre}
        height={(high - base) * perMetre}
      />
    {/each}
    {#each levels.slice(1) as level (level.from)}
      <rect
        class="mass"
        x={X(wall)}
        y={Y(level.from)}
        width={(span - 2 * wall) * perMetre}
        height={Math.max(floors * perMetre, 1.5)}
      />
    {/each}
  </g>
  <path class="mass" d={band} />
  <path d={band} fill="url(#h-foam-s)" />
  <path class="roof" d="M{drawn(line)}" />
  {#if parapet}
    {#each [0, span - wall] as x (x)}
      <rect
        class="mass"
        x={X(x)}
        y={Y(eaves + parapet)}
        width={wall * perMetre}
        height={parapet * perMetre}
      />
    {/each}
  {/if}
  <path class="cut" d="M{X(0)} {Y(base)}H{X(span)}" />
  {#if body.ground !== null && body.ground !== undefined}
    <path class="ground" d="M4 {Y(body.ground)}H{X(0)}M{X(span)} {Y(body.ground)}H{width - 4}" />
  {/if}
  <g class="dims">
    {#each levels as level, at (at)}
      <path
        d="M{X(span) + 16} {Y(level.from)}V{Y(level.from + level.height)}m-4 0h8M{X(span) + 12} {Y(
          level.from,
        )}h8"
      />
      <text x={X(span) + 22} y={Y(level.from + level.height / 2) + 4}>{units.length(level.height)}</text>
    {/each}
    {#if ridge > eaves + 0.01}
      <path d="M{X(span) + 16} {Y(eaves)}V{Y(ridge)}m-4 0h8" />
      <text class="follows" x={X(span) + 22} y={Y((eaves + ridge) / 2) + 4}
        >({units.length(ridge - eaves)})</text
      >
    {/if}
    <path d="M{X(0) - 22} {Y(base)}V{Y(ridge)}m-4 0h8M{X(0) - 26} {Y(base)}h8" />
    <text
      class="follows"
      transform="translate({X(0) - 28} {Y((base + ridge) / 2)}) rotate(-90)"
      text-anchor="middle">({units.length(ridge - base)})</text
    >
    {#if form !== 'flat'}
      <text x={X(span / 2)} y={Y(eaves) - 8} text-anchor="middle" class="typed"
        >{units.show(body.roof?.pitch ?? 0, 'ratio', 1).replace('.0', '')}°</text
      >
    {/if}
    <text class="follows" x={X(span / 2)} y={height - 8} text-anchor="middle">({units.length(span)})</text>
  </g>
</svg>

<style>
  svg {
    display: block;
  }
  .mass {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 0.9;
  }
  .roof {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .cut {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .ground {
    fill: none;
    stroke: var(--ink);
    stroke-width: 2.2;
  }
  .dims path {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.8;
  }
  .dims text {
    font: 500 12px var(--mono);
    fill: var(--verdigris);
  }
  .dims .follows {
    fill: var(--ink-2);
  }
</style>
