<!-- Where the control plane may lie: the rule of ratio beside what temperature and humidity are there, as a slider. -->
<script lang="ts">
  import type { Assembly, Building, Position, Positions } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import PlaneSection from '@/draw/PlaneSection.svelte';
  import { beside } from '@/project/layers';
  import { MONTHS } from '@/kit/months';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import { working } from '@/project/working.svelte';
  import Figure from '@/kit/Figure.svelte';
  import Notice from '@/kit/Notice.svelte';
  import type { Units } from '@/kit/units';

  interface Props {
    building: Building;
    assembly: Assembly;
    units: Units;
  }
  let { building, assembly, units }: Props = $props();
  const live = asking(
    () => ({
      project: router.place.project,
      building: building.id,
      revision: session.open?.revision ?? 0,
      assembly,
    }),
    ({ project, building: building_id, assembly: asked }): Promise<Positions> =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/positions', {
          ...inProject(project),
          body: { building_id, assembly: asked },
        }),
      ),
  );
  const found = $derived(live.answered?.assembly.id === assembly.id ? live.answer : undefined);
  const problem = $derived(live.problem);
  const limit = $derived(session.shipped?.mould_phi ?? 1);
  let chosen = $state(0);
  let moved = $state<number>();
  $effect(() => {
    void assembly.id;
    moved = undefined;
    chosen = 0;
  });
  const position = $derived(found?.sections[chosen] ?? found?.sections[0]);
  const x = $derived(moved ?? position?.x_now ?? position?.x_safe ?? 0);
  /** Between the places that were sent. */
  function read(of: Position, key: 'share' | 'thickness' | 'theta' | 'phi', at: number): number {
    const n = of.x.findIndex((one) => one >= at);
    if (n <= 0) return of[key][n === 0 ? 0 : of.x.length - 1] ?? 0;
    const [a, b] = [of.x[n - 1] ?? 0, of.x[n] ?? 1];
    const [low, high] = [of[key][n - 1] ?? 0, of[key][n] ?? 0];
    return low + ((at - a) / (b - a || 1)) * (high - low);
  }
  function opened(month: number): void {
    void working.show({
      figure: 'share_safe', title: 'Largest safe share of R inside', dimension: 'share',
      project: router.place.project, building: building.id, condition: router.place.condition, assembly,
      of: { kind: 'moisture', month },
    }); // prettier-ignore
  }
  const percent = (share: number, digits = 0) => `${units.show(share, 'share', digits)} %`;
  const wet = $derived(position ? read(position, 'phi', x) : 0);
</script>

<div class="columns" data-stale={live.stale}>
  <div>
    {#if problem}
      <Notice title="No place for this build-up." text={problem.sentence} live />
    {:else if found && position}
      <h2>
        Humidity of room air, wherever the plane stops it
        <span>{position.month === null ? 'no month asks' : `${MONTHS[position.month]}, which asks most`}</span
        >
      </h2>
      <PlaneSection
        {assembly}
        materials={session.materials}
        {position}
        {units}
        {limit}
        {x}
        onmove={(to) => (moved = to)}
      />
      <p class="soft">
        Drag the plane, or move it by the arrow keys; dotted where it is now. Beyond the ochre line room air
        that reaches the plane passes {percent(limit)}, and mould may follow; from {percent(
          position.condenses,
        )} of R inside it condenses.
      </p>
      {#if found.sections.length > 1}
        <table data-testid="sections">
          <thead
            ><tr
              ><th>section</th><th class="n">R inside now</th><th class="n">safe up to</th><th class="n"
                >condenses from</th
              ></tr
            ></thead
          >
          <tbody>
            {#each found.sections as one, n (n)}
              <tr class:on={n === chosen}>
                <td
                  ><button class="choose" aria-pressed={n === chosen} onclick={() => (chosen = n)}
                    >{one.section === 'field' ? 'field of the build-up' : `through ${one.section}`}</button
                  ></td
                >
                <td class="n" class:over={one.now !== null && one.now > one.safe}
                  >{one.now === null ? '–' : percent(one.now, 1)}</td
                >
                <td class="n">{percent(one.safe, 1)}</td>
                <td class="n">{percent(one.condenses, 1)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <p class="soft method">
        ISO 13788, 5.3, for a plane inside instead of the surface: room air is taken to reach the plane, so
        that a pierced lining is covered. A member changes the resistance of its own layer; heat that runs
        sideways is not seen. Shares are of the thermal resistance without films, and of the thickness.
      </p>
    {/if}
  </div>
  <aside>
    {#if found && position}
      <h2>The plane here</h2>
      <dl data-testid="plane-here">
        <div>
          <dt>from the inner face</dt>
          <dd>{units.full(x, 'length')}</dd>
        </div>
        <div>
          <dt>it lies</dt>
          <dd class="words">{beside(assembly, session.materials, x)}</dd>
        </div>
        <div>
          <dt>share of R inside</dt>
          <dd>{percent(read(position, 'share', x), 1)}</dd>
        </div>
        <div>
          <dt>share of the thickness</dt>
          <dd>{percent(read(position, 'thickness', x), 1)}</dd>
        </div>
        <div>
          <dt>temperature</dt>
          <dd>{units.full(read(position, 'theta', x), 'temperature')}</dd>
        </div>
        <div>
          <dt>room air there</dt>
          <dd class:over={wet > limit}>{percent(wet)}</dd>
        </div>
      </dl>
      {#if moved !== undefined && position.x_now !== null}
        <Button onclick={() => (moved = undefined)}>Back to where it is</Button>
      {/if}
      <h2>Rule and computation</h2>
      <dl>
        <div>
          <dt>rule of ratio</dt>
          <dd>
            {#if found.rule === null}<span class="words">none in the Basis</span>{:else}at most {percent(
                found.rule,
              )}{/if}
          </dd>
        </div>
        <div>
          <dt>computed, {position.section === 'field' ? 'field' : `at the ${position.section}`}</dt>
          <dd>
            at most
            {#if position.section === 'field' && position.month !== null}
              <Figure
                value={units.show(position.safe, 'share')}
                unit="%"
                label="Largest safe share of R inside"
                onwork={() => opened(position.month ?? 0)}
              />
            {:else}{percent(position.safe, 1)}{/if}
          </dd>
        </div>
      </dl>
      {#if found.rule !== null}
        <p class="soft">
          {found.rule > position.safe
            ? 'The rule allows more than this climate and room do: the computed share stands.'
            : 'The rule is on the safe side here.'}
        </p>
      {/if}
    {/if}
  </aside>
</div>

<style>
  .columns {
    --columns: minmax(0, 1fr) 300px;
    gap: 28px;
  }
  h2 {
    font-size: var(--fs-lead);
    display: flex;
    justify-content: space-between;
    gap: 8px;
  }
  dl div {
    padding: 3px 0;
    border-bottom: 1px solid var(--hair);
  }
  dd {
    font-family: var(--mono);
    text-align: right;
    white-space: nowrap;
  }
  .words {
    font-family: var(--sans, inherit);
  }
  dd.words {
    white-space: normal;
    font: inherit;
  }
</style>
