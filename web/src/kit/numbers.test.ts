// What people type into a field, and what it comes to.
import { describe, expect, test } from 'vitest';
import { evaluated, plainNumber } from './numbers';
import type { DecimalMark } from './numbers';

const reads = (text: string, mark?: DecimalMark) => evaluated(text, (one) => plainNumber(one, mark));

describe('numbers', () => {
  test.each([
    ['1200', undefined, 1200],
    ['1\u2009200', undefined, 1200],
    ['1 200', undefined, 1200],
    ['1,5', undefined, 1.5],
    ['1,200', 'point', 1200],
    ['1,200,000', undefined, 1200000],
    ['1,200', 'comma', 1.2],
    ['1.200,5', undefined, 1200.5],
    ['1,200.5', undefined, 1200.5],
    ['1.200', undefined, 1.2],
    ['−4', undefined, -4],
    ['+4', undefined, 4],
    ['8*2.7', undefined, 21.6],
    ['8 × 2,7', undefined, 21.6],
    ['(3+4)/2', undefined, 3.5],
    ['10-2-3', undefined, 5],
    ['2*-3', undefined, -6],
    ['5e-3', undefined, 0.005],
    ['2*1e3+1', undefined, 2001],
    ['.5', undefined, 0.5],
  ] as [string, DecimalMark | undefined, number][])('“%s” with %s is %d', (text, mark, value) => {
    const found = reads(text, mark);
    expect('value' in found && found.value).toBeCloseTo(value, 10);
  });
  test.each([
    ['1,200', 'two ways'],
    ['', 'missing'],
    ['twelve', 'not a number'],
    ['8*', 'missing'],
    ['(8', 'not closed'],
    ['8)', 'follows'],
    ['1/0', 'zero'],
    ['1e999', 'not a number'],
    ['3 m', 'not a number'],
  ])('“%s” is refused: %s', (text, why) => {
    const found = reads(text);
    expect('why' in found && found.why).toContain(why);
  });
  test('where commas part decimals, a point before three digits is refused', () => {
    const found = reads('1.200', 'comma');
    expect('why' in found && found.why).toContain('1200 or 1,200');
  });
});
