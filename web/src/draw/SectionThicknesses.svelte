<!-- Thicknesses below a section, to click and type on. -->
<script lang="ts">
  import type { Assembly } from '@/api/client';
  import { untrack } from 'svelte';
  import Entry from '@/kit/Entry.svelte';
  import type { Units } from '@/kit/units';
  import type { Frame, Slab, Words } from './section';

  interface Props {
    assembly: Assembly;
    drawn: Slab[];
    rows: number[];
    frame: Frame;
    words: Words;
    units: Units;
    selected: number;
    /** The layer whose thickness is typed. */
    typing: number | undefined;
    refused: string | undefined;
    onselect: (index: number) => void;
    onmove: (index: number, d: number) => void;
    onthickness: (index: number, d: number, from: number) => void;
  }
  let {
    assembly,
    drawn,
    rows,
    frame,
    words,
    units,
    selected,
    typing = $bindable(),
    refused,
    onselect,
    onmove,
    onthickness,
  }: Props = $props();
  const { width, dimY } = $derived(frame);
  const field = $derived.by(() => {
    const slab = drawn.find((one) => one.index === typing);
    return slab && { slab, x: (slab.x0 + slab.x1) / 2, y: dimY };
  });
  let typedFrom = $state(0);
  $effect.pre(() => {
    const index = typing;
    if (index !== undefined) untrack(() => (typedFrom = assembly.layers[index]?.d ?? 0));
  });
  function type(index: number): void {
    typing = index;
    onselect(index);
  }
  function preview(index: number, d: number): void {
    if (d > 0 && d <= 3) onmove(index, d);
  }
</script>

<!-- dimension texts, to click and type on -->
{#each drawn as slab, at (slab.layer.id)}
  {#if typing !== slab.index}
    <button
      class="dimension"
      class:on={slab.index === selected}
      style:left="{(slab.x0 + slab.x1) / 2}px"
      style:top="{(rows[at] ?? 0) === 0 ? dimY - 19 : dimY - 12 + (rows[at] ?? 0) * 15}px"
      onclick={() => type(slab.index)}
      tabindex="-1"
      aria-label="{words.name(slab.layer.material)}: {units.full(slab.layer.d, 'length')}, type a thickness"
      >{units.length(slab.layer.d)}</button
    >
  {/if}
{/each}
{#if field}
  <div
    class="typing"
    style:left="{Math.min(Math.max(field.x, 60), width - 70)}px"
    style:top="{field.y - 14}px"
  >
    <Entry
      value={typedFrom}
      dimension="length"
      label="Thickness of {words.name(field.slab.layer.material)}"
      showLabel={false}
      positive
      yours
      autofocus
      {refused}
      onpreview={(d) => preview(field.slab.index, d)}
      oncancel={() => {
        onmove(field.slab.index, typedFrom);
        typing = undefined;
      }}
      onsave={(d) => {
        if (d !== null) onthickness(field.slab.index, d, typedFrom);
        typing = undefined;
      }}
    />
  </div>
{/if}

<style>
  .dimension {
    position: absolute;
    transform: translateX(-50%);
    border: 0;
    background: none;
    font: 400 var(--fs-small) var(--mono);
    letter-spacing: -0.02em;
    padding: 0 2px;
    min-width: 24px;
    line-height: 16px;
  }
  .dimension:hover {
    box-shadow: inset 0 -2px var(--verdigris);
  }
  .dimension.on {
    color: var(--verdigris);
    font-weight: 600;
  }
  .typing {
    position: absolute;
    transform: translateX(-50%);
    background: var(--sheet);
    z-index: 2;
    width: max-content;
    max-width: 320px;
  }
</style>
