// The web's mirror of the units reads and writes exactly what the core does: the same vectors, the same answers.
import { describe, expect, test } from 'vitest';
import { EXAMPLES, formatFeetInches, parseLength, Units, valued } from './units';
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

describe('a text that is kept', () => {
  test('says its values in the units of who reads it', () => {
    const kept = `Core ${valued(0.1397, 'length')} to ${valued(0.18415, 'length')}`;
    expect(new Units('SI', vectors.dimensions).said(kept)).toBe('Core 139.7 mm to 184.2 mm');
    expect(new Units('IP', vectors.dimensions).said(kept)).toBe('Core 5 1/2" to 7 1/4"');
  });
  test('stays as it was written where nothing in it is a value', () => {
    expect(new Units('IP', vectors.dimensions).said('Core 140 to 185 mm ⟨so⟩')).toBe(
      'Core 140 to 185 mm ⟨so⟩',
    );
  });
});

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
  const SI = new Units('SI', vectors.dimensions);
  const IP = new Units('IP', vectors.dimensions);
  test.each([
    [SI, '8*2.7', 'area', 21.6],
    [SI, '100 ft²', 'area', 9.290304],
    [SI, '100 ft2', 'area', 9.290304],
    [IP, '10 m²', 'area', 10],
    [SI, 'U 0.18', 'transmittance', 0.18],
    [SI, 'R 5', 'transmittance', 0.2],
    [SI, 'R-28', 'resistance', 28 * 0.176110184],
    [IP, 'R-28', 'transmittance', 1 / (28 * 0.176110184)],
    [IP, 'R 28', 'resistance', 28 * 0.176110184],
    [SI, 'U=0.2', 'resistance', 5],
    [SI, '68 °F', 'temperature', 20],
    [SI, '68F', 'temperature', 20],
    [IP, '20 °C', 'temperature', 20],
    [SI, '50 %', 'share', 0.5],
    [SI, '28\' 6 1/2"', 'distance', 342.5 * 0.0254],
    [SI, '8400mm', 'distance', 8.4],
    [IP, '2.4 m', 'height', 2.4],
    [SI, '3*400', 'length', 1.2],
    [SI, '2*(140+45)', 'length', 0.37],
    [SI, '2*7.25in', 'length', 0.3683],
    [IP, '1,200', 'length', 30.48],
    [IP, '1,200', 'area', 1200 * 0.3048 ** 2],
  ] as [Units, string, string, number][])('%# “%s” as %s', (units, text, dimension, value) => {
    expect(units.parse(text, dimension)).toBeCloseTo(value, 5);
  });
  test.each([
    [SI, '1,200', 'area', 'two ways'],
    [SI, '1,200', 'length', 'two ways'],
    [SI, 'U 0', 'resistance', 'above 0'],
    [SI, 'twelve', 'area', 'not a number'],
    [SI, '3 kg', 'area', 'not a number'],
    [SI, 'long', 'length', 'not a length'],
  ] as [Units, string, string, string][])('%# “%s” as %s is refused', (units, text, dimension, why) => {
    const found = units.read(text, dimension);
    expect('why' in found && found.why).toContain(why);
  });
  test('a project that says decimal comma means it', () => {
    expect(new Units('SI', vectors.dimensions, 'comma').parse('1,200', 'area')).toBeCloseTo(1.2, 12);
  });
  test('a change smaller than the shown step gets one more digit', () => {
    const units = new Units('SI', vectors.dimensions);
    expect(units.delta(-0.004, 'resistance')).toBe('−0.004');
    expect(units.delta(0.36, 'resistance')).toBe('+0.36');
    expect(units.delta(0, 'resistance')).toBe('±0');
  });
});
