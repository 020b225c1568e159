// Runs by the hour: what is asked, and the states of a run read from its bytes.
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Assembly, HoursRun, Life } from '@/api/client';
import { asked, newest, settle } from '@/testing/server';
import { runs } from './hours.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const question = (again: number) => ({
  project: 'p',
  building: 'hall',
  revision: 1,
  assembly: { id: 'w' } as unknown as Assembly,
  life: { years: 2 } as unknown as Life,
  again,
});

/** States as the server writes them: temperature, humidity and water of every place, state after state. */
function bytes(states: number, places: number): ArrayBuffer {
  const all = new DataView(new ArrayBuffer(2 * 3 * states * places));
  for (let state = 0; state < states; state += 1) {
    for (let place = 0; place < places; place += 1) {
      const row = 3 * places * state;
      all.setInt16(2 * (row + place), -1000 + 100 * state + place, true);
      all.setInt16(2 * (row + places + place), 5000 + 10 * state + place, true);
      all.setInt16(2 * (row + 2 * places + place), 300 + state + place, true);
    }
  }
  return all.buffer;
}
const run = (key: string) => ({ key, x: [0, 0.1, 0.2], hours: 4 }) as unknown as HoursRun;
const fetching = vi.fn();

beforeEach(() => {
  asked.length = 0;
  fetching.mockReset();
  vi.stubGlobal('fetch', fetching);
  runs.field = undefined;
});
afterEach(() => void vi.unstubAllGlobals());

describe('a run', () => {
  test('goes with the draft and what is supposed of its life', () => {
    runs.run.ask(question(1));
    expect(newest().path).toMatch(/\/moisture\/hours$/);
    expect(newest().body).toMatchObject({ building_id: 'hall', assembly: { id: 'w' }, life: { years: 2 } });
    expect((newest().body as { ticket: string }).ticket).not.toBe('');
  });

  test('and a fan are solved side by side, each with its own ticket', async () => {
    runs.run.ask(question(2));
    runs.fan.ask(question(2));
    expect(newest().path).toMatch(/\/moisture\/fan$/);
    newest().reply({ lives: [] });
    await settle();
    expect(runs.fan.answer).toEqual({ lives: [] });
    expect(runs.run.stale).toBe(true);
  });

  test('is asked again after a stop, with the same life', async () => {
    runs.fan.ask(question(3));
    newest().refuse(409, { detail: 'stopped' });
    await settle();
    expect(runs.fan.problem?.body.detail).toBe('stopped');
    runs.fan.ask(question(4));
    expect(asked).toHaveLength(2);
    newest().reply({ lives: [] });
    await settle();
    expect(runs.fan.problem).toBeUndefined();
  });
});

describe('the states of a run', () => {
  test('are read in °C, as a share, and in kg/m³', async () => {
    fetching.mockResolvedValue({ ok: true, arrayBuffer: () => Promise.resolve(bytes(4, 3)) });
    await runs.load(run('a'));
    expect(runs.field?.places).toBe(3);
    expect(runs.field?.at(0, 0)).toEqual({ theta: -10, phi: 0.5, w: 30 });
    expect(runs.field?.at(3, 2)).toEqual({ theta: -6.98, phi: 0.5032, w: 30.5 });
  });

  test('end with the last one and begin with the first', async () => {
    fetching.mockResolvedValue({ ok: true, arrayBuffer: () => Promise.resolve(bytes(4, 3)) });
    await runs.load(run('a'));
    expect(runs.field?.at(99, 1)).toEqual(runs.field?.at(3, 1));
    expect(runs.field?.at(-1, 1)).toEqual(runs.field?.at(0, 1));
  });

  test('are fetched once for a run', async () => {
    fetching.mockResolvedValue({ ok: true, arrayBuffer: () => Promise.resolve(bytes(4, 3)) });
    await runs.load(run('a'));
    await runs.load(run('a'));
    expect(fetching).toHaveBeenCalledOnce();
    await runs.load(run('b'));
    expect(fetching).toHaveBeenCalledTimes(2);
    expect(runs.field?.key).toBe('b');
  });

  test('that are gone leave the drawing as it is', async () => {
    fetching.mockResolvedValue({ ok: false });
    await runs.load(run('a'));
    expect(runs.field).toBeUndefined();
  });
});
