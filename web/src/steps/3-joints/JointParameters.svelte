<!-- Parameters of a variant, to be turned. -->
<script lang="ts">
  import type { JointVariant } from '@/api/client';
  import Choice from '@/kit/Choice.svelte';
  import Entry from '@/kit/Entry.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    variant: JointVariant;
    /** As drawn; what is not there is at its start. */
    values: Record<string, string | number>;
    onturn: (key: string, value: number | string) => void;
  }
  let { variant, values, onturn }: Props = $props();
</script>

<h2>Parameters</h2>
<div class="stack">
  {#each variant.parameters as one (one.key)}
    {@const now = values[one.key]}
    {#if one.kind === 'number'}
      <Entry
        label={one.text}
        dimension={one.dimension ?? 'length'}
        value={typeof now === 'number' ? now : Number(one.start)}
        width="tiny"
        onsave={(typed) => typed !== null && onturn(one.key, typed)}
      />
    {:else}
      <Choice
        label={one.text}
        value={String(now ?? one.start)}
        options={(one.options ?? []).map((word) => ({
          value: word,
          text: session.materials.get(word)?.name ?? word,
        }))}
        onsave={(word) => onturn(one.key, word)}
      />
    {/if}
  {/each}
</div>
