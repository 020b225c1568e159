// Everything that can be done from the palette, in the order in which it stands there.
import type { Building } from '@/api/client';
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
  onregister: () => void;
  onletters: () => void;
}

const FASTENERS = 'screw screws tie ties wire wires bracket anchor nail fastener';

/** Parts of the Basis by their headings, and what else they are called. */
const OF_BASIS: readonly [string, string, string][] = [
  ['Site and climate', 'Site and climate', 'weather temperature humidity epw csv file latitude outside'],
  ['Indoor: temperature and humidity of the room', 'Indoor', 'inside regime class ventilation heating'],
  ['Asked: targets', 'Asked', 'target targets r-value code criteria required limit'],
  ['Units and schools in use', 'Units and schools', 'methods films dimensions standard perm'],
];

function ofBasis(): Action[] {
  return OF_BASIS.map(([text, heading, words]) => ({ text, words, run: () => toHeading(heading) }));
}

/** Open the Basis where a heading stands, and put the focus into its first field. */
function toHeading(heading: string): void {
  router.go({ step: 1 });
  const look = (tries: number) => {
    const found = [...document.querySelectorAll('h2')].find((one) => one.textContent.startsWith(heading));
    if (!found) {
      if (tries) requestAnimationFrame(() => look(tries - 1));
      return;
    }
    found.scrollIntoView({ block: 'start' });
    found.parentElement?.querySelector<HTMLElement>('input, select, button')?.focus({ preventScroll: true });
  };
  look(30);
}

/** Build-ups by their names, where the building has them. */
function buildUps(building: Building | undefined): Action[] {
  return (building?.elements ?? []).flatMap((element) => {
    const name = session.assembly(element.assembly_id)?.name;
    return name === undefined
      ? []
      : [
          {
            text: `${name}, ${element.name}`,
            words: 'build-up assembly',
            keys: `${element.station}2`,
            run: () => router.go({ station: element.station, step: 2, element: element.id }),
          },
        ];
  });
}

/** "core 235" changes the core of the build-up on the bench; in the project's units, or with one. */
export function thicknessAsked(typed: string): Action[] {
  const [, value] = /^\s*core\s+(?:to\s+)?(.+)$/i.exec(typed) ?? [];
  const layers = bench.draft?.layers ?? [];
  const at = layers.findIndex((layer) => layer.studied);
  const d = value === undefined ? undefined : session.units?.parseLength(value);
  if (at < 0 || d === undefined || d <= 0 || !session.units) return [];
  const from = layers[at]?.d ?? d;
  const text = `Core: ${session.units.full(from, 'length')} to ${session.units.full(d, 'length')}`;
  return [{ text, run: () => bench.thickness(at, d, from, `${router.place.station}2`) }];
}

/** Sheets of what is cast, sprayed, lifted and bought: text, words, step, view. */
const SITE = [
  ['Courses of form blocks', 'icf block corner web bond buck lintel stack joint', 6, 'courses'],
  ['Drift of one-sided forms', 'measured length tape trim rasp sheet tie footing level', 6, 'drift'],
  ['Pour: pressure, lifts, braces', 'concrete rate rated truck string line cold joint', 6, 'pour'],
  ['Lining: furred or direct', 'furring battens straightness room', 6, 'lining'],
  ['Wet trades: mortar, plaster, cure', 'mesh dowel coat straw bale batch bed clock', 8, 'wet'],
  ['Lifts: slings and crane', 'hook radius balance centre of gravity wind people', 8, 'lifts'],
  ['Order of work and hold points', 'gate wait days critical crew', 8, 'work'],
  ['Quantities: what is bought', 'bill cost price waste xlsx csv', 8, 'bill'],
] as const;

/** What can be done here and now. */
export function actionsOf(frame: Frame): Action[] {
  const open = session.open;
  const place = router.place;
  const building = session.building(place.building);
  return [
    ...changes(),
    { text: 'Basis', words: 'conditions start', keys: '1', run: () => router.go({ step: 1 }) },
    ...ofBasis(),
    ...Object.entries(STATIONS)
      .filter(([letter]) => building?.elements?.some((one) => one.station === letter))
      .map(([letter, name]) => ({
        text: `${name}: build-up`,
        words: 'assembly layers u-value r-value insulation',
        keys: `${letter}2`,
        run: () => router.go({ station: letter, step: 2 }),
      })),
    ...(building?.joints ?? []).map((one) => ({
      text: `Joint: ${one.name}`,
      keys: `${one.station}3`,
      run: () => router.go({ station: one.station, step: 3, element: one.id }),
    })),
    ...buildUps(building),
    {
      text: 'Round the building: lines of control',
      words: 'walk continuity air tightness rain vapour line',
      run: () => router.go({ step: 3, view: 'walk' }),
    },
    {
      text: 'Add a joint',
      words: 'new psi ψ thermal bridge detail corner eave ridge window',
      run: () => router.go({ step: 3, view: 'add' }),
    },
    {
      text: 'Fixings of this build-up',
      words: `${FASTENERS} chi χ`,
      keys: `${place.station}4`,
      run: () => router.go({ step: 4 }),
    },
    {
      text: 'Moisture through the year',
      words: 'damp condensation mould humidity vapour glaser margin',
      keys: `${place.station}5`,
      run: () => router.go({ step: 5 }),
    },
    {
      text: 'Add a group of fixings',
      words: `new ${FASTENERS}`,
      run: () => router.go({ step: 4, view: 'add' }),
    },
    ...(open?.project.buildings ?? []).map((one) => ({
      text: `Building: ${one.name}`,
      run: () => router.go({ building: one.id }),
    })),
    ...(frame.onBench ? ofBench() : []),
    {
      text: 'Windows and doors',
      words: 'unit types glass glazing frame spacer U g rough opening hole price',
      run: () => router.go({ step: 1, view: 'units' }),
    },
    ...SITE.map(([text, words, step, view]) => ({ text, words, run: () => router.go({ step, view }) })),
    {
      text: 'Materials and rates',
      words: 'catalogue conductivity lambda λ price cost carbon csv own material',
      run: () => router.go({ step: 1, view: 'materials' }),
    },
    {
      text: 'Open decisions',
      words: 'register fails missing todo ways out what is left',
      run: frame.onregister,
    },
    { text: 'Next open decision', words: 'fails missing todo', keys: 'n', run: nextDecision },
    { text: 'Units: SI', words: 'metric mm millimetres', keys: 'u', run: () => setUnits('SI') },
    {
      text: 'Units: inch-pound',
      words: 'imperial feet inches ip',
      keys: 'u',
      run: () => setUnits('IP'),
    },
    {
      text: 'Export the project, JSON',
      words: 'download save file backup',
      run: () => (location.href = `/api/v1/projects/${place.project}/file`),
    },
    { text: 'Import a project file', words: 'open upload json', run: frame.onimport },
    {
      text: 'All projects',
      words: 'home list new project earlier states backups',
      run: () => router.go({ project: '', building: '' }),
    },
    { text: 'Keys', words: 'help shortcuts keyboard', keys: '?', run: frame.onkeys },
    { text: frame.lettersOn ? 'Turn letter keys off' : 'Turn letter keys on', run: frame.onletters },
  ];
}

function changes(): Action[] {
  const { undo, redo } = session.open ?? {};
  const said = (text: string) => session.units?.said(text) ?? text;
  return [
    ...(undo
      ? [{ text: `Undo: ${said(undo.text)}`, keys: 'Ctrl Z', run: () => void session.saves.step('undo') }]
      : []),
    ...(redo
      ? [
          {
            text: `Redo: ${said(redo.text)}`,
            keys: 'Ctrl Shift Z',
            run: () => void session.saves.step('redo'),
          },
        ]
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
      words: 'pdf export download',
      run: () => document.querySelector<HTMLAnchorElement>('a.sheet')?.click(),
    },
    { text: 'Foam study', words: 'thickness core variants', run: () => router.go({ view: 'study' }) },
    { text: 'Compare with another build-up, check a claim', run: () => router.go({ view: 'compare' }) },
    { text: 'Day through the build-up', run: () => router.go({ view: 'day' }) },
    { text: 'Practice standard', run: () => router.go({ view: 'standard' }) },
  ];
}
