// A group of fixings on the bench: quickly while it moves, in full at rest, and what it can start as.
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Assembly } from '@/api/client';
import { asked, newest } from '@/testing/server';
import { fixings } from './fixings.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const wall = (across: number) => ({ id: 'w', fixings: [{ id: 'f1', across }] }) as unknown as Assembly;
const question = (across: number, revision = 1) => ({
  project: 'p',
  building: 'hall',
  assembly: wall(across),
  fixing: 'f1',
  condition: 'winter',
  revision,
});
const solving = () => asked.filter((one) => one.path.endsWith('/fixing'));
const accuracies = () => solving().map((one) => (one.body as { accuracy: string }).accuracy);
const flush = () => vi.advanceTimersByTimeAsync(0);
async function answer(): Promise<void> {
  for (const one of asked) one.reply({ chi: 0.004 });
  await flush();
}

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
});
afterEach(async () => {
  await answer();
  await vi.advanceTimersByTimeAsync(1000);
  await answer();
  vi.useRealTimers();
});

describe('a group', () => {
  test('is solved at working accuracy at once, and at rest in full', async () => {
    fixings.ask(question(0.2));
    expect(accuracies()).toEqual(['working']);
    await answer();
    await vi.advanceTimersByTimeAsync(349);
    expect(accuracies()).toEqual(['working']);
    await vi.advanceTimersByTimeAsync(1);
    expect(accuracies()).toEqual(['working', 'final']);
  });

  test('that moves on is not solved in full', async () => {
    fixings.ask(question(0.21));
    await answer();
    await vi.advanceTimersByTimeAsync(300);
    fixings.ask(question(0.22));
    await answer();
    await vi.advanceTimersByTimeAsync(300);
    expect(accuracies()).toEqual(['working', 'working']);
    await vi.advanceTimersByTimeAsync(50);
    expect(accuracies()).toEqual(['working', 'working', 'final']);
  });

  test('goes with its draft, its building and its temperature', () => {
    fixings.ask(question(0.23));
    expect(newest().params.path).toEqual({ project_id: 'p' });
    expect(newest().body).toMatchObject({
      building_id: 'hall',
      fixing_id: 'f1',
      condition: 'winter',
      assembly: { fixings: [{ across: 0.23 }] },
    });
  });

  test('has a ticket of its own for each question, so that one can be stopped', async () => {
    fixings.ask(question(0.24));
    await answer();
    fixings.ask(question(0.25));
    const tickets = solving().map((one) => (one.body as { ticket: string }).ticket);
    expect(tickets.every((one) => one.length > 0)).toBe(true);
    expect(new Set(tickets).size).toBe(2);
  });
});

describe('kinds', () => {
  test('are asked for once', async () => {
    const first = fixings.start();
    newest().reply({ kinds: [] });
    await first;
    await fixings.start();
    expect(asked.filter((one) => one.path.endsWith('/fixing-kinds'))).toHaveLength(1);
    expect(fixings.offered).toEqual({ kinds: [] });
  });

  test('begin a group for a layer, under the id it gets', async () => {
    const begun = fixings.begin('p', 'hall', wall(0.2), 'screw', 'core', 'f2');
    expect(newest().body).toMatchObject({
      kind: 'screw',
      layer: 'core',
      fixing_id: 'f2',
      building_id: 'hall',
    });
    newest().reply({ id: 'f2' });
    expect(await begun).toEqual({ id: 'f2' });
  });

  test('that do not go with the build-up are refused with the reason', async () => {
    const begun = fixings.begin('p', 'hall', wall(0.2), 'web', 'core', 'f2');
    const refused = expect(begun).rejects.toMatchObject({ status: 422, body: { detail: 'no web here' } });
    newest().refuse(422, { detail: 'no web here' });
    await refused;
  });
});
