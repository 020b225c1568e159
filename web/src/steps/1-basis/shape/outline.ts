// A footprint as the hand changes it: corners and sides moved, lengths typed, snapped to the module. Metres, plan x and y.

export type Point = [number, number];
export type Outline = Point[];

/** Finest step of a hand that is not let free [m]. */
export const STEP = 0.005;
/** How near a whole or half module draws the hand to it [px]. */
const NEAR = { whole: 9, half: 5 };

const around = (outline: Outline, n: number): Point =>
  outline[((n % outline.length) + outline.length) % outline.length] ?? [0, 0];

/** A side's ends, left to right as seen from outside. */
export const side = (outline: Outline, n: number): [Point, Point] => [
  around(outline, n),
  around(outline, n + 1),
];

export function lengthOf(outline: Outline, n: number): number {
  const [p, q] = side(outline, n);
  return Math.hypot(q[0] - p[0], q[1] - p[1]);
}

/** Unit vectors along a side and outwards from it. */
export function ways(outline: Outline, n: number): { along: Point; out: Point } {
  const [p, q] = side(outline, n);
  const length = Math.hypot(q[0] - p[0], q[1] - p[1]) || 1;
  const along: Point = [(q[0] - p[0]) / length, (q[1] - p[1]) / length];
  return { along, out: [along[1], -along[0]] };
}

/** A length where the hand lets go of it: a whole module, a half one, else a step of 5 mm. */
export function snapped(length: number, module: number | undefined, perMetre: number): number {
  if (module) {
    const whole = Math.round(length / module) * module;
    if (whole > 0 && Math.abs(whole - length) * perMetre < NEAR.whole) return whole;
    const half = (Math.round((2 * length) / module) * module) / 2;
    if (half > 0 && Math.abs(half - length) * perMetre < NEAR.half) return half;
  }
  return Math.round(length / STEP) * STEP;
}

const round = (value: number) => Math.round(value * 1e5) / 1e5;
const moved = (p: Point, way: Point, by: number): Point => [
  round(p[0] + way[0] * by),
  round(p[1] + way[1] * by),
];

function withPoints(outline: Outline, changes: Record<number, Point>): Outline {
  return outline.map((p, n) => changes[n] ?? p);
}
const index = (outline: Outline, n: number) => (n + outline.length) % outline.length;

/** A side pushed outwards: it stays parallel, its neighbours become longer or shorter. */
export function withSideOut(outline: Outline, n: number, by: number): Outline {
  const { out } = ways(outline, n);
  const [a, b] = [index(outline, n), index(outline, n + 1)];
  return withPoints(outline, {
    [a]: moved(around(outline, a), out, by),
    [b]: moved(around(outline, b), out, by),
  });
}

/** How far a side goes out when the side before it gets a length by that. */
export function outFor(outline: Outline, n: number, length: number): number {
  const { out } = ways(outline, n);
  const { along } = ways(outline, n - 1);
  const share = along[0] * out[0] + along[1] * out[1];
  return (length - lengthOf(outline, n - 1)) * (Math.abs(share) < 1e-6 ? 1 : share);
}

/** A side of another length: what lies at its far end moves along with it. */
export function withLength(outline: Outline, n: number, length: number): Outline {
  const { along } = ways(outline, n);
  const by = length - lengthOf(outline, n);
  const [b, c] = [index(outline, n + 1), index(outline, n + 2)];
  return withPoints(outline, {
    [b]: moved(around(outline, b), along, by),
    [c]: moved(around(outline, c), along, by),
  });
}

/** A corner moved; with `square` its neighbours follow, so that the angles stay. */
export function withCorner(outline: Outline, n: number, by: Point, square: boolean): Outline {
  const [at, before, after] = [index(outline, n), index(outline, n - 1), index(outline, n + 1)];
  const changes: Record<number, Point> = {
    [at]: moved(moved(around(outline, at), [1, 0], by[0]), [0, 1], by[1]),
  };
  if (square) {
    for (const [corner, on] of [
      [before, ways(outline, n - 1).along],
      [after, ways(outline, n).along],
    ] as const) {
      const share = by[0] * on[0] + by[1] * on[1];
      changes[corner] = moved(around(outline, corner), [by[0] - share * on[0], by[1] - share * on[1]], 1);
    }
  }
  return withPoints(outline, changes);
}

/** A corner put into the middle of a side. */
export function withCornerIn(outline: Outline, n: number): Outline {
  const [p, q] = side(outline, n);
  const middle: Point = [round((p[0] + q[0]) / 2), round((p[1] + q[1]) / 2)];
  return [...outline.slice(0, n + 1), middle, ...outline.slice(n + 1)];
}

export function without(outline: Outline, n: number): Outline {
  return outline.filter((_, at) => at !== n);
}

export function bounds(points: readonly (readonly number[])[]): {
  left: number;
  low: number;
  right: number;
  high: number;
} {
  const xs = points.map((p) => p[0] ?? 0);
  const ys = points.map((p) => p[1] ?? 0);
  return { left: Math.min(...xs), low: Math.min(...ys), right: Math.max(...xs), high: Math.max(...ys) };
}
