<!-- The mast of one building: pick the building, climb its stations. -->
<script lang="ts">
  import MastDrawing from '@/draw/MastDrawing.svelte';
  import { api, inBuilding, take } from '@/api/client';
  import type { Ledger, Walk } from '@/api/client';
  import { asking } from '@/api/live.svelte';
  import { counted } from '@/kit/reading';
  import { decisions, seenIn } from '@/project/decisions.svelte';
  import { href, router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { shape } from '@/project/shape.svelte';
  import { surfaces } from '@/project/surfaces.svelte';
  import { stream } from '@/api/stream.svelte';
  import { verdicts } from '@/project/verdicts.svelte';
  import { whole } from '@/project/whole.svelte';
  import { STATIONS } from '@/project/stations';
  import { untrack } from 'svelte';
  import LineMarks from '@/project/LineMarks.svelte';

  interface Props {
    ledger: Ledger | undefined;
    stale: boolean;
  }
  let { ledger, stale }: Props = $props();
  const place = $derived(router.place);
  const building = $derived(session.building(place.building));
  const buildings = $derived(session.open?.project.buildings ?? []);
  const at = $derived(buildings.findIndex((one) => one.id === place.building));
  const units = $derived(session.units);
  let height = $state(640);

  const step = $derived(place.step >= 3 ? place.step : 2);
  const rows = $derived(
    Object.entries(STATIONS).map(([letter, name]) => {
      const elements = building?.elements?.filter((element) => element.station === letter) ?? [];
      const lines = ledger?.lines.filter((line) => line.station === letter) ?? [];
      // The worst figure of the station: the largest U.
      const known = lines.filter((line) => line.U !== null);
      const worst = known.toSorted((a, b) => (b.U ?? 0) - (a.U ?? 0))[0];
      const drawn = known.filter((line) => line.from_assembly).toSorted((a, b) => (a.R ?? 0) - (b.R ?? 0))[0];
      const shown = drawn ?? worst;
      const decision = decisions
        .open(place.building)
        .some((one) => one.station === letter && seenIn(one, step));
      const drawnJoints = (building?.joints ?? []).filter((one) => one.station === letter);
      const solvedJoints = ledger?.joints.filter((one) => one.station === letter && one.psi !== null) ?? [];
      // In Joints the worst figure of a station is its largest ψ.
      const joint = solvedJoints.toSorted((a, b) => (b.psi ?? 0) - (a.psi ?? 0))[0];
      return {
        letter,
        name,
        elements,
        shown,
        drawn,
        decision,
        joint,
        joints: drawnJoints,
        missing: elements.length > known.length,
      };
    }),
  );
  // In Joints each station shows its lines of control, as the walk round the building finds them.
  const question = $derived(
    building && {
      project: place.project,
      building: building.id,
      revision: session.open?.revision ?? 0,
      pending: ledger?.pending.length ?? 0,
    },
  );
  const walk = asking(
    () => (place.step === 3 ? question : undefined),
    ({ project, building }): Promise<Walk> =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/walk', inBuilding(project, building)),
      ),
  );
  // In Moisture each station shows its worst inner surface, of build-ups and joints.
  $effect(() => {
    const newest = question;
    if (place.step === 5 && newest) untrack(() => surfaces.live.ask(newest));
  });
  // The ledger shows the least margin of moisture in every step.
  let looked = 0;
  $effect(() => {
    const newest = question;
    // While something is being judged, every answer that comes in may be its own.
    if (verdicts.waiting) looked = stream.answers;
    if (newest) untrack(() => verdicts.ask(newest, looked));
  });
  const ranking = $derived(surfaces.of(place.building));
  const surfaceAt = (station: string) => {
    const here = ranking?.surfaces.filter((one) => one.station === station) ?? [];
    const f = here[0]?.f_rsi ?? null; // the worst stands first, what is not known yet last
    return { f, text: here.length ? 'not known yet' : 'no surface' };
  };
  // On the shape each station shows how much of it there is, and what the draft changes of that.
  const onShape = $derived(place.step === 1 && place.view === 'shape' && !!building?.bodies?.length);
  const amountAt = (station: string) => {
    const [now, before] = [shape.answer?.now, shape.draft ? shape.answer?.before : undefined];
    const amount = (sheet: typeof now) => {
      const ids = new Set(building?.elements?.filter((one) => one.station === station).map((one) => one.id));
      const areas = sheet?.areas.filter((one) => ids.has(one.id)) ?? [];
      const edges = sheet?.edges.filter((one) => one.station === station) ?? [];
      return areas.length
        ? { value: areas.reduce((sum, one) => sum + one.value, 0), dimension: 'area' }
        : { value: edges.reduce((sum, one) => sum + one.length, 0), dimension: 'distance' };
    };
    if (!now) return undefined;
    const found = amount(now);
    return { ...found, by: before ? found.value - amount(before).value : 0 };
  };
  // In Whole shell each station shows what is lost there.
  const lost = $derived.by(() => {
    const found = step === 7 ? whole.of({ project: place.project, building: place.building }) : undefined;
    if (!found) return undefined;
    return (station: string) => {
      const here = found.losses.filter((one) => one.station === station && one.H !== null);
      return here.length ? here.reduce((sum, one) => sum + (one.H ?? 0), 0) : undefined;
    };
  });
  const stopsAt = $derived((station: string) =>
    walk.answered?.building === place.building
      ? (walk.answer?.stops ?? []).filter((stop) => stop.station === station)
      : [],
  );
  const wall = $derived.by(() => {
    const element = building?.elements?.find((one) => one.station === 'D' && one.assembly_id);
    return session.assembly(element?.assembly_id);
  });
  const set = $derived(new Set(rows.filter((row) => row.shown || row.drawn).map((row) => row.letter)));

  function visit(event: MouseEvent, station: string): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    router.go({ station, step });
  }
  const onStep = $derived(place.step === step);
  function turn(by: number): void {
    const next = buildings[(at + by + buildings.length) % buildings.length];
    if (next) router.go({ building: next.id });
  }
</script>

<aside class="mast no-print" aria-label="Mast">
  <div class="picker">
    <button onclick={() => turn(-1)} aria-label="Previous building" disabled={buildings.length < 2}
      ><svg width="8" height="12"><path d="M7 1L2 6l5 5" /></svg></button
    >
    <select
      aria-label="Building"
      value={place.building}
      onchange={(event) => router.go({ building: event.currentTarget.value })}
    >
      {#each buildings as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
    </select>
    <button onclick={() => turn(1)} aria-label="Next building" disabled={buildings.length < 2}
      ><svg width="8" height="12"><path d="M1 1l5 5-5 5" /></svg></button
    >
  </div>
  <select
    class="narrow"
    aria-label="Station"
    value={onStep ? place.station : ''}
    onchange={(event) => router.go({ station: event.currentTarget.value, step })}
  >
    {#if !onStep}<option value="">station</option>{/if}
    {#each rows.filter((row) => step === 3 || row.elements.length) as row (row.letter)}
      <option value={row.letter}>{row.letter} {row.name}{row.decision ? ', needs a decision' : ''}</option>
    {/each}
  </select>
  <div class="stations" bind:clientHeight={height} data-stale={stale}>
    <div class="drawing">
      <MastDrawing {wall} materials={session.materials} {set} chosen={onStep ? place.station : ''} {height} />
    </div>
    <ul>
      {#each rows as row (row.letter)}
        {@const on = onStep && place.station === row.letter}
        {@const surface = step === 5 ? surfaceAt(row.letter) : undefined}
        {@const decision = row.decision}
        <li class:on>
          {#if step === 3 || row.elements.length || row.joints.length || (onShape && (amountAt(row.letter)?.value ?? 0) > 0)}
            <a
              href={href({ ...place, station: row.letter, step, element: '', view: '' })}
              onclick={(event) => visit(event, row.letter)}
              aria-current={on ? 'location' : undefined}
            >
              <span class="head"><b>{row.name}</b><em>{row.letter}</em></span>
              <span class="name"
                >{#if step === 3}{row.joints.length > 1
                    ? counted(row.joints.length, 'joint')
                    : (row.joints[0]?.name ?? '')}{:else}{row.elements.length > 1
                    ? counted(row.elements.length, 'element')
                    : (row.elements[0]?.name ?? '')}{/if}</span
              >
              <span class="value" class:decision>
                {#if onShape && units}
                  {@const amount = amountAt(row.letter)}
                  {#if amount && amount.value > 0}{units.full(
                      amount.value,
                      amount.dimension,
                    )}{#if Math.abs(amount.by) > 5e-3}
                      <ins>{units.delta(amount.by, amount.dimension)}</ins>{/if}{:else}–{/if}
                {:else if step === 7 && lost}
                  {@const H = lost(row.letter)}
                  {H === undefined ? '–' : units?.full(H, 'coupling')}
                {:else if surface}
                  {surface.f === null ? surface.text : `f ${units?.show(surface.f, 'ratio') ?? ''}`}
                {:else if units && (step === 3 || !row.elements.length)}
                  {#if row.joint}
                    {row.joint.point ? 'χ' : 'ψ'}
                    {units.show(row.joint.psi ?? 0, row.joint.point ? 'coupling' : 'linear', 3)}
                  {:else}{row.joints.length ? 'solving' : 'no joint'}{/if}
                {:else if !row.shown || !units}
                  {ledger ? 'not set' : '…'}
                {:else if row.drawn}
                  clear R {units.show(row.shown.R ?? 0, 'resistance')}
                {:else}
                  U {units.show(row.shown.U ?? 0, 'transmittance')}
                {/if}
                {#if decision}<i><span class="visually-hidden">needs a decision</span></i>{/if}
                {#if step === 3}<LineMarks stops={stopsAt(row.letter)} />{/if}
              </span>
            </a>
          {:else}
            <span class="idle"><span class="head"><span>{row.name}</span><em>{row.letter}</em></span></span>
          {/if}
        </li>
      {/each}
    </ul>
  </div>
</aside>

<style>
  .mast {
    width: var(--mast-w);
    flex: none;
    background: var(--limestone);
    border-right: 1px solid var(--line);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .picker {
    display: flex;
    height: 34px;
    border-bottom: 1px solid var(--hair);
    flex: none;
  }
  .picker button {
    border: 0;
    background: none;
    width: 26px;
  }
  .picker button:hover:not(:disabled) {
    background: var(--limestone-deep);
  }
  .picker path {
    fill: none;
    stroke: var(--ink);
    stroke-width: 1.5;
  }
  .picker button:disabled path {
    stroke: var(--hair);
  }
  select {
    flex: 1;
    min-width: 0;
    border: 0;
    background: none;
    font-weight: 600;
    text-overflow: ellipsis;
  }
  .stations {
    flex: 1;
    min-height: 0;
    position: relative;
    overflow: hidden;
  }
  .drawing {
    position: absolute;
    inset: 0 auto 0 0;
    z-index: 1;
    pointer-events: none;
  }
  ul {
    list-style: none;
    height: 100%;
    display: grid;
    grid-template-rows: repeat(8, 1fr);
  }
  ins {
    margin-left: 5px;
    text-decoration: none;
    color: var(--verdigris);
  }
  li {
    border-bottom: 1px solid transparent;
    min-height: 0;
    overflow: hidden;
  }
  li.on {
    background: var(--sheet);
    border-block: 1px solid var(--line);
    box-shadow: inset 4px 0 var(--verdigris);
    margin-right: -1px;
  }
  a,
  .idle {
    display: flex;
    flex-direction: column;
    justify-content: center;
    height: 100%;
    padding: 0 8px 0 76px;
    color: inherit;
    text-decoration: none;
    line-height: 1.3;
  }
  a:hover b {
    color: var(--verdigris);
  }
  a:focus-visible {
    outline-offset: -3px;
  }
  .head {
    display: flex;
    justify-content: space-between;
  }
  .on b {
    color: var(--verdigris);
  }
  em {
    font: 500 var(--fs-cap) var(--mono);
    color: var(--ink-2);
  }
  .idle {
    color: var(--ink-3);
  }
  .name {
    font-size: var(--fs-small);
    color: var(--ink-2);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .value {
    font: 500 12.5px var(--mono);
    letter-spacing: -0.02em;
    white-space: nowrap;
  }
  .decision {
    color: var(--oxide);
  }
  i {
    display: inline-block;
    width: 7px;
    height: 7px;
    background: var(--oxide);
    margin-left: 4px;
  }
  .narrow {
    display: none;
  }
  @media (max-width: 1279px) {
    .name {
      display: none;
    }
  }
  /* Narrow, or zoomed to 200 %: one line, the building and its station. */
  @media (max-width: 1023px) {
    .mast {
      width: auto;
      flex-direction: row;
      border-right: 0;
      border-bottom: 1px solid var(--line);
    }
    .picker {
      flex: 1 1 60%;
      border-bottom: 0;
    }
    .narrow {
      display: block;
      flex: 1 1 40%;
      border-left: 1px solid var(--hair);
    }
    .stations {
      display: none;
    }
  }
</style>
