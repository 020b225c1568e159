<!-- Keeping something as a standard of the practice: why it is trusted, on what ground, and since when. -->
<script lang="ts">
  import type { Problem } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { session } from './session.svelte';

  interface Props {
    onkeep: (reason: string, source: string, since: string) => Promise<boolean>;
  }
  let { onkeep }: Props = $props();
  let reason = $state('');
  let source = $state('');
  let since = $state('');
  /** Why the last request was refused; a list that is loaded again does not take that back. */
  let refused = $state.raw<Problem>();

  async function keep(): Promise<void> {
    const good = await onkeep(reason.trim(), source.trim(), since.trim());
    refused = good ? undefined : session.saves.takeRefusal();
    if (good) reason = source = since = '';
  }
</script>

{#if refused}<Notice title={refused.body.title} text={refused.sentence} live />{/if}
<div class="form">
  <label>why the practice trusts it<input bind:value={reason} maxlength="200" /></label>
  <label>source, tested at<input bind:value={source} maxlength="200" /></label>
  <label>trusted since<input bind:value={since} maxlength="60" /></label>
  <Button strong onclick={() => void keep()}>Keep</Button>
</div>

<style>
  .form {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  label {
    display: grid;
    grid-template-columns: 160px minmax(0, 300px);
    align-items: center;
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  input {
    border: 1px solid var(--line);
    background: var(--sheet-bright);
    padding: 2px 6px;
    min-height: 24px;
  }
</style>
