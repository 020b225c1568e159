// The palette: what can be done here and now, and where each leads.
import { beforeEach, describe, expect, test, vi } from 'vitest';

const { router, session, bench } = vi.hoisted(() => ({
  router: { place: { project: 'p', building: 'b', station: 'D', step: 2 }, go: vi.fn() },
  session: {
    open: undefined as unknown,
    building: vi.fn(),
    assembly: vi.fn(),
    units: {
      parseLength: (text: string) => (Number(text) ? Number(text) / 1000 : undefined),
      full: (d: number) => `${d * 1000} mm`,
      said: (text: string) => text,
    },
    materials: new Map<string, { name: string }>(),
    saves: { step: vi.fn() },
  },
  bench: { draft: undefined as unknown, selected: 0, thickness: vi.fn() },
}));
vi.mock('@/project/router.svelte', () => ({ router }));
vi.mock('@/project/session.svelte', () => ({ session }));
vi.mock('@/project/bench.svelte', () => ({ bench }));
vi.mock('./going', () => ({ nextDecision: vi.fn(), setUnits: vi.fn() }));
const { actionsOf, thicknessAsked } = await import('./actions');

const frame = {
  onBench: false,
  lettersOn: true,
  onimport: vi.fn(),
  onkeys: vi.fn(),
  onregister: vi.fn(),
  onletters: vi.fn(),
};
const named = (text: string, more: Partial<typeof frame> = {}) =>
  actionsOf({ ...frame, ...more }).find((one) => one.text === text);

beforeEach(() => {
  vi.clearAllMocks();
  session.open = { project: { buildings: [{ id: 'b', name: 'Hall' }] }, undo: null, redo: null };
  session.assembly.mockImplementation((id?: string) => (id ? { name: `Wall ${id}` } : undefined));
  session.building.mockReturnValue({
    elements: [{ id: 'e1', station: 'D', name: 'North face', assembly_id: 'W-A' }],
    joints: [{ id: 'j', name: 'Foot', station: 'H' }],
  });
  bench.draft = { layers: [{ material: 'osb' }, { material: null }, { material: 'eps', studied: true }] };
  session.materials.set('osb', { name: 'OSB' }).set('eps', { name: 'EPS' });
});

test('no two are called the same', () => {
  const texts = actionsOf({ ...frame, onBench: true }).map((one) => one.text);
  expect(new Set(texts).size).toBe(texts.length);
});

test('undo and redo are offered by what they would do, and only where there is something', () => {
  expect(actionsOf(frame).some((one) => /^(Undo|Redo)/.test(one.text))).toBe(false);
  session.open = { project: {}, undo: { text: 'Core 200' }, redo: { text: 'Core 180' } };
  named('Undo: Core 200')?.run();
  named('Redo: Core 180')?.run();
  expect(session.saves.step.mock.calls).toEqual([['undo'], ['redo']]);
});

describe('places', () => {
  test.each([
    ['Basis', { step: 1 }],
    ['Wall: build-up', { station: 'D', step: 2 }],
    ['Joint: Foot', { station: 'H', step: 3, element: 'j' }],
    ['Building: Hall', { building: 'b' }],
    ['Round the building: lines of control', { step: 3, view: 'walk' }],
    ['Moisture through the year', { step: 5 }],
    ['Materials and rates', { step: 1, view: 'materials' }],
    ['Pour: pressure, lifts, braces', { step: 6, view: 'pour' }],
    ['Order of work and hold points', { step: 8, view: 'work' }],
    ['All projects', { project: '', building: '' }],
  ])('%s', (text, place) => {
    named(text)?.run();
    expect(router.go).toHaveBeenCalledExactlyOnceWith(place);
  });

  test('of stations without an element are not offered', () => {
    expect(named('Roof: build-up')).toBeUndefined();
  });
});

describe('on the bench', () => {
  test('layers can be chosen by name, the core among them', () => {
    named('Layer 3: EPS, core', { onBench: true })?.run();
    expect(bench.selected).toBe(2);
    expect(named('Layer 2: air layer', { onBench: true })).toBeDefined();
  });

  test('its sheets are offered, and elsewhere they are not', () => {
    expect(named('Foam study', { onBench: true })).toBeDefined();
    expect(named('Foam study')).toBeUndefined();
    expect(named('Layer 1: OSB')).toBeUndefined();
  });
});

test('what only the frame can do is left to it', () => {
  named('Import a project file')?.run();
  named('Keys')?.run();
  named('Turn letter keys off')?.run();
  expect([frame.onimport, frame.onkeys, frame.onletters].map((one) => one.mock.calls.length)).toEqual([
    1, 1, 1,
  ]);
  expect(named('Turn letter keys on', { lettersOn: false })).toBeDefined();
});

describe('by the words that people type', () => {
  const by = (word: string) =>
    actionsOf({ ...frame, onBench: true })
      .filter((one) => `${one.text} ${one.words ?? ''}`.toLowerCase().includes(word))
      .map((one) => one.text);
  test.each([
    ['targets', 'Asked: targets'],
    ['climate', 'Site and climate'],
    ['epw', 'Site and climate'],
    ['humidity', 'Indoor: temperature and humidity of the room'],
    ['screw', 'Fixings of this build-up'],
    ['pdf', 'Print the specification sheet'],
    ['help', 'Keys'],
    ['wall w-a', 'Wall W-A, North face'],
  ])('%s', (word, text) => expect(by(word)).toContain(text));

  test('a build-up is opened where its element stands', () => {
    named('Wall W-A, North face')?.run();
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ station: 'D', step: 2, element: 'e1' });
  });

  test('a thickness changes the core', () => {
    bench.draft = {
      layers: [
        { material: 'osb', d: 0.011 },
        { material: 'eps', studied: true, d: 0.185 },
      ],
    };
    const [action] = thicknessAsked('core 235');
    expect(action?.text).toBe('Core: 185 mm to 235 mm');
    action?.run();
    expect(bench.thickness).toHaveBeenCalledExactlyOnceWith(1, 0.235, 0.185, 'D2');
  });

  test.each(['core', 'core x', 'score 235', 'core -5'])('%s changes nothing', (typed) => {
    expect(thicknessAsked(typed)).toEqual([]);
  });

  test('without a core nothing is offered', () => {
    bench.draft = { layers: [{ material: 'osb', d: 0.011 }] };
    expect(thicknessAsked('core 235')).toEqual([]);
  });
});
