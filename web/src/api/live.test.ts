// One question in flight; the answer shown last belongs to the question asked last.
import { describe, expect, test } from 'vitest';
import { Live } from './live.svelte';

interface Held {
  question: number;
  answer: (value: string) => void;
  fail: (reason: unknown) => void;
}

function held(): { live: Live<number, string>; asked: Held[] } {
  const asked: Held[] = [];
  const live = new Live<number, string>(
    (question) => new Promise((answer, fail) => asked.push({ question, answer, fail })),
  );
  return { live, asked };
}
const settle = () => new Promise((done) => setTimeout(done));

describe('Live', () => {
  test('asks one at a time and only the newest of those that came meanwhile', async () => {
    const { live, asked } = held();
    [1, 2, 3, 4].forEach((question) => live.ask(question));
    expect(asked.map((one) => one.question)).toEqual([1]);
    asked[0]?.answer('one');
    await settle();
    expect(asked.map((one) => one.question)).toEqual([1, 4]);
    expect(live.answer).toBe('one');
    expect(live.stale).toBe(true);
    asked[1]?.answer('four');
    await settle();
    expect(live.answer).toBe('four');
    expect(live.stale).toBe(false);
  });

  test('a failure keeps the last answer, as stale, and says why', async () => {
    const { live, asked } = held();
    live.ask(1);
    asked[0]?.answer('one');
    await settle();
    live.ask(2);
    asked[1]?.fail('no');
    await settle();
    expect([live.answer, live.error, live.stale]).toEqual(['one', 'no', true]);
    live.ask(3);
    asked[2]?.answer('three');
    await settle();
    expect([live.answer, live.error, live.stale]).toEqual(['three', undefined, false]);
  });

  test('a failure of an older question is not told once a newer one was asked', async () => {
    const { live, asked } = held();
    live.ask(1);
    live.ask(2);
    asked[0]?.fail('no');
    await settle();
    expect(live.error).toBeUndefined();
    asked[1]?.answer('two');
    await settle();
    expect(live.answer).toBe('two');
  });

  test('the same question again is none, until its answer failed or somebody wants it anew', async () => {
    const asked: Held[] = [];
    const live = new Live<{ question: number }, string>(
      ({ question }) => new Promise((answer, fail) => asked.push({ question, answer, fail })),
    );
    live.askNew({ question: 1 });
    live.askNew({ question: 1 });
    asked[0]?.answer('one');
    await settle();
    live.askNew({ question: 1 });
    expect([asked.length, live.stale]).toEqual([1, false]);
    live.again();
    asked[1]?.fail('no');
    await settle();
    live.askNew({ question: 1 });
    expect(asked.length).toBe(3);
    asked[2]?.answer('one');
    await settle();
    live.askNew({ question: 2 });
    expect(asked.map((one) => one.question)).toEqual([1, 1, 1, 2]);
  });

  test('a thousand questions cost two requests', async () => {
    const { live, asked } = held();
    for (let question = 0; question < 1000; question += 1) live.ask(question);
    asked[0]?.answer('first');
    await settle();
    asked[1]?.answer('last');
    await settle();
    expect(asked.length).toBe(2);
    expect(live.answered).toBe(999);
  });
});
