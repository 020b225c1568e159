<!-- Elevation of a unit from outside: frame, lights and panels to scale, the hole it needs dashed round it. -->
<script lang="ts">
  import type { DrawnUnit, UnitType } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    unit: UnitType;
    drawn: DrawnUnit;
    units: Units;
  }
  let { unit, drawn, units }: Props = $props();
  const uid = $props.id();
  const SPACE = { width: 300, height: 260 };
  const MARGIN = { left: 60, right: 14, top: 26, bottom: 30 };
  const w = $derived(unit.w ?? 1);
  const h = $derived(unit.h ?? 1);
  const around = $derived((drawn.rough_w - w) / 2);
  const under = $derived(drawn.rough_h - h - around);
  const perMetre = $derived(
    Math.min(
      (SPACE.width - MARGIN.left - MARGIN.right) / drawn.rough_w,
      (SPACE.height - MARGIN.top - MARGIN.bottom) / drawn.rough_h,
    ),
  );
  const X = (x: number) => MARGIN.left + (x + around) * perMetre;
  const Y = (z: number) => MARGIN.top + (h + around - z) * perMetre;
  const filled = (row: number) => row < (unit.filled ?? 0);
  const bottom = $derived(Y(-under));
  /** How a light opens: a dashed line from its hinges to its handle. */
  const swing = $derived.by(() => {
    const opens = unit.opens ?? 'fixed';
    const light = drawn.lights.at(-1);
    if (!light || opens === 'fixed') return '';
    const [l, r, b, t] = [X(light.x), X(light.x + light.w), Y(light.z), Y(light.z + light.h)];
    const [x, y] = [(l + r) / 2, (t + b) / 2];
    const hung = `M${r} ${t}L${l} ${y}L${r} ${b}`;
    if (opens === 'top hung') return `M${l} ${t}L${x} ${b}L${r} ${t}`;
    if (opens === 'tilt and turn') return `${hung}M${l} ${b}L${x} ${t}L${r} ${b}`;
    if (opens === 'sliding') return `M${l + 8} ${y}H${r - 8}m-7 -4l7 4l-7 4`;
    return hung;
  });
</script>

<svg
  viewBox="0 0 {SPACE.width} {SPACE.height}"
  width={SPACE.width}
  height={SPACE.height}
  role="img"
  aria-label="{unit.name} from outside, {units.full(w, 'length')} by {units.full(h, 'length')}"
>
  <defs>
    <pattern
      id="{uid}-glass"
      width="9"
      height="9"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(-52)"
    >
      <rect width="9" height="9" fill="var(--sheet)" />
      <path d="M0 4.5H9" class="glint" />
    </pattern>
  </defs>
  <rect
    class="rough"
    x={X(-around)}
    y={Y(h + around)}
    width={drawn.rough_w * perMetre}
    height={drawn.rough_h * perMetre}
  />
  <rect class="frame" x={X(0)} y={Y(h)} width={w * perMetre} height={h * perMetre} />
  {#each drawn.lights as light (`${light.col} ${light.row}`)}
    <rect
      class="light"
      x={X(light.x)}
      y={Y(light.z + light.h)}
      width={light.w * perMetre}
      height={light.h * perMetre}
      fill={filled(light.row) ? 'url(#h-foam-s)' : `url(#${uid}-glass)`}
    />
  {/each}
  <path class="swing" d={swing} />
  <g class="size">
    <path d="M{X(0)} {bottom + 12}H{X(w)}M{X(0)} {bottom + 8}v8M{X(w)} {bottom + 8}v8" />
    <text x={X(w / 2)} y={bottom + 25} text-anchor="middle">{units.length(w)}</text>
    <path d="M{X(-around) - 10} {Y(0)}V{Y(h)}M{X(-around) - 14} {Y(0)}h8M{X(-around) - 14} {Y(h)}h8" />
    <text x={X(-around) - 15} y={Y(h / 2)} text-anchor="end">{units.length(h)}</text>
    <text class="soft" x={X(w / 2)} y={16} text-anchor="middle"
      >hole ({units.length(drawn.rough_w)} × {units.length(drawn.rough_h)})</text
    >
  </g>
</svg>

<style>
  .rough {
    fill: none;
    stroke: var(--ink-2);
    stroke-dasharray: 5 3;
  }
  .frame {
    fill: var(--limestone-deep);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .light {
    stroke: var(--ink);
    stroke-width: 0.8;
  }
  .glint {
    stroke: var(--hair);
    stroke-width: 0.8;
  }
  .swing {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.8;
    stroke-dasharray: 7 4;
  }
  .size path {
    stroke: var(--ink-2);
    stroke-width: 0.8;
    fill: none;
  }
  text {
    font-size: 12px;
    font-family: var(--mono);
    fill: var(--ink);
  }
  .soft {
    fill: var(--ink-2);
  }
</style>
