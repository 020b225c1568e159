// Everything that can be done from the palette, in the order in which it stands there.
import { bench } from '@/project/bench.svelte';
import { router } from '@/project/router.svelte';
import { session } from '@/project/session.svelte';
import { STATIONS } from '@/project/stations';
import { nextDecision, setUnits } from './going';
import type { Action } from './Palette.svelte';

/** What only the frame can do. */
export interface Frame {
  /** A build-up is on the bench and its sheet is open. */
  onBench: boolean;
  lettersOn: boolean;
  onimport: () => void;
  onkeys: () => void;
  onletters: () => void;
}

/** What can be done here and now. */
export function actionsOf(frame: Frame): Action[] {
  const open = session.open;
  const place = router.place;
  const building = session.building(place.building);
  return [
    ...changes(),
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
    ...(frame.onBench ? ofBench() : []),
    { text: 'Materials and rates', run: () => router.go({ step: 1, view: 'materials' }) },
    { text: 'Next open decision', keys: 'n', run: nextDecision },
    { text: 'Units: SI', keys: 'u', run: () => setUnits('SI') },
    { text: 'Units: inch-pound', keys: 'u', run: () => setUnits('IP') },
    {
      text: 'Export the project, JSON',
      run: () => (location.href = `/api/v1/projects/${place.project}/file`),
    },
    { text: 'Import a project file', run: frame.onimport },
    { text: 'All projects', run: () => router.go({ project: '', building: '' }) },
    { text: 'Keys', keys: '?', run: frame.onkeys },
    { text: frame.lettersOn ? 'Turn letter keys off' : 'Turn letter keys on', run: frame.onletters },
  ];
}

function changes(): Action[] {
  const { undo, redo } = session.open ?? {};
  return [
    ...(undo
      ? [{ text: `Undo: ${undo.text}`, keys: 'Ctrl Z', run: () => void session.saves.step('undo') }]
      : []),
    ...(redo
      ? [{ text: `Redo: ${redo.text}`, keys: 'Ctrl Shift Z', run: () => void session.saves.step('redo') }]
      : []),
  ];
}

function ofBench(): Action[] {
  const layers = bench.draft?.layers ?? [];
  return [
    ...layers.map((layer, at) => ({
      text: `Layer ${at + 1}: ${session.materials.get(layer.material ?? '')?.name ?? 'air layer'}${layer.studied ? ', core' : ''}`,
      run: () => (bench.selected = at),
    })),
    {
      text: 'Print the specification sheet',
      run: () => document.querySelector<HTMLAnchorElement>('a.sheet')?.click(),
    },
    { text: 'Foam study', run: () => router.go({ view: 'study' }) },
    { text: 'Compare with another build-up, check a claim', run: () => router.go({ view: 'compare' }) },
    { text: 'Day through the build-up', run: () => router.go({ view: 'day' }) },
    { text: 'Practice standard', run: () => router.go({ view: 'standard' }) },
  ];
}
