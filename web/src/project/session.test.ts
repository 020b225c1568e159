// What this window holds of a project, and what it writes of it: the things that differ, at the revision that was read.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Assembly, Basis, Building, Problem, ProjectOut } from '@/api/client';
import { refusals } from '@/kit/refusals.svelte';
import { asked, newest, opened, settle, written } from '@/testing/server';
import { session } from './session.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const hall = { id: 'hall', name: 'Hall', elements: [], joints: [] } as unknown as Building;
const shipped = {
  dimensions: {},
  materials: [
    { key: 'osb', name: 'OSB', cost: 1 },
    { key: 'eps', name: 'EPS', cost: 2 },
  ],
} as never;
const body = () => newest().body as { text: string; zone: string; items: Record<string, unknown>[] };

beforeEach(() => {
  asked.length = 0;
  session.open = opened({ buildings: [hall], assemblies: [{ id: 'w1', name: 'Wall' }] }, { revision: 4 });
  session.shipped = shipped;
  session.saves.trouble = undefined;
});
async function answered(save: Promise<boolean>, revision = 5): Promise<boolean> {
  await settle();
  newest().reply(written(revision));
  return save;
}

describe('opening', () => {
  test('asks for what ships once, and for the project', async () => {
    session.open = undefined;
    session.shipped = undefined;
    const loaded = session.load('p');
    await settle();
    expect(newest().path).toBe('/api/v1/shipped');
    newest().reply(shipped);
    await settle();
    expect(newest().params.path).toEqual({ project_id: 'p' });
    expect(session.loading).toBe(true);
    newest().reply(opened({}, { revision: 9 }));
    await loaded;
    expect([session.loading, (session as { open?: ProjectOut }).open?.revision]).toEqual([false, 9]);
  });

  test('a project that is open already asks nothing', async () => {
    await session.load('p');
    expect(asked.length).toBe(0);
  });

  test('that fails says so, and can be tried again', async () => {
    const loaded = session.load('other');
    await settle();
    newest().refuse(404, { title: 'There is no such project' });
    await loaded;
    expect(session.saves.trouble?.doing).toBe('open the project');
    const again = session.saves.trouble?.retry?.();
    await settle();
    newest().reply(opened({ id: 'other' }));
    expect(await again).toBe(true);
    expect(session.open?.project.id).toBe('other');
    expect(session.saves.trouble).toBeUndefined();
  });

  test('leaving forgets it', async () => {
    await session.leave();
    expect(session.open).toBeUndefined();
  });

  test('waits for what is still to be written to the one before', async () => {
    const on = session.assembly('w1') as Assembly;
    const saved = session.saveAssembly({ ...on, name: 'New' }, 'Core', 'D2', { on, read: 1 });
    const loaded = session.load('other');
    await settle();
    expect(asked.map((one) => one.params.path?.project_id)).toEqual(['p']);
    newest().reply(written(2));
    expect(await saved).toBe(true);
    await settle();
    expect(newest().params.path).toEqual({ project_id: 'other' });
    newest().reply(opened({ id: 'other' }));
    await loaded;
    expect(session.open?.project.id).toBe('other');
  });

  test('says what could not be written to the one before, in words, until it is taken note of', async () => {
    const on = session.assembly('w1') as Assembly;
    void session.saveAssembly({ ...on, name: 'New' }, 'Core', 'D2', { on, read: 1 });
    const loaded = session.load('other');
    await settle();
    newest().lose();
    await settle();
    newest().reply(opened({ id: 'other' }));
    await loaded;
    expect(session.unsaved).toEqual({
      project: 'p',
      said: 'Not saved in P: Core. The server does not answer.',
    });
    expect(session.saves.trouble).toBeUndefined(); // nothing stands in the way of this project
    session.unsaved = undefined;
  });

  test('does not say again what was said before it was left', async () => {
    session.saves.trouble = { doing: 'Core', problem: {} as Problem };
    await session.leave();
    expect([session.saves.trouble, session.unsaved]).toEqual([undefined, undefined]);
  });

  test('takes the one that was asked for last, whichever answers first', async () => {
    session.open = undefined;
    const [first, second] = [session.load('a'), session.load('b')];
    await settle();
    const [a, b] = asked.slice(-2);
    b?.reply(opened({ id: 'b' }));
    await second;
    a?.reply(opened({ id: 'a' }));
    await first;
    expect((session as { open?: ProjectOut }).open?.project.id).toBe('b');
    expect(session.loading).toBe(false);
  });

  test('says of another project nothing that was said of the one before', async () => {
    session.saves.elsewhere = { text: 'Core', who: 'another window' };
    session.saves.announcement = 'Core';
    refusals.current = refusals.shown = {} as Problem;
    const loaded = session.load('other');
    await settle();
    newest().reply(opened({ id: 'other' }));
    await loaded;
    expect([session.saves.elsewhere, session.saves.announcement]).toEqual([undefined, '']);
    expect([refusals.current, refusals.shown, refusals.atField]).toEqual([undefined, undefined, false]);
  });
});

describe('the catalogue', () => {
  test('is what ships, with what the server says of this project over it', () => {
    session.open = opened({}, {
      derived: {
        catalogue: [
          { key: 'eps', name: 'EPS', cost: 99 },
          { key: 'mine', name: 'Mine', cost: 3 },
        ],
      },
    } as never);
    expect([...session.materials.keys()]).toEqual(['osb', 'eps', 'mine']);
    expect(session.materials.get('eps')?.cost).toBe(99);
  });
});

describe('taking in a delta', () => {
  test('moves the revision and what can be undone', () => {
    session.merge(written(5, { undo: { number: 5, text: 'x' } as never }));
    expect([session.open?.revision, session.open?.undo?.number]).toEqual([5, 5]);
  });

  test('of another project, or older than what is held, changes nothing', () => {
    session.merge(written(9, { project_id: 'other' }));
    session.merge(written(3));
    expect(session.open?.revision).toBe(4);
  });

  test('without derived values keeps those there are', () => {
    const before = session.open?.derived;
    session.merge(written(5));
    expect(session.open?.derived).toBe(before);
  });
});

describe('writing', () => {
  test('a building writes what differs of it', async () => {
    const next = { ...hall, elements: [{ id: 'e1', station: 'D', name: 'East', area: 5 }] };
    const save = session.saveBuilding(next as unknown as Building, 'East added', '1');
    expect(await answered(save)).toBe(true);
    expect(body()).toMatchObject({
      text: 'East added',
      zone: '1',
      items: [{ kind: 'element', owner: 'hall', id: 'e1', read: null }],
    });
  });

  test('a building as it is writes nothing', async () => {
    expect(await session.saveBuilding(hall, 'nothing', '1')).toBe(true);
    expect(asked.length).toBe(0);
  });

  test('a name writes no Basis, and a Basis no name', async () => {
    const basis = session.open?.project.basis;
    if (!basis) throw new Error('no Basis');
    await answered(session.saveBasis(basis, 'Another', 'Renamed'));
    expect(body().items.map((one) => one.kind)).toEqual(['project']);
    await answered(session.saveBasis({ ...basis, site: {} } as never, 'P', 'Site'), 6);
    expect(body().items.map((one) => one.kind)).toEqual(['basis']);
  });

  test('what is typed while a save is on its way takes nothing of it back', async () => {
    const [basis, name] = [session.open?.project.basis as Basis, 'P'];
    void session.saveBuilding({ ...hall, name: 'Old hall' }, 'Name', '1');
    void session.saveBuilding({ ...hall, north: 10 }, 'North', '1');
    void session.saveBasis({ ...basis, rates: [] }, 'Q', 'Renamed, rates');
    const last = session.saveBasis({ ...basis, sd_air: 1 } as Basis, name, 'Air');
    const items = () => body().items.map(({ kind, document }) => [kind, document]);
    const thing = (kind: string, id: string, document: object) => ({ kind, owner: '', id, document });
    const orders = [{ kind: 'building', owner: '', ids: ['hall'] }] as never;
    await settle();
    newest().reply(
      written(5, { things: [thing('building', 'hall', { ...hall, name: 'Old hall' })] as never, orders }),
    );
    await settle();
    expect(items()).toEqual([['building', { id: 'hall', name: 'Old hall', north: 10 }]]);
    newest().reply(written(6));
    await settle();
    const both = [thing('project', '', { name: 'Q' }), thing('basis', '', { ...basis, rates: [] })];
    newest().reply(written(7, { things: both as never }));
    await settle();
    expect(items()).toEqual([['basis', { ...basis, rates: [], sd_air: 1 }]]);
    newest().reply(written(8));
    expect(await last).toBe(true);
  });

  test('done again after it failed it is done to what stands by then', async () => {
    const failed = session.saveBuilding({ ...hall, north: 10 }, 'North', '1');
    await settle();
    newest().lose();
    expect(await failed).toBe(false);
    session.open = opened({ buildings: [{ ...hall, name: 'Old hall' }] }, { revision: 6 });
    const again = session.saves.trouble?.retry?.();
    await settle();
    expect(body().items.map((one) => one.document)).toEqual([{ id: 'hall', name: 'Old hall', north: 10 }]);
    newest().reply(written(7));
    expect(await again).toBe(true);
  });

  test('a new material is written as new, a known one at what was read', async () => {
    await answered(session.saveMaterial({ key: 'mine' } as never, 'Mine'));
    expect(body().items[0]).toMatchObject({ kind: 'material', id: 'mine', read: null });
    session.open = opened({ materials: [{ key: 'mine' }] }, { revision: 7 });
    await answered(session.saveMaterial({ key: 'mine' } as never, 'Mine'), 8);
    expect(body().items[0]).toMatchObject({ read: 7 });
  });

  test('what is removed is written as gone', async () => {
    await answered(session.removeMaterial('mine', 'Mine removed'));
    expect(body().items).toEqual([{ kind: 'material', owner: '', id: 'mine', read: 4, document: null }]);
    await answered(session.removeBuilding(hall), 6);
    expect(body()).toMatchObject({ text: 'Hall removed', items: [{ kind: 'building', document: null }] });
  });

  test('a build-up goes with what uses it by choice', async () => {
    const assembly = { id: 'w1', name: 'Wall' } as never;
    await answered(session.removeAssembly(assembly, 'take along', 'D2'));
    expect(newest().path).toContain('/removal');
    expect(newest().body).toEqual({ text: 'Wall removed', zone: 'D2', version: 4, users: 'take along' });
  });

  test('a draft that this window has saved itself is written at that revision', async () => {
    const on = { id: 'w9', name: 'Wall', layers: [], fixings: [] } as never;
    const changed = (name: string) => ({ id: 'w9', name, layers: [], fixings: [] }) as never;
    await answered(session.saveAssembly(changed('A'), 'A', 'D2', { on, read: 2 }), 6);
    expect(body().items[0]).toMatchObject({ read: 2 });
    await answered(session.saveAssembly(changed('B'), 'B', 'D2', { on, read: 2 }), 7);
    expect(body().items[0]).toMatchObject({ read: 6 }); // it need not fear its own save
  });
});
