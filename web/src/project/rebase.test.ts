// What one window changed is done to what stands by now: nothing that was written in between is taken back.
import { describe, expect, test } from 'vitest';
import { rebased } from './rebase';

describe('of fields', () => {
  const before = { name: 'Hall', site: { latitude: 46.2, altitude: 200 }, asked: null };

  test('those that were changed are changed, the others are as they stand', () => {
    const after = { ...before, site: { latitude: 47, altitude: 200 } };
    const now = { name: 'Big hall', site: { latitude: 46.2, altitude: 300 }, asked: null };
    expect(rebased(before, after, now)).toEqual({
      name: 'Big hall',
      site: { latitude: 47, altitude: 300 },
      asked: null,
    });
  });

  test('where both changed one, the change that is written later stands', () => {
    expect(rebased(before, { ...before, name: 'B' }, { ...before, name: 'A' }).name).toBe('B');
  });

  test('nothing between: it is what was made; nothing made: it is what stands', () => {
    const [after, now] = [
      { ...before, name: 'B' },
      { ...before, name: 'A' },
    ];
    expect(rebased(before, after, before)).toBe(after);
    expect(rebased(before, { ...before }, now)).toBe(now);
  });

  test('one put in, taken out, or taken out since', () => {
    type Any = Record<string, number>;
    expect(rebased<Any>({ a: 1 }, { a: 1, b: 2 }, { a: 9 })).toEqual({ a: 9, b: 2 });
    expect(rebased<Any>({ a: 1, b: 2 }, { a: 1 }, { a: 9, b: 2 })).toEqual({ a: 9 });
    expect(rebased<Any>({ a: 1, b: 2 }, { a: 3, b: 2 }, { a: 1 })).toEqual({ a: 3 });
    expect(rebased<Any>({ a: 1, b: 2 }, { a: 1, b: 3 }, { a: 9 })).toEqual({ a: 9, b: 3 });
  });
});

describe('of rows', () => {
  test('of one length, each place by itself', () => {
    expect(rebased([1, 2, 3], [1, 5, 3], [9, 2, 3])).toEqual([9, 5, 3]);
    expect(
      rebased(
        [
          [0, 0],
          [4, 0],
        ],
        [
          [0, 1],
          [4, 0],
        ],
        [
          [0, 0],
          [5, 0],
        ],
      ),
    ).toEqual([
      [0, 1],
      [5, 0],
    ]);
  });

  test('of things without a name, each place by itself', () => {
    const [a, b] = [
      { u: 1, n: 1 },
      { u: 2, n: 1 },
    ];
    expect(rebased([a, b], [a, { ...b, n: 5 }], [{ ...a, n: 4 }, b])).toEqual([
      { u: 1, n: 4 },
      { u: 2, n: 5 },
    ]);
    expect(rebased([a], [{ ...a, n: 5 }], [{ ...a, u: 7 }])).toEqual([{ u: 7, n: 5 }]);
  });

  test('one put after them, or taken away, on either side', () => {
    const [a, b, c] = [{ u: 1 }, { u: 2 }, { u: 3 }];
    expect(rebased([a, b], [{ u: 9 }, b], [a, b, c])).toEqual([{ u: 9 }, b, c]);
    expect(rebased([a], [a, b], [a, c])).toEqual([a, c, b]);
    expect(rebased([a, b, c], [a, c], [a, b, { u: 9 }])).toEqual([a, { u: 9 }]);
    expect(rebased([a, b, c], [{ u: 9 }, b, c], [a, c])).toEqual([{ u: 9 }, c]);
    expect(rebased([1, 2], [1, 2, 3], [9, 2])).toEqual([9, 2, 3]);
  });

  test('in another order, or put in between, as they were made', () => {
    expect(rebased([{ u: 1 }, { u: 2 }], [{ u: 2 }, { u: 1 }], [{ u: 1 }, { u: 3 }])).toEqual([
      { u: 2 },
      { u: 1 },
    ]);
    expect(rebased([{ u: 1 }, { u: 2 }], [{ u: 1 }, { u: 5 }, { u: 2 }], [{ u: 1 }, { u: 3 }])).toEqual([
      { u: 1 },
      { u: 5 },
      { u: 2 },
    ]);
  });
});

describe('of things that have an id', () => {
  const [a, b, c] = [
    { id: 'a', n: 1, m: 1 },
    { id: 'b', n: 1, m: 1 },
    { id: 'c', n: 1, m: 1 },
  ];

  test('each keeps what was written of it', () => {
    expect(
      rebased(
        [a, b],
        [{ ...a, n: 2 }, b],
        [
          { ...a, m: 3 },
          { ...b, m: 3 },
        ],
      ),
    ).toEqual([
      { id: 'a', n: 2, m: 3 },
      { id: 'b', n: 1, m: 3 },
    ]);
  });

  test('added on both sides, both are there', () => {
    expect(rebased([a], [a, b], [a, c]).map((one) => one.id)).toEqual(['a', 'b', 'c']);
  });

  test('taken away on either side they are gone, unless the change is about them', () => {
    expect(rebased([a, b, c], [a, c], [{ ...a, m: 3 }, b])).toEqual([{ ...a, m: 3 }]);
    expect(rebased([a, b], [a, { ...b, n: 2 }], [a])).toEqual([a, { ...b, n: 2 }]);
  });

  test('the order is that of who changed it', () => {
    expect(rebased([a, b, c], [c, a, b], [a, { ...b, m: 3 }, c]).map((one) => one.id)).toEqual([
      'c',
      'a',
      'b',
    ]);
    expect(rebased([a, b, c], [a, { ...b, n: 2 }, c], [c, b, a])).toEqual([c, { ...b, n: 2 }, a]);
  });

  test('a key or a material tells them apart as well', () => {
    const [old, mine, theirs] = [
      [{ key: 'w', number: 1 }],
      [{ key: 'w', number: 2 }],
      [
        { key: 'd', number: 7 },
        { key: 'w', number: 1 },
      ],
    ];
    expect(rebased(old, mine, theirs)).toEqual([
      { key: 'd', number: 7 },
      { key: 'w', number: 2 },
    ]);
  });
});
