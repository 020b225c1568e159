// Standards of the practice in the window: what is sent, and with which revision an update is taken.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Joint, Standard } from '@/api/client';
import { asked, newest, opened, settle, written } from '@/testing/server';
import { session } from './session.svelte';
import { keepJointStandard, keepStandard, takeJointStandard, takeOffer, useStandard } from './standards';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));
vi.mock('@/project/router.svelte', () => ({ router: { place: { building: 'hall' } } }));

const standard = { id: 's1', version: 3, assembly: { name: 'Wall A' } } as unknown as Standard;
const joint = { id: 'j1', name: 'Eave', station: 'C' } as unknown as Joint;

beforeEach(() => {
  asked.length = 0;
  session.open = opened({}, { revision: 4 });
});

async function done(saved: Promise<boolean>): Promise<boolean> {
  await settle();
  newest().reply(written(5));
  return saved;
}

describe('of build-ups', () => {
  test('is kept with its reason, its source and since when it is trusted', async () => {
    expect(await done(keepStandard('w', 'wall', 'stood the test', 'own test', '2024'))).toBe(true);
    expect(newest().path).toMatch(/\/assemblies\/\{assembly_id\}\/standard$/);
    expect(newest().body).toEqual({
      place: 'wall',
      reason: 'stood the test',
      source: 'own test',
      trusted_since: '2024',
    });
    expect(session.open?.revision).toBe(5);
  });

  test('is used for an element, named in the log with its version', async () => {
    await done(useStandard('hall', 'e1', standard, 'D2'));
    expect(newest().body).toMatchObject({
      element_id: 'e1',
      standard_id: 's1',
      text: 'Wall A, standard 3',
      zone: 'D2',
    });
  });

  test('has a name in the log that is never too long', async () => {
    const long = { ...standard, assembly: { name: 'x'.repeat(300) } } as unknown as Standard;
    await done(useStandard('hall', 'e1', long, 'D2'));
    expect((newest().body as { text: string }).text).toHaveLength(200);
  });

  test('is taken against the revision that this window has read', async () => {
    await done(takeOffer('w', 4, 'D2'));
    expect(newest().body).toEqual({ text: 'Standard taken, version 4', zone: 'D2', version: 4 });
    expect(newest().params.query).toEqual({ since: 4 });
  });
});

describe('of joints', () => {
  test('is kept', async () => {
    await done(keepJointStandard('hall', 'j1', 'tight', 'own test', '2024'));
    expect(newest().path).toMatch(/\/joints\/\{joint_id\}\/standard$/);
    expect(newest().params.path).toEqual({ project_id: 'p', building_id: 'hall', joint_id: 'j1' });
  });

  test('is taken, in the zone of its station', async () => {
    await done(takeJointStandard('hall', joint, 's2', 6));
    expect(newest().body).toEqual({
      text: 'Eave: standard taken, version 6',
      zone: 'C3',
      standard_id: 's2',
      version: 4,
    });
  });

  test('that is refused changes nothing and says so', async () => {
    const saved = takeJointStandard('hall', joint, 's2', 6);
    await settle();
    newest().refuse(404, { detail: 'gone' });
    expect(await saved).toBe(false);
    expect(session.open?.revision).toBe(4);
  });
});
