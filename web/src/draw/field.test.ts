// Bands cover a field exactly, lines run where the temperature is, colours meet at paper.
import { describe, expect, test } from 'vitest';
import { bands, colour, decode, isoLine } from './field';
import type { Field } from './field';

const square: Field = {
  xy: new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]),
  theta: new Float32Array([0, 10, 10, 0]),
  triangles: new Uint32Array([0, 1, 2, 0, 2, 3]),
};
const same = (x: number, y: number): [number, number] => [x, y];
const area = (flat: number[]): number => {
  let sum = 0;
  for (let at = 0; at < flat.length; at += 2) {
    const next = (at + 2) % flat.length;
    sum += (flat[at] ?? 0) * (flat[next + 1] ?? 0) - (flat[next] ?? 0) * (flat[at + 1] ?? 0);
  }
  return Math.abs(sum) / 2;
};
const total = (polygons: number[][]) => polygons.reduce((sum, one) => sum + area(one), 0);

describe('bands', () => {
  test.each([[[2.5]], [[1, 2, 3, 9]], [[-5, 15]], [[0, 10]], [[5, 5.0001]]])(
    'between %j cover the square once',
    (levels) => {
      const found = bands(square, levels, same);
      expect(found).toHaveLength(levels.length + 1);
      expect(found.reduce((sum, one) => sum + total(one), 0)).toBeCloseTo(1, 6);
    },
  );
  test('each holds its share', () => {
    const [cold, mild, warm] = bands(square, [2, 7], same);
    expect(total(cold ?? [])).toBeCloseTo(0.2, 6);
    expect(total(mild ?? [])).toBeCloseTo(0.5, 6);
    expect(total(warm ?? [])).toBeCloseTo(0.3, 6);
  });
});

test('a line of one temperature runs where it is', () => {
  const { path, label } = isoLine(square, 4, same, () => true);
  const xs = [...path.matchAll(/[ML]([\d.]+) /g)].map((one) => Number(one[1]));
  expect(xs.length).toBeGreaterThanOrEqual(4);
  expect(new Set(xs)).toEqual(new Set([0.4]));
  expect(label?.x).toBeCloseTo(0.4);
  expect(isoLine(square, 40, same, () => true).path).toBe('');
});

describe('colours', () => {
  const scale = { low: -10, paper: 12, high: 20 };
  test('both hues meet at paper', () => {
    expect(colour(12, scale)).toBe('rgb(245 242 232)');
    expect(colour(11.9999, scale)).toBe('rgb(245 242 232)');
  });
  test('the ends are slate and clay, also beyond the range', () => {
    expect(colour(-10, scale)).toBe('rgb(47 78 109)');
    expect(colour(-40, scale)).toBe('rgb(47 78 109)');
    expect(colour(20, scale)).toBe('rgb(181 111 75)');
    expect(colour(30, scale)).toBe('rgb(181 111 75)');
  });
  test('a room below its critical temperature is slate throughout', () => {
    expect(colour(5, { low: -10, paper: 25, high: 20 })).not.toMatch(/NaN/);
  });
});

test('packed numbers are read as they were written', () => {
  const packed = (values: ArrayBufferView) =>
    btoa(String.fromCharCode(...new Uint8Array(values.buffer, values.byteOffset, values.byteLength)));
  const found = decode({
    xy: packed(square.xy),
    theta: packed(square.theta),
    triangles: packed(square.triangles),
  });
  expect(found.xy).toEqual(square.xy);
  expect(found.theta).toEqual(square.theta);
  expect(found.triangles).toEqual(square.triangles);
});
