import { describe, expect, it } from 'vitest';
import vectors from '../../../../../tests/vectors/quantities.json';
import { Units } from '@/kit/units';
import type { Dimensions } from '@/kit/units';
import { readDimension } from './dimension';

const SI = new Units('SI', vectors.dimensions as Dimensions);
const value = (text: string, now = 8.4, module: number | undefined = 1.2) => {
  const found = readDimension(text, SI, now, module);
  return 'value' in found ? Number(found.value.toFixed(6)) : found.why;
};

describe('a dimension as it is typed', () => {
  it.each([
    ['8 400', 8.4],
    ['8400', 8.4],
    ['8.4m', 8.4],
    [`28' 6 1/2"`, 8.6995],
    ['7 modules', 8.4],
    ['7 1/4 modules', 8.7],
    ['1 module', 1.2],
    ['+300', 8.7],
    ['-300', 8.1],
    ['−1 module', 7.2],
    ['+ 1/2 modules', 9],
    ['2*4200', 8.4],
  ])('%s', (text, metres) => {
    expect(value(text)).toBe(metres);
  });
  it('says why where it is none', () => {
    expect(value('abc')).toContain('not');
    expect(readDimension('7 modules', SI, 8.4, undefined)).toEqual({ why: 'this wall has no module' });
    expect(value('-9000')).toBe('it lies above 0');
  });
});
