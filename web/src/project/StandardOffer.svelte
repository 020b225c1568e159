<!-- What the newest version of the standard would change of what was taken from it. -->
<script lang="ts">
  import type { Offer } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';

  type Difference = Offer['differences'][number];
  interface Props {
    /** The version that is offered, and the one that was taken. */
    version: number;
    taken: number | undefined;
    /** "build-up" or "joint". */
    what: string;
    differences: Difference[];
    /** What differs, and a value of it, as a designer reads them. */
    name: (one: Difference) => string;
    value: (one: Difference, side: 'before' | 'after') => string | number;
    ontake: () => void;
  }
  let { version, taken, what, differences, name, value, ontake }: Props = $props();
</script>

<Notice
  tone="note"
  title={version === taken
    ? `This ${what} was changed since it was taken.`
    : `Version ${version} of the standard is there.`}
  text="Taking it changes what is listed, as one step that undo takes back."
/>
<table data-testid="offer">
  <thead><tr><th>what</th><th>here</th><th>standard</th></tr></thead>
  <tbody>
    {#each differences as one, at (at)}
      <tr><th scope="row">{name(one)}</th><td>{value(one, 'before')}</td><td>{value(one, 'after')}</td></tr>
    {:else}<tr><td colspan="3">no difference but the version</td></tr>{/each}
  </tbody>
</table>
<Button strong onclick={ontake}>Take it</Button>

<style>
  table {
    font-size: var(--fs-small);
  }
</style>
