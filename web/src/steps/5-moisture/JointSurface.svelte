<!-- The inner surface of a joint against what the months ask, and what would keep it: each change solved again. -->
<script lang="ts">
  import type { Building, Joint, JointSurface, Remedy } from '@/api/client';
  import { api, take } from '@/api/client';
  import { MONTHS } from '@/kit/months';
  import { router } from '@/project/router.svelte';
  import { Search } from '@/api/search.svelte';
  import { session } from '@/project/session.svelte';
  import { Solving } from '@/api/solving.svelte';
  import { decisions } from '@/project/decisions.svelte';
  import { surfaces } from '@/project/surfaces.svelte';
  import Button from '@/kit/Button.svelte';
  import SolvingBar from '@/kit/SolvingBar.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    joint: Joint;
    units: Units;
  }
  let { building, joint, units }: Props = $props();
  const solving = new Solving();
  const ranking = $derived(surfaces.of(building.id));
  const surface = $derived(ranking?.surfaces.find((one) => one.joint && one.id === joint.id));
  const asked = $derived(surface?.asked ?? null);
  const byMonth = $derived(asked !== null && asked === surface?.required);
  const passes = $derived(!surface || surface.f_rsi === null || asked === null || surface.f_rsi >= asked);
  const of = $derived(JSON.stringify([session.open?.revision, building.id, joint.id]));
  const search = new Search<JointSurface>(solving);
  const answer = $derived(search.of(of));
  const ask = () =>
    search.run(of, (ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/joint-surface', {
          params: { path: { project_id: router.place.project } },
          body: { building_id: building.id, joint_id: joint.id, ticket },
        }),
      ).finally(() => decisions.again()),
    );
  const kept = $derived(answer?.remedies.filter((one) => one.found) ?? []);
  const named = $derived(new Set(kept.map(about)));
  const rest = $derived(
    (answer?.remedies.filter((one) => !one.found && !named.has(about(one))) ?? []).toSorted(
      (a, b) => (b.f_rsi ?? 0) - (a.f_rsi ?? 0),
    ),
  );
  function about(one: Remedy): string {
    if (one.kind === 'outside') return `insulation outside of the ${one.text}`;
    if (one.kind === 'core') return `a thicker core of the ${one.text}`;
    return one.word ? `${one.text} ${one.word}` : one.text;
  }
  function words(one: Remedy): string {
    const size = (value: number | null) => units.full(value ?? 0, one.dimension);
    switch (one.kind) {
      case 'variant':
        return `the variant “${one.text}”`;
      case 'choice':
        return `${one.text}: ${one.word}`;
      case 'outside':
        return `${size(one.amount)} of open insulation outside of the ${one.text}; ${size(one.before)} still fails`;
      case 'core':
        return `a core of ${size(one.amount)} in the ${one.text}; ${size(one.before)} still fails`;
      case 'parameter':
        return `${one.text} of ${size(one.amount)}; ${size(one.before)} still fails`;
    }
  }
</script>

{#if surface && surface.f_rsi !== null && asked !== null}
  <div class="surface" class:decision={!passes} data-testid="joint-surface">
    <p>
      {#if passes}Its inner surface keeps:{:else}<strong>Its inner surface fails:</strong>{/if}
      f<sub>Rsi</sub>
      {units.show(surface.f_rsi, 'ratio')} against {units.show(asked, 'ratio')} asked{!byMonth
        ? ' by the Basis'
        : ranking?.critical == null
          ? ''
          : ` in ${MONTHS[ranking.critical]}`}; by the months it fails from a room at {units.show(
        surface.phi_fails ?? 0,
        'share',
        0,
      )} % on.
    </p>
    {#if answer}
      {#if kept.length}
        <p>Each of these alone keeps it, solved again:</p>
        <ul>
          {#each kept as one, n (n)}
            <li>{words(one)} <span class="soft">f {units.show(one.f_rsi ?? 0, 'ratio')}</span></li>
          {/each}
        </ul>
      {/if}
      {#if rest.length}
        <p class="soft">
          Not enough alone, at the values looked at: {[...new Set(rest.map(about))].join(', ')}; the best of
          them comes to {units.show(rest[0]?.f_rsi ?? 0, 'ratio')}.
        </p>
      {/if}
    {:else if !passes}
      <Button onclick={ask} disabled={search.busy}>Search what would keep it</Button>
      {#if search.problem}<span class="soft" role="status">{search.problem}</span>{:else if !search.busy}<span
          class="soft">variants, parameters and build-ups, each solved again, up to a minute</span
        >{/if}
    {/if}
    <SolvingBar {solving} name="the search" />
  </div>
{/if}

<style>
  .surface {
    margin: 4px 0 10px;
  }
  .decision {
    padding: 8px 12px;
    border-left: 3px solid var(--oxide);
    background: var(--sheet-bright);
  }
  strong {
    color: var(--oxide);
  }
  p {
    margin: 0 0 4px;
    max-width: 90ch;
  }
  ul {
    margin: 0 0 4px;
    padding-left: 18px;
  }
</style>
