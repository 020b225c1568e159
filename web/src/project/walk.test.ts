// The worst of a station counts.
import { expect, test } from 'vitest';
import type { WalkStop } from '@/api/client';
import { worstOf } from './walk';

const stop = (air: 'continuous' | 'broken' | 'undecided'): WalkStop => ({
  station: 'D',
  kind: 'joint',
  id: 'j',
  name: 'Seams',
  lines: { air },
  why: [],
  left_out: [],
});

test.each([
  [[], 'none'],
  [[stop('continuous')], 'continuous'],
  [[stop('continuous'), stop('undecided')], 'undecided'],
  [[stop('undecided'), stop('broken'), stop('continuous')], 'broken'],
] as const)('%j is %s', (stops, wanted) => {
  expect(worstOf(stops, 'air')).toBe(wanted);
});
