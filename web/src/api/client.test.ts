// Every refusal becomes a Problem in words, whatever came back.
import { describe, expect, test } from 'vitest';
import { asProblem, inBuilding, inProject, Problem, take } from './client';

const response = (status: number) => ({ ok: status < 400, status }) as Response;
const item = (detail: string, code = 'c') => ({
  pointer: '#/d',
  code,
  detail,
  hint: 'do this',
  entity: '',
  proposed: '',
});

async function refusal(reply: Promise<unknown>): Promise<Problem> {
  try {
    await take(reply as never);
  } catch (error) {
    if (error instanceof Problem) return error;
    throw error;
  }
  throw new Error('it was no refusal');
}

describe('taking a reply', () => {
  test('gives its data', async () => {
    expect(await take(Promise.resolve({ data: 5, response: response(200) }))).toBe(5);
  });

  test('throws the problem of a refusal', async () => {
    const body = { title: 'Refused', status: 422, detail: '', hint: '', errors: [item('too thick')] };
    const found = await refusal(Promise.resolve({ error: body, response: response(422) }));
    expect([found.status, found.sentence]).toEqual([422, 'too thick: do this']);
    expect(found.is('c')).toBe(true);
    expect(found.is('other')).toBe(false);
  });

  test('says what it can of an answer that is none of ours', async () => {
    const found = await refusal(Promise.resolve({ error: '<html>', response: response(502) }));
    expect(found.body.title).toBe('The server answered 502');
  });

  test('of a server that is away says how to start it', async () => {
    const found = await refusal(Promise.reject(new TypeError('fetch failed')));
    expect(found.status).toBe(0);
    expect(found.sentence).toContain('Start it again');
  });

  test('leaves what was given up to who gave it up', async () => {
    const given = new DOMException('gone', 'AbortError');
    await expect(take(Promise.reject(given))).rejects.toBe(given);
  });
});

describe('one sentence', () => {
  test('is the first place with its way out, else title and hint', () => {
    const body = { title: 'Stale', status: 409, detail: '', hint: 'Load it again', errors: [] };
    expect(new Problem(409, body).sentence).toBe('Stale. Load it again');
    expect(new Problem(409, { ...body, hint: '' }).sentence).toBe('Stale');
    expect(new Problem(422, { ...body, errors: [item('a'), item('b')] }).sentence).toBe('a: do this');
  });
});

describe('anything caught', () => {
  test('is a Problem', () => {
    const own = new Problem(1, { title: 't', status: 1, detail: '', hint: '', errors: [] });
    expect(asProblem(own)).toBe(own);
    expect(asProblem(new Error('broken')).sentence).toBe('broken');
    expect(asProblem('text').body.title).toBe('text');
  });
});

test('paths name the project, and the building', () => {
  expect(inProject('p').params.path).toEqual({ project_id: 'p' });
  expect(inBuilding('p', 'b').params.path).toEqual({ project_id: 'p', building_id: 'b' });
});
