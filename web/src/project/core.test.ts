import { expect, it } from 'vitest';
import type { Assembly } from '@/api/client';
import { withCore } from './core';

it("changes the studied layer and drops a conductivity that was another material's", () => {
  const wall = {
    layers: [
      { material: 'osb', d: 0.01, studied: false, lambda: 0.12 },
      { material: 'eps', d: 0.1, studied: true, lambda: 0.03 },
    ],
  } as unknown as Assembly;
  expect(withCore(wall, 0.15, 'pir').layers).toEqual([
    wall.layers[0],
    { material: 'pir', d: 0.15, studied: true, lambda: null },
  ]);
  expect(withCore(wall, 0.2, 'eps').layers[1]?.lambda).toBe(0.03);
});

it('changes the panels of a form together, in proportion', () => {
  const form = {
    layers: [
      { material: 'eps', d: 0.06, studied: false, goes_with_core: true },
      { material: 'concrete', d: 0.15, studied: false, goes_with_core: false },
      { material: 'eps', d: 0.1, studied: true, goes_with_core: false },
    ],
  } as unknown as Assembly;
  const [inner, between, outer] = withCore(form, 0.2, 'pir').layers;
  expect([inner?.material, outer?.material]).toEqual(['pir', 'pir']);
  expect([inner?.d, outer?.d]).toEqual([0.12, 0.2]);
  expect(between).toBe(form.layers[1]);
});
