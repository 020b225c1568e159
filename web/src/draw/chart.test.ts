// Axes in the reader's units, lines, and names that keep apart.
import { describe, expect, test } from 'vitest';
import { Units } from '@/kit/units';
import { apart, lineThrough, ticksOf } from './chart';

const degrees = {
  si: { symbol: '°C', per_si: 1, decimals: 1, offset: 0 },
  ip: { symbol: '°F', per_si: 1.8, decimals: 1, offset: 32 },
};

describe('ticks', () => {
  test.each([
    ['SI', -8.1, 20, 5],
    ['IP', -8.1, 20, 5],
    ['SI', 0.02, 0.05, 4],
    ['IP', 1890, 2400, 3],
  ] as const)('%s from %d to %d are round where they are read, and inside', (system, low, high, count) => {
    const units = new Units(system, { temperature: degrees });
    const found = ticksOf(units, 'temperature', low, high, count);
    expect(found.length).toBeGreaterThan(1);
    expect(found.length).toBeLessThanOrEqual(count);
    const { per_si, offset } = units.unit('temperature');
    for (const tick of found) {
      expect(tick.value).toBeGreaterThanOrEqual(low - 1e-9);
      expect(tick.value).toBeLessThanOrEqual(high + 1e-9);
      const read = Number(tick.shown.replace('−', '-').replaceAll('\u2009', ''));
      expect(read).toBeCloseTo(tick.value * per_si + offset, 9);
      expect(tick.shown.length).toBeLessThan(8);
    }
  });
});

describe('lines', () => {
  test('go through every point, to a tenth of a pixel', () => {
    const path = lineThrough(
      [0, 1, 2],
      (at) => at * 10.04,
      (at) => 100 - at,
    );
    expect(path).toBe('M0,100L10,99L20.1,98');
  });
  test('of nothing are nothing', () => {
    const same = (at: number) => at;
    expect(lineThrough([], same, same)).toBe('');
  });
});

test('names stand at their own height, or a step below the one before', () => {
  const placed = apart([30, 10, 12, 60], (y) => y, 13);
  expect(placed.map((one) => one.y)).toEqual([10, 23, 36, 60]);
  expect(placed.map((one) => one.item)).toEqual([10, 12, 30, 60]);
});
