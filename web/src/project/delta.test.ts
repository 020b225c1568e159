import { describe, expect, it } from 'vitest';
import type { Assembly, Building, Delta, ProjectDoc } from '@/api/client';
import { itemsOf, withDelta } from './delta';

const element = (id: string, area = 1) => ({ id, station: 'D', name: id, area }) as const;
const hall = {
  id: 'hall',
  name: 'Hall',
  elements: [element('e1'), element('e2')],
  joints: [],
} as unknown as Building;
const shed = { id: 'shed', name: 'Shed', elements: [], joints: [] } as unknown as Building;
const project = {
  id: 'p',
  name: 'P',
  basis: { site: {} },
  buildings: [hall, shed],
  assemblies: [],
  materials: [],
};
const delta = (things: unknown[], orders: unknown[]): Delta =>
  ({ project_id: 'p', revision: 2, things, orders, derived: null }) as unknown as Delta;

describe('withDelta', () => {
  it('puts a thing in its place and leaves the others as they are', () => {
    const next = withDelta(
      project as unknown as ProjectDoc,
      delta(
        [{ kind: 'element', owner: 'hall', id: 'e2', document: element('e2', 5) }],
        [{ kind: 'element', owner: 'hall', ids: ['e1', 'e2'] }],
      ),
    );
    expect(next.buildings?.[0]?.elements?.map((one) => one.area)).toEqual([1, 5]);
    expect(next.buildings?.[0]?.elements?.[0]).toBe(hall.elements?.[0]);
    expect(next.buildings?.[1]).toBe(shed);
  });

  it('takes removed things away and keeps what a changed one holds', () => {
    const next = withDelta(
      project as unknown as ProjectDoc,
      delta(
        [
          { kind: 'building', owner: '', id: 'shed', document: null },
          { kind: 'building', owner: '', id: 'hall', document: { id: 'hall', name: 'Great hall' } },
          { kind: 'element', owner: 'hall', id: 'e1', document: null },
        ],
        [
          { kind: 'building', owner: '', ids: ['hall'] },
          { kind: 'element', owner: 'hall', ids: ['e2'] },
        ],
      ),
    );
    expect(next.buildings?.map((one) => one.name)).toEqual(['Great hall']);
    expect(next.buildings?.[0]?.elements?.map((one) => one.id)).toEqual(['e2']);
  });
});

describe('itemsOf', () => {
  it('writes only the things that differ', () => {
    const after = {
      ...hall,
      elements: [element('e1'), element('e2', 7), element('e3')],
    } as unknown as Building;
    expect(itemsOf('building', hall, after, 4).map((one) => [one.kind, one.id, one.read])).toEqual([
      ['element', 'e2', 4],
      ['element', 'e3', null],
    ]);
  });

  it('removes things', () => {
    const after = { ...hall, elements: [element('e2')] } as unknown as Building;
    expect(itemsOf('building', hall, after, 4)).toEqual([
      { kind: 'element', owner: 'hall', id: 'e1', read: 4, document: null },
    ]);
  });

  it('tells a new order by the whole document', () => {
    const after = { ...hall, elements: [element('e2'), element('e1')] } as unknown as Building;
    expect(itemsOf('building', hall, after, 4).map((one) => [one.kind, one.id])).toEqual([
      ['building', 'hall'],
    ]);
  });

  it('writes a build-up without its fixings when a layer changed', () => {
    const wall = {
      id: 'w',
      name: 'W',
      layers: [{ id: 'l1', d: 0.1 }],
      fixings: [{ id: 'f1' }],
    } as unknown as Assembly;
    const after = { ...wall, layers: [{ id: 'l1', d: 0.2 }] } as unknown as Assembly;
    const [item, ...rest] = itemsOf('assembly', wall, after, 3);
    expect(rest).toEqual([]);
    expect(item?.document).not.toHaveProperty('fixings');
  });
});
