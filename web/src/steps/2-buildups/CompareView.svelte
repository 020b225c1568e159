<!-- Two to four build-ups at one scale on one ground line, by themselves and on the whole; and a supplier's claim. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { Assembly, Comparison, OnTheWhole, ShellElement, Side } from '@/api/client';
  import { api, inProject, take } from '@/api/client';
  import LittleSection from '@/draw/LittleSection.svelte';
  import { asking } from '@/api/live.svelte';
  import { stream } from '@/api/stream.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Button from '@/kit/Button.svelte';
  import Choice from '@/kit/Choice.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Worked from '@/project/Worked.svelte';
  import type { Units } from '@/kit/units';
  import { Wholes } from '@/project/wholes.svelte';
  import ClaimForm from './ClaimForm.svelte';
  import { compared, REFERENCE } from './compared.svelte';
  import { DECIDES } from './variants';

  interface Props {
    draft: Assembly;
    element: ShellElement;
    zone: string;
    units: Units;
    revision: number;
  }
  let { draft, element, zone, units, revision }: Props = $props();
  type Mode = 'as drawn' | 'equal R' | 'equal thickness';
  const place = $derived(router.place);
  const known = $derived(new Set((session.open?.project.assemblies ?? []).map((one) => one.id)));
  const others = $derived(
    compared.others.filter((id) => id !== draft.id && (id === REFERENCE || known.has(id))),
  );
  let mode = $state<Mode>('as drawn');
  let width = $state(1000);
  const assemblies = $derived(session.open?.project.assemblies ?? []);
  const sides = $derived([draft.id, ...others].slice(0, 4));

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
  /** Whether a change is for the worse as it is shown; what is shown as equal is neither. */
  function worse(change: number, text: string, more: boolean): boolean {
    return /[1-9]/.test(text) && (more ? change < 0 : change > 0);
  }
  const changeOf = (side: Side, key: string) => (side.figures[key] ?? 0) - (leader?.figures[key] ?? 0);

  // On the whole: each in the place of the first one, joints and fixings of the building solved with it.
  const wholes = new Wholes();
  let stopped = $state(false);
  $effect(() => {
    const all = (found?.sides ?? []).map((side) => ({ key: side.assembly.id, assembly: side.assembly }));
    const at = {
      of: JSON.stringify([place.project, place.building, revision, all]),
      project: place.project,
      building: place.building,
      assembly: draft.id,
    };
    const whole = stopped ? [] : all;
    void stream.answers;
    untrack(() => wholes.follow(at, all, whole));
  });
  // Who leaves lets go of what is being solved for nobody.
  $effect(() => () => wholes.stop());
  const onTheWhole = [
    ['R_effective', 'building R, effective', 'resistance', true],
    ['H', 'heat loss of the building', 'coupling', false],
    ['H_joints', 'of it at joints', 'coupling', false],
    ['H_fixings', 'of it at fixings', 'coupling', false],
    ['lowest', 'lowest surface factor', 'ratio', true],
    ['margin', 'moisture margin of the build-up', 'points', true],
  ] as const;
  type WholeKey = (typeof onTheWhole)[number][0];
  function wholeOf(one: OnTheWhole | undefined, key: WholeKey): number | null {
    if (key === 'margin') return one?.margin ?? null;
    if (key === 'lowest') return one?.sums?.lowest?.f_rsi ?? null;
    return one?.sums?.[key] ?? null;
  }
  const pointsOf = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(Math.round(value * 100))}`;
  function wholeText(side: Side, key: WholeKey, dimension: string): string {
    const one = wholes.get(side.assembly.id);
    const value = wholeOf(one, key);
    if (value !== null) return key === 'margin' ? pointsOf(value) : units.show(value, dimension);
    if (key === 'margin')
      return one?.why_not ? '?' : one?.passes == null ? '…' : one.passes ? 'passes' : 'fails';
    if (one?.sums?.missing.length) return '?';
    return !one?.sums || one.sums.waiting ? '…' : '–';
  }
  function wholeDelta(side: Side, key: WholeKey, dimension: string, more: boolean) {
    const [own, other] = [side, leader].map((one) => wholeOf(wholes.get(one?.assembly.id ?? ''), key));
    if (side === leader || own == null || other == null) return { text: '', worse: false };
    const change = own - other;
    const small = Math.abs(change) < 1e-9;
    const text = small ? '±0' : key === 'margin' ? pointsOf(change) : units.delta(change, dimension);
    return { text, worse: worse(change, text, more) };
  }
  /** What keeps a side from being summed up, or what it fails by. */
  const notes = $derived(
    (found?.sides ?? []).flatMap((side) => {
      const one = wholes.get(side.assembly.id);
      const said = [
        ...(one?.sums?.missing ?? []),
        ...(one?.why_not ? [`moisture: ${one.why_not}`] : []),
        ...(one?.passes === false ? [`fails by moisture: ${DECIDES[one.reason] ?? one.reason}`] : []),
      ];
      return said.length ? [`${side.assembly.name}: ${said.join('; ')}.`] : [];
    }),
  );

  function use(side: Side): void {
    const text = `${side.assembly.name} in the place of ${draft.name}`.slice(0, 200);
    compared.others = [draft.id, ...others.filter((id) => id !== side.assembly.id)].slice(0, 3);
    void session.useAssembly(place.building, element.id, side.assembly.id, text, zone);
  }
  async function duplicate(): Promise<void> {
    const text = `Alternative to ${draft.name}`.slice(0, 200);
    compared.others = [draft.id, ...others].slice(0, 3);
    await session.useAssembly(place.building, element.id, null, text, zone);
  }
</script>

<div class="controls">
  {#each others as id, at (id)}
    <span class="chip"
      >{id === REFERENCE ? 'Site-framed reference' : (session.assembly(id)?.name ?? id)}
      <Button
        label="Leave out {id === REFERENCE ? 'the reference' : (session.assembly(id)?.name ?? id)}"
        onclick={() => (compared.others = others.toSpliced(at, 1))}>leave out</Button
      ></span
    >
  {/each}
  {#if others.length < 3}
    <select
      aria-label="Add a build-up to compare"
      value=""
      onchange={(event) => {
        if (event.currentTarget.value) compared.others = [...others, event.currentTarget.value];
        event.currentTarget.value = '';
      }}
    >
      <option value="">add a build-up</option>
      {#each assemblies.filter((one) => one.id !== draft.id && !others.includes(one.id)) as one (one.id)}
        <option value={one.id}>{one.name}</option>
      {/each}
    </select>
    {#if !others.includes(REFERENCE)}<Button onclick={() => (compared.others = [...others, REFERENCE])}
        >Site-framed reference</Button
      >{/if}
  {/if}
  <Choice
    label="at"
    value={mode}
    options={['as drawn', 'equal R', 'equal thickness'].map((value) => ({ value, text: value }))}
    onsave={(value) => (mode = value as Mode)}
  />
  <Button onclick={() => void duplicate()}>Duplicate as alternative</Button>
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
          {#if side !== leader && mode === 'as drawn' && side.assembly.id !== REFERENCE}<Button
              label="Use here: {side.assembly.name}"
              onclick={() => use(side)}>Use here</Button
            >{/if}
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
  <div class="scroll">
    <table>
      <thead
        ><tr
          ><th>figure</th>{#each found.sides as side (side.assembly.id)}<th class="n">{side.assembly.name}</th
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
                <em class:worse={worse(changeOf(side, key), delta(side, key, dimension), more)}
                  >{delta(side, key, dimension)}</em
                ></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
      <tbody data-testid="on-the-whole" data-stale={wholes.waiting > 0 && !stopped && !wholes.problem}>
        <tr
          ><th scope="rowgroup" colspan={found.sides.length + 1}
            >On the whole <span
              >each in the place of {draft.name}, joints and fixings of the building solved with it{#if wholes.waiting}:
                {wholes.waiting} still to be solved{/if}</span
            >
            {#if stopped}<Button onclick={() => (stopped = false)}>Solve the rest</Button
              >{:else if wholes.waiting}<Button
                label="Stop solving"
                onclick={() => {
                  stopped = true;
                  wholes.stop();
                }}>Stop</Button
              >{/if}</th
          ></tr
        >
        {#each onTheWhole as [key, title, dimension, more] (key)}
          <tr>
            <th scope="row"
              >{title} <span>{dimension === 'points' ? 'points' : units.symbol(dimension)}</span></th
            >
            {#each found.sides as side (side.assembly.id)}
              {@const change = wholeDelta(side, key, dimension, more)}
              <td class="n"
                >{wholeText(side, key, dimension)} <em class:worse={change.worse}>{change.text}</em></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#each notes as note (note)}<p class="soft">{note}</p>{/each}
  {#if wholes.problem}<p class="over" role="alert">{wholes.problem.sentence}</p>{/if}
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
    padding: 0 0 0 24px;
  }
  td.n {
    font: 500 12.5px var(--mono);
    letter-spacing: -0.02em;
  }
  em {
    font-style: normal;
    display: inline-block;
    min-width: 62px;
    color: var(--ink-2);
    font-weight: 400;
  }
  em.worse {
    color: var(--ochre);
  }
  tbody + tbody th[colspan] {
    padding-top: 12px;
    font-weight: 600;
    color: var(--ink);
  }
</style>
