// Symbols and formulas as a person writes them.
import { describe, expect, test } from 'vitest';
import { plainSymbol, shortNumber, symbol, tokens } from './symbols';

const written = (formula: string) =>
  tokens(formula)
    .map((token) => (token.kind === 'symbol' ? plainSymbol(token.name) : token.text))
    .join('');

describe('symbols', () => {
  test.each([
    ['R_tot', { base: 'R', sub: 'tot' }],
    ['lambda_4b', { base: 'λ', sub: '4b' }],
    ['theta', { base: 'θ', sub: '' }],
    ['h_r2', { base: 'h', sub: 'r 2' }],
  ])('%s', (name, parts) => {
    expect(symbol(name)).toEqual(parts);
  });
});

describe('formulas', () => {
  test.each([
    ['1 / (R_1 + R_2)', '1 / (R_1 + R_2)'],
    ['a * b - c', 'a · b − c'],
    ['x ** 2', 'x^2'],
    ['exp(theta_i)', 'exp(θ_i)'],
    ['atan2(y, x) * sinh(xi_2)', 'atan2(y, x) · sinh(ξ_2)'],
    ['0.30000000000000004 * d_1', '0.3 · d_1'],
    ['e + 1.5e-7', 'e + 1.5000e−7'],
  ])('%s', (formula, text) => {
    expect(written(formula)).toBe(text);
  });
  test('every symbol of a formula is found, and exp is none', () => {
    const names = tokens('exp(a_1) * b / (c - a_1)').flatMap((token) =>
      token.kind === 'symbol' ? [token.name] : [],
    );
    expect(names).toEqual(['a_1', 'b', 'c', 'a_1']);
  });
});

describe('numbers', () => {
  test.each([
    [0, '0'],
    [5.285058609970831, '5.28506'],
    [-8.1, '−8.1'],
    [1234567.8, '1.2346e+6'],
    [0.0000123, '1.2300e−5'],
  ])('%d is %s', (value, text) => {
    expect(shortNumber(value)).toBe(text);
  });
});
