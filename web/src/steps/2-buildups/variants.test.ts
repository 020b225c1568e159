import { expect, it } from 'vitest';
import type { Decision } from '@/api/client';
import { inOrder, rowsOf } from './variants';

const core = (key: string, cost: number[], stocked: boolean[], more: object = {}) => ({
  core: key,
  d: [0.1, 0.15, 0.2],
  columns: { cost, R_fresh: [null, 2, 1] },
  stops: [['target'], [], []],
  stocked,
  present: null,
  exact: null,
  why_not: '',
  knee: 0,
  ...more,
});
const decision = {
  cores: [
    core('eps', [10, 20, 30], [false, false, true], { present: 0 }),
    core('pir', [25, 15, 50], [true, false, false], { exact: 0.1496 }),
  ],
  cheapest: { core: 1, at: 1 },
  least_life: { core: 0, at: 2 },
  least_beyond: null,
} as unknown as Decision;
const keys = (rows: { key: string }[]) => rows.map((row) => row.key);
const plain = { column: '', down: false };

it('shows what is stocked, what is named, the wall as it is and the exact crossing', () => {
  expect(keys(rowsOf(decision, '', 'picks'))).toEqual(['eps/0.1', 'eps/0.2', 'pir/0.1', 'pir/0.15']);
  expect(keys(rowsOf(decision, '', 'stock'))).toEqual(['eps/0.1', 'eps/0.2', 'pir/0.1']);
  expect(keys(rowsOf(decision, 'pir', 'every'))).toEqual(['pir/0.1', 'pir/0.15', 'pir/0.2']);
  expect(keys(rowsOf(decision, '', 'every'))).toEqual(['eps/0.1', 'eps/0.2', 'pir/0.1', 'pir/0.15']);
});

it('names each for what it is', () => {
  const named = Object.fromEntries(rowsOf(decision, '', 'picks').map((row) => [row.key, row.pick]));
  expect(named).toMatchObject({ 'pir/0.15': 'cheapest within the limits', 'eps/0.2': 'least over the life' });
});

it('puts what passes first, the cheapest on top, or any column either way with the unknown last', () => {
  const rows = rowsOf(decision, '', 'picks');
  const value = (row: (typeof rows)[number], column: string) => row.value(column);
  const stopped = (row: (typeof rows)[number]) => row.stops.length > 0;
  const by = (column: string, down: boolean) => keys(inOrder(rows, { column, down }, value, String, stopped));
  expect(keys(inOrder(rows, plain, value, String, stopped))).toEqual([
    'pir/0.15',
    'eps/0.2',
    'eps/0.1',
    'pir/0.1',
  ]);
  expect(by('cost', false)).toEqual(['eps/0.1', 'pir/0.15', 'pir/0.1', 'eps/0.2']);
  expect(by('cost', true)).toEqual(['eps/0.2', 'pir/0.1', 'pir/0.15', 'eps/0.1']);
  expect(by('R_fresh', false)).toEqual(['eps/0.2', 'pir/0.15', 'eps/0.1', 'pir/0.1']);
  expect(by('R_fresh', true)).toEqual(['pir/0.15', 'eps/0.2', 'eps/0.1', 'pir/0.1']);
  expect(by('core', true)).toEqual(['pir/0.1', 'pir/0.15', 'eps/0.1', 'eps/0.2']);
});
