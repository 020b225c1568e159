// Keys of the whole window: where they lead, and where they are left to a field, the browser or a screen reader.
import { beforeEach, describe, expect, test, vi } from 'vitest';

const { router, session, going } = vi.hoisted(() => ({
  router: { place: { step: 2, station: 'D' }, go: vi.fn() },
  session: { open: {} as unknown, units: { system: 'SI' }, saves: { step: vi.fn() } },
  going: { climb: vi.fn(), month: vi.fn(), nextDecision: vi.fn(), setUnits: vi.fn() },
}));
vi.mock('@/project/router.svelte', () => ({ router }));
vi.mock('@/project/session.svelte', () => ({ session }));
vi.mock('./going', () => going);

/** As much of an element as the handler looks at. */
class Target {
  private readonly is: string[];
  constructor(...is: string[]) {
    this.is = is;
  }
  matches(selector: string): boolean {
    return selector.split(', ').some((one) => this.is.includes(one));
  }
}
vi.stubGlobal('HTMLElement', Target);
const { keysOf } = await import('./keys');

const handled = {
  letters: vi.fn(() => true),
  onpalette: vi.fn(),
  onclose: vi.fn(() => false),
  onkeys: vi.fn(),
  onworking: vi.fn(),
};
let key: ReturnType<typeof keysOf>;
const press = (name: string, more: Record<string, unknown> = {}) => {
  const event = { key: name, target: new Target('main'), preventDefault: vi.fn(), ...more };
  key(event as unknown as KeyboardEvent);
  return event;
};
const typed = (text: string) => [...text].forEach((one) => press(one));

beforeEach(() => {
  vi.clearAllMocks();
  handled.letters.mockReturnValue(true);
  handled.onclose.mockReturnValue(false);
  session.open = {};
  key = keysOf(handled);
});

describe('a zone', () => {
  test.each([
    ['d2', { station: 'D', step: 2 }],
    ['H3', { station: 'H', step: 3 }],
    ['b5', { station: 'B', step: 5 }],
  ])('%s is gone to', (text, place) => {
    typed(text);
    expect(router.go).toHaveBeenCalledExactlyOnceWith(place);
  });

  test('with a 1 waits whether a second digit comes', async () => {
    vi.useFakeTimers();
    typed('d1');
    expect(router.go).not.toHaveBeenCalled();
    await vi.advanceTimersByTimeAsync(700);
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ step: 1 });
    vi.useRealTimers();
  });

  test('with a 1 is gone to at once by Enter', () => {
    typed('d1');
    press('Enter');
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ step: 1 });
  });

  test('of a step that is not there yet leads nowhere', () => {
    typed('d9');
    expect(router.go).not.toHaveBeenCalled();
  });

  test('is forgotten by any other key', () => {
    typed('dn2');
    expect(going.nextDecision).toHaveBeenCalledOnce();
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ step: 2 });
  });
});

describe('single keys', () => {
  test.each(['1', '2', '3', '4', '5'])('%s is a step', (digit) => {
    press(digit);
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ step: Number(digit) });
  });

  test('brackets go one step on or back, and not beyond', () => {
    press(']');
    expect(router.go).toHaveBeenLastCalledWith({ step: 3 });
    press('[');
    expect(router.go).toHaveBeenLastCalledWith({ step: 1 });
    router.place.step = 5;
    press(']');
    expect(router.go).toHaveBeenLastCalledWith({ step: 6 });
    router.place.step = 8;
    press(']');
    expect(router.go).toHaveBeenLastCalledWith({ step: 8 });
    router.place.step = 2;
  });

  test('u changes the units to the other ones', () => {
    press('u');
    expect(going.setUnits).toHaveBeenCalledExactlyOnceWith('IP');
  });

  test('comma and point go by months, page keys up and down the mast', () => {
    press(',');
    press('.');
    expect(going.month.mock.calls).toEqual([[-1], [1]]);
    const page = press('PageUp');
    press('PageDown');
    expect(going.climb.mock.calls).toEqual([[-1], [1]]);
    expect(page.preventDefault).toHaveBeenCalled();
  });

  test('can be turned off, and then page keys and commands still act', () => {
    handled.letters.mockReturnValue(false);
    typed('n2d3');
    expect(router.go).not.toHaveBeenCalled();
    expect(going.nextDecision).not.toHaveBeenCalled();
    press('PageDown');
    press('z', { ctrlKey: true });
    expect(going.climb).toHaveBeenCalledOnce();
    expect(session.saves.step).toHaveBeenCalledExactlyOnceWith('undo');
  });
});

describe('in a field', () => {
  test.each(['input', 'select', 'textarea'])('letters stay with the %s', (is) => {
    typed('');
    press('n', { target: new Target(is) });
    press('2', { target: new Target(is) });
    expect(router.go).not.toHaveBeenCalled();
    expect(going.nextDecision).not.toHaveBeenCalled();
  });

  test('undo while typing is the browser’s, and the project’s where nothing is typed yet', () => {
    press('z', { ctrlKey: true, target: new Target('input') });
    expect(session.saves.step).not.toHaveBeenCalled();
    press('z', { ctrlKey: true, target: new Target('select') });
    expect(session.saves.step).toHaveBeenCalledExactlyOnceWith('undo');
  });

  test.each(['[type=range]', '[type=checkbox]', '[type=radio]'])('undo in %s is the project’s', (is) => {
    press('z', { ctrlKey: true, target: new Target(is, 'input') });
    expect(session.saves.step).toHaveBeenCalledExactlyOnceWith('undo');
  });

  test('the palette opens from everywhere', () => {
    press('k', { ctrlKey: true, target: new Target('input') });
    expect(handled.onpalette).toHaveBeenCalledOnce();
  });
});

test.each([
  [{ ctrlKey: true, shiftKey: true }, 'Z'],
  [{ metaKey: true }, 'y'],
])('redo by %o and %s', (more, name) => {
  press(name, more);
  expect(session.saves.step).toHaveBeenCalledExactlyOnceWith('redo');
});

test('escape closes what lies open, and else stays with who has the focus', () => {
  handled.onclose.mockReturnValue(true);
  press('Escape');
  expect(handled.onclose).toHaveBeenCalledOnce();
});

test('commands of the browser stay with it', () => {
  press('2', { altKey: true });
  press('n', { ctrlKey: true });
  expect(router.go).not.toHaveBeenCalled();
  expect(going.nextDecision).not.toHaveBeenCalled();
});

test('without an open project no key acts', () => {
  session.open = undefined;
  typed('d2n?');
  press('k', { ctrlKey: true });
  expect(router.go).not.toHaveBeenCalled();
  expect(handled.onpalette).not.toHaveBeenCalled();
  expect(handled.onkeys).not.toHaveBeenCalled();
});
