<!-- Two to four build-ups at one scale on one ground line; and a supplier's claim worked through. -->
<script lang="ts">
  import type { Assembly, Comparison, Side } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import LittleSection from '@/draw/LittleSection.svelte';
  import { asking } from '@/api/live.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Worked from '@/project/Worked.svelte';
  import type { Units } from '@/kit/units';
  import ClaimForm from './ClaimForm.svelte';

  interface Props {
    draft: Assembly;
    units: Units;
    revision: number;
  }
  let { draft, units, revision }: Props = $props();
  const REFERENCE = 'site-framed-reference';
  type Mode = 'as drawn' | 'equal R' | 'equal thickness';
  const place = $derived(router.place);
  let others = $state.raw<string[]>([REFERENCE]);
  let mode = $state<Mode>('as drawn');
  let width = $state(1000);
  const assemblies = $derived(session.open?.project.assemblies ?? []);
  const sides = $derived([draft.id, ...others.filter((id) => id !== draft.id)].slice(0, 4));

  const live = asking(
    () =>
      sides.length < 2
        ? undefined
        : {
            project: place.project,
            building: place.building,
            condition: place.condition,
            sides,
            mode,
            revision,
          },
    ({ project, building, condition, sides, mode }): Promise<Comparison> =>
      take(
        api.POST('/api/v1/projects/{project_id}/compare', {
          ...inProject(project),
          body: { building_id: building, condition, sides, mode },
        }),
      ),
  );
  const found = $derived(sides.length < 2 ? undefined : live.answer);
  const problem = $derived(live.problem);
  const whole = (side: Side) => side.assembly.layers.reduce((sum, layer) => sum + layer.d, 0);
  const scale = $derived.by(() => {
    const total = found?.sides.reduce((sum, side) => sum + whole(side), 0) ?? 1;
    return Math.min((width - 40 * (found?.sides.length ?? 1)) / total, 900);
  });
  const leader = $derived(found?.sides[0]);
  // A layer is marked where the first build-up has no layer of that material and thickness.
  function marked(side: Side): Set<string> {
    if (!leader || side === leader) return new Set();
    const has = new Set(leader.assembly.layers.map((layer) => `${layer.material}/${layer.d}`));
    return new Set(
      side.assembly.layers
        .filter((layer) => !has.has(`${layer.material}/${layer.d}`))
        .map((layer) => layer.id),
    );
  }
  const rows = [
    ['R_nominal', 'R nominal', 'resistance', true],
    ['R_clear', 'R clear wall', 'resistance', true],
    ['R_winter_clear', 'R winter', 'resistance', true],
    ['R_summer_clear', 'R summer', 'resistance', true],
    ['U_clear', 'U clear wall', 'transmittance', false],
    ['thickness', 'thickness', 'length', false],
    ['weight', 'weight', 'surface_mass', false],
    ['cost', 'cost of materials', 'cost', false],
    ['carbon', 'CO₂e of materials', 'carbon', false],
    ['heat', 'heat by degree hours', 'energy', false],
    ['money', 'money over the life', 'cost', false],
    ['carbon_life', 'CO₂e over the life', 'carbon', false],
    ['f_rsi', 'fRsi, clear section', 'ratio', true],
  ] as const;
  function delta(side: Side, key: string, dimension: string): string {
    if (!leader || side === leader) return '';
    const change = (side.figures[key] ?? 0) - (leader.figures[key] ?? 0);
    if (Math.abs(change) < 1e-9) return '±0';
    return dimension === 'length'
      ? `${change > 0 ? '+' : '−'}${units.length(Math.abs(change))}`
      : units.delta(change, dimension);
  }
  const better = (side: Side, key: string, more: boolean) => {
    const change = (side.figures[key] ?? 0) - (leader?.figures[key] ?? 0);
    return more ? change > 0 : change < 0;
  };
</script>

<div class="controls">
  {#each others as id, at (id)}
    <span class="chip"
      >{id === REFERENCE ? 'Site-framed reference' : (session.assembly(id)?.name ?? id)}
      <Button
        label="Leave out {id === REFERENCE ? 'the reference' : (session.assembly(id)?.name ?? id)}"
        onclick={() => (others = others.toSpliced(at, 1))}>leave out</Button
      ></span
    >
  {/each}
  {#if others.length < 3}
    <select
      aria-label="Add a build-up to compare"
      value=""
      onchange={(event) => {
        if (event.currentTarget.value) others = [...others, event.currentTarget.value];
        event.currentTarget.value = '';
      }}
    >
      <option value="">add a build-up</option>
      {#each assemblies.filter((one) => one.id !== draft.id && !others.includes(one.id)) as one (one.id)}
        <option value={one.id}>{one.name}</option>
      {/each}
    </select>
    {#if !others.includes(REFERENCE)}<Button onclick={() => (others = [...others, REFERENCE])}
        >Site-framed reference</Button
      >{/if}
  {/if}
  <Choice
    label="at"
    value={mode}
    options={['as drawn', 'equal R', 'equal thickness'].map((value) => ({ value, text: value }))}
    onsave={(value) => (mode = value as Mode)}
  />
</div>
{#if problem}<Notice title="No comparison." text={problem.sentence} live />{/if}
{#if found}
  <div class="drawn" bind:clientWidth={width} data-stale={live.stale} data-testid="comparison">
    {#each found.sides as side (side.assembly.id)}
      <figure>
        <LittleSection
          assembly={side.assembly}
          materials={session.materials}
          {scale}
          height={150}
          marked={marked(side)}
        />
        <figcaption>
          <b>{side.assembly.name}</b>
          {units.full(whole(side), 'length')}
          {#if side.why_not}<span class="why">not brought to {mode}: {side.why_not}</span>{/if}
        </figcaption>
      </figure>
    {/each}
  </div>
  <p class="soft">
    One scale, one ground line, outside on the left. Heavier outlines: layers the first build-up does not
    have.
    {mode === 'as drawn' ? '' : `Cores of the others changed to ${mode} with the first; nothing is saved.`}
  </p>
  <table>
    <thead
      ><tr
        ><th></th>{#each found.sides as side (side.assembly.id)}<th class="n">{side.assembly.name}</th
          >{/each}</tr
      ></thead
    >
    <tbody>
      {#each rows as [key, title, dimension, more] (key)}
        <tr>
          <th scope="row"
            >{title}
            <span
              >{dimension === 'length'
                ? units.system === 'SI'
                  ? 'mm'
                  : 'ft, in'
                : units.symbol(dimension)}</span
            ></th
          >
          {#each found.sides as side (side.assembly.id)}
            <td class="n"
              ><Worked
                figure={key}
                title="{title}, {side.assembly.name}"
                {dimension}
                text={dimension === 'length'
                  ? units.length(side.figures[key] ?? 0)
                  : units.show(side.figures[key] ?? 0, dimension)}
                assembly={side.assembly}
                of={{ kind: 'side', leader: leader?.assembly.id ?? draft.id, condition: place.condition }}
              />
              <em class:gain={better(side, key, more)}>{delta(side, key, dimension)}</em></td
            >
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
{:else if !problem}
  <p role="status">{sides.length < 2 ? 'Choose a build-up to compare with.' : 'Comparing'}</p>
{/if}

<ClaimForm {draft} {units} />

<style>
  .controls {
    gap: 6px 12px;
  }
  .chip {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
  .drawn {
    display: flex;
    gap: 36px;
    align-items: flex-end;
    border-bottom: 2.5px solid var(--ink);
    padding-top: 6px;
    overflow-x: auto;
  }
  figure {
    display: flex;
    flex-direction: column-reverse;
  }
  figcaption {
    font-size: var(--fs-small);
    color: var(--ink-2);
    margin-bottom: 4px;
  }
  .why {
    color: var(--ochre);
    display: block;
    max-width: 260px;
  }
  .soft,
  th span {
    font-size: var(--fs-small);
    color: var(--ink-3);
    font-weight: 400;
  }
  table {
    width: auto;
    min-width: 60%;
  }
  th {
    color: var(--ink-2);
    padding-right: 18px;
  }
  thead th {
    font-weight: 600;
    color: var(--ink);
  }
  .n {
    padding: 2px 0 2px 24px;
  }
  td.n {
    font: 500 12.5px var(--mono);
    letter-spacing: -0.02em;
  }
  em {
    font-style: normal;
    display: inline-block;
    min-width: 62px;
    color: var(--ochre);
    font-weight: 400;
  }
  em.gain {
    color: var(--ink);
  }
</style>
