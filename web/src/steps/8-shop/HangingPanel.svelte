<!-- A panel on its hook to scale: from the front with its legs, and from the side as it hangs. -->
<script lang="ts">
  import type { LiftCard } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    card: LiftCard;
    units: Units;
  }
  let { card, units }: Props = $props();
  const HIGH = 330;
  const WIDE = 240;
  const SIDE = 140;
  const pitch = $derived((card.pitch * Math.PI) / 180);
  const ends = $derived({
    u0: Math.min(...card.outline.map((p) => p[0] ?? 0)),
    u1: Math.max(...card.outline.map((p) => p[0] ?? 0)),
    v1: Math.max(...card.outline.map((p) => p[1] ?? 0)),
  });
  /** Seen along the ground at right angles to its length: a panel that slopes is shorter. */
  const rise = (v: number, z: number) => v * Math.sin(pitch) + z * Math.cos(pitch);
  const picksUp = $derived(Math.max(0, ...card.picks.map((p) => rise(p[1] ?? 0, p[2] ?? 0))));
  const hookUp = $derived(picksUp + (card.hook ?? 0));
  const tall = $derived(Math.max(hookUp, rise(ends.v1, card.thickness)) + 0.2);
  const per = $derived(Math.min((WIDE - 60) / Math.max(0.5, ends.u1 - ends.u0), (HIGH - 46) / tall));
  const X = (u: number) => 34 + (u - ends.u0) * per;
  const Y = (up: number) => HIGH - 16 - up * per;
  const front = (points: readonly (readonly number[])[]) =>
    `M${points.map((p) => `${X(p[0] ?? 0)} ${Y(rise(p[1] ?? 0, card.pitch < 90 ? card.thickness : 0))}`).join('L')}Z`;
  const sides = $derived(card.side.map((p) => p[0] ?? 0));
  const reach = $derived(Math.max(0.4, Math.max(...sides) - Math.min(...sides)));
  const scale = $derived(Math.min(per, (SIDE - 40) / reach));
  const left = $derived(Math.min(...sides));
  const SX = (y: number) => WIDE + 46 + (y - left) * scale;
  const SY = (up: number) => HIGH - 16 - up * scale;
  const centreUp = $derived(rise(card.v, card.z));
  const hook = $derived({ x: X(card.u), y: Y(hookUp) });
</script>

<svg
  width={WIDE + SIDE + 30}
  height={HIGH}
  role="img"
  aria-label="{card.row.mark} hanging at {units.full(card.pitch, 'angle', 0)}: legs {card.legs
    .map((one) => units.full(one, 'length'))
    .join(', ')}, pulls {card.tension.map((one) => units.full(one, 'force')).join(', ')}"
>
  <path class="panel" d={front(card.outline)} />
  {#each card.holes as hole, n (n)}<path class="hole" d={front(hole)} />{/each}
  {#if card.hook !== null}
    {#each card.picks as pick, n (n)}
      {@const x = X(pick[0] ?? 0)}
      {@const y = Y(rise(pick[1] ?? 0, pick[2] ?? 0))}
      <path class="leg" d="M{x} {y}L{hook.x} {hook.y}" />
      <circle class="pick" cx={x} cy={y} r="3.5" />
    {/each}
    <path class="hook" d="M{hook.x} {hook.y}V{Math.max(2, hook.y - 18)}" />
    <path class="plumb" d="M{hook.x} {hook.y}V{HIGH - 16}" />
    <path
      class="leg"
      d={card.side_picks
        .map((p) => `M${SX(p[0] ?? 0)} ${SY(p[1] ?? 0)}L${SX(card.side_centre[0] ?? 0)} ${SY(hookUp)}`)
        .join('')}
    />
  {/if}
  <g class="cg" transform="translate({X(card.u)} {Y(centreUp)})">
    <circle r="7" /><path d="M-11 0H11M0 -11V11" /><path
      class="dark"
      d="M0 0V-7A7 7 0 0 1 7 0ZM0 0V7A7 7 0 0 1 -7 0Z"
    />
  </g>
  <path class="panel" d="M{card.side.map((p) => `${SX(p[0] ?? 0)} ${SY(p[1] ?? 0)}`).join('L')}Z" />
  <g class="cg" transform="translate({SX(card.side_centre[0] ?? 0)} {SY(card.side_centre[1] ?? 0)})">
    <circle r="5" /><path d="M-8 0H8M0 -8V8" />
  </g>
  <path class="ground" d="M20 {HIGH - 15}H{WIDE + SIDE + 20}" />
  {#if card.legs.length === 2}
    {#each card.legs as leg, n (n)}
      <text
        x={(X(card.picks[n]?.[0] ?? 0) + hook.x) / 2 + (n ? 8 : -8)}
        y={(Y(picksUp) + hook.y) / 2}
        text-anchor={n ? 'start' : 'end'}>{units.length(leg)}</text
      >
    {/each}
  {/if}
  <text x={WIDE + SIDE + 24} y={HIGH - 2} text-anchor="end"
    >{units.full(card.pitch, 'angle', 0)}, from the side</text
  >
</svg>

<style>
  svg {
    display: block;
    font: 11px var(--mono);
    max-width: 100%;
  }
  text {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.4;
  }
  .hole {
    fill: var(--sheet);
    stroke: var(--ink-2);
  }
  .leg {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.8;
  }
  .pick {
    fill: var(--verdigris);
  }
  .hook {
    stroke: var(--ink);
    stroke-width: 4;
  }
  .plumb {
    stroke: var(--line);
    stroke-dasharray: 8 3 2 3;
  }
  .cg circle {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .cg path {
    stroke: var(--ink);
    stroke-width: 1.2;
  }
  .cg .dark {
    fill: var(--ink);
  }
  .ground {
    stroke: var(--ink);
    stroke-width: 1.4;
  }
</style>
