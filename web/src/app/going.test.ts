// Ways by keys: the mast from ridge to footing, the months in a round, the first decision that is open.
import { beforeEach, describe, expect, test, vi } from 'vitest';

const { register, router, session } = vi.hoisted(() => ({
  register: { all: [] as object[] },
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
vi.mock('@/project/decisions.svelte', async (original) => ({
  after: (await original<{ after: unknown }>()).after,
  decisions: { of: () => register.all },
}));
const { climb, month, nextDecision, setUnits } = await import('./going');

beforeEach(() => {
  vi.clearAllMocks();
  Object.assign(router.place, { station: 'D', step: 2, condition: '0' });
  session.building.mockReturnValue({
    elements: ['B', 'D', 'H'].map((station) => ({ station, id: station.toLowerCase() })),
  });
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
  const decision = (key: string, station: string, step: number) => ({
    key,
    station,
    step,
    id: key,
    view: '',
  });

  test('goes round through what is open, as the register has it', () => {
    register.all = [decision('b', 'B', 2), decision('d', 'D', 5)];
    nextDecision();
    expect(router.go).toHaveBeenLastCalledWith({ station: 'B', step: 2, element: 'b', view: '' });
    session.building.mockReturnValue({ elements: [{ id: 'd' }] });
    nextDecision();
    expect(router.go).toHaveBeenLastCalledWith({ station: 'D', step: 5, element: 'd', view: '' });
    nextDecision();
    expect(router.go).toHaveBeenLastCalledWith(expect.objectContaining({ station: 'B', step: 2 }));
  });

  test('leads nowhere where nothing is open', () => {
    register.all = [];
    nextDecision();
    expect(router.go).not.toHaveBeenCalled();
  });
});

test('units are a matter of who reads', () => {
  setUnits('IP');
  expect(session.readAs).toHaveBeenCalledExactlyOnceWith('IP');
});
