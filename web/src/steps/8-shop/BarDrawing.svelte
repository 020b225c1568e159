<!-- A bar to scale: its pieces with their lengths, what is kept and what is lost. -->
<script lang="ts">
  import type { BarSection } from '@/api/client';
  import type { Units } from '@/kit/units';
  interface Props {
    bar: BarSection['bars'][number];
    units: Units;
    number: number;
    longest: number;
    kerf: number;
    on?: string;
  }
  let { bar, units, number, longest, kerf, on = '' }: Props = $props();
  const WIDE = 520;
  const per = $derived((WIDE - 40) / longest);
  const parts = $derived.by(() => {
    let x = 0;
    return bar.lengths.map((length, n) => {
      const found = { key: bar.pieces[n] ?? '', length, x };
      x += length + kerf;
      return found;
    });
  });
  const words = $derived(
    `Bar ${number}, ${units.full(bar.length, 'length')}: ${parts.map((one) => `${one.key} ${units.full(one.length, 'length')}`).join(', ')}; left ${units.full(bar.remnant, 'length')}`,
  );
</script>

<svg viewBox="0 0 {WIDE} 30" width="100%" role="img" aria-label={words}>
  <text x="0" y="19">{number}</text>
  <rect
    class="bar"
    x="34"
    y="4"
    width={bar.length * per}
    height="22"
    fill={bar.remnant > 0 ? 'url(#h-loss)' : 'none'}
  />
  {#each parts as one, n (n)}
    <rect
      class="piece"
      class:on={one.key === on}
      x={34 + one.x * per}
      y="4"
      width={one.length * per}
      height="22"
    />
    {#if one.length * per > 56}
      <text x={34 + (one.x + one.length / 2) * per} y="19" text-anchor="middle"
        >{one.length * per > 110 ? `${one.key.split(' ')[0]} ` : ''}{units.length(one.length)}</text
      >
    {/if}
  {/each}
  {#if bar.kept && bar.remnant * per > 40}
    <rect
      class="kept"
      x={34 + (bar.length - bar.remnant) * per}
      y="4"
      width={bar.remnant * per}
      height="22"
    />
    <text x={34 + (bar.length - bar.remnant / 2) * per} y="19" text-anchor="middle"
      >{units.length(bar.remnant)}</text
    >
  {/if}
</svg>

<style>
  svg {
    display: block;
    font: 11px var(--mono);
    max-width: 640px;
  }
  .bar {
    stroke: var(--ink);
    stroke-width: 1.1;
  }
  .piece {
    fill: var(--sheet-bright);
    stroke: var(--ink);
    stroke-width: 0.9;
  }
  .piece.on {
    fill: var(--verdigris-wash);
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  .kept {
    fill: var(--limestone);
    stroke: var(--line);
    stroke-dasharray: 4 3;
  }
</style>
