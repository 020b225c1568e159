<!-- Types of windows and doors: a list, and of the chosen one its elevation, its parts and what it comes to. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { api, take } from '@/api/client';
  import type { Building, DrawnUnits, UnitType } from '@/api/client';
  import { Live } from '@/api/live.svelte';
  import Button from '@/kit/Button.svelte';
  import Notice from '@/kit/Notice.svelte';
  import { counted } from '@/kit/reading';
  import SheetHead from '@/kit/SheetHead.svelte';
  import type { Units } from '@/kit/units';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import Worked from '@/project/Worked.svelte';
  import BasisTabs from '../BasisTabs.svelte';
  import UnitDrawing from './UnitDrawing.svelte';
  import UnitForm from './UnitForm.svelte';

  interface Props {
    building: Building;
    units: Units;
  }
  let { building, units }: Props = $props();
  interface Question {
    project: string;
    revision: number;
    system: string;
    unit: UnitType | null;
  }
  const live = new Live<Question, DrawnUnits>(({ project, unit }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/units', {
        params: { path: { project_id: project } },
        body: { unit },
      }),
    ),
  );
  const types = $derived(session.open?.project.units ?? []);
  const currency = $derived(session.open?.project.basis.economy?.currency ?? '');
  let chosen = $state('');
  let draft = $state.raw<UnitType>();
  const unit = $derived(types.find((one) => one.id === chosen) ?? types[0]);
  const shown = $derived(draft && draft.id === unit?.id ? draft : unit);
  $effect(() => {
    const asked = {
      project: router.place.project,
      revision: session.open?.revision ?? 0,
      system: units.system,
      unit: draft ?? null,
    };
    untrack(() => live.askNew(asked)); // what was refused is not asked again by its own refusal
  });
  const drawn = (id: string) => live.answer?.units.find((one) => one.id === id);
  const here = $derived(building.openings ?? []);
  const mine = $derived(here.filter((one) => one.unit === unit?.id));
  const odd = $derived(mine.filter((one) => one.w !== unit?.w || one.h !== unit?.h));
  const alike = $derived(here.filter((one) => !one.unit && one.w === unit?.w && one.h === unit?.h));
  const marks = (several: typeof here) => {
    const named = several.slice(0, 8).map((one) => one.mark || one.id);
    return named.join(', ') + (several.length > 8 ? ' …' : '');
  };

  async function change(what: Partial<UnitType>, words: string): Promise<void> {
    if (!unit) return;
    const text = `${unit.name}: ${words}`.slice(0, 200);
    const seen = unit;
    if (await session.saveUnit(seen.id, (now) => ({ ...(now ?? seen), ...what }), text)) draft = undefined;
  }
  async function add(like?: UnitType): Promise<void> {
    const id = `u${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`;
    const name = like ? `${like.name}, another` : `Type ${types.length + 1}`;
    const made = { ...like, id, name: name.slice(0, 80) };
    if (await session.saveUnit(id, () => made, `${name} added`.slice(0, 200))) chosen = id;
  }
  function fill(openings: typeof here, words: string): void {
    if (unit)
      void session.fillOpenings(
        building.id,
        openings.map((one) => one.id),
        unit.id,
        `${unit.name}: ${words}`,
      );
  }
</script>

<SheetHead
  zone="1"
  title="Windows and doors"
  aside="U by ISO 10077-1 from frame, glass and spacer, or as declared"
>
  <BasisTabs />
  <Button onclick={() => void add()}>Add a type</Button>
</SheetHead>

{#if !types.length}
  <Notice
    tone="note"
    title="No type of window or door yet."
    text="Openings count with the U entered for their element. Add a type, then fill openings with it."
  />
{:else}
  <div class="scroll">
    <table data-testid="unit-types">
      <thead>
        <tr
          ><th>type</th><th>kind</th><th class="n">size</th><th class="n">hole</th><th class="n"
            >U [{units.symbol('transmittance')}]</th
          ><th class="n">g [%]</th><th class="n">openings</th><th class="n">mass</th><th class="n"
            >price{currency ? `, ${currency}` : ''}</th
          ></tr
        >
      </thead>
      <tbody>
        {#each types as one (one.id)}
          {@const found = drawn(one.id)}
          <tr class:on={one.id === unit?.id}>
            <td
              ><button
                class="name"
                aria-pressed={one.id === unit?.id}
                onclick={() => {
                  chosen = one.id;
                  draft = undefined;
                }}>{one.name}</button
              ></td
            >
            <td>{one.kind}, {one.opens}</td>
            <td class="n">{units.length(one.w ?? 0)} × {units.length(one.h ?? 0)}</td>
            <td class="n"
              >{found ? `${units.length(found.rough_w)} × ${units.length(found.rough_h)}` : '–'}</td
            >
            <td class="n"
              >{#if found}<Worked
                  figure="U_w"
                  title="U of {one.name}"
                  text={units.show(found.U, 'transmittance')}
                  dimension="transmittance"
                  steps={found.working.steps}
                /><small
                  >{found.below_glass
                    ? 'declared, below its glass: ask its maker'
                    : found.declared
                      ? 'declared'
                      : 'by its parts'}</small
                >{:else}–{/if}</td
            >
            <td class="n">{found ? units.show(found.g, 'share', 0) : '–'}</td>
            <td class="n"
              >{found?.openings ?? '–'}{#if found?.other_size}<small class="odd"
                  >{found.other_size} of another size</small
                >{/if}</td
            >
            <td class="n">{found?.mass != null ? units.full(found.mass, 'mass') : '–'}</td>
            <td class="n">{found?.price != null ? units.show(found.price, 'ratio', 0) : '–'}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
{#if live.problem}
  <Notice
    tone="decision"
    title="This cannot be built. The stored type stands."
    text={live.problem.items.map((item) => `${item.detail}: ${item.hint}.`).join(' ') ||
      live.problem.sentence}
    live
  />
{/if}
{#if unit && shown && live.answer}
  {@const found = drawn(unit.id)}
  <div class="one">
    <div class="drawing">
      {#if found}
        <UnitDrawing unit={shown} drawn={found} {units} />
        <p class="parts">
          frame {units.full(found.A_f, 'area', 2)}, glass {units.full(found.A_g, 'area', 2)}{#if found.A_p},
            panel {units.full(found.A_p, 'area', 2)}{/if}, edge {units.full(found.l_g, 'distance')}
          {#if found.declared}<br />by its parts U {units.full(found.U_parts, 'transmittance')}{/if}
        </p>
      {/if}
      <p class="acts">
        {#if odd.length}<span class="odd"
            >{marks(odd)}: {counted(odd.length, 'opening')} of another size.</span
          >
          <Button onclick={() => fill(odd, `size of ${marks(odd)}`)}>Give them this size</Button>{/if}
        {#if alike.length}<span>{marks(alike)}: this size, no type.</span>
          <Button onclick={() => fill(alike, `fills ${marks(alike)}`)}>Fill them with it</Button>{/if}
        {#if mine.length}<Button onclick={() => void session.fitJoints(building)}
            >Joints round them as this type</Button
          >{/if}
        <Button onclick={() => void add(unit)}>Add one like it</Button>
        <Button onclick={() => void session.removeUnit(unit.id, `${unit.name} removed`)}
          >Remove {unit.name}</Button
        >
      </p>
    </div>
    <UnitForm
      unit={shown}
      sheet={live.answer}
      {currency}
      onpreview={(next) => (draft = next)}
      onchange={(what, words) => void change(what, words)}
      oncancel={() => (draft = undefined)}
    />
  </div>
{/if}

<style>
  .scroll {
    overflow-x: auto;
  }
  table {
    font-size: 12.5px;
  }
  td,
  th {
    padding: 2px 14px 2px 0;
  }
  .n {
    text-align: right;
    font-family: var(--mono);
    white-space: nowrap;
  }
  th.n {
    font-family: inherit;
  }
  small {
    display: block;
    font-family: var(--sans);
    color: var(--ink-2);
  }
  .name {
    border: 0;
    background: none;
    padding: 2px 0;
    min-height: 24px;
    min-width: 24px;
    font: inherit;
    font-weight: 600;
    color: var(--verdigris);
    text-align: left;
  }
  .on {
    background: var(--verdigris-wash);
  }
  .odd {
    color: var(--oxide);
  }
  .one {
    display: grid;
    grid-template-columns: 304px 1fr;
    gap: 14px;
    margin-top: 12px;
    border-top: 1px solid var(--line);
    padding-top: 10px;
  }
  .parts {
    margin: 2px 0 8px;
    font-size: var(--fs-small);
    color: var(--ink-2);
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: center;
  }
  @media (max-width: 900px) {
    .one {
      grid-template-columns: 1fr;
    }
  }
</style>
