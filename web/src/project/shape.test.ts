// What is drawn of a body is written as a change of what stands; two changes in a row do not stand in each other's way.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Building } from '@/api/client';
import { asked, opened, settle, written } from '@/testing/server';
import { session } from './session.svelte';
import { shape } from './shape.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const body = { id: 'b', name: 'Hall', height: 3 };
const hall = {
  id: 'hall',
  name: 'Hall',
  north: 0,
  elements: [],
  joints: [],
  faces: [],
  openings: [],
  bodies: [body],
} as unknown as Building;
type Body = NonNullable<Building['bodies']>[number];
const change = (one: object) => (now: { bodies: Body[]; openings: never[]; north: number }) => ({
  ...now,
  bodies: now.bodies.map((old) => ({ ...old, ...one })),
});
const edits = () => asked.filter((one) => one.path.endsWith('/edit'));
const items = (at: number) => (edits()[at]?.body as { items: { read: number; document: unknown }[] }).items;

beforeEach(() => {
  asked.length = 0;
  session.open = opened({ buildings: [hall] }, { revision: 4 });
  session.saves.trouble = undefined;
  shape.follow('another', hall, 1);
  shape.follow('p', hall, 4);
});

describe('what is drawn', () => {
  test('twice in a row is written the second time on what the first has left', async () => {
    const first = shape.commit(change({ height: 4 }) as never, 'Height');
    const second = shape.commit(change({ name: 'Long hall' }) as never, 'Name');
    await settle();
    expect(items(0)).toMatchObject([{ read: 4, document: { ...body, height: 4 } }]);
    const stored = { kind: 'body', owner: 'hall', id: 'b', document: { ...body, height: 4 } };
    const orders = [{ kind: 'body', owner: 'hall', ids: ['b'] }];
    edits()[0]?.reply(written(5, { things: [stored], orders } as never));
    await settle();
    expect(items(1)).toMatchObject([{ read: 5, document: { ...body, height: 4, name: 'Long hall' } }]);
    edits()[1]?.reply(written(6));
    expect([await first, await second]).toEqual([true, true]);
    expect(shape.draft).toBeUndefined();
  });

  test('what another window changed of the drawn thing is a conflict, and is kept where mine is written over it', async () => {
    shape.move(change({ height: 4 }) as never, 'Height');
    session.open = opened(
      { buildings: [{ ...hall, bodies: [{ ...body, name: 'Theirs' }] }] },
      { revision: 5 },
    );
    const taken = shape.apply();
    await settle();
    expect(items(0)).toMatchObject([{ read: 4, document: { ...body, height: 4 } }]);
    edits()[0]?.refuse(409);
    expect(await taken).toBe(false);
    const over = session.saves.trouble?.insist?.();
    await settle();
    asked.at(-1)?.reply(written(5));
    await settle();
    expect(items(1)).toMatchObject([{ read: 5, document: { ...body, height: 4, name: 'Theirs' } }]);
    edits()[1]?.reply(written(6));
    expect(await over).toBe(true);
    shape.drop();
  });
});
