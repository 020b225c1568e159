<!-- The drawn materials as patterns, once per page. `-s` is the fine grain for bars and small drawings. -->
<script lang="ts">
  import type { Hatch } from '@/api/client';
  interface Props {
    hatches: Record<string, Hatch>;
  }
  let { hatches }: Props = $props();
  const ways = [
    { suffix: '', scale: 1, yours: false },
    { suffix: '-s', scale: 0.55, yours: false },
    { suffix: '-yours', scale: 1, yours: true },
  ];
</script>

<svg width="0" height="0" aria-hidden="true" class="store">
  <defs>
    {#each Object.entries(hatches) as [name, hatch] (name)}
      {#each ways as way (way.suffix)}
        <pattern
          id="h-{name}{way.suffix}"
          width={hatch.width}
          height={hatch.height}
          patternUnits="userSpaceOnUse"
          patternTransform="scale({way.scale})"
        >
          <g class:yours={way.yours} opacity={way.yours ? 0.8 : hatch.opacity}>
            {#each hatch.strokes as { d, pen } (d)}<path {d} stroke-width={pen} />{/each}
            {#each hatch.dots as { x, y, r } (`${x} ${y}`)}<circle cx={x} cy={y} {r} />{/each}
          </g>
        </pattern>
      {/each}
    {/each}
    <pattern id="h-loss" width="5" height="5" patternUnits="userSpaceOnUse">
      <path class="loss" d="M0 5L5 0M-1.2 1.2L1.2-1.2M3.8 6.2L6.2 3.8" stroke-width="1.1" />
    </pattern>
  </defs>
</svg>

<style>
  .store {
    position: absolute;
  }
  path {
    fill: none;
    stroke: var(--ink-2);
  }
  circle {
    fill: var(--ink-2);
  }
  .yours path {
    stroke: var(--verdigris);
  }
  .yours circle {
    fill: var(--verdigris);
  }
  path.loss {
    stroke: var(--ochre-line);
  }
</style>
