<!-- Everything of a group that can be turned: how many, of what, how long, and what spreads its ends. -->
<script lang="ts">
  import type { Fixing } from '@/api/client';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';

  interface Props {
    fixing: Fixing;
    /** What was refused of a part, in words. */
    refused: (key: string) => string | undefined;
    onturn: (change: Partial<Fixing>, what: string) => void;
  }
  let { fixing, refused, onturn }: Props = $props();
  const solids = $derived(
    [...session.materials.values()]
      .filter((one) => ['metal', 'plastic', 'timber', 'panel'].includes(one.family))
      .map((one) => ({ value: one.key, text: one.name })),
  );
  const patterned = $derived(fixing.n === null || fixing.n === undefined);
  const perArea = $derived(patterned ? 1 / ((fixing.across ?? 1) * (fixing.along ?? 1)) : (fixing.n ?? 1));
  const round = $derived(fixing.diameter !== null && fixing.diameter !== undefined);
  const through = $derived(!round && (fixing.h ?? 0) >= (fixing.along ?? Infinity) * 0.999999);
  const ENDS = [
    { key: 'head', text: 'outer plate' },
    { key: 'foot', text: 'inner plate' },
  ] as const;

  function count(how: string): void {
    if (how === 'spacing') {
      const each = Number(Math.sqrt(1 / perArea).toPrecision(3));
      onturn({ n: null, across: each, along: each }, 'spacing');
    } else onturn({ n: Number(perArea.toPrecision(4)), across: null, along: null }, 'number per area');
  }
</script>

{#snippet length(key: 'across' | 'along' | 'diameter' | 't' | 'h' | 'inner' | 'outer', text: string)}
  <Entry
    label={text}
    dimension="length"
    value={fixing[key] ?? 0}
    width="tiny"
    refused={refused(key)}
    onsave={(value) => value !== null && onturn({ [key]: value }, text)}
  />
{/snippet}

<div class="stack">
  <Choice
    label="material"
    value={fixing.material}
    options={solids}
    onsave={(material) =>
      onturn({ material }, `of ${session.materials.get(material)?.name.toLowerCase() ?? material}`)}
  />
  <Choice
    label="counted by"
    value={patterned ? 'spacing' : 'number'}
    options={[
      { value: 'spacing', text: 'spacing' },
      { value: 'number', text: 'number per area' },
    ]}
    onsave={count}
  />
  {#if patterned}
    {@render length('across', 'spacing across')}
    {@render length('along', 'spacing along')}
  {:else}
    <Entry
      label="number"
      dimension="count_per_area"
      value={fixing.n}
      positive
      width="tiny"
      refused={refused('n')}
      onsave={(n) => n !== null && onturn({ n }, 'number')}
    />
  {/if}
  {#if round}
    {@render length('diameter', 'diameter')}
  {:else}
    {@render length('t', 'thickness')}
    {@render length('h', 'height')}
    {#if through}<small>as high as its spacing: it runs through</small>{/if}
  {/if}
  {@render length('inner', 'into what is inside')}
  {@render length('outer', 'into what is outside')}
  <Entry
    label="depth in the layer"
    dimension="length"
    value={fixing.depth}
    optional
    width="tiny"
    refused={refused('depth')}
    onsave={(depth) => onturn({ depth }, depth === null ? 'through the whole layer' : 'sunk')}
  />
  {#if round}
    <Entry
      label="sleeve"
      dimension="length"
      value={fixing.sleeve}
      optional
      width="tiny"
      refused={refused('sleeve')}
      onsave={(sleeve) =>
        onturn(
          {
            sleeve,
            sleeve_material: sleeve === null ? '' : fixing.sleeve_material || 'polypropylene',
          },
          sleeve === null ? 'no sleeve' : 'sleeve',
        )}
    />
  {/if}
  {#each ENDS as end (end.key)}
    {@const plate = fixing[end.key]}
    {#if plate}
      <Choice
        label={end.text}
        value={plate.material}
        options={solids}
        onsave={(material) => onturn({ [end.key]: { ...plate, material } }, end.text)}
      />
      <Entry
        label="{end.text}: size"
        dimension="length"
        value={plate.size}
        positive
        width="tiny"
        refused={refused('size')}
        onsave={(size) => size !== null && onturn({ [end.key]: { ...plate, size } }, end.text)}
      />
      <Entry
        label="{end.text}: thickness"
        dimension="length"
        value={plate.t}
        positive
        width="tiny"
        refused={refused('t')}
        onsave={(t) => t !== null && onturn({ [end.key]: { ...plate, t } }, end.text)}
      />
      <Button onclick={() => onturn({ [end.key]: null }, `no ${end.text}`)}>leave {end.text} out</Button>
    {:else}
      <Button onclick={() => onturn({ [end.key]: { material: 'steel', size: 0.05, t: 0.002 } }, end.text)}
        >add {end.text}</Button
      >
    {/if}
  {/each}
</div>

<style>
  small {
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .stack :global(select) {
    max-width: 150px;
  }
</style>
