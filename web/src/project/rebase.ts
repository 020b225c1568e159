// What was changed of one state, done to what stands by now.
type Doc = Record<string, unknown>;

const plain = (one: unknown): one is Doc => typeof one === 'object' && one !== null && !Array.isArray(one);
const same = (a: unknown, b: unknown) => a === b || JSON.stringify(a) === JSON.stringify(b);

/** What `after` changed of `before`, done to `now`; where both changed one value, that of `after`. */
export function rebased<T>(before: T, after: T, now: T): T {
  return merged(before, after, now) as T;
}

function merged(before: unknown, after: unknown, now: unknown): unknown {
  if (same(before, now)) return after;
  if (same(before, after)) return now;
  if (plain(before) && plain(after) && plain(now)) return fields(before, after, now);
  if (Array.isArray(before) && Array.isArray(after) && Array.isArray(now)) return list(before, after, now);
  return after;
}

function fields(before: Doc, after: Doc, now: Doc): Doc {
  const next: Doc = {};
  for (const name of Object.keys({ ...now, ...after })) {
    const [removed, gone] = [!(name in after), !(name in now)];
    if (name in before && (removed || (gone && same(before[name], after[name])))) continue;
    next[name] = merged(before[name], after[name], now[name]);
  }
  return next;
}

/** By what things of a list are told apart, where no two of them have the same. */
const KEYS = ['id', 'key', 'material', 'number', 'role', 'edge', 'panel', 'name', 'wall', 'face'] as const;

function list(before: unknown[], after: unknown[], now: unknown[]): unknown[] {
  const key = KEYS.find((one) => [before, after, now].every((all) => toldApartBy(one, all)));
  return key ? things(key, before as Doc[], after as Doc[], now as Doc[]) : rows(before, after, now);
}

function toldApartBy(key: string, things: unknown[]): boolean {
  const names = new Set(things.map((one) => (plain(one) ? one[key] : undefined)));
  return names.size === things.length && !names.has(undefined);
}

function things(key: string, before: Doc[], after: Doc[], now: Doc[]): Doc[] {
  const byKey = (all: Doc[]) => new Map(all.map((one) => [one[key], one]));
  const old = byKey(before);
  const mine = byKey(after);
  const theirs = byKey(now);
  // The order is that of the change where it changed the order, or put a thing in or took one away.
  const first = same([...old.keys()], [...mine.keys()]) ? theirs : mine;
  return [...new Set([...first.keys(), ...mine.keys(), ...theirs.keys()])].flatMap((id) =>
    one(old.get(id), mine.get(id), theirs.get(id)),
  ) as Doc[];
}

/** Things that have no name, by their places; as they were made where places cannot be told any more. */
function rows(before: unknown[], after: unknown[], now: unknown[]): unknown[] {
  const mine = places(before, after);
  const theirs = places(before, now);
  if (!mine || !theirs) return after;
  return [
    ...before.flatMap((was, at) => one(was, mine.at[at], theirs.at[at])),
    ...theirs.added,
    ...mine.added,
  ];
}

interface Places {
  /** What became of each; nothing where it was taken away. */
  at: unknown[];
  added: unknown[];
}

/** What became of each of a row of things: changed where it was, with others after it, or some taken away. */
function places(before: unknown[], after: unknown[]): Places | undefined {
  const kept = after.slice(0, before.length);
  const values = before.length === after.length && !kept.some((each) => typeof each === 'object');
  const moved = (each: unknown, at: number) =>
    !same(each, before[at]) && before.some((other) => same(other, each));
  if (kept.length === before.length && (values || !kept.some(moved)))
    return { at: kept, added: after.slice(before.length) };
  const left = [...after];
  const at = before.map((each) => (left.length && same(left[0], each) ? left.shift() : undefined));
  return left.length ? undefined : { at, added: [] };
}

/** One thing of a list, or none where it was taken away. */
function one(was: unknown, is: unknown, stands: unknown): unknown[] {
  const gone = was !== undefined && (is === undefined || (stands === undefined && same(was, is)));
  if (gone) return [];
  return [is !== undefined && stands !== undefined ? merged(was, is, stands) : (is ?? stands)];
}
