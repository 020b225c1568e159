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

/** By what things of a list are told apart. */
const KEYS = ['id', 'key', 'material'] as const;

function list(before: unknown[], after: unknown[], now: unknown[]): unknown[] {
  const all = [before, after, now];
  const key = KEYS.find((one) => all.every((things) => toldApartBy(one, things)));
  if (key) return things(key, before as Doc[], after as Doc[], now as Doc[]);
  const rows = all.every((one) => one.length === after.length && !one.some(plain));
  return rows ? after.map((one, at) => merged(before[at], one, now[at])) : after;
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
  return [...new Set([...first.keys(), ...mine.keys(), ...theirs.keys()])].flatMap((id): Doc[] => {
    const was = old.get(id);
    const is = mine.get(id);
    const stands = theirs.get(id);
    if (was && (!is || (!stands && same(was, is)))) return [];
    return [(is && stands ? merged(was, is, stands) : (is ?? stands)) as Doc];
  });
}
