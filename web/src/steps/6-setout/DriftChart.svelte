<!-- Foam blocks over rigid sheets, the ties between them, and how far the joints drift apart, before and after. -->
<script lang="ts">
  import type { DriftWall } from '@/api/client';
  import { lineThrough, scaleLinear } from '@/draw/chart';
  import type { Units } from '@/kit/units';

  interface Props {
    wall: DriftWall;
    units: Units;
    tolerance: number;
    block: number;
  }
  let { wall, units, tolerance, block }: Props = $props();
  const M = { left: 60, right: 50, top: 8 };
  let wide = $state(700);
  const per = $derived((wide - M.left - M.right) / wall.blocks);
  const X = (n: number) => M.left + n * per;
  const FOAM = 24;
  const GAP = 20;
  const LOW = 88;
  const HIGH = 130;
  const last = $derived(wall.courses.at(-1) ?? []);
  const drifts = $derived([...wall.before, ...wall.after, wall.begun].flat());
  const Y = $derived(
    scaleLinear(
      [Math.min(-tolerance * 1.6, ...drifts), Math.max(tolerance * 1.6, ...drifts)],
      [LOW + HIGH, LOW],
    ),
  );
  const line = (row: readonly number[]) =>
    lineThrough(
      [0, ...row],
      (_, n) => X(n),
      (d) => Y(d),
    );
  const worst = $derived(
    wall.before.toSorted((a, b) => Math.abs(b.at(-1) ?? 0) - Math.abs(a.at(-1) ?? 0))[0] ?? [],
  );
  /** Where ties come to stand between a joint of the foam and one of the sheets, ten times as far apart. */
  const tie = (n: number) => Math.max(-per / 3, Math.min(per / 3, ((worst[n] ?? 0) / block) * per * 10));
  const trimmed = $derived(new Map(wall.trims.map((one) => [one.sheet, one.off])));
</script>

<div bind:clientWidth={wide}>
  <svg
    width={wide}
    height={LOW + HIGH + 22}
    role="img"
    aria-label="Wall {wall.mark}: joints drift up to {units.full(wall.worst, 'length')} apart{wall.after
      .length
      ? `, within ${units.full(tolerance, 'length')} once trimmed`
      : ''}"
  >
    <text x="4" y={M.top + 16}>foam</text>
    <text x="4" y={M.top + FOAM + 13}>ties</text>
    <text x="4" y={M.top + FOAM + GAP + 16}>sheet</text>
    {#each { length: wall.blocks }, n}
      {@const read = last[n]}
      <rect class="foam" class:unread={read === undefined} x={X(n)} y={M.top} width={per} height={FOAM} />
      {#if read !== undefined && per > 40}<text x={X(n + 0.5)} y={M.top + 16} text-anchor="middle"
          >{units.length(read)}</text
        >{/if}
      <rect class="sheet" x={X(n)} y={M.top + FOAM + GAP} width={per} height={FOAM} />
      {#if trimmed.has(n + 1)}
        <rect class="trim" x={X(n + 1) - 6} y={M.top + FOAM + GAP} width="6" height={FOAM} />
        {#if per > 60}<text class="yours" x={X(n + 0.5)} y={M.top + FOAM + GAP + 16} text-anchor="middle"
            >trim {units.length(trimmed.get(n + 1) ?? 0)}</text
          >{/if}
      {/if}
      {#if n < worst.length}<path
          class="tie"
          class:bad={Math.abs(worst[n] ?? 0) > tolerance}
          d="M{X(n + 1) + tie(n)} {M.top + FOAM}L{X(n + 1)} {M.top + FOAM + GAP}"
        />{/if}
    {/each}
    <rect
      class="band"
      x={X(0)}
      y={Y(tolerance)}
      width={wall.blocks * per}
      height={Y(-tolerance) - Y(tolerance)}
    />
    <path class="axis" d="M{X(0)} {Y(0)}H{X(wall.blocks)}" />
    <text x={M.left - 6} y={Y(tolerance) + 4} text-anchor="end">+{units.length(tolerance)}</text>
    <text x={M.left - 6} y={Y(-tolerance) + 4} text-anchor="end">−{units.length(tolerance)}</text>
    {#each wall.before as row, n (n)}<path class="before" d={line(row)} />{/each}
    {#each wall.after as row, n (n)}
      <path class="after" d={line(row)} />
      {#each row as d, k (k)}<circle class="after" cx={X(k + 1)} cy={Y(d)} r="3" />{/each}
    {/each}
    {#if wall.begun.length}<path class="begun" d={line(wall.begun)} />{/if}
    {#if worst.length}<text x={X(wall.blocks) + 5} y={Y(worst.at(-1) ?? 0) + 4} class="bad"
        >{units.length(worst.at(-1) ?? 0)}</text
      >{/if}
  </svg>
</div>

<style>
  svg {
    display: block;
    font: 11px var(--mono);
  }
  .foam {
    fill: url(#h-foam-s);
    stroke: var(--ink);
  }
  .foam.unread {
    fill: none;
    stroke-dasharray: 4 3;
  }
  .sheet {
    fill: var(--sheet-bright);
    stroke: var(--ink);
  }
  .trim {
    fill: var(--verdigris);
  }
  text {
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3;
  }
  .yours {
    fill: var(--verdigris);
  }
  text.bad {
    fill: var(--ochre);
  }
  .tie {
    stroke: var(--ink);
    stroke-width: 1.6;
  }
  .tie.bad {
    stroke: var(--ochre-line);
  }
  .band {
    fill: var(--verdigris-wash);
  }
  .axis {
    stroke: var(--line);
  }
  .before,
  .begun {
    fill: none;
    stroke: var(--ochre-line);
    stroke-width: 1.5;
    stroke-dasharray: 5 3;
  }
  .begun {
    stroke: var(--ink);
  }
  path.after {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 1.6;
  }
  circle.after {
    fill: var(--sheet);
    stroke: var(--verdigris);
    stroke-width: 1.5;
  }
</style>
