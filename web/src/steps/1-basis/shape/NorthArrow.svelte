<!-- The north arrow of the plan: turned by hand in whole degrees (Alt tenths, Shift 15), or by the arrow keys. -->
<script lang="ts">
  interface Props {
    x: number;
    y: number;
    /** Bearing that the top of the plan faces [°]. */
    north: number;
    onturn: (north: number) => void;
    onrelease: () => void;
    oncancel: () => void;
  }
  let { x, y, north, onturn, onrelease, oncancel }: Props = $props();
  let arrow = $state<SVGGElement>();
  let turning = $state(false);
  const whole = (angle: number, step: number) => {
    const snapped = Math.round(angle / step) * step;
    return Number((((snapped % 360) + 360) % 360).toFixed(1));
  };
  function turn(event: PointerEvent): void {
    if (!turning || !arrow) return;
    const box = arrow.querySelector('circle')?.getBoundingClientRect();
    if (!box) return;
    const [dx, dy] = [event.clientX - (box.left + box.width / 2), event.clientY - (box.top + box.height / 2)];
    // North on the sheet lies at minus the bearing of its top.
    if (Math.hypot(dx, dy) > 4)
      onturn(whole((Math.atan2(-dx, -dy) * 180) / Math.PI, event.altKey ? 0.1 : event.shiftKey ? 15 : 1));
  }
  function key(event: KeyboardEvent): void {
    const by = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 }[event.key];
    if (by) onturn(whole(north + by * (event.shiftKey ? 15 : 1), 0.1));
    else if (event.key === 'Enter') onrelease();
    else if (event.key === 'Escape') oncancel();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<g
  bind:this={arrow}
  class="north"
  class:turning
  transform="translate({x} {y}) rotate({-north})"
  role="slider"
  tabindex="0"
  aria-label="North: bearing of the plan's top"
  aria-valuemin="0"
  aria-valuemax="360"
  aria-valuenow={north}
  aria-valuetext="{north} degrees"
  onpointerdown={(event) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    turning = true;
  }}
  onpointermove={turn}
  onpointerup={() => {
    if (turning) onrelease();
    turning = false;
  }}
  onpointercancel={() => {
    turning = false;
    oncancel();
  }}
  onkeydown={key}
>
  <circle class="reach" r="17" />
  <circle r="11" />
  <path d="M0 7V-9M-3.5 -3.5L0 -9L3.5 -3.5" />
  <text y="-13">N</text>
</g>

<style>
  .north {
    cursor: grab;
    outline: none;
  }
  .turning {
    cursor: grabbing;
  }
  circle,
  path {
    fill: var(--sheet);
    stroke: var(--ink-2);
  }
  path {
    fill: none;
  }
  .reach {
    stroke: none;
    fill: transparent;
  }
  .north:hover circle:not(.reach),
  .turning circle:not(.reach) {
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .north:focus-visible .reach {
    stroke: var(--verdigris);
    stroke-width: 2;
  }
  text {
    text-anchor: middle;
    font-size: 11px;
    fill: var(--ink-2);
    pointer-events: none;
  }
</style>
