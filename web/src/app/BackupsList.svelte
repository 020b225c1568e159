<!-- Earlier states of the data: what lies in each backup, and a project of one brought back beside what there is. -->
<script lang="ts">
  import { api, asProblem, take } from '@/api/client';
  import type { Backup, Problem } from '@/api/client';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { router } from '@/project/router.svelte';

  let backups = $state.raw<Backup[]>();
  let problem = $state.raw<Problem>();
  let busy = $state(false);

  async function load(): Promise<void> {
    try {
      backups = await take(api.GET('/api/v1/backups'));
    } catch (error) {
      problem = asProblem(error);
    }
  }
  async function bringBack(backup: Backup, project: string): Promise<void> {
    busy = true;
    problem = undefined;
    try {
      const path = { name: backup.name, project_id: project };
      const made = await take(api.POST('/api/v1/backups/{name}/projects/{project_id}', { params: { path } }));
      router.go({ project: made.project.id, building: '', station: 'D', step: 2 });
    } catch (error) {
      problem = asProblem(error);
    } finally {
      busy = false;
    }
  }
  const when = (at: string) => `${at.slice(0, 16).replace('T', ' ')} UTC`;
  const REASONS: Record<string, string> = {
    daily: 'of the day',
    'before-migration': 'before the program changed the file',
    'before-restore': 'before another one was put back',
  };
</script>

<details ontoggle={(event) => event.currentTarget.open && !backups && void load()}>
  <summary>Earlier states</summary>
  <p class="soft">
    A project of a backup comes back as a copy beside what there is. To put a whole backup in place, stop the
    server and use <code>nimble restore</code> with its name.
  </p>
  {#if problem}<Notice title={problem.body.title} text={problem.sentence} live />{/if}
  {#if !backups && !problem}<p role="status">Looking into the backups</p>{/if}
  {#if backups}
    <table data-testid="backups">
      <thead><tr><th>made</th><th>why</th><th>what lies in it</th></tr></thead>
      <tbody>
        {#each backups as backup (backup.name)}
          <tr>
            <td class="when" title={backup.name}
              >{when(backup.made_at)}<small>{Math.ceil(backup.size / 1024)} kB</small></td
            >
            <td>{REASONS[backup.reason] ?? backup.reason}</td>
            <td>
              {#if backup.why_not}<span class="over">cannot be used: {backup.why_not}</span>{/if}
              {#each backup.projects as project (project.id)}
                <span class="project">
                  {project.name}, changed {when(project.changed_at)}
                  <Button
                    label="Bring back as a copy: {project.name} of {when(backup.made_at)}"
                    disabled={busy}
                    onclick={() => void bringBack(backup, project.id)}>Bring back as a copy</Button
                  >
                </span>
              {:else}{backup.why_not ? '' : 'no project'}{/each}
            </td>
          </tr>
        {:else}
          <tr><td colspan="3" class="soft">No backup yet: one is made on each day the program runs.</td></tr>
        {/each}
      </tbody>
    </table>
  {/if}
</details>

<style>
  details {
    max-width: 860px;
    margin-top: 24px;
  }
  summary {
    font-size: var(--fs-lead);
    font-weight: 600;
    min-height: 24px;
    cursor: pointer;
  }
  td {
    vertical-align: top;
    padding-block: 5px;
  }
  .when {
    white-space: nowrap;
  }
  small {
    display: block;
    color: var(--ink-3);
    font-size: var(--fs-cap);
  }
  .project {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    align-items: center;
  }
  code {
    font-family: var(--mono);
  }
</style>
