// Where in a build-up something is, in words.
import { describe, expect, test } from 'vitest';
import type { Assembly, Material } from '@/api/client';
import { beside, layerName, where } from './layers';

const materials = new Map(
  [
    ['board', 'Board'],
    ['wool', 'Wool'],
  ].map(([key, name]) => [key, { key, name } as unknown as Material]),
) as Map<string, Material>;
const wall = {
  layers: [
    { material: 'board', d: 0.0125 },
    { material: null, d: 0.04 },
    { material: 'wool', d: 0.2 },
  ],
} as unknown as Assembly;

describe('a layer', () => {
  test('has the name of its material', () => expect(layerName(wall, materials, 2)).toBe('Wool'));
  test('of air is called so, and one of an unknown material as well', () => {
    expect(layerName(wall, materials, 1)).toBe('air layer');
    expect(layerName(wall, new Map(), 2)).toBe('air layer');
  });
});

describe('a place', () => {
  test('lies inside of one layer or between two', () => {
    expect(where(wall, materials, 2, 2)).toBe('inside Wool');
    expect(where(wall, materials, 0, 1)).toBe('between Board and air layer');
  });

  test.each([
    [0, 'inside Board'],
    [0.006, 'inside Board'],
    [0.0125, 'between Board and air layer'],
    [0.0125 + 1e-9, 'between Board and air layer'],
    [0.03, 'inside air layer'],
    [0.0525, 'between air layer and Wool'],
    [0.25, 'inside Wool'],
    [0.3, ''],
  ])('at %f m from the inner face is found', (x, words) => expect(beside(wall, materials, x)).toBe(words));
});
