// Axes and lines of charts, in the units of who reads them.
import { ticks } from 'd3-array';
import { line } from 'd3-shape';
import type { Units } from '@/kit/units';

export { scaleLinear } from 'd3-scale';

/** A line through points, to a tenth of a pixel. */
export function lineThrough<T>(
  points: readonly T[],
  x: (point: T, at: number) => number,
  y: (point: T, at: number) => number,
): string {
  return line<T>(x, y).digits(1)([...points]) ?? '';
}

export interface Tick {
  /** As it is written. */
  shown: string;
  /** In SI. */
  value: number;
}

/** At most `count` round values between two others. */
export function roundBetween(low: number, high: number, count: number): number[] {
  for (let wanted = count; wanted > 1; wanted -= 1) {
    const found = ticks(low, high, wanted);
    if (found.length <= count) return found;
  }
  return ticks(low, high, 1);
}

/** At most `count` round values of a quantity between two of its values in SI. */
export function ticksOf(units: Units, dimension: string, low: number, high: number, count: number): Tick[] {
  const { per_si, offset } = units.unit(dimension);
  return roundBetween(low * per_si + offset, high * per_si + offset, count).map((shown) => ({
    shown: shown
      .toLocaleString('en', { maximumFractionDigits: 9 })
      .replaceAll(',', '\u2009')
      .replace('-', '−'),
    value: (shown - offset) / per_si,
  }));
}

/** Places for texts beside one another: each at its own height, or a step below the one before. */
export function apart<T>(
  items: readonly T[],
  y: (item: T) => number,
  step: number,
): { item: T; y: number }[] {
  let before = -Infinity;
  return items
    .map((item) => ({ item, y: y(item) }))
    .toSorted((a, b) => a.y - b.y)
    .map((one) => ({ ...one, y: (before = Math.max(one.y, before + step)) }));
}
