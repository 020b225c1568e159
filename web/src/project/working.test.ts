// The figure opened to its working: the newest one only, with its problem if it has one.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Assembly, Studied } from '@/api/client';
import { asked, newest, settle } from '@/testing/server';
import { working } from './working.svelte';
import type { Opened } from './working.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const figure = (name: string, more: Partial<Opened> = {}): Opened => ({
  figure: name,
  title: name,
  dimension: 'R',
  project: 'p',
  building: 'hall',
  condition: 'winter',
  ...more,
});
const wall = { id: 'w' } as unknown as Assembly;
const step = (name: string) => ({ steps: [{ name }] });

beforeEach(() => {
  working.close();
  asked.length = 0;
});

describe('a figure', () => {
  test('of the shell is asked for without a build-up, of a draft with it', () => {
    void working.show(figure('H'));
    expect(newest().body).toMatchObject({ figure: 'H', condition: 'winter', assembly: null });
    void working.show(figure('R', { assembly: wall }));
    expect(newest().body).toMatchObject({ figure: 'R', assembly: { id: 'w' } });
    expect(newest().path).toMatch(/\/working$/);
  });

  test('of a study goes with what was asked of it', () => {
    const of = { kind: 'margin' } as unknown as Studied;
    void working.show(figure('margin', { assembly: wall, of }));
    expect(newest().path).toMatch(/\/study-working$/);
    expect(newest().body).toEqual({ building_id: 'hall', assembly: wall, figure: 'margin', of });
  });

  test('shows its steps, and none of the figure before it', async () => {
    const shown = working.show(figure('R'));
    newest().reply(step('R'));
    await shown;
    expect(working.steps).toHaveLength(1);
    void working.show(figure('U'));
    expect(working.steps).toEqual([]);
    expect(working.opened?.figure).toBe('U');
  });

  test('that answers late does not take the place of a newer one', async () => {
    const late = working.show(figure('R'));
    const first = newest();
    const shown = working.show(figure('U'));
    newest().reply(step('U'));
    await shown;
    first.reply(step('R'));
    await late;
    expect(working.steps[0]).toMatchObject({ name: 'U' });
  });

  test('that cannot be worked says why, until the next one', async () => {
    const refused = working.show(figure('R'));
    newest().refuse(422, { detail: 'no core' });
    await refused;
    expect(working.problem?.body.detail).toContain('no core');
    const shown = working.show(figure('U'));
    expect(working.problem).toBeUndefined();
    newest().reply(step('U'));
    await shown;
  });

  test('that was closed stays closed when its answer comes', async () => {
    void working.show(figure('R'));
    working.close();
    newest().reply(step('R'));
    await settle();
    expect(working.opened).toBeUndefined();
    expect(working.steps).toEqual([]);
  });
});
