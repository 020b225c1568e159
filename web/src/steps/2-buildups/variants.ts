// Rows of the foam study: which variants are worth reading, in which order, and the build-up each stands for.
import type { Decision, OnTheWhole } from '@/api/client';

export interface Row {
  key: string;
  core: string;
  at: number;
  d: number;
  stops: string[];
  value: (column: string) => number | null;
  present: boolean;
  knee: boolean;
  /** What it is named for; empty for most. */
  pick: string;
}

/** What is stocked and what is named; what is stocked; or every size that was swept. */
export type Sizes = 'picks' | 'stock' | 'every';

/** By a column; without one what passes comes first, the cheapest on top. */
export interface Order {
  column: string;
  down: boolean;
}

export const COLUMNS = [
  ['R_nominal', 'R label'],
  ['R_fresh', 'fresh'],
  ['R_clear', 'clear'],
  ['R_winter', 'winter'],
  ['R_summer', 'summer'],
  ['thickness', 'wall'],
  ['floor', 'floor'],
  ['weight', 'weight'],
  ['cost', 'cost'],
  ['carbon', 'CO₂e'],
  ['heat', 'heat'],
  ['cool', 'cool'],
  ['money', 'life cost'],
  ['carbon_life', 'life CO₂e'],
  ['payback', 'pays in'],
] as const;

/** Columns that are a figure of the build-up at that variant open to its working. */
export const figureOf: Record<string, string> = {
  R_nominal: 'R_nominal',
  R_fresh: 'R_fresh',
  R_clear: 'R_clear',
  R_winter: 'R_winter_clear',
  R_summer: 'R_summer_clear',
  thickness: 'thickness',
  weight: 'weight',
  cost: 'cost',
  carbon: 'carbon',
  heat: 'heat',
  cool: 'cool',
  money: 'money',
  carbon_life: 'carbon_life',
  floor: 'floor',
  payback: 'payback',
};

/** What decides where a build-up fails by the months. */
export const DECIDES: Record<string, string> = {
  surface: 'its inner surface',
  'outer surface': 'its outer surface',
  gathers: 'water that gathers from year to year',
  'too wet': 'the most that a plane may hold',
};

/** What a variant is known by. */
export const keyOf = (core: string, d: number): string => `${core}/${d}`;

/** What the months say of a variant, in words; undefined while it is being judged. */
export function byTheMonths(known: OnTheWhole | null | undefined): string | undefined {
  if (known?.why_not) return `not judged: ${known.why_not}`;
  if (!known || known.passes === null) return undefined;
  return known.passes ? 'passes by the months' : `fails: ${DECIDES[known.reason] ?? known.reason}`;
}

/** Variants that are worth a row, of every core or of the one that was chosen. */
export function rowsOf(decision: Decision, chosen: string, sizes: Sizes): Row[] {
  const is = (pick: { core: number; at: number } | null, core: number, at: number) =>
    pick?.core === core && pick.at === at;
  return decision.cores.flatMap((core, index) =>
    chosen && core.core !== chosen
      ? []
      : core.d.flatMap((d, at): Row[] => {
          const exact = core.exact !== null && Math.ceil(core.exact * 1000 - 1e-6) / 1000 === d;
          const pick = is(decision.cheapest, index, at)
            ? 'cheapest within the limits'
            : is(decision.least_life, index, at)
              ? 'least over the life'
              : is(decision.least_beyond, index, at)
                ? 'least over the life, beyond the limits'
                : '';
          const present = core.present === at;
          const worth =
            core.stocked[at] ||
            present ||
            (sizes !== 'stock' && (pick !== '' || exact)) ||
            (chosen && sizes === 'every');
          if (!worth) return [];
          return [
            {
              key: keyOf(core.core, d),
              core: core.core,
              at,
              d,
              stops: core.stops[at] ?? [],
              value: (column) => core.columns[column]?.[at] ?? null,
              present,
              knee: core.knee === at,
              pick,
            },
          ];
        }),
  );
}

/** Rows in an order; what has no value comes last, up or down. */
export function inOrder(
  rows: Row[],
  order: Order,
  value: (row: Row, column: string) => number | null,
  name: (core: string) => string,
  stopped: (row: Row) => boolean,
): Row[] {
  const way = order.down ? -1 : 1;
  if (!order.column)
    return rows.toSorted(
      (a, b) => Number(stopped(a)) - Number(stopped(b)) || (a.value('cost') ?? 0) - (b.value('cost') ?? 0),
    );
  if (order.column === 'core')
    return rows.toSorted((a, b) => way * name(a.core).localeCompare(name(b.core)) || a.d - b.d);
  return rows.toSorted((a, b) => {
    const [one, other] = [value(a, order.column), value(b, order.column)];
    if (one === null || other === null) return Number(one === null) - Number(other === null);
    return way * (one - other);
  });
}
