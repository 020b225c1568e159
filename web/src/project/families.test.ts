// Families of joints.
import { beforeEach, expect, test, vi } from 'vitest';
import { asked, newest } from '@/testing/server';
import { Families } from './families.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

beforeEach(() => {
  asked.length = 0;
});

test('families are asked for once', async () => {
  const families = new Families();
  const first = families.start();
  newest().reply([{ key: 'base', name: 'Foot', variants: [] }]);
  await first;
  await families.start();
  expect(asked.length).toBe(1);
  expect(families.of('base')?.name).toBe('Foot');
  expect(families.of('none')).toBeUndefined();
});
