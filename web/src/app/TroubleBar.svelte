<!-- A save that did not happen: what it was, why, and the ways out. What the window holds is kept. -->
<script lang="ts">
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { api, take } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { refusals } from '@/kit/refusals.svelte';

  const trouble = $derived(session.saves.trouble);
  const status = $derived(trouble?.problem.status);
  /** Of what was typed: said at its field, or here where no field had it written. */
  const refused = $derived(status === 422);
  const deleted = $derived(trouble?.problem.is('project_not_found') ?? false);
  const title = $derived.by(() => {
    if (!trouble) return '';
    const why = refused ? trouble.problem.clause : trouble.problem.body.title;
    return `Not saved: ${session.units?.said(trouble.doing) ?? trouble.doing}. ${why}.`;
  });

  function keep(): void {
    const held = session.open;
    if (!held) return;
    const assemblies =
      held.project.assemblies?.map((one) => (one.id === bench.draft?.id ? bench.draft : one)) ?? [];
    const file = { format: 'nimble-shell-project', version: 1, project: { ...held.project, assemblies } };
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: 'application/json' }));
    link.download = 'what-this-window-held.json';
    link.click();
    URL.revokeObjectURL(link.href);
  }
  async function restore(): Promise<void> {
    const id = session.open?.project.id ?? router.place.project;
    await take(
      api.POST('/api/v1/projects/{project_id}/restore', { params: { path: { project_id: id } } }),
    ).catch(() => undefined);
    if (trouble?.retry) await trouble.retry();
  }
  async function theirs(): Promise<void> {
    bench.drop();
    await session.reload();
  }
</script>

{#if trouble && !(refused && refusals.atField)}
  <div class="trouble">
    <Notice {title} text={refused ? 'The old value stands.' : (trouble.problem.body.hint ?? '')} live>
      {#if refused}
        <Button onclick={() => (session.saves.trouble = undefined)}>Leave it as it was</Button>
      {:else if status === 409 && trouble.insist}
        <Button strong onclick={() => void theirs()}>Load the newer version</Button>
        <Button onclick={() => void trouble.insist?.()}>Save mine over it</Button>
      {:else if status === 409}
        <Button strong onclick={() => void theirs()}>Load the newer version</Button>
      {:else if deleted}
        <Button strong onclick={() => void restore()}>Bring the project back</Button>
        <Button onclick={() => router.go({ project: '', building: '' })}>All projects</Button>
      {:else}
        <Button strong onclick={() => void trouble.retry?.()}>Try again</Button>
      {/if}
      {#if session.open && !refused}<Button onclick={keep}>Keep what this window holds as a file</Button>{/if}
      {#if status === 404 && !deleted}<Button onclick={() => void theirs()}>Load the project again</Button
        >{/if}
    </Notice>
  </div>
{/if}

<style>
  .trouble {
    margin-bottom: 10px;
  }
</style>
