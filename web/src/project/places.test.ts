// Surfaces and verdicts of a building: only its own are shown, and what is still being judged is known to be.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { asked, newest, settle } from '@/testing/server';
import { surfaces } from './surfaces.svelte';
import { verdicts } from './verdicts.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const at = (building: string, revision = 1) => ({ project: 'p', building, revision, pending: 0 });
beforeEach(() => void (asked.length = 0));

describe('surfaces', () => {
  test('are asked for by project and building', async () => {
    surfaces.live.ask(at('hall'));
    expect(newest().params.path).toEqual({ project_id: 'p', building_id: 'hall' });
    newest().reply({ surfaces: [], required: 0.7 });
    await settle();
    expect(surfaces.of('hall')?.required).toBe(0.7);
  });

  test('of another building are not shown for this one, not even while its own are awaited', async () => {
    surfaces.live.ask(at('barn'));
    expect(surfaces.of('barn')).toBeUndefined();
    newest().reply({ surfaces: [], required: 0.6 });
    await settle();
    expect(surfaces.of('hall')).toBeUndefined();
    expect(surfaces.of('barn')?.required).toBe(0.6);
  });

  test('stay until newer ones of the same building are there', async () => {
    surfaces.live.ask(at('barn', 2));
    expect(surfaces.of('barn')?.required).toBe(0.6);
    newest().reply({ surfaces: [], required: 0.65 });
    await settle();
    expect(surfaces.of('barn')?.required).toBe(0.65);
  });
});

describe('verdicts', () => {
  const place = (id: string, more: object = {}) => ({ id, verdict: null, why_not: '', ...more });

  test('wait for a place that has neither a verdict nor a reason', async () => {
    verdicts.ask(at('hall'));
    expect(verdicts.waiting).toBe(false);
    newest().reply({ places: [place('e1', { verdict: { passes: true } }), place('e2')] });
    await settle();
    expect(verdicts.waiting).toBe(true);
  });

  test('do not wait for one that says why it has none', async () => {
    verdicts.ask(at('hall'), 1);
    newest().reply({
      places: [place('e1', { verdict: { passes: true } }), place('e2', { why_not: 'no layers' })],
    });
    await settle();
    expect(verdicts.waiting).toBe(false);
  });

  test('are asked for again when somebody looks again; of several looks meanwhile the newest', async () => {
    verdicts.ask(at('hall'), 2);
    verdicts.ask(at('hall'), 3);
    verdicts.ask(at('hall'), 4);
    expect(asked).toHaveLength(1);
    newest().reply({ places: [place('e1')] });
    await settle();
    expect(asked).toHaveLength(2);
    newest().reply({ places: [] });
    await settle();
    expect(verdicts.live.answered?.look).toBe(4);
    expect(verdicts.of('hall')?.places).toEqual([]);
  });

  test('of another building are nobody’s', () => expect(verdicts.of('barn')).toBeUndefined());
});
