// Saves go one after the other, each on the version the one before it left; what was refused can be done again.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Delta, ProjectOut } from '@/api/client';
import { asked, newest, opened, settle, written } from '@/testing/server';
import { Saves } from './saves.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

class Holder {
  open: ProjectOut | undefined = opened();
  merge(delta: Delta): void {
    if (this.open) this.open = { ...this.open, revision: delta.revision };
  }
}
const item = (name: string, read: number | null = 1) => ({
  kind: 'element',
  owner: 'hall',
  id: name,
  read,
  document: { id: name },
});

let held: Holder;
let saves: Saves;
beforeEach(() => {
  asked.length = 0;
  held = new Holder();
  saves = new Saves(held);
});

describe('the queue', () => {
  test('sends one at a time, and each names the revision that the one before it left', async () => {
    const first = saves.edit(() => [item('a')], 'first', 'D2');
    const second = saves.edit(() => [item('b')], 'second', 'D2');
    await settle();
    expect(asked.length).toBe(1);
    expect(newest().params.query).toEqual({ since: 1 });
    newest().reply(written(2));
    await settle();
    expect(asked.length).toBe(2);
    expect(newest().params.query).toEqual({ since: 2 });
    newest().reply(written(3));
    expect(await Promise.all([first, second])).toEqual([true, true]);
    expect(held.open?.revision).toBe(3);
    expect(saves.saving).toBe(0);
  });

  test('says what is on its way, and what was done', async () => {
    const save = saves.edit(() => [item('a')], 'Area of the hall', '1');
    await settle();
    expect(saves.saving).toBe(1);
    newest().reply(written(2));
    await save;
    expect([saves.saving, saves.announcement]).toEqual([0, 'Area of the hall']);
  });

  test('goes on after a refusal', async () => {
    const bad = saves.edit(() => [item('a')], 'bad', '1');
    const good = saves.edit(() => [item('b')], 'good', '1');
    await settle();
    newest().refuse(422);
    await settle();
    newest().reply(written(2));
    expect(await Promise.all([bad, good])).toEqual([false, true]);
    expect(saves.trouble).toBeUndefined(); // the newest save is well
  });

  test('has nothing to send where nothing differs, and that is done', async () => {
    expect(await saves.edit(() => [], 'nothing', '1')).toBe(true);
    expect(asked.length).toBe(0);
  });

  test('saves nothing without an open project', async () => {
    held.open = undefined;
    expect(await saves.edit(() => [item('a')], 'late', '1')).toBe(false);
    expect(asked.length).toBe(0);
  });
});

describe('a refusal', () => {
  test('names the thing that was written instead of its place in the request', async () => {
    const save = saves.edit(() => [item('a'), { ...item('b'), kind: 'joint' }], 'two', '1');
    await settle();
    newest().refuse(422, {
      errors: [
        { pointer: '#/items/0/document/area', code: 'c', detail: 'd', hint: 'h', entity: '', proposed: '' },
        { pointer: '#/items/1', code: 'c', detail: 'd', hint: 'h', entity: '', proposed: '' },
      ],
    });
    await save;
    expect(saves.trouble?.problem.items.map((one) => one.pointer)).toEqual(['#/element/area', '#/joint']);
  });

  test('of what was typed is taken over once, by whoever shows it', async () => {
    const save = saves.edit(() => [item('a')], 'typed', '1');
    await settle();
    newest().refuse(422, { title: 'Too thick' });
    await save;
    expect(saves.takeRefusal()?.body.title).toBe('Too thick');
    expect(saves.takeRefusal()).toBeUndefined();
    expect(saves.trouble).toBeUndefined();
  });

  test('of another kind stays for the bar above the sheet', async () => {
    const save = saves.edit(() => [item('a')], 'stale', '1');
    await settle();
    newest().refuse(409);
    await save;
    expect(saves.takeRefusal()).toBeUndefined();
    expect(saves.trouble?.problem.status).toBe(409);
  });

  test('where the server is away can be done again as it was', async () => {
    const save = saves.edit(() => [item('a')], 'away', '1');
    await settle();
    newest().lose();
    expect(await save).toBe(false);
    expect(saves.trouble?.problem.status).toBe(0);
    expect(saves.trouble?.insist).toBeUndefined();
    const again = saves.trouble?.retry?.();
    await settle();
    expect(newest().body).toEqual(asked[0]?.body);
    newest().reply(written(2));
    expect(await again).toBe(true);
    expect(saves.trouble).toBeUndefined();
  });
});

describe('a newer version elsewhere', () => {
  test('can be saved over on purpose, after what it holds has been taken in', async () => {
    const save = saves.edit((force) => [item('a', force ?? 1)], 'mine', '1');
    await settle();
    newest().refuse(409);
    await save;
    const insist = saves.trouble?.insist?.();
    await settle();
    expect([newest().method, newest().path]).toEqual(['GET', '/api/v1/projects/{project_id}/delta']);
    newest().reply(written(7));
    await settle();
    expect(newest().params.query).toEqual({ since: 7 });
    expect(newest().body).toMatchObject({ items: [{ id: 'a', read: 7 }] });
    newest().reply(written(8));
    expect(await insist).toBe(true);
    expect(saves.trouble).toBeUndefined();
  });

  test('is not saved over where it cannot be read', async () => {
    const save = saves.edit((force) => [item('a', force ?? 1)], 'mine', '1');
    await settle();
    newest().refuse(409);
    await save;
    const insist = saves.trouble?.insist?.();
    await settle();
    newest().lose();
    expect(await insist).toBe(false);
    expect(saves.trouble?.doing).toBe('load the newer version');
    expect(asked.filter((one) => one.method === 'POST').length).toBe(1);
  });

  test('never offers to undo over it', async () => {
    held.open = opened({}, { undo: { number: 3, text: 'x' } } as unknown as Partial<ProjectOut>);
    const undo = saves.step('undo');
    await settle();
    expect(newest().path).toBe('/api/v1/projects/{project_id}/undo');
    expect(newest().body).toEqual({ number: 3 });
    newest().refuse(409);
    expect(await undo).toBe(false);
    expect(saves.trouble?.insist).toBeUndefined();
  });

  test('is taken in when the stream tells of it, and who did it is said', async () => {
    const seen = saves.seen(4);
    await settle();
    newest().reply(written(4));
    await settle();
    newest().reply([{ text: 'Core 240', who: 'another window' }]);
    expect(await seen).toBe(true);
    expect(held.open?.revision).toBe(4);
    expect(saves.elsewhere).toEqual({ text: 'Core 240', who: 'another window' });
  });

  test('that this window has written itself is no news', async () => {
    const save = saves.edit(() => [item('a')], 'mine', '1');
    const seen = saves.seen(2); // the stream is quicker than the answer
    await settle();
    newest().reply(written(2));
    expect(await Promise.all([save, seen])).toEqual([true, true]);
    expect(asked.length).toBe(1);
    expect(saves.elsewhere).toBeUndefined();
  });

  test('is no longer told of once something was done here', async () => {
    saves.elsewhere = { text: 'Core 240', who: 'another window' };
    const save = saves.edit(() => [item('a')], 'mine', '1');
    await settle();
    newest().reply(written(2));
    await save;
    expect(saves.elsewhere).toBeUndefined();
  });
});

test('an undo without anything to take back asks nothing', async () => {
  expect(await saves.step('redo')).toBe(true);
  expect(asked.length).toBe(0);
});
