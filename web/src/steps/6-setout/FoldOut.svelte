<!-- A long face folded to the width of the window: what of it is in sight, and a way to any other part. -->
<script lang="ts">
  import type { FaceSetOut } from '@/api/client';
  import type { Units } from '@/kit/units';

  interface Props {
    face: FaceSetOut;
    units: Units;
    /** Of the face, in m. */
    length: number;
    high: number;
    /** What is in sight, in m from its left end. */
    from: number;
    to: number;
    ongo: (u: number) => void;
  }
  let { face, units, length, high, from, to, ongo }: Props = $props();
  let wide = $state(1000);
  const per = $derived((wide - 2) / length);
  const tall = $derived(Math.min(54, Math.max(14, high * per)));
  const y = (v: number) => 1 + tall * (1 - v / high);
  const path = (points: readonly (readonly number[])[]) =>
    `M${points.map((p) => `${(1 + (p[0] ?? 0) * per).toFixed(1)} ${y(p[1] ?? 0).toFixed(1)}`).join('L')}Z`;
  let held = $state(false);
  function point(event: PointerEvent): void {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    ongo((event.clientX - box.left) / per);
  }
  const STEP = 2; // [m]
  function key(event: KeyboardEvent): void {
    const by = {
      ArrowLeft: -STEP,
      ArrowRight: STEP,
      PageUp: from - to,
      PageDown: to - from,
      Home: -length,
      End: length,
    }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    ongo(Math.min(Math.max((from + to) / 2 + by, 0), length));
  }
  const words = $derived(
    `${units.full(Math.max(from, 0), 'distance')} to ${units.full(Math.min(to, length), 'distance')} of ${units.full(length, 'distance')}`,
  );
</script>

<div class="fold" bind:clientWidth={wide}>
  <svg
    width={wide}
    height={tall + 2}
    role="slider"
    tabindex="0"
    aria-label="Part of face {face.mark} in sight"
    aria-valuemin={0}
    aria-valuemax={Math.round(length)}
    aria-valuenow={Math.round((from + to) / 2)}
    aria-valuetext={words}
    onpointerdown={(event) => {
      held = true;
      event.currentTarget.setPointerCapture(event.pointerId);
      point(event);
    }}
    onpointermove={(event) => held && point(event)}
    onpointerup={() => (held = false)}
    onpointercancel={() => (held = false)}
    onkeydown={key}
  >
    <path class="face" d={path(face.outline)} />
    {#each face.panels.filter((one) => one.layer === 0) as one (one.mark)}
      <path class="panel" class:off={one.off_module} d={path(one.outline)} />
    {/each}
    <rect class="sight" x={1 + from * per} y="1" width={Math.max(6, (to - from) * per)} height={tall} />
  </svg>
</div>

<style>
  svg {
    display: block;
    cursor: grab;
    touch-action: none;
    margin-bottom: 4px;
  }
  .face {
    fill: var(--limestone);
    stroke: var(--line);
  }
  .panel {
    fill: var(--sheet-bright);
    stroke: var(--line);
    stroke-width: 0.6;
  }
  .panel.off {
    fill: var(--ochre-wash);
  }
  .sight {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
  }
</style>
