// Geometry of the drawn section: to scale, outside on the left, nothing on top of anything else.
import { describe, expect, test } from 'vitest';
import type { Layer } from '@/api/client';
import { dimensionRows, dragged, fit, flags, slabs } from './section';

function layer(id: string, d: number, studied = false): Layer {
  return {
    id,
    d,
    material: 'osb',
    members: [],
    studied,
    goes_with_core: false,
    rib: 0,
    control: [],
    services: false,
    fitted: 'site',
    passes: 1,
    declared: [],
  };
}
const wall = [
  layer('board', 0.0125),
  layer('void', 0.045),
  layer('core', 0.185, true),
  layer('skin', 0.011),
  layer('clad', 0.021),
];

describe('slabs', () => {
  test('stand outside to inside, touch, and keep their index from inside', () => {
    const drawn = slabs(wall, 10, 1000);
    expect(drawn.map((slab) => slab.index)).toEqual([4, 3, 2, 1, 0]);
    expect(drawn[0]?.x0).toBe(10);
    drawn.slice(1).forEach((slab, at) => expect(slab.x0).toBe(drawn[at]?.x1));
    expect((drawn.at(-1)?.x1 ?? 0) - 10).toBeCloseTo(274.5, 9);
  });
  test('fit a thick wall and never draw larger than life', () => {
    expect(fit(0.5, 500)).toBe(1000);
    expect(fit(0.05, 500)).toBe(3200);
    expect(fit(0, 500)).toBe(3200);
  });
});

describe('flags', () => {
  const drawn = slabs(wall, 0, 2000);
  test('name each layer once: the wide core inside itself, the others by leaders', () => {
    const found = flags(drawn, 130, () => 60);
    expect(found.inside).toEqual([2]);
    expect(found.flags.map((flag) => flag.index).toSorted()).toEqual([0, 1, 3, 4]);
  });
  test('no two of one side share a row', () => {
    for (const side of ['left', 'right'] as const) {
      const rows = flags(drawn, 130, () => 60)
        .flags.filter((flag) => flag.side === side)
        .map((flag) => flag.row);
      expect(new Set(rows).size).toBe(rows.length);
    }
  });
  test('where left and right would meet, the right ones go below', () => {
    const near = flags(drawn, 130, () => 60);
    const far = flags(drawn, 130, () => 600);
    expect(far.rows).toBeGreaterThan(near.rows);
    const rows = far.flags.map((flag) => flag.row);
    expect(new Set(rows).size).toBe(rows.length);
  });
});

describe('dimensions', () => {
  test('texts of one row never overlap', () => {
    const narrow = slabs(
      Array.from({ length: 12 }, (_, at) => layer(String(at), 0.003)),
      0,
      1000,
    );
    const widths = narrow.map(() => 8);
    const rows = dimensionRows(narrow, widths);
    for (const row of new Set(rows)) {
      const ends = narrow
        .map((slab, at) => ({ middle: (slab.x0 + slab.x1) / 2, row: rows[at] }))
        .filter((one) => one.row === row)
        .map((one) => one.middle);
      ends.slice(1).forEach((middle, at) => expect(middle - (ends[at] ?? 0)).toBeGreaterThanOrEqual(8));
    }
  });
});

describe('dragging', () => {
  const stock = [0.09, 0.14, 0.185];
  test('snaps to a stock size within reach, and to whole steps elsewhere', () => {
    expect(dragged(0.14, 0.043, stock, 0.004, 0.001, false)).toBe(0.185);
    expect(dragged(0.14, 0.0204, stock, 0.004, 0.001, false)).toBe(0.16);
  });
  test('is free of stock with Alt, but never of the step', () => {
    expect(dragged(0.14, 0.0433, stock, 0.004, 0.001, true)).toBe(0.183);
  });
  test('never goes below one step', () => {
    expect(dragged(0.14, -5, stock, 0.004, 0.001, false)).toBe(0.001);
  });
  test('in sixteenths stays on sixteenths', () => {
    const step = 0.0254 / 16;
    const d = dragged(0.1, 0.0123, [], 0, step, false);
    expect(Math.abs(d / step - Math.round(d / step))).toBeLessThan(1e-4);
  });
});
