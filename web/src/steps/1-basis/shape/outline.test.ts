import { describe, expect, it } from 'vitest';
import { footprint } from './footprint';
import {
  lengthOf,
  outFor,
  side,
  snapped,
  withCorner,
  withCornerIn,
  withLength,
  withSideOut,
  without,
} from './outline';
import type { Outline } from './outline';

const house = footprint('rectangle', 12, 8.4, 0, 0);
const lengths = (outline: Outline) => outline.map((_, n) => Number(lengthOf(outline, n).toFixed(4)));

describe('a footprint under the hand', () => {
  it('keeps its angles when a side is pushed out', () => {
    expect(lengths(withSideOut(house, 2, 0.3))).toEqual([12, 8.7, 12, 8.7]);
    expect(lengths(withSideOut(house, 0, -0.4))).toEqual([12, 8, 12, 8]);
  });
  it('makes a side as long as it is typed, and its opposite with it', () => {
    expect(lengths(withLength(house, 1, 8.7))).toEqual([12, 8.7, 12, 8.7]);
    const angled = footprint('L', 12, 9, 5, 3.5);
    expect(lengths(withLength(angled, 0, 13))).toEqual([13, 5.5, 8, 3.5, 5, 9]);
    expect(lengths(withLength(angled, 2, 6))).toEqual([12, 5.5, 6, 3.5, 6, 9]);
  });
  it('tells how far out a side goes for a length of the one before it', () => {
    for (const [n, length] of [
      [2, 9],
      [1, 10.5],
      [0, 7.2],
    ] as const) {
      const next = withSideOut(house, n, outFor(house, n, length));
      expect(lengthOf(next, (n + 3) % 4)).toBeCloseTo(length, 9);
    }
  });
  it('moves a corner alone, or with its neighbours where angles are kept', () => {
    expect(withCorner(house, 2, [0.5, 0.2], false)[2]).toEqual([12.5, 8.6]);
    expect(lengths(withCorner(house, 2, [0.5, 0.2], true))).toEqual([12.5, 8.6, 12.5, 8.6]);
  });
  it('draws a hand that is near to whole and half modules, else to 5 mm', () => {
    expect(snapped(8.38, 1.2, 24)).toBeCloseTo(8.4, 9);
    expect(snapped(9.05, 1.2, 24)).toBeCloseTo(9.0, 9);
    expect(snapped(8.7013, 1.2, 60)).toBeCloseTo(8.7, 9);
    expect(snapped(8.7033, undefined, 24)).toBeCloseTo(8.705, 9);
  });
  it('takes a corner in and out again', () => {
    const more = withCornerIn(house, 1);
    expect(more).toHaveLength(5);
    expect(side(more, 1)).toEqual([
      [12, 0],
      [12, 4.2],
    ]);
    expect(without(more, 2)).toEqual(house);
  });
});
