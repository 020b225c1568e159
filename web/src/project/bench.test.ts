// The draft follows the hand, saves rest with it, and what was refused goes back to what is stored.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Assembly } from '@/api/client';
import { asked, newest, opened, settle, written } from '@/testing/server';
import { Bench } from './bench.svelte';
import { session } from './session.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const layer = (id: string, d: number, studied = false) => ({ id, d, studied, material: 'osb' });
const wall = (core = 0.2, id = 'w1') =>
  ({
    id,
    name: 'Wall',
    layers: [layer('in', 0.0125), layer('core', core, true), layer('out', 0.011)],
    fixings: [],
  }) as unknown as Assembly;
const questions = () => asked.filter((one) => one.path.endsWith('/bench'));
const edits = () => asked.filter((one) => one.path.endsWith('/edit'));
const core = (bench: Bench) => bench.draft?.layers[1]?.d;

let bench: Bench;
let stored: Assembly;
beforeEach(() => {
  asked.length = 0;
  stored = wall();
  session.open = opened({ assemblies: [stored] });
  session.saves.trouble = undefined;
  bench = new Bench();
  bench.follow('p', 'b', 'winter', stored, 1);
});

describe('another project', () => {
  test('begins at its core, although its build-up is called the same and the hand was on the last one', () => {
    bench.selected = 0;
    bench.hold();
    bench.follow('q', 'b', 'winter', wall(0.3), 1);
    expect([bench.selected, core(bench)]).toEqual([1, 0.3]);
  });

  test('what the arrow keys did is written before the window goes there', async () => {
    bench.nudge(1, 0.005, 'D2');
    bench.leave();
    await settle();
    expect(edits().length).toBe(1);
    edits()[0]?.reply(written(2));
    bench.leave();
    await settle();
    expect(edits().length).toBe(1);
  });
});

describe('following what is stored', () => {
  test('begins at the core, and asks for its figures', () => {
    expect(bench.selected).toBe(1);
    expect(questions().length).toBe(1);
    expect(questions()[0]?.body).toMatchObject({ building_id: 'b', condition: 'winter', assembly: stored });
  });

  test('asks nothing again for the same question', () => {
    bench.follow('p', 'b', 'winter', stored, 1);
    expect(questions().length).toBe(1);
  });

  test('asks again where the Basis may have changed, or at another temperature', async () => {
    questions()[0]?.reply({ n: 1 });
    await settle();
    bench.follow('p', 'b', 'winter', stored, 2);
    expect(questions().length).toBe(2);
    questions()[1]?.reply({ n: 2 });
    await settle();
    bench.follow('p', 'b', 'summer', stored, 2);
    expect(questions()[2]?.body).toMatchObject({ condition: 'summer' });
  });

  test('takes what another window has saved, but not while the hand is on the draft', () => {
    bench.hold();
    bench.follow('p', 'b', 'winter', wall(0.3), 2);
    expect(core(bench)).toBe(0.2);
    bench.release();
    bench.follow('p', 'b', 'winter', wall(0.3), 2);
    expect(core(bench)).toBe(0.3);
  });

  test('keeps the chosen layer of the same build-up, and forgets it for another one', () => {
    bench.selected = 2;
    bench.follow('p', 'b', 'winter', wall(0.3), 2);
    expect(bench.selected).toBe(2);
    bench.follow('p', 'b', 'winter', wall(0.3, 'w2'), 2);
    expect(bench.selected).toBe(1);
  });
});

describe('the hand', () => {
  test('moves the draft and asks, and saves nothing', () => {
    bench.move(bench.setLayer(1, { d: 0.25 }));
    expect(core(bench)).toBe(0.25);
    expect(edits().length).toBe(0);
  });

  test('asks the newest only, whatever it went through', async () => {
    for (let n = 1; n <= 50; n += 1) bench.move(bench.setLayer(1, { d: 0.2 + n / 1000 }));
    questions()[0]?.reply({});
    await settle();
    expect(questions().length).toBe(2);
    expect(questions()[1]?.body).toMatchObject({ assembly: { layers: [{}, { d: 0.25 }, {}] } });
  });

  test('moves by keys are one edit once they rest, from where they began', async () => {
    vi.useFakeTimers();
    for (let n = 0; n < 3; n += 1) bench.nudge(1, 0.005, 'D2');
    expect(core(bench)).toBeCloseTo(0.215, 9);
    await vi.advanceTimersByTimeAsync(499);
    expect(edits().length).toBe(0);
    await vi.advanceTimersByTimeAsync(2);
    vi.useRealTimers();
    await settle();
    expect(edits().length).toBe(1);
    expect(edits()[0]?.body).toMatchObject({ text: 'Core ⟨0.2 length⟩ to ⟨0.215 length⟩' });
    expect(bench.ghost).toEqual({ layer: 'core', d: 0.2 });
    edits()[0]?.reply(written(2));
    await settle();
  });

  test('never makes a layer thinner than nothing', () => {
    bench.nudge(0, -0.05, 'D2');
    expect(bench.draft?.layers[0]?.d).toBe(0.0125);
  });
});

describe('a save', () => {
  test('writes what differs from where the draft began', async () => {
    const saved = bench.commit(bench.setLayer(1, { d: 0.25 }), 'Core 200 to 250 mm', 'D2');
    await settle();
    expect(edits()[0]?.body).toMatchObject({
      text: 'Core 200 to 250 mm',
      zone: 'D2',
      items: [{ kind: 'assembly', id: 'w1' }],
    });
    edits()[0]?.reply(written(2));
    await saved;
    expect(core(bench)).toBe(0.25);
  });

  test('that is refused for what was typed goes back, and keeps why', async () => {
    const saved = bench.commit(bench.setLayer(1, { d: 9 }), 'Core 9 m', 'D2');
    await settle();
    edits()[0]?.refuse(422, { title: 'Too thick' });
    await saved;
    expect(core(bench)).toBe(0.2);
    expect(bench.refused?.body.title).toBe('Too thick');
    expect(session.saves.trouble).toBeUndefined();
    bench.move(bench.setLayer(1, { d: 0.3 }));
    expect(bench.refused).toBeUndefined();
  });

  test('that the server did not take for another reason keeps the draft', async () => {
    const saved = bench.commit(bench.setLayer(1, { d: 0.25 }), 'Core', 'D2');
    await settle();
    edits()[0]?.lose();
    await saved;
    expect(core(bench)).toBe(0.25);
    expect(session.saves.trouble?.problem.status).toBe(0);
  });

  test('is not overrun by what is stored while it is on its way', async () => {
    const saved = bench.commit(bench.setLayer(1, { d: 0.25 }), 'Core', 'D2');
    bench.follow('p', 'b', 'winter', stored, 1);
    expect(core(bench)).toBe(0.25);
    await settle();
    edits()[0]?.reply(written(2));
    await saved;
    bench.follow('p', 'b', 'winter', wall(0.25), 2);
    expect(core(bench)).toBe(0.25);
  });
});

test('figures are asked again when something they count has been solved', async () => {
  questions()[0]?.reply({});
  await settle();
  bench.again();
  expect(questions().length).toBe(2);
  expect(newest().body).toEqual(questions()[0]?.body);
});
