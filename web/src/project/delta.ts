// What a save, an undo or another window has written, put into the project that this window holds.
import type { Assembly, Building, Delta, ProjectDoc } from '@/api/client';

type Doc = Record<string, unknown>;
/** Where things of a kind hang: the project's own list, or a list of the thing that owns them. */
const ROOTS = {
  material: 'materials',
  assembly: 'assemblies',
  unit: 'units',
  building: 'buildings',
} as const;
const HELD = {
  element: ['buildings', 'elements'],
  joint: ['buildings', 'joints'],
  body: ['buildings', 'bodies'],
  opening: ['buildings', 'openings'],
  face: ['buildings', 'faces'],
  fixing: ['assemblies', 'fixings'],
} as const;
/** Parts that a document of its own does not carry. */
const PARTS: Record<string, readonly string[]> = {
  building: ['elements', 'joints', 'bodies', 'openings', 'faces'],
  assembly: ['fixings'],
};

const idOf = (kind: string, one: Doc) => String(kind === 'material' ? one.key : one.id);

/** The project with a delta in it; what did not change stays the same object. */
export function withDelta(project: ProjectDoc, delta: Delta): ProjectDoc {
  const next: Doc = { ...project };
  const changed = new Map(
    delta.things.map((one) => [`${one.kind}/${one.owner}/${one.id}`, one.document as Doc | null]),
  );
  const heading = changed.get('project//');
  if (heading) next.name = heading.name;
  const basis = changed.get('basis//');
  if (basis) next.basis = basis;
  for (const order of delta.orders) {
    if (!(order.kind in ROOTS)) continue;
    const root = ROOTS[order.kind as keyof typeof ROOTS];
    next[root] = ordered(order, (next[root] ?? []) as Doc[], changed);
  }
  for (const order of delta.orders) {
    if (!(order.kind in HELD)) continue;
    const [root, part] = HELD[order.kind as keyof typeof HELD];
    next[root] = (next[root] as Doc[]).map((owner) =>
      owner.id === order.owner
        ? { ...owner, [part]: ordered(order, (owner[part] ?? []) as Doc[], changed) }
        : owner,
    );
  }
  return next as unknown as ProjectDoc;
}

function ordered(
  order: { kind: string; owner: string; ids: string[] },
  known: Doc[],
  changed: Map<string, Doc | null>,
): Doc[] {
  const before = new Map(known.map((one) => [idOf(order.kind, one), one]));
  return order.ids.flatMap((id) => {
    const old = before.get(id);
    const document = changed.get(`${order.kind}/${order.owner}/${id}`);
    if (!document) return old ? [old] : [];
    const parts = (PARTS[order.kind] ?? []).map((name) => [name, old?.[name] ?? []]);
    return [{ ...document, ...Object.fromEntries(parts) }];
  });
}

export interface Item {
  kind: string;
  owner: string;
  id: string;
  read: number | null;
  document: Record<string, unknown> | null;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const without = (one: object, names: readonly string[]): Doc =>
  Object.fromEntries(Object.entries(one).filter(([name]) => !names.includes(name)));

/** What has to be written for a building or build-up to become another one: only the things that differ. */
export function itemsOf(
  kind: 'building' | 'assembly',
  before: Building | Assembly | undefined,
  after: Building | Assembly,
  read: number,
): Item[] {
  const id = String(after.id);
  if (!before) return [{ kind, owner: '', id, read: null, document: { ...after } }];
  const parts = PARTS[kind] ?? [];
  // An order that changed, or a thing put between others, is told by the whole document.
  const orders = parts.map((name) => [listOf(before, name), listOf(after, name)] as const);
  if (orders.some(([old, now]) => !appended(old, now)))
    return [{ kind, owner: '', id, read, document: { ...after } }];
  const items: Item[] = [];
  const bare = without(after, parts);
  if (!same(without(before, parts), bare)) items.push({ kind, owner: '', id, read, document: bare });
  for (const [held, [root, part]] of Object.entries(HELD)) {
    if (ROOTS[kind] !== root) continue;
    const old = new Map(listOf(before, part).map((one) => [String(one.id), one]));
    const now = new Map(listOf(after, part).map((one) => [String(one.id), one]));
    for (const [one, document] of now)
      if (!same(old.get(one), document))
        items.push({ kind: held, owner: id, id: one, read: old.has(one) ? read : null, document });
    for (const one of old.keys())
      if (!now.has(one)) items.push({ kind: held, owner: id, id: one, read, document: null });
  }
  return items;
}

const listOf = (one: object, name: string): Doc[] => ((one as Doc)[name] as Doc[] | undefined) ?? [];

/** Whether a list differs by changes in place, removals, and additions at its end. */
function appended(before: Doc[], after: Doc[]): boolean {
  const known = new Set(before.map((one) => one.id));
  const kept = after.filter((one) => known.has(one.id)).map((one) => one.id);
  const ids = new Set(kept);
  return (
    same(
      kept,
      before.map((one) => one.id).filter((one) => ids.has(one)),
    ) && after.slice(0, kept.length).every((one) => known.has(one.id))
  );
}
