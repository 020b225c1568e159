// Long questions: how far they are in words, stopping them, and a search that keeps its answer for what it was about.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { asked, newest, settle } from '@/testing/server';
import { Search } from './search.svelte';
import { hours, Solving } from './solving.svelte';
import { stream, ticket, WINDOW, type Under } from './stream.svelte';

vi.mock('./client', async (original) => (await import('@/testing/server')).standIn(original));

const at = (name: string, under: Partial<Under>) =>
  (stream.under = { [name]: { waiting: 0, grids: 0, unknowns: 0, ...under } });

beforeEach(() => {
  asked.length = 0;
  stream.under = {};
});

describe('tickets', () => {
  test('begin with the window and are never the same twice', () => {
    const made = Array.from({ length: 50 }, ticket);
    expect(new Set(made).size).toBe(50);
    expect(made.every((one) => one.startsWith(`${WINDOW}.`))).toBe(true);
    expect(WINDOW).toMatch(/^[0-9a-f]{24}$/);
  });
});

describe('how far it is', () => {
  test('is told while it runs, and no more after', async () => {
    const solving = new Solving();
    let own = '';
    let done: (value: number) => void = () => undefined;
    const run = solving.run((name) => {
      own = name;
      return new Promise<number>((answer) => (done = answer));
    });
    expect(solving.text).toBe('');
    at(own, { waiting: 3 });
    expect(solving.text).toBe('3 waiting');
    at(own, { grids: 4, unknowns: 83531 });
    expect(solving.text).toBe('grid 4, 83\u2009531 unknowns');
    at(own, { grids: 4, unknowns: 100, waiting: 1 });
    expect(solving.text).toBe('grid 4, 100 unknowns, 1 waiting');
    at('another', { grids: 9, unknowns: 9 });
    expect(solving.text).toBe('');
    done(7);
    expect(await run).toBe(7);
    at(own, { grids: 5, unknowns: 5 });
    expect(solving.text).toBe('');
  });

  test('of a run is told in hours', async () => {
    const solving = new Solving(hours);
    void solving.run((name) => {
      at(name, { grids: 1200, unknowns: 43800 });
      return new Promise(() => undefined);
    });
    await settle();
    expect(solving.text).toBe('hour 1\u2009200 of 43\u2009800');
  });

  test('a question that was put in its place does not end it', async () => {
    const solving = new Solving();
    const ends: (() => void)[] = [];
    const ask = (name: string) => new Promise<string>((answer) => ends.push(() => answer(name)));
    const first = solving.run(ask);
    const second = solving.run(ask);
    ends[0]?.();
    const [own] = [await first];
    expect(own).not.toBe('');
    solving.stop();
    expect(newest().method).toBe('DELETE'); // the second one is still there to be stopped
    ends[1]?.();
    await second;
  });
});

describe('stopping', () => {
  test('tells the server which question, once there is one', () => {
    const solving = new Solving();
    solving.stop();
    expect(asked.length).toBe(0);
    let own = '';
    void solving.run((name) => {
      own = name;
      return new Promise(() => undefined);
    });
    solving.stop();
    expect(newest()).toMatchObject({ method: 'DELETE', params: { path: { ticket: own } } });
  });
});

describe('a search', () => {
  test('keeps its answer for what it was about', async () => {
    const search = new Search<string>(new Solving());
    await search.run('of this', () => Promise.resolve('found'));
    expect(search.of('of this')).toBe('found');
    expect(search.of('of another')).toBeUndefined();
    expect([search.busy, search.problem]).toEqual([false, '']);
  });

  test('is busy while it runs', async () => {
    const search = new Search<string>(new Solving());
    let end: (found: string) => void = () => undefined;
    const run = search.run('q', () => new Promise((answer) => (end = answer)));
    expect(search.busy).toBe(true);
    end('x');
    await run;
    expect(search.busy).toBe(false);
  });

  test('that was stopped says so, and one that failed says why', async () => {
    const { Problem } = await import('./client');
    const refusal = (status: number) =>
      Promise.reject(new Problem(status, { title: 'No', status, detail: '', hint: 'try again', errors: [] }));
    const search = new Search<string>(new Solving());
    await search.run('q', () => refusal(409));
    expect(search.problem).toBe('The search was stopped.');
    await search.run('q', () => refusal(422));
    expect(search.problem).toBe('No. try again');
    expect(search.of('q')).toBeUndefined();
  });
});
