<!-- What a run by the hour supposes of weather, building and life. -->
<script lang="ts">
  import type { Assembly, Life } from '@/api/client';
  import { layerName } from '@/project/layers';
  import { session } from '@/project/session.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { MONTHS } from '@/kit/months';

  interface Props {
    assembly: Assembly;
    life: Life;
    refused: { field: string; text: string } | undefined;
    onchange: (change: Partial<Life>) => void;
  }
  let { assembly, life, refused, onchange }: Props = $props();
  const FACING = ['north', 'east', 'south', 'west'];
  const counted = $derived.by(() => {
    const open = assembly.layers.findIndex((layer) => layer.air?.ventilation === 'well');
    return open < 0 ? assembly.layers.length : open;
  });
  const vented = $derived(assembly.layers.some((layer) => layer.air?.ventilation === 'well'));
  const why = (field: keyof Life) => (refused?.field === field ? refused.text : undefined);
</script>

{#snippet number(field: keyof Life, label: string, dimension: string, decimals: number)}
  <Entry
    {label}
    {dimension}
    {decimals}
    value={life[field] as number}
    refused={why(field)}
    onsave={(value) => value !== null && onchange({ [field]: value })}
  />
{/snippet}

<div class="form" data-testid="life">
  {#if assembly.outside !== 'ground'}
    <Choice
      label="faces"
      value={String(life.azimuth ?? 0)}
      options={FACING.map((text, n) => ({ value: String(90 * n), text }))}
      onsave={(value) => onchange({ azimuth: Number(value) })}
    />
    {@render number('tilt', 'tilt, 90° stands', 'angle', 0)}
    {@render number('absorptance', 'sun taken up', 'share', 0)}
    {@render number('rain', 'rain taken up in a year', 'surface_mass', 0)}
    {#if vented}{@render number('gap', 'air changes of the gap in an hour', 'ratio', 0)}{/if}
  {/if}
  <Choice
    label="begins in"
    value={String(life.begins ?? 10)}
    options={MONTHS.map((text, n) => ({ value: String(n + 1), text }))}
    onsave={(value) => onchange({ begins: Number(value) })}
  />
  {@render number('phi_0', 'humidity it is built in with', 'share', 0)}
  <label class="check">
    <input
      type="checkbox"
      checked={life.fresh ?? false}
      onchange={(event) => onchange({ fresh: event.currentTarget.checked })}
    /> concrete and plaster bring their water
  </label>
  {@render number('damper', 'room damper than the Basis, points', 'share', 0)}
  {@render number('leakage', 'joint that leaks here, at 50 Pa', 'joint_flow', 2)}
  {#if life.leakage}
    <Choice
      label="it wets"
      value={life.leak_layer === null || life.leak_layer === undefined ? '' : String(life.leak_layer)}
      options={[
        { value: '', text: 'the outer skin' },
        ...assembly.layers.slice(1, counted).map((_, n) => ({
          value: String(n + 1),
          text: `inner face of ${layerName(assembly, session.materials, n + 1)}`,
        })),
      ]}
      onsave={(value) => onchange({ leak_layer: value === '' ? null : Number(value) })}
    />
  {/if}
  {@render number('years', 'years at most', 'years', 0)}
</div>

<style>
  .form {
    display: flex;
    flex-direction: column;
    gap: 4px;
    align-items: flex-end;
  }
  .check {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 24px;
    color: var(--ink-2);
  }
</style>
