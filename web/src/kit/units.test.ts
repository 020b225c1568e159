// The web's mirror of the units reads and writes exactly what the core does: the same vectors, the same answers.
import { describe, expect, test } from 'vitest';
import { EXAMPLES, formatFeetInches, parseLength, Units } from './units';
import type { Dimensions, UnitSystem } from './units';
import shared from '../../../tests/vectors/quantities.json';

interface Vectors {
  lengths: { text: string; system: UnitSystem; metres: number }[];
  unreadable_lengths: string[];
  feet_inches: { metres: number; denominator: number; text: string }[];
  shown: { value: number; dimension: string; system: UnitSystem; text: string }[];
  dimensions: Dimensions;
}
const vectors = shared as Vectors;

describe('lengths', () => {
  test.each(vectors.lengths)('$text in $system is $metres m', ({ text, system, metres }) => {
    expect(parseLength(text, system)).toBeCloseTo(metres, 12);
  });
  test.each(vectors.unreadable_lengths)('“%s” is no length', (text) => {
    expect(parseLength(text, 'SI')).toBeUndefined();
  });
  test.each(['SI', 'IP'] as const)('every example in %s can be read there', (system) => {
    for (const text of EXAMPLES[system].split(/, | or /))
      expect(parseLength(text, system)).toBeGreaterThan(0);
    expect(EXAMPLES.IP).not.toContain('mm');
  });
  test.each(vectors.feet_inches)('$metres m is $text', ({ metres, denominator, text }) => {
    expect(formatFeetInches(metres, denominator)).toBe(text);
  });
  test('every sixteenth and thirty-second reads back', () => {
    for (const denominator of [16, 32])
      for (let parts = 0; parts < 2000; parts += 1) {
        const metres = (parts / denominator) * 0.0254;
        expect(parseLength(formatFeetInches(metres, denominator), 'IP')).toBeCloseTo(metres, 12);
      }
  });
});

describe('quantities', () => {
  test.each(vectors.shown)('$value $dimension in $system is $text', ({ value, dimension, system, text }) => {
    expect(new Units(system, vectors.dimensions).show(value, dimension)).toBe(text);
  });
  test('a typed number reads back, with comma, thin space or true minus', () => {
    const units = new Units('IP', vectors.dimensions);
    expect(units.parse('−4', 'temperature')).toBeCloseTo(-20, 9);
    expect(units.parse('2\u2009750,5', 'cost')).toBeCloseTo(2750.5 / 0.3048 ** 2, 6);
    expect(units.parse('twelve', 'cost')).toBeUndefined();
  });
  test('a change smaller than the shown step gets one more digit', () => {
    const units = new Units('SI', vectors.dimensions);
    expect(units.delta(-0.004, 'resistance')).toBe('−0.004');
    expect(units.delta(0.36, 'resistance')).toBe('+0.36');
    expect(units.delta(0, 'resistance')).toBe('±0');
  });
});
