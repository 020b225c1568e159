<!-- Taking a build-up away: with what uses it named, and by choice together with that. Undo brings all of it back. -->
<script lang="ts">
  import type { Assembly } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';

  interface Props {
    draft: Assembly;
    zone: string;
  }
  let { draft, zone }: Props = $props();
  /** Elements lose it, joints go. */
  const users = $derived(
    (session.open?.project.buildings ?? []).flatMap((building) => [
      ...(building.elements ?? [])
        .filter((one) => one.assembly_id === draft.id)
        .map((one) => ({ where: building.name, name: one.name, goes: false })),
      ...(building.joints ?? [])
        .filter((one) => one.roles.some((role) => role.assembly_id === draft.id))
        .map((one) => ({ where: building.name, name: one.name, goes: true })),
    ]),
  );
  let asking = $state(false);
  let refused = $state('');
  $effect(() => {
    void draft.id;
    asking = false;
    refused = '';
  });
  async function remove(): Promise<void> {
    const good = await session.removeAssembly(draft, users.length ? 'take along' : 'refuse', zone);
    refused = good ? '' : (session.saves.takeRefusal()?.sentence ?? '');
    if (good) router.go({ view: '' });
  }
</script>

{#if asking}
  <div class="ask" role="group" aria-label="Remove {draft.name}" data-testid="remove-build-up">
    <p>
      {#if users.length}<b>{draft.name} is used.</b> Elements lose it and count no more until they have
        another; joints go with it:
        {#each users as one, at (at)}{at ? '; ' : ''}{one.where}, {one.name}{one.goes
            ? ' (joint)'
            : ''}{/each}.
      {:else}Nothing uses <b>{draft.name}</b>.{/if}
      Undo brings it back.
    </p>
    {#if refused}<p class="over" role="alert">{refused}</p>{/if}
    <Button strong onclick={() => void remove()}
      >{users.length ? 'Remove it together with them' : 'Remove it'}</Button
    >
    <Button onclick={() => (asking = false)}>Keep it</Button>
  </div>
{:else}
  <Button label="Remove {draft.name}" onclick={() => (asking = true)}>Remove</Button>
{/if}

<style>
  .ask {
    flex-basis: 100%;
    border-left: 3px solid var(--ochre-line);
    background: var(--sheet-bright);
    padding: 8px 12px;
    font-size: var(--fs-small);
  }
  p {
    margin-bottom: 6px;
    max-width: 90ch;
  }
</style>
