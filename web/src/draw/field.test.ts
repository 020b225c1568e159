// Bands cover a field exactly, lines run where the temperature is, colours meet at paper.
import { describe, expect, test } from 'vitest';
import { colour, decode, isoLine, pixels } from './field';
import type { Field } from './field';

const square: Field = {
  xy: new Float32Array([0, 0, 1, 0, 1, 1, 0, 1]),
  theta: new Float32Array([0, 10, 10, 0]),
  triangles: new Uint32Array([0, 1, 2, 0, 2, 3]),
};
const same = (x: number, y: number): [number, number] => [x, y];
const scale = { low: 0, paper: 5, high: 10 };
const inks = (found: Uint8ClampedArray) =>
  Array.from({ length: found.length / 4 }, (_, at) => found.slice(4 * at, 4 * at + 4).join(' '));

describe('pixels', () => {
  test('are bands of one colour, each as wide as its share', () => {
    const found = inks(pixels(square, 5, scale, [100, 100], (x, y) => [100 * x, 100 * y]));
    for (let band = 0; band < 5; band += 1) {
      const ink = [...colour(2 * band + 1, scale), 255].join(' ');
      const held = found.flatMap((one, at) => (one === ink ? [at % 100] : []));
      expect(held).toHaveLength(2000);
      expect([Math.min(...held), Math.max(...held)]).toEqual([20 * band, 20 * band + 19]);
    }
  });
  test.each([7, 31, 64])('leave no hole between triangles, and are clear outside, %i cells', (cells) => {
    const at = (x: number, y: number) => y * (cells + 1) + x;
    const xy: number[] = [];
    for (let y = 0; y <= cells; y += 1)
      for (let x = 0; x <= cells; x += 1) {
        const inner = x % cells && y % cells ? 0.3 / cells : 0;
        xy.push(x / cells + inner * Math.sin(7 * x + 3 * y), y / cells + inner * Math.cos(5 * x - y));
      }
    const triangles: number[] = [];
    for (let y = 0; y < cells; y += 1)
      for (let x = 0; x < cells; x += 1) {
        triangles.push(at(x, y), at(x + 1, y), at(x + 1, y + 1));
        triangles.push(at(x, y + 1), at(x, y), at(x + 1, y + 1)); // either way round
      }
    const field = {
      xy: new Float32Array(xy),
      theta: new Float32Array(xy.filter((_, n) => n % 2 === 0).map((x) => 10 * x)),
      triangles: new Uint32Array(triangles),
    };
    const found = inks(pixels(field, 5, scale, [120, 90], (x, y) => [10 + 100 * x, 5 + 80 * y]));
    const clear = found.flatMap((one, n) => (one === '0 0 0 0' ? [[n % 120, Math.floor(n / 120)]] : []));
    expect(clear).toHaveLength(120 * 90 - 100 * 80);
    expect(clear.every(([x = 0, y = 0]) => x < 10 || x >= 110 || y < 5 || y >= 85)).toBe(true);
  });
  test('beyond the range are those at its ends, and an edge of the sheet cuts them', () => {
    const ends = { low: 4, paper: 5, high: 6 };
    const found = inks(pixels(square, 4, ends, [20, 10], (x, y) => [40 * x - 10, 20 * y - 5]));
    expect(found.includes('0 0 0 0')).toBe(false);
    expect(new Set(found).size).toBe(4);
    expect(found[0]).toBe([...colour(4.25, ends), 255].join(' '));
  });
  test('of a sliver without area there are none', () => {
    const sliver = { ...square, xy: new Float32Array([0, 0, 1, 1, 2, 2, 3, 3]) };
    expect(new Set(inks(pixels(sliver, 4, scale, [4, 4], same)))).toEqual(new Set(['0 0 0 0']));
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
    expect(colour(12, scale)).toEqual([245, 242, 232]);
    expect(colour(11.9999, scale)).toEqual([245, 242, 232]);
  });
  test('the ends are slate and clay, also beyond the range', () => {
    expect(colour(-10, scale)).toEqual([47, 78, 109]);
    expect(colour(-40, scale)).toEqual([47, 78, 109]);
    expect(colour(20, scale)).toEqual([181, 111, 75]);
    expect(colour(30, scale)).toEqual([181, 111, 75]);
  });
  test('a room below its critical temperature is slate throughout', () => {
    expect(colour(5, { low: -10, paper: 25, high: 20 }).every(Number.isFinite)).toBe(true);
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
