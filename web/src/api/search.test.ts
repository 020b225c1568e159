// A search that somebody asks for: its answer is of what it was about, and stopping it is no fault.
import { expect, test, vi } from 'vitest';
import { Problem, take } from './client';
import type { ProblemBody } from './client';
import { Search } from './search.svelte';
import { Solving } from './solving.svelte';

vi.mock('@/api/client', async (original) => (await import('@/testing/server')).standIn(original));

const body = (more: Partial<ProblemBody>) =>
  ({ title: 'Refused', detail: '', hint: '', errors: [], status: 422, ...more }) as unknown as ProblemBody;
const fails =
  (status: number, more: Partial<ProblemBody> = {}) =>
  () =>
    Promise.reject(new Problem(status, body({ status, ...more })));

test('the answer is kept for what it was about and for nothing else', async () => {
  const search = new Search<string>(new Solving());
  await search.run('wall 1', () => Promise.resolve('thicker'));
  expect(search.of('wall 1')).toBe('thicker');
  expect(search.of('wall 2')).toBeUndefined();
});

test('it is busy until it is answered, with a ticket of its own', async () => {
  const search = new Search<string>(new Solving());
  const asked = vi.fn(() => Promise.resolve('thicker'));
  const done = search.run('wall', asked);
  expect(search.busy).toBe(true);
  await done;
  expect(search.busy).toBe(false);
  expect(asked.mock.calls[0]).toEqual([expect.stringMatching(/\.\d+$/)]);
});

test('stopped it says so, and what was found before stays', async () => {
  const search = new Search<string>(new Solving());
  await search.run('wall', () => Promise.resolve('thicker'));
  await search.run('wall', fails(409));
  expect(search.problem).toBe('The search was stopped.');
  expect(search.of('wall')).toBe('thicker');
  expect(search.busy).toBe(false);
});

test('refused it says why, until it is run again', async () => {
  const search = new Search<string>(new Solving());
  await search.run('wall', fails(422, { title: 'No core is marked' }));
  expect(search.problem).toContain('No core is marked');
  await search.run('wall', () => Promise.resolve('thicker'));
  expect(search.problem).toBe('');
});

test('a server that does not answer is told in a sentence', async () => {
  const search = new Search<string>(new Solving());
  await search.run('wall', () => take(Promise.reject(new TypeError('fetch failed'))));
  expect(search.problem).toMatch(/^The server does not answer\. .*is kept\.$/);
});
