<!-- The frame: strip, mast, sheet, ledger, drawer; keys and the palette. -->
<script lang="ts">
  import { api, asProblem, readIn, take } from '@/api/client';
  import Hatches from '@/draw/Hatches.svelte';
  import { stream } from '@/api/stream.svelte';
  import { bench } from '@/project/bench.svelte';
  import { router } from '@/project/router.svelte';
  import { session } from '@/project/session.svelte';
  import { working } from '@/project/working.svelte';
  import { STATIONS } from '@/project/stations';
  import Button from '@/kit/Button.svelte';
  import Ledger from './Ledger.svelte';
  import Mast from './Mast.svelte';
  import Notice from '@/kit/Notice.svelte';
  import Palette from './Palette.svelte';
  import type { Action } from './Palette.svelte';
  import Strip from './Strip.svelte';
  import TroubleBar from './TroubleBar.svelte';
  import WorkingDrawer from './WorkingDrawer.svelte';
  import { setUnitsInUse } from '@/kit/reading';
  import KeyList from './KeyList.svelte';
  import { untrack } from 'svelte';
  import BasisView from '@/steps/1-basis/BasisView.svelte';
  import MaterialsView from '@/steps/1-basis/MaterialsView.svelte';
  import ProjectsView from './ProjectsView.svelte';
  import FixingsView from '@/steps/4-fixings/FixingsView.svelte';
  import MoistureView from '@/steps/5-moisture/MoistureView.svelte';
  import JointView from '@/steps/3-joints/JointView.svelte';
  import StationView from '@/steps/2-buildups/StationView.svelte';
  import WalkView from '@/steps/3-joints/WalkView.svelte';

  const place = $derived(router.place);
  const open = $derived(session.open?.project.id === place.project ? session.open : undefined);
  const building = $derived(session.building(place.building));
  const units = $derived(session.units);
  setUnitsInUse(() => session.units);

  $effect(() => {
    const project = place.project;
    untrack(() => (project ? void session.load(project) : (session.leave(), void session.start())));
  });
  $effect(() => {
    // A project opens at its first building; a building that is gone gives way to the first one.
    const first = open?.project.buildings?.[0];
    if (open && first && !building) router.go({ building: first.id }, true);
  });
  $effect(() => {
    if (open && building)
      session.ledger.ask({ project: open.project.id, building: building.id, revision: open.revision });
  });
  // While joints are being solved the ledger is asked again with every answer, until it has them all.
  const pending = $derived((session.ledger.answer?.now.pending.length ?? 0) > 0);
  $effect(() => {
    void stream.answers;
    if (!pending || !open || !building) return;
    const question = { project: open.project.id, building: building.id, revision: open.revision };
    untrack(() => session.ledger.ask(question));
  });
  let waited = false;
  $effect(() => {
    if (waited && !pending) untrack(() => bench.again()); // its figures count what has been solved meanwhile
    waited = pending;
  });
  $effect.pre(() => readIn(units?.system ?? 'SI'));
  const followed = $derived(open?.project.id);
  $effect(() => {
    if (!followed) return undefined;
    return stream.follow(followed, {
      changed: (revision) => void session.seen(revision),
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
  // On the bench the ledger follows the draft; elsewhere it shows what is saved.
  const fromBench = $derived(
    onBench && bench.live.asked?.building === place.building && bench.found !== undefined,
  );
  const consequence = $derived(fromBench ? bench.found?.consequence : session.ledger.answer);
  const ledgerStale = $derived(fromBench ? bench.live.stale : session.ledger.stale);
  const decisions = $derived(
    (consequence?.now.lines ?? []).some(
      (line) => line.from_assembly && line.asked !== null && line.R !== null && line.R < line.asked,
    ),
  );

  let palette = $state(false);
  let keyList = $state(false);
  let lettersOn = $state(localStorage.getItem('nimble-letter-keys') !== 'off');
  let fileInput = $state<HTMLInputElement>();
  let importProblem = $state.raw<ReturnType<typeof asProblem>>();

  async function importFile(file: File | undefined): Promise<void> {
    if (!file) return;
    importProblem = undefined;
    try {
      if (file.size > 16 * 1024 * 1024)
        throw new Error(
          `${file.name} has ${Math.round(file.size / 1048576)} MB; a project file has at most 16 MB. Nothing was changed.`,
        );
      let body: Record<string, unknown>;
      try {
        body = JSON.parse(await file.text()) as Record<string, unknown>;
      } catch (error) {
        throw new Error(
          `${file.name} is not readable as JSON: ${error instanceof Error ? error.message : ''}. Nothing was changed.`,
          { cause: error },
        );
      }
      const made = await take(api.POST('/api/v1/projects/import', { body }));
      router.go({ project: made.project.id, building: '', station: 'D', step: 2 });
    } catch (error) {
      importProblem = asProblem(error);
    } finally {
      if (fileInput) fileInput.value = '';
    }
  }

  function setUnits(system: 'SI' | 'IP'): void {
    const basis = open?.project.basis;
    if (basis && basis.schools.units !== system)
      void session.saveBasis(
        { ...basis, schools: { ...basis.schools, units: system } },
        open.project.name,
        `Units ${system}`,
      );
  }
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
  function climb(by: number): void {
    const step = place.step >= 3 ? place.step : 2;
    const letters = Object.keys(STATIONS).filter(
      (letter) => step === 3 || building?.elements?.some((one) => one.station === letter),
    );
    const at = letters.indexOf(place.station);
    const next = letters[Math.min(Math.max(at + by, 0), letters.length - 1)];
    if (next) router.go({ station: next, step });
  }
  function nextDecision(): void {
    const line = (session.ledger.answer?.now.lines ?? []).find(
      (one) => one.from_assembly && one.asked !== null && one.R !== null && one.R < one.asked,
    );
    if (line) router.go({ station: line.station, step: 2, element: line.element_id });
  }
  function month(by: number): void {
    const order = ['winter', ...Array.from({ length: 12 }, (_, at) => String(at)), 'summer'];
    const at = order.indexOf(place.condition);
    router.go({ condition: order[(at + by + order.length) % order.length] ?? '0' }, true);
  }

  const actions = $derived<Action[]>([
    ...(open?.undo
      ? [{ text: `Undo: ${open.undo.text}`, keys: 'Ctrl Z', run: () => void session.step('undo') }]
      : []),
    ...(open?.redo
      ? [{ text: `Redo: ${open.redo.text}`, keys: 'Ctrl Shift Z', run: () => void session.step('redo') }]
      : []),
    { text: 'Basis', keys: '1', run: () => router.go({ step: 1 }) },
    ...Object.entries(STATIONS)
      .filter(([letter]) => building?.elements?.some((one) => one.station === letter))
      .map(([letter, name]) => ({
        text: `${name}: build-up`,
        keys: `${letter}2`,
        run: () => router.go({ station: letter, step: 2 }),
      })),
    ...(building?.joints ?? []).map((one) => ({
      text: `Joint: ${one.name}`,
      keys: `${one.station}3`,
      run: () => router.go({ station: one.station, step: 3, element: one.id }),
    })),
    { text: 'Round the building: lines of control', run: () => router.go({ step: 3, view: 'walk' }) },
    { text: 'Add a joint', run: () => router.go({ step: 3, view: 'add' }) },
    { text: 'Fixings of this build-up', keys: `${place.station}4`, run: () => router.go({ step: 4 }) },
    { text: 'Moisture through the year', keys: `${place.station}5`, run: () => router.go({ step: 5 }) },
    { text: 'Add a group of fixings', run: () => router.go({ step: 4, view: 'add' }) },
    ...(open?.project.buildings ?? []).map((one) => ({
      text: `Building: ${one.name}`,
      run: () => router.go({ building: one.id }),
    })),
    ...(onBench
      ? (bench.draft?.layers ?? []).map((layer, at) => ({
          text: `Layer ${at + 1}: ${session.materials.get(layer.material ?? '')?.name ?? 'air layer'}${layer.studied ? ', core' : ''}`,
          run: () => (bench.selected = at),
        }))
      : []),
    ...(onBench
      ? [
          {
            text: 'Print the specification sheet',
            run: () => document.querySelector<HTMLAnchorElement>('a.sheet')?.click(),
          },
        ]
      : []),
    ...(onBench
      ? [
          { text: 'Foam study', run: () => router.go({ view: 'study' }) },
          { text: 'Compare with another build-up, check a claim', run: () => router.go({ view: 'compare' }) },
          { text: 'Day through the build-up', run: () => router.go({ view: 'day' }) },
          { text: 'Practice standard', run: () => router.go({ view: 'standard' }) },
        ]
      : []),
    { text: 'Materials and rates', run: () => router.go({ step: 1, view: 'materials' }) },
    { text: 'Next open decision', keys: 'n', run: nextDecision },
    { text: 'Units: SI', keys: 'u', run: () => setUnits('SI') },
    { text: 'Units: inch-pound', keys: 'u', run: () => setUnits('IP') },
    {
      text: 'Export the project, JSON',
      run: () => (location.href = `/api/v1/projects/${place.project}/file`),
    },
    { text: 'Import a project file', run: () => fileInput?.click() },
    { text: 'All projects', run: () => router.go({ project: '', building: '' }) },
    { text: 'Keys', keys: '?', run: () => (keyList = true) },
    {
      text: lettersOn ? 'Turn letter keys off' : 'Turn letter keys on',
      run: () => {
        lettersOn = !lettersOn;
        localStorage.setItem('nimble-letter-keys', lettersOn ? 'on' : 'off');
      },
    },
  ]);

  let zoneTyped = '';
  let zoneTimer: ReturnType<typeof setTimeout> | undefined;
  function goZone(): void {
    clearTimeout(zoneTimer);
    const found = /^([a-h])(\d{1,2})$/.exec(zoneTyped);
    zoneTyped = '';
    if (!found?.[1]) return;
    const step = Number(found[2]);
    if (step === 1) router.go({ step: 1 });
    else if (step >= 2 && step <= 5) router.go({ station: found[1].toUpperCase(), step });
  }

  function key(event: KeyboardEvent): void {
    if (!open) return;
    const field =
      event.target instanceof HTMLElement && /^(INPUT|SELECT|TEXTAREA)$/.test(event.target.tagName);
    const letter = event.key.toLowerCase();
    if ((event.ctrlKey || event.metaKey) && letter === 'k') {
      event.preventDefault();
      palette = !palette;
      return;
    }
    if (event.key === 'Escape' && (keyList || working.opened)) {
      keyList = false;
      working.close();
      return;
    }
    // In a number field with nothing typed yet, undo is that of the project; while typing it is the browser's.
    const still = field && (event.target as HTMLElement).matches('select, [data-entry=still]');
    if (field && !still) return;
    if ((event.ctrlKey || event.metaKey) && (letter === 'z' || letter === 'y')) {
      event.preventDefault();
      void session.step(letter === 'y' || event.shiftKey ? 'redo' : 'undo');
      return;
    }
    if (field || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'PageUp' || event.key === 'PageDown') {
      event.preventDefault();
      climb(event.key === 'PageUp' ? -1 : 1);
      return;
    }
    if (!lettersOn) return;
    if (zoneTyped && /^\d$/.test(event.key)) {
      zoneTyped += event.key;
      if (event.key === '1' && zoneTyped.length === 2) zoneTimer = setTimeout(goZone, 600);
      else goZone();
      return;
    }
    if (event.key === 'Enter' && zoneTyped) return goZone();
    zoneTyped = '';
    const single: Record<string, () => void> = {
      '[': () => router.go({ step: Math.max(place.step - 1, 1) }),
      ']': () => router.go({ step: Math.min(place.step + 1, 5) }),
      '1': () => router.go({ step: 1 }),
      '2': () => router.go({ step: 2 }),
      '3': () => router.go({ step: 3 }),
      '4': () => router.go({ step: 4 }),
      '5': () => router.go({ step: 5 }),
      u: () => setUnits(units?.system === 'SI' ? 'IP' : 'SI'),
      n: nextDecision,
      ',': () => month(-1),
      '.': () => month(1),
      '?': () => (keyList = true),
      w: () => {
        if (
          document.activeElement instanceof HTMLButtonElement &&
          document.activeElement.matches('[aria-label$="show working"]')
        )
          document.activeElement.click();
        else if (onBench) document.querySelector<HTMLButtonElement>('[data-testid="R-combined"]')?.click();
      },
    };
    if (single[letter] || single[event.key]) (single[event.key] ?? single[letter])?.();
    else if (/^[a-h]$/.test(letter)) {
      zoneTyped = letter;
      clearTimeout(zoneTimer);
    }
  }
</script>

<svelte:window onkeydown={key} />
{#if session.shipped}<Hatches hatches={session.shipped.hatches} />{/if}
<input
  class="visually-hidden"
  type="file"
  accept=".json,application/json"
  aria-label="Project file to import"
  tabindex="-1"
  bind:this={fileInput}
  onchange={(event) => void importFile(event.currentTarget.files?.[0])}
/>
<div class="visually-hidden" aria-live="polite">{session.announcement}</div>

<div class="frame">
  <Strip onunits={setUnits} onpalette={() => (palette = true)} {decisions} />
  {#if !place.project}
    <main class="sheet">
      {#if importProblem}<Notice
          title="The file was not imported."
          text={importProblem.items
            .map((item) => `${item.pointer} ${item.detail}; ${item.hint}.`)
            .join(' ') || importProblem.sentence}
          live
        />{/if}
      <ProjectsView onfile={() => fileInput?.click()} />
    </main>
  {:else if !open || !units}
    <main class="sheet">
      <TroubleBar />
      {#if session.loading}<p role="status">Opening the project</p>{/if}
      {#if session.trouble}<p>
          <Button onclick={() => router.go({ project: '', building: '' })}>All projects</Button>
        </p>{/if}
    </main>
  {:else if !building}
    <main class="sheet">
      <Notice
        tone="note"
        title="This project has no building."
        text="Undo what removed it, or begin another project."
      />
    </main>
  {:else}
    <div class="middle">
      <Mast ledger={consequence?.now} stale={ledgerStale} />
      <main class="sheet" tabindex="-1">
        <TroubleBar />
        {#if importProblem}<Notice
            title="The file was not imported."
            text={importProblem.items
              .map((item) => `${item.pointer} ${item.detail}; ${item.hint}.`)
              .join(' ') || importProblem.sentence}
            live
          />{/if}
        {#if place.step === 1 && place.view === 'materials'}
          <MaterialsView basis={open.project.basis} {units} />
        {:else if place.step === 1}
          <BasisView
            basis={open.project.basis}
            {building}
            {units}
            ledger={consequence?.now}
            onfile={() => fileInput?.click()}
          />
        {:else if place.step === 3 && place.view === 'walk'}
          <WalkView {building} />
        {:else if place.step === 3}
          <JointView {building} {units} ledger={session.ledger.answer?.now} />
        {:else if place.step === 4}
          <FixingsView {building} {units} />
        {:else if place.step === 5}
          <MoistureView {building} {units} />
        {:else}
          <StationView {building} {units} ledger={consequence?.now} />
        {/if}
      </main>
      <WorkingDrawer />
    </div>
    <Ledger
      {consequence}
      {building}
      basis={open.project.basis}
      {units}
      last={open.undo}
      stale={ledgerStale}
      saving={session.saving > 0}
      elsewhere={session.elsewhere}
      onundo={() => void session.step('undo')}
      onwork={shellWork}
    />
  {/if}
</div>
{#if palette}<Palette {actions} onclose={() => (palette = false)} />{/if}
{#if keyList}<KeyList onclose={() => (keyList = false)} />{/if}

<style>
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
