// Ways by keys: the mast from ridge to footing, the months in a round, the first decision that is open.
import { beforeEach, describe, expect, test, vi } from 'vitest';

const { router, session } = vi.hoisted(() => ({
  router: {
    place: { project: 'p', building: 'b', station: 'D', step: 2, condition: '0' },
    go: vi.fn(),
  },
  session: {
    open: undefined as unknown,
    building: vi.fn(),
    ledger: { answer: undefined as unknown },
    readAs: vi.fn(),
  },
}));
vi.mock('@/project/router.svelte', () => ({ router }));
vi.mock('@/project/session.svelte', () => ({ session }));
const { climb, month, nextDecision, setUnits } = await import('./going');

beforeEach(() => {
  vi.clearAllMocks();
  Object.assign(router.place, { station: 'D', step: 2, condition: '0' });
  session.building.mockReturnValue({ elements: ['B', 'D', 'H'].map((station) => ({ station })) });
});

describe('up and down the mast', () => {
  test('goes through stations that have an element, and stops at both ends', () => {
    climb(-1);
    expect(router.go).toHaveBeenLastCalledWith({ station: 'B', step: 2 });
    climb(1);
    expect(router.go).toHaveBeenLastCalledWith({ station: 'H', step: 2 });
    router.place.station = 'H';
    climb(1);
    expect(router.go).toHaveBeenLastCalledWith({ station: 'H', step: 2 });
  });

  test('in Joints goes through every station', () => {
    router.place.step = 3;
    climb(1);
    expect(router.go).toHaveBeenLastCalledWith({ station: 'E', step: 3 });
  });

  test('from the Basis leads to build-ups', () => {
    router.place.step = 1;
    climb(1);
    expect(router.go).toHaveBeenLastCalledWith({ station: 'H', step: 2 });
  });
});

describe('months', () => {
  test.each([
    ['0', 1, '1'],
    ['0', -1, 'winter'],
    ['winter', -1, 'summer'],
    ['11', 1, 'summer'],
    ['summer', 1, 'winter'],
  ])('from %s by %d to %s', (from, by, to) => {
    router.place.condition = from;
    month(by);
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ condition: to }, true);
  });
});

describe('the next decision', () => {
  const line = (element_id: string, falls_short: boolean) => ({ element_id, station: 'B', falls_short });

  test('is the first build-up that misses what is asked, as the server says', () => {
    session.ledger.answer = { now: { lines: [line('a', false), line('b', true), line('c', true)] } };
    nextDecision();
    expect(router.go).toHaveBeenCalledExactlyOnceWith({ station: 'B', step: 2, element: 'b' });
  });

  test('leads nowhere where none is open, or nothing is known yet', () => {
    session.ledger.answer = { now: { lines: [line('a', false)] } };
    nextDecision();
    session.ledger.answer = undefined;
    nextDecision();
    expect(router.go).not.toHaveBeenCalled();
  });
});

test('units are a matter of who reads', () => {
  setUnits('IP');
  expect(session.readAs).toHaveBeenCalledExactlyOnceWith('IP');
});
