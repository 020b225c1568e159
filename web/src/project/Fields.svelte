<!-- Figures that somebody decides, one below the other: each is saved as it is typed. -->
<script lang="ts">
  import Entry from '@/kit/Entry.svelte';
  import type { Field } from './fields';

  interface Props {
    fields: readonly Field[];
    /** What is stored, by field. */
    values: object;
    why: (field: string) => string | undefined;
    onsave: (change: Record<string, number | null>, text: string) => void;
  }
  let { fields, values, why, onsave }: Props = $props();
  const stored = (field: string) => (values as Record<string, number | null | undefined>)[field];
  function save(one: Field, value: number | null): void {
    if (value === null && !one.optional) return;
    onsave({ [one.field]: one.whole && value !== null ? Math.round(value) : value }, one.text);
  }
</script>

{#each fields as one (one.field)}
  <Entry
    label={one.text}
    dimension={one.dimension}
    decimals={one.whole ? 0 : one.decimals}
    value={stored(one.field)}
    optional={one.optional ?? false}
    refused={why(one.field)}
    onsave={(value) => save(one, value)}
  />
{/each}
