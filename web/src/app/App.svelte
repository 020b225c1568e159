<!-- The frame: strip, mast, sheet, ledger, drawer; keys and the palette. -->
<script lang="ts">
  import { readIn } from '@/api/client';
  import Hatches from '@/draw/Hatches.svelte';
  import { stream } from '@/api/stream.svelte';
  import { bench } from '@/project/bench.svelte';
  import { decisions } from '@/project/decisions.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { whole } from '@/project/whole.svelte';
  import { working } from '@/project/working.svelte';
  import Button from '@/kit/Button.svelte';
  import Ledger from './Ledger.svelte';
  import Mast from './Mast.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Palette from './Palette.svelte';
  import Register from './Register.svelte';
  import { actionsOf, thicknessAsked } from './actions';
  import { setUnits } from './going';
  import ImportFile from './ImportFile.svelte';
  import { keysOf } from './keys';
  import Strip from './Strip.svelte';
  import TroubleBar from './TroubleBar.svelte';
  import UnsavedBar from './UnsavedBar.svelte';
  import WorkingDrawer from './WorkingDrawer.svelte';
  import { setUnitsInUse } from '@/kit/reading';
  import KeyList from './KeyList.svelte';
  import { untrack } from 'svelte';
  import BasisView from '@/steps/1-basis/BasisView.svelte';
  import ShapeView from '@/steps/1-basis/shape/ShapeView.svelte';
  import UnitsView from '@/steps/1-basis/units/UnitsView.svelte';
  import { shape } from '@/project/shape.svelte';
  import MaterialsView from '@/steps/1-basis/MaterialsView.svelte';
  import ProjectsView from './ProjectsView.svelte';
  import FixingsView from '@/steps/4-fixings/FixingsView.svelte';
  import MoistureView from '@/steps/5-moisture/MoistureView.svelte';
  import JointView from '@/steps/3-joints/JointView.svelte';
  import StationView from '@/steps/2-buildups/StationView.svelte';
  import WalkView from '@/steps/3-joints/WalkView.svelte';
  import SetOutView from '@/steps/6-setout/SetOutView.svelte';
  import ShopView from '@/steps/8-shop/ShopView.svelte';
  import WholeShellView from '@/steps/7-whole-shell/WholeShellView.svelte';

  const place = $derived(router.place);
  const open = $derived(session.open?.project.id === place.project ? session.open : undefined);
  const building = $derived(session.building(place.building));
  const units = $derived(session.units);
  setUnitsInUse(() => session.units);

  $effect(() => {
    const project = place.project;
    untrack(() => {
      bench.leave();
      if (project) return void session.load(project);
      void session.leave();
      void session.start();
    });
  });
  $effect(() => {
    // A project opens at its first building; a building that is gone gives way to the first one.
    const first = open?.project.buildings?.[0];
    if (open && first && !building) router.go({ building: first.id }, true);
  });
  $effect(() => {
    // Sentences of answers are said in the system of units.
    if (!open || !building || !units) return;
    const question = {
      project: open.project.id, building: building.id, revision: open.revision, system: units.system,
    }; // prettier-ignore
    untrack(() => session.ledger.askNew(question));
  });
  // While joints are being solved the ledger is asked again with every answer, until it has them all.
  const pending = $derived((session.ledger.answer?.now.pending.length ?? 0) > 0);
  $effect(() => {
    void stream.answers;
    if (pending) untrack(() => session.ledger.again());
  });
  let waited = false;
  $effect(() => {
    if (waited && !pending) untrack(() => bench.again()); // its figures count what has been solved meanwhile
    waited = pending;
  });
  // Points may still be solved at the thickness that reaches what is asked.
  const unsettled = $derived(bench.found?.settled === false);
  $effect(() => {
    void stream.answers;
    if (unsettled) untrack(() => bench.again());
  });
  $effect.pre(() => readIn(units?.system ?? 'SI'));
  const followed = $derived(open?.project.id);
  $effect(() => {
    if (!followed) return undefined;
    return stream.follow(followed, {
      changed: (revision) => void session.saves.seen(revision),
      gone: () => void session.reload(),
    });
  });
  $effect(() => {
    document.title = open
      ? `${place.station}${place.step} · ${building?.name ?? open.project.name} · Nimble Shell`
      : 'Nimble Shell';
  });

  const element = $derived.by(() => {
    const here = building?.elements?.filter((one) => one.station === place.station) ?? [];
    return here.find((one) => one.id === place.element) ?? here[0];
  });
  const onBench = $derived(
    (place.step === 2 || place.step === 4) &&
      !!element?.assembly_id &&
      bench.draft?.id === element.assembly_id,
  );
  // On the bench and on the shape the ledger follows the draft; elsewhere it shows what is saved.
  const fromBench = $derived(
    onBench && bench.live.asked?.building === place.building && bench.found !== undefined,
  );
  const onShape = $derived(place.step === 1 && place.view === 'shape');
  const fromShape = $derived(onShape && shape.draft !== undefined && shape.answer !== undefined);
  const consequence = $derived(
    fromBench ? bench.found?.consequence : fromShape ? shape.answer?.consequence : session.ledger.answer,
  );
  const ledgerStale = $derived(
    fromBench ? bench.live.stale : fromShape ? shape.live.stale : session.ledger.stale,
  );
  // The register follows what is saved, and every answer that comes in while some of it is being found out.
  let looked = 0;
  $effect(() => {
    if (decisions.waiting) looked = stream.answers;
    const waiting = session.ledger.answer?.now.pending.length ?? 0;
    if (!open || !building || !units) return;
    const question = {
      project: open.project.id,
      building: building.id,
      revision: open.revision,
      pending: waiting,
    };
    const asked = { ...question, look: looked, system: units.system };
    untrack(() => decisions.live.askNew(asked));
  });

  // What the whole building comes to follows what is saved, and every answer that is a part of it.
  let answered = 0;
  $effect(() => {
    if (whole.answer?.pending.length) answered = stream.answers;
    if (!open || !building?.bodies?.length || !units) return;
    const asked = {
      project: open.project.id, building: building.id, revision: open.revision, answers: answered, system: units.system,
    }; // prettier-ignore
    untrack(() => whole.askNew(asked));
  });

  let importing = $state<ImportFile>();
  let palette = $state(false);
  let keyList = $state(false);
  let register = $state(false);
  let lettersOn = $state(localStorage.getItem('nimble-letter-keys') !== 'off');
  function shellWork(figure: string, title: string, dimension: string): void {
    void working.show({
      figure,
      title,
      dimension,
      project: place.project,
      building: place.building,
      condition: place.condition,
      ...(fromBench ? { assembly: bench.draft } : {}),
    });
  }
  const actions = $derived(
    actionsOf({
      onBench,
      lettersOn,
      onimport: () => importing?.choose(),
      onkeys: () => (keyList = true),
      onregister: () => (register = true),
      onletters: () => {
        lettersOn = !lettersOn;
        localStorage.setItem('nimble-letter-keys', lettersOn ? 'on' : 'off');
      },
    }),
  );
  let sheet = $state<HTMLElement>();
  function skip(event: MouseEvent): void {
    event.preventDefault(); // an address with a mark would be another place of the project
    sheet?.focus();
  }
  const key = keysOf({
    letters: () => lettersOn,
    onpalette: () => (palette = !palette),
    onclose: () => {
      const open = keyList || register || working.opened !== undefined;
      if (working.opened === undefined) register = false;
      keyList = false;
      working.close();
      return open;
    },
    onkeys: () => (keyList = true),
    onworking: () => {
      const focused = document.activeElement;
      if (focused instanceof HTMLButtonElement && focused.matches('[aria-label$="show working"]'))
        focused.click();
      else if (onBench) document.querySelector<HTMLButtonElement>('[data-testid="R-combined"]')?.click();
    },
  });
</script>

<svelte:window onkeydown={key} />
{#if session.shipped}<Hatches hatches={session.shipped.hatches} />{/if}
<div class="visually-hidden" aria-live="polite">{units?.said(session.saves.announcement) ?? ''}</div>

<a class="skip" href="#sheet" onclick={skip}>Skip to the sheet</a>
<div class="frame">
  <Strip
    onunits={setUnits}
    onpalette={() => (palette = true)}
    onregister={() => (register = !register)}
    onkeys={() => (keyList = true)}
  />
  {#if !place.project}
    <main class="sheet" id="sheet" tabindex="-1">
      <UnsavedBar />
      <ImportFile bind:this={importing} />
      <ProjectsView onfile={() => importing?.choose()} />
    </main>
  {:else if !open || !units}
    <main class="sheet" id="sheet" tabindex="-1">
      <UnsavedBar />
      <TroubleBar />
      {#if session.loading}<p role="status" data-stale="true">Opening the project</p>{/if}
      {#if session.saves.trouble}<p>
          <Button onclick={() => router.go({ project: '', building: '' })}>All projects</Button>
        </p>{/if}
    </main>
  {:else if !building}
    <main class="sheet" id="sheet" tabindex="-1">
      <UnsavedBar />
      <Notice
        tone="note"
        title="This project has no building."
        text="Undo what removed it, or begin another project."
      />
    </main>
  {:else}
    <div class="middle">
      <Mast ledger={consequence?.now} stale={ledgerStale} />
      <main class="sheet" id="sheet" tabindex="-1" bind:this={sheet}>
        <UnsavedBar />
        <TroubleBar />
        <ImportFile bind:this={importing} />
        {#key units.system}
          {#if place.step === 1 && place.view === 'materials'}
            <MaterialsView basis={open.project.basis} {units} />
          {:else if place.step === 1 && place.view === 'shape'}
            <ShapeView {building} {units} />
          {:else if place.step === 1 && place.view === 'units'}
            <UnitsView {building} {units} />
          {:else if place.step === 1}
            <BasisView
              basis={open.project.basis}
              {building}
              {units}
              ledger={consequence?.now}
              onfile={() => importing?.choose()}
            />
          {:else if place.step === 3 && place.view === 'walk'}
            <WalkView {building} />
          {:else if place.step === 3}
            <JointView {building} {units} ledger={session.ledger.answer?.now} />
          {:else if place.step === 4}
            <FixingsView {building} {units} />
          {:else if place.step === 5}
            <MoistureView {building} {units} />
          {:else if place.step === 6}
            <SetOutView {building} {units} />
          {:else if place.step === 7}
            <WholeShellView {building} {units} />
          {:else if place.step === 8}
            <ShopView {building} {units} />
          {:else}
            <StationView {building} {units} ledger={consequence?.now} />
          {/if}
        {/key}
      </main>
      <WorkingDrawer />
      {#if register}<Register {building} onclose={() => (register = false)} />{/if}
    </div>
    <Ledger
      {consequence}
      {building}
      basis={open.project.basis}
      {units}
      last={open.undo}
      stale={ledgerStale}
      saving={session.saves.saving > 0}
      elsewhere={session.saves.elsewhere}
      drawing={onShape && shape.draft ? shape.words : ''}
      onundo={() => void session.saves.step('undo')}
      onwork={shellWork}
    />
  {/if}
</div>
{#if palette}<Palette
    {actions}
    asked={onBench ? thicknessAsked : () => []}
    onclose={() => (palette = false)}
  />{/if}
{#if keyList}<KeyList onclose={() => (keyList = false)} />{/if}

<style>
  .skip {
    position: absolute;
    left: 8px;
    top: -40px;
    z-index: 9;
    padding: 6px 12px;
    background: var(--sheet-bright);
    color: var(--ink);
    border: 1px solid var(--line);
  }
  .skip:focus {
    top: 6px;
    box-shadow: var(--focus);
  }
  .frame {
    height: 100dvh;
    display: flex;
    flex-direction: column;
    min-height: 480px;
  }
  .middle {
    flex: 1;
    display: flex;
    min-height: 0;
  }
  .sheet {
    flex: 1;
    min-width: 0;
    overflow: auto;
    position: relative; /* what is only heard stays inside of it, or the page itself would scroll */
    padding: 16px var(--sheet-pad) var(--sheet-pad);
    background: var(--sheet);
  }
  @media (max-width: 1023px) {
    .frame {
      min-height: 0;
    }
    .middle {
      flex-direction: column;
    }
    .sheet {
      padding: 10px 12px 12px;
    }
  }
</style>
