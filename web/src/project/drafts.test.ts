// What is drawn on a face or a wall and not taken yet belongs to its building, whatever those of others are called.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Building } from '@/api/client';
import { asked, opened } from '@/testing/server';
import { forms } from './forms.svelte';
import { session } from './session.svelte';
import { setout } from './setout.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const hall = { id: 'hall', openings: [{ id: 'w1', u: 1 }] } as unknown as Building;
const drawn = {
  setout: { of: setout, draw: () => setout.move(hall, 'b1.1', 'w1', 2, 'W1 moved') },
  forms: { of: forms, draw: () => forms.move(hall, 'b1.1', 'w1', 1, 'W1 moved') },
};

beforeEach(() => {
  asked.length = 0;
  session.open = opened({ buildings: [hall] });
});

describe.each(Object.values(drawn))('a draft', ({ of, draw }) => {
  beforeEach(() => {
    of.follow('p', 'hall');
    draw();
  });

  test('stays while its building is looked at', () => {
    of.follow('p', 'hall');
    expect(of.draft?.openings?.[0]?.u).toBe(2);
  });

  test.each([
    ['p', 'barn'],
    ['another', 'hall'],
  ])('is of no other building: %s/%s', (project, building) => {
    of.follow(project, building);
    expect(of.draft).toBeUndefined();
  });
});
