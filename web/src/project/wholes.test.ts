import { expect, it, vi } from 'vitest';
import type { OnTheWhole } from '@/api/client';

interface Body {
  instead: { name: string }[];
  joints: boolean;
}
const asked: Body[] = [];
const judged = new Map<string, Partial<OnTheWhole>>();
vi.mock('@/api/client', () => ({
  api: {
    POST: (_: string, { body }: { body: Body }) => {
      asked.push(body);
      const rows = body.instead.map(({ name }) => ({
        passes: null,
        margin: null,
        why_not: '',
        sums: null,
        ...judged.get(name),
      }));
      return Promise.resolve({ rows });
    },
    DELETE: () => Promise.resolve({}),
  },
  inProject: () => ({}),
  take: (answer: Promise<unknown>) => answer,
  asProblem: (error: unknown) => error,
}));
const { Wholes } = await import('./wholes.svelte');

const at = { of: 'one', project: 'p', building: 'b', assembly: 'w' };
const rows = (count: number) =>
  Array.from({ length: count }, (_, n) => ({ key: `r${n}`, assembly: { name: `r${n}` } as never }));
const rest = () => new Promise((done) => setTimeout(done));

it('asks for every row once, some at a time, and again only for what is to come', async () => {
  asked.length = 0;
  judged.clear();
  for (const { key } of rows(90)) judged.set(key, { passes: true, margin: 0.1 });
  judged.delete('r7');
  const wholes = new Wholes();
  wholes.follow(at, rows(90), []);
  await rest();
  expect(asked.map((one) => one.instead.length)).toEqual([40, 40, 10]);
  expect(wholes.get('r89')?.passes).toBe(true);
  expect(wholes.get('r7')?.passes).toBeNull();
  wholes.follow(at, rows(90), []);
  await rest();
  expect(asked.at(-1)?.instead.map((one) => one.name)).toEqual(['r7']);
  judged.set('r7', { passes: false, margin: -0.2 });
  wholes.follow(at, rows(90), []);
  await rest();
  const before = asked.length;
  wholes.follow(at, rows(90), []);
  await rest();
  expect(asked.length).toBe(before);
});

it('keeps sums while moisture is asked again, and forgets all when something else is asked of', async () => {
  asked.length = 0;
  judged.clear();
  const sums = { waiting: 0, missing: [], R_effective: 3, H: 1, H_joints: 0, H_fixings: 0, lowest: null };
  judged.set('r0', { sums: sums as never });
  const wholes = new Wholes();
  wholes.follow(at, rows(2), rows(1));
  await rest();
  judged.set('r0', { passes: true, sums: null });
  judged.set('r1', { passes: true, sums: null });
  wholes.follow(at, rows(2), rows(1));
  await rest();
  expect(wholes.get('r0')).toMatchObject({ passes: true, sums: { R_effective: 3 } });
  wholes.follow({ ...at, of: 'other' }, [], []);
  expect(wholes.get('r0')).toBeUndefined();
});
