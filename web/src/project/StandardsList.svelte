<!-- Standards of the practice, where each is used, and what can be done with it. -->
<script lang="ts" generics="S extends AnyStandard">
  import type { AnyStandard } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import type { Snippet } from 'svelte';

  interface Props {
    standards: S[];
    testid: string;
    name: (standard: S) => string;
    /** Of what kind it is, in a word or two. */
    kind: (standard: S) => string;
    onwithdraw: (standard: S) => void;
    /** More that can be done with one. */
    more?: Snippet<[S]>;
  }
  let { standards, testid, name, kind, onwithdraw, more }: Props = $props();
</script>

<ul data-testid={testid}>
  {#each standards as standard (standard.id)}
    <li class:withdrawn={standard.withdrawn}>
      <p>
        <b>{name(standard)}</b>
        {kind(standard)}, version {standard.version}{standard.withdrawn ? ', withdrawn' : ''}
        {@render more?.(standard)}
        <Button
          label="{standard.withdrawn ? 'Offer again' : 'Withdraw'} {name(standard)}"
          onclick={() => onwithdraw(standard)}>{standard.withdrawn ? 'Offer again' : 'Withdraw'}</Button
        >
      </p>
      <p class="soft">{standard.reason}{standard.source ? `; ${standard.source}` : ''}</p>
      <p class="soft">
        {#each standard.uses as use, at (at)}{at ? '; ' : 'used: '}{use.project}, {use.name} (version {use.version}){:else}not
          used{/each}
      </p>
    </li>
  {:else}
    <li class="soft">None yet.</li>
  {/each}
</ul>

<style>
  ul {
    list-style: none;
  }
  li {
    border-bottom: 1px solid var(--hair);
    padding: 5px 0;
  }
  .withdrawn b {
    text-decoration: line-through;
  }
</style>
