import { expect, test } from 'vitest';
import { certainty, counted, points } from './reading';

test('things and points have their plural', () => {
  expect([counted(1, 'joint'), counted(0, 'joint'), counted(2, 'leaf', 'leaves')]).toEqual([
    '1 joint',
    '0 joints',
    '2 leaves',
  ]);
  expect([0.01, -0.01, 0.09, 0, -0.29].map(points)).toEqual(['point', 'point', 'points', 'points', 'points']);
});

test('an error is said as the decimals that it leaves', () => {
  expect(certainty(0.0004)).toContain('3 decimals');
  expect(certainty(0.04)).toContain('1 decimal');
});
