<!-- A save that did not happen in a project which the window has gone on from. -->
<script lang="ts">
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';

  const unsaved = $derived(session.unsaved);

  function back(project: string): void {
    session.unsaved = undefined;
    router.go({ project, building: '' });
  }
</script>

{#if unsaved}
  <div class="unsaved">
    <Notice title={unsaved.said} text="There it stands as it was before." live>
      {#if router.place.project !== unsaved.project}
        <Button strong onclick={() => back(unsaved.project)}>Go back to that project</Button>
      {/if}
      <Button onclick={() => (session.unsaved = undefined)}>Leave it as it was</Button>
    </Notice>
  </div>
{/if}

<style>
  .unsaved {
    margin-bottom: 10px;
  }
</style>
