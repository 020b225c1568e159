// The one stream from the server: what is heard, by whom, and until when.
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { stream, ticket, WINDOW } from './stream.svelte';

class Source {
  static all: Source[] = [];
  closed = false;
  #told: Record<string, (event: { data: string }) => void> = {};
  constructor(readonly address: string) {
    Source.all.push(this);
  }
  addEventListener(name: string, told: (event: { data: string }) => void): void {
    this.#told[name] = told;
  }
  close(): void {
    this.closed = true;
  }
  say(name: string, data: unknown = {}): void {
    this.#told[name]?.({ data: JSON.stringify(data) });
  }
}
const handlers = () => ({ changed: vi.fn(), gone: vi.fn() });
const source = () => Source.all.at(-1) as Source;

beforeEach(() => {
  Source.all = [];
  vi.stubGlobal('EventSource', Source);
});
afterEach(() => void vi.unstubAllGlobals());

test('it follows one project, as this window', () => {
  stream.follow('heron', handlers());
  expect(source().address).toBe(`/api/v1/projects/heron/events?window=${WINDOW}`);
});

test('a change made elsewhere is told with its revision', () => {
  const heard = handlers();
  stream.follow('heron', heard);
  source().say('changed', { revision: 7 });
  expect(heard.changed).toHaveBeenCalledExactlyOnceWith(7);
  expect(heard.gone).not.toHaveBeenCalled();
});

test('answers are counted, so that what rests on them asks again', () => {
  stream.follow('heron', handlers());
  const before = stream.answers;
  source().say('answered');
  source().say('answered');
  expect(stream.answers).toBe(before + 2);
});

test('what is being solved is known by ticket until the project is left', () => {
  const leave = stream.follow('heron', handlers());
  source().say('under', { tickets: { a: { waiting: 2, grids: 1, unknowns: 900 } } });
  expect(stream.under.a).toEqual({ waiting: 2, grids: 1, unknowns: 900 });
  leave();
  expect(source().closed).toBe(true);
  expect(stream.under).toEqual({});
});

test('leaving an older project does not clear what a newer one is solving', () => {
  const leave = stream.follow('heron', handlers());
  stream.follow('tern', handlers());
  source().say('under', { tickets: { b: { waiting: 0, grids: 1, unknowns: 10 } } });
  leave();
  expect(stream.under.b).toBeDefined();
  expect(Source.all.map((one) => one.closed)).toEqual([true, false]);
});

test('a project that was moved to the bin is told, and no more is heard of it', () => {
  const heard = handlers();
  stream.follow('heron', heard);
  source().say('gone');
  expect(heard.gone).toHaveBeenCalledOnce();
  expect(source().closed).toBe(true);
});

test('every question has a name of its own that begins with the window’s', () => {
  const [first, second] = [ticket(), ticket()];
  expect(first).not.toBe(second);
  expect(first.startsWith(`${WINDOW}.`)).toBe(true);
  expect(WINDOW).toMatch(/^[0-9a-f]{24}$/);
});
