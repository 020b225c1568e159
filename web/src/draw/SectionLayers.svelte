<!-- The layers of a section, hatched, with their names on leaders. -->
<script lang="ts">
  import type { Assembly } from '@/api/client';
  import type { Units } from '@/kit/units';
  import type { Frame, Slab, Words, flags } from './section';

  interface Props {
    assembly: Assembly;
    drawn: Slab[];
    labels: ReturnType<typeof flags>;
    frame: Frame;
    words: Words;
    units: Units;
    selected: number;
    /** Height of a row of labels. */
    row: number;
    ghost: { layer: string; d: number } | undefined;
    onselect: (index: number) => void;
  }
  let { assembly, drawn, labels, frame, words, units, selected, row, ghost, onselect }: Props = $props();
  const { top, bottom } = $derived(frame);
  const body = $derived(bottom - top);
  const ghostX = $derived.by(() => {
    const slab = drawn.find((one) => one.layer.id === ghost?.layer);
    return slab && ghost && ghost.d !== slab.layer.d ? slab.x0 + ghost.d * frame.scale : undefined;
  });
</script>

<!-- slabs -->
{#each drawn as slab (slab.layer.id)}
  {@const on = slab.index === selected}
  {@const pattern = words.hatch(slab.layer.material)}
  <rect
    class="ground"
    class:air={!slab.layer.material}
    x={slab.x0}
    y={top}
    width={slab.x1 - slab.x0}
    height={body}
  />
  {#if pattern}
    <rect
      x={slab.x0}
      y={top}
      width={slab.x1 - slab.x0}
      height={body}
      fill="url(#h-{pattern}{on ? '-yours' : slab.x1 - slab.x0 < 20 ? '-s' : ''})"
    />
  {/if}
  <rect
    class="edge"
    class:faint={!words.counted(slab.index)}
    x={slab.x0}
    y={top}
    width={slab.x1 - slab.x0}
    height={body}
    role="presentation"
    onclick={() => onselect(slab.index)}
  />
  {#if slab.layer.members?.length}
    {#each [0.08, 0.82] as at (at)}
      <rect
        class="beyond"
        x={slab.x0 + 0.5}
        y={top + body * at}
        width={Math.max(slab.x1 - slab.x0 - 1, 0)}
        height={body * 0.1}
      />
    {/each}
  {/if}
{/each}
{#each drawn.filter((slab) => words.hatch(slab.layer.material) === 'membrane') as slab (slab.layer.id)}
  <path class="membrane" d="M{(slab.x0 + slab.x1) / 2} {top - 5}V{bottom + 5}" />
{/each}
{#each drawn.filter((slab) => slab.index === selected) as slab (slab.layer.id)}
  <rect class="chosen" x={slab.x0} y={top} width={slab.x1 - slab.x0} height={body} />
{/each}
{#if ghostX !== undefined && ghost}
  <line class="ghost" x1={ghostX} x2={ghostX} y1={top + 4} y2={bottom - 4} />
  <text class="mono yours halo" x={ghostX + 5} y={bottom - 8}>was {units.length(ghost.d)}</text>
{/if}

<!-- leaders -->
{#each labels.flags as flag (flag.index)}
  {@const textY = 12 + flag.row * row}
  {@const dir = flag.side === 'left' ? 1 : -1}
  <path class="leader" d="M{flag.x} {top}V{textY - 4}h{6 * dir}" />
  <text
    class="flag"
    class:on={flag.index === selected}
    x={flag.x + 9 * dir}
    y={textY}
    text-anchor={flag.side === 'left' ? 'start' : 'end'}
    role="presentation"
    onclick={() => onselect(flag.index)}
    ><tspan class="mono soft">{flag.index + 1}</tspan>
    {words.name(assembly.layers[flag.index]?.material)}<tspan class="mono soft" dx="6"
      >{words.detail(flag.index)}</tspan
    ></text
  >
{/each}
{#each drawn.filter((slab) => labels.inside.includes(slab.index)) as slab (slab.layer.id)}
  <text class="flag halo strong" x={(slab.x0 + slab.x1) / 2} y={top + 20} text-anchor="middle"
    ><tspan class="mono soft">{slab.index + 1}</tspan>
    {words.name(slab.layer.material)}</text
  >
  <text class="mono soft halo" x={(slab.x0 + slab.x1) / 2} y={top + 36} text-anchor="middle"
    >{words.detail(slab.index)}</text
  >
{/each}

<style>
  .ground.air {
    fill: var(--sheet);
  }
  .edge {
    fill: transparent;
    stroke-width: var(--pen-med);
    cursor: pointer;
  }
  .edge.faint {
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
  }
  .chosen {
    fill: none;
    stroke: var(--verdigris);
    stroke-width: 2;
    pointer-events: none;
  }
  .beyond {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: var(--pen-thin);
    stroke-dasharray: 5 3;
    pointer-events: none;
  }
  .membrane {
    stroke: var(--ink);
    stroke-width: 2.2;
    stroke-dasharray: 9 4;
    fill: none;
    pointer-events: none;
  }
  .ghost {
    stroke: var(--verdigris);
    stroke-dasharray: 4 4;
  }
  .leader {
    fill: none;
    stroke: var(--ink-2);
    stroke-width: 0.6;
  }
  text {
    font-size: var(--fs-base);
  }
  .flag {
    cursor: pointer;
  }
  .flag.on {
    fill: var(--verdigris);
    font-weight: 600;
  }
  .strong {
    font-weight: 500;
    pointer-events: none;
  }
  .mono {
    font-family: var(--mono);
    font-size: var(--fs-small);
    letter-spacing: -0.02em;
  }
  .yours {
    fill: var(--verdigris);
  }
</style>
