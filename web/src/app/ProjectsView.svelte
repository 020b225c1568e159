<!-- All projects: open, begin, bring in, and the bin. -->
<script lang="ts">
  import { api, asProblem, take } from '@/api/client';
  import type { Listed, Problem } from '@/api/client';
  import { router } from '@/project/router.svelte';
  import { counted } from '@/kit/reading';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';

  import BeginView from './BeginView.svelte';
  import BackupsList from './BackupsList.svelte';

  interface Props {
    onfile: () => void;
  }
  let { onfile }: Props = $props();
  let projects = $state.raw<Listed[]>();
  let problem = $state.raw<Problem>();
  let beginning = $state(false);

  async function load(): Promise<void> {
    try {
      projects = await take(api.GET('/api/v1/projects'));
      problem = undefined;
    } catch (error) {
      problem = asProblem(error);
    }
  }
  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work();
      await load();
    } catch (error) {
      problem = asProblem(error);
    }
  }
  const remove = (id: string) =>
    attempt(() =>
      take(api.DELETE('/api/v1/projects/{project_id}', { params: { path: { project_id: id } } })),
    );
  const restore = (id: string) =>
    attempt(() =>
      take(api.POST('/api/v1/projects/{project_id}/restore', { params: { path: { project_id: id } } })),
    );
  $effect(() => void load());
  const open = $derived(projects?.filter((one) => !one.deleted) ?? []);
  const bin = $derived(projects?.filter((one) => one.deleted) ?? []);
</script>

{#if beginning}
  <BeginView oncancel={() => (beginning = false)} />
{:else}
  <h1>Projects</h1>
  {#if problem}
    <Notice title={problem.body.title} text={problem.body.hint ?? ''} live
      ><Button onclick={() => void load()}>Try again</Button></Notice
    >
  {/if}
  {#if projects}
    <ul>
      {#each open as project (project.id)}
        <li>
          <a
            href="/{project.id}"
            onclick={(event) => {
              event.preventDefault();
              router.go({ project: project.id, building: '', step: 2, station: 'D' });
            }}><b>{project.name}</b></a
          >
          <span>{counted(project.buildings, 'building')}, {counted(project.assemblies, 'build-up')}</span>
          <span>changed {project.changed_at.slice(0, 16).replace('T', ' ')} UTC</span>
          <Button label="Delete {project.name}" onclick={() => void remove(project.id)}>Delete</Button>
        </li>
      {:else}
        <li class="empty">No project yet. Begin one, or bring one in.</li>
      {/each}
    </ul>
    <p class="begin">
      <Button strong onclick={() => (beginning = true)}>Begin a project</Button>
      <Button onclick={onfile}>Import a project file</Button>
    </p>
    {#if bin.length}
      <h2>Deleted</h2>
      <ul>
        {#each bin as project (project.id)}
          <li>
            <b>{project.name}</b><span>{counted(project.buildings, 'building')}</span><span></span><Button
              label="Restore {project.name}"
              onclick={() => void restore(project.id)}>Restore</Button
            >
          </li>
        {/each}
      </ul>
    {/if}
    <BackupsList />
  {:else if !problem}
    <p role="status">Loading</p>
  {/if}
{/if}

<style>
  h1 {
    font-size: var(--fs-title);
    font-weight: 600;
    margin-bottom: 12px;
  }
  h2 {
    font-size: var(--fs-lead);
    margin: 24px 0 4px;
  }
  ul {
    list-style: none;
    max-width: 860px;
    border-top: 1px solid var(--line);
  }
  li {
    display: grid;
    grid-template-columns: 2fr 1.4fr 1.4fr auto;
    gap: 16px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 7px 0;
  }
  li span {
    color: var(--ink-2);
    font-size: var(--fs-small);
  }
  b {
    overflow-wrap: anywhere;
  }
  .empty {
    color: var(--ink-3);
    border: 1px dashed var(--line);
    padding: 24px;
    display: block;
  }
  .begin {
    display: flex;
    gap: 8px;
    margin-top: 16px;
  }
</style>
