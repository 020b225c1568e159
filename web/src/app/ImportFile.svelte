<!-- A project file read in from this machine: the way in, and why it was not taken. -->
<script lang="ts">
  import { api, asProblem, take } from '@/api/client';
  import Notice from '@/kit/Notice.svelte';
  import { router } from '@/project/router.svelte';

  const MOST = 16; // of a project file [MB]
  let fileInput = $state<HTMLInputElement>();
  let problem = $state.raw<ReturnType<typeof asProblem>>();

  /** Ask for a file. */
  export function choose(): void {
    fileInput?.click();
  }

  async function importFile(file: File | undefined): Promise<void> {
    if (!file) return;
    problem = undefined;
    try {
      const made = await take(api.POST('/api/v1/projects/import', { body: await read(file) }));
      router.go({ project: made.project.id, building: '', station: 'D', step: 2 });
    } catch (error) {
      problem = asProblem(error);
    } finally {
      if (fileInput) fileInput.value = '';
    }
  }
  async function read(file: File): Promise<Record<string, unknown>> {
    if (file.size > MOST * 1024 * 1024)
      throw new Error(
        `${file.name} has ${Math.round(file.size / 1048576)} MB; a project file has at most ${MOST} MB. Nothing was changed.`,
      );
    try {
      return JSON.parse(await file.text()) as Record<string, unknown>;
    } catch (error) {
      throw new Error(
        `${file.name} is not readable as JSON: ${error instanceof Error ? error.message : ''}. Nothing was changed.`,
        { cause: error },
      );
    }
  }
</script>

<input
  class="visually-hidden"
  type="file"
  accept=".json,application/json"
  aria-label="Project file to import"
  tabindex="-1"
  bind:this={fileInput}
  onchange={(event) => void importFile(event.currentTarget.files?.[0])}
/>
{#if problem}<Notice
    title="The file was not imported."
    text={problem.items.map((item) => `${item.pointer} ${item.detail}; ${item.hint}.`).join(' ') ||
      problem.sentence}
    live
  />{/if}
