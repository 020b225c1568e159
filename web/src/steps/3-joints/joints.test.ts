// The joint on the bench: working accuracy at once, final accuracy at rest, in both variants; saved as one edit.
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Building, Joint } from '@/api/client';
import { asked, newest, opened, written } from '@/testing/server';
import { session } from '@/project/session.svelte';
import { Joints } from './joints.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));
vi.mock('@/project/router.svelte', () => ({ router: { place: { building: 'hall' } } }));

const foot = (more: Partial<Joint> = {}) =>
  ({
    id: 'j6',
    name: 'Foot',
    station: 'H',
    family: 'base',
    variant: 'bare',
    other: '',
    roles: [],
    values: [],
    length: 10,
    ...more,
  }) as unknown as Joint;
const hall = (joint: Joint) =>
  ({ id: 'hall', name: 'Hall', elements: [], joints: [joint] }) as unknown as Building;
const questions = () => asked.filter((one) => one.path.endsWith('/joint')).map((one) => one.body as Question);
interface Question {
  variant: string;
  accuracy: string;
  condition: string;
  joint: Joint;
}
const flush = () => vi.advanceTimersByTimeAsync(0);

let joints: Joints;
beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  joints = new Joints();
  session.open = opened({ buildings: [hall(foot())] });
});
afterEach(() => void vi.useRealTimers());

async function rest(): Promise<void> {
  await vi.advanceTimersByTimeAsync(400);
}
async function answerAll(): Promise<void> {
  for (const one of asked) one.reply({ drawing: {}, solved: {} });
  await flush();
}

describe('following what is stored', () => {
  test('asks at once at working accuracy, and at rest at final accuracy', async () => {
    joints.follow('p', 'winter', foot(), 1);
    expect(questions().map((one) => one.accuracy)).toEqual(['working']);
    await answerAll();
    await rest();
    expect(questions().map((one) => one.accuracy)).toEqual(['working', 'final']);
  });

  test('asks both variants where two are compared', () => {
    joints.follow('p', 'winter', foot({ other: 'foam' }), 1);
    expect(questions().map((one) => one.variant)).toEqual(['bare', 'foam']);
  });

  test('asks nothing again for the same joint, and again at another temperature or revision', async () => {
    const joint = foot();
    joints.follow('p', 'winter', joint, 1);
    await answerAll();
    joints.follow('p', 'winter', joint, 1);
    expect(questions().length).toBe(1);
    joints.follow('p', 'summer', joint, 1);
    expect(questions().at(-1)?.condition).toBe('summer');
    await answerAll();
    joints.follow('p', 'summer', joint, 2);
    expect(questions().length).toBe(3);
  });
});

describe('turning', () => {
  test('puts a parameter in the place of what it was', () => {
    joints.follow('p', 'winter', foot({ values: [{ key: 'plate', number: 0.038 }] as never }), 1);
    expect(joints.turned('plate', 0.05).values).toEqual([{ key: 'plate', number: 0.05 }]);
    expect(joints.turned('fin', 'fin').values).toEqual([
      { key: 'plate', number: 0.038 },
      { key: 'fin', word: 'fin' },
    ]);
  });

  test('while the hand moves asks the newest only, at working accuracy until it rests', async () => {
    joints.follow('p', 'winter', foot(), 1);
    for (let n = 1; n <= 20; n += 1) joints.move(joints.turned('plate', n / 1000));
    await answerAll();
    expect(questions().length).toBe(2);
    expect(questions()[1]?.joint.values).toEqual([{ key: 'plate', number: 0.02 }]);
    expect(questions()[1]?.accuracy).toBe('working');
    await answerAll();
    await rest();
    expect(questions()[2]?.accuracy).toBe('final');
  });

  test('saves it as one edit of the building', async () => {
    joints.follow('p', 'winter', foot(), 1);
    const saved = joints.commit(hall(foot()), { length: 12 }, 'Foot: length');
    await flush();
    const edit = newest();
    expect(edit.path).toContain('/edit');
    expect(edit.body).toMatchObject({
      text: 'Foot: length',
      zone: 'H3',
      items: [{ kind: 'joint', id: 'j6' }],
    });
    edit.reply(written(2));
    await saved;
    expect(joints.draft?.length).toBe(12);
  });

  test('that is refused goes back to what is stored', async () => {
    joints.follow('p', 'winter', foot(), 1);
    const saved = joints.commit(hall(foot()), { length: -1 }, 'Foot: length');
    await flush();
    newest().refuse(422);
    await saved;
    expect(joints.draft?.length).toBe(10);
  });

  test('of nothing does nothing', async () => {
    joints.move({ length: 3 });
    await joints.commit(hall(foot()), { length: 3 }, 'x');
    expect(asked.length).toBe(0);
  });
});
