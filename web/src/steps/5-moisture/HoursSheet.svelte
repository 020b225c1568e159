<!-- A build-up by the hour: what is supposed, the run or a fan of harder lives, and what stands in its way. -->
<script lang="ts">
  import type { Assembly, Building, Life } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { untrack } from 'svelte';
  import FanSheet from './FanSheet.svelte';
  import { runs } from './hours.svelte';
  import HoursRun from './HoursRun.svelte';
  import LifeForm from './LifeForm.svelte';

  interface Props {
    building: Building;
    assembly: Assembly;
    units: Units;
    fan: boolean;
  }
  let { building, assembly, units, fan }: Props = $props();
  const project = $derived(router.place.project);
  const revision = $derived(session.open?.revision ?? 0);
  const at = $derived(`${project}/${building.id}/${assembly.id}`);
  /** What a run supposes until somebody says otherwise. */
  const meant = asking(
    () => ({ project, building: building.id, assembly, revision }),
    ({ project, building: building_id, assembly }): Promise<Life> =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/life', {
          ...inProject(project),
          body: { building_id, assembly },
        }),
      ),
  );
  const start = $derived(meant.answered?.assembly.id === assembly.id ? meant.answer : undefined);
  const life = $derived<Life | undefined>(start && { ...start, ...runs.lives[at] });
  let again = $state(0);
  const live = $derived(fan ? runs.fan : runs.run);
  const solving = $derived(fan ? runs.fanning : runs.solving);
  $effect(() => {
    const asked = life && { project, building: building.id, revision, assembly, life, again };
    const now = live;
    const bar = solving;
    if (!asked) return;
    untrack(() => {
      const before = now.asked;
      // The same question from another visit is not asked again.
      if (before && JSON.stringify(before) === JSON.stringify(asked)) return;
      if (before && now.stale) bar.stop();
      now.ask(asked);
    });
  });
  const run = $derived(
    runs.run.answered?.assembly.id === assembly.id && runs.run.answered.building === building.id
      ? runs.run.answer
      : undefined,
  );
  const problem = $derived(live.problem ?? meant.problem);
  const stopped = $derived(problem?.status === 409);
  const refused = $derived.by(() => {
    const one = problem?.body.errors?.[0];
    const name = one?.pointer.split('/').at(-1);
    return one && name !== undefined && life && name in life ? { field: name, text: one.detail } : undefined;
  });
  const change = (to: Partial<Life>) => (runs.lives = { ...runs.lives, [at]: { ...runs.lives[at], ...to } });
</script>

<div class="columns">
  <div data-stale={live.stale}>
    <div class="state">
      {#if live.stale && !problem}<span>running by the hour</span>{/if}
      <SolvingBar {solving} name="the run" />
    </div>
    {#if stopped}
      <Notice tone="note" title="This was stopped." text="What was run before stands." live />
      <Button onclick={() => (again += 1)}>Run it</Button>
    {:else if problem}
      <Notice title="No run of this build-up." text={problem.sentence} live />
    {/if}
    {#if fan}
      <FanSheet {units} fan={runs.fan.answered?.assembly.id === assembly.id ? runs.fan.answer : undefined} />
    {:else if run && life}
      <HoursRun {building} {assembly} {life} {run} {units} />
    {/if}
  </div>
  <aside>
    <h2>Assumptions</h2>
    {#if life}<LifeForm {assembly} {life} {refused} onchange={change} />{/if}
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 300px;
  }
  .state {
    min-height: 30px;
    display: flex;
    gap: 8px;
    align-items: center;
    color: var(--ink-3);
    font-size: var(--fs-small);
  }
</style>
