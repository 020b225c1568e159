import { describe, expect, it } from 'vitest';
import type { Body, BodyOpening, UnitType } from '@/api/client';
import { newOpening, renumbered, wingOf, withBody, withoutBody } from './edits';

const body = (more: Partial<Body> = {}): Body => ({
  id: 'b1',
  name: 'House',
  outline: [
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ],
  storeys: [2.8, 2.6],
  roof: { form: 'flat', pitch: 0, towards: 180, overhang: 0, parapet: 0 },
  base: 0,
  ground: 0,
  sides: [{ number: 2, beyond: 'heated', zone: '' }],
  parts: [],
  wall: 'w',
  below: '',
  top: 'r',
  floor: 'f',
  source: 'house.ifc',
  ...more,
});
const opening = (id: string, more: Partial<BodyOpening> = {}): BodyOpening => ({
  id,
  mark: id.toUpperCase(),
  body: 'b1',
  side: 0,
  u: 1,
  sill: 0.9,
  w: 1.2,
  h: 1.3,
  kind: 'window',
  zone: 'e',
  unit: '',
  source: '',
  ...more,
});
const drawn = (openings: BodyOpening[] = []) => ({ bodies: [body()], openings, north: 0 });
const type = (id: string, w: number) => ({ id, kind: 'window', w, h: 1.4 }) as UnitType;

describe('changes of what is drawn', () => {
  it('takes the file away from what a hand has changed', () => {
    expect(withBody('b1', { storeys: [3] })(drawn()).bodies[0]).toMatchObject({ storeys: [3], source: '' });
  });
  it('numbers the sides behind a new corner anew, with what stands in them', () => {
    const before = drawn([opening('w1', { side: 2 }), opening('w2', { side: 0 })]);
    const after = renumbered('b1', 1, 1)(before);
    expect(after.bodies[0]?.outline).toHaveLength(5);
    expect(after.bodies[0]?.sides[0]?.number).toBe(3);
    expect(after.openings.map((one) => one.side)).toEqual([3, 0]);
    expect(renumbered('b1', 2, -1)(after).openings.map((one) => one.side)).toEqual([2, 0]);
  });
  it('takes a body away with its openings and sets a wing against the last one', () => {
    expect(withoutBody('b1')(drawn([opening('w1')]))).toEqual({ bodies: [], openings: [], north: 0 });
    expect(wingOf(body())).toMatchObject({
      outline: [
        [8, 0],
        [12, 0],
        [12, 3],
        [8, 3],
      ],
      sides: [],
      source: '',
    });
  });
  it('places an opening of the type that was used last, inside of its side, with the next mark', () => {
    const place = { body: 'b1', side: 0, u: 0.2, z: 1.5, length: 8 };
    const types = [type('small', 0.8), type('large', 2)];
    expect(newOpening(drawn(), 'window', place, types, 'e')).toMatchObject({
      unit: 'small',
      w: 0.8,
      u: 0,
      mark: 'W1',
    });
    const after = drawn([opening('w7', { unit: 'large', zone: 'glass' })]);
    const made = newOpening(after, 'window', { ...place, u: 7.9 }, types, 'e');
    expect(made).toMatchObject({ unit: 'large', u: 6, mark: 'W8', zone: 'glass', sill: 0.8 });
    expect(newOpening(after, 'door', place, types, 'e')).toMatchObject({ unit: '', w: 1, h: 2.1, sill: 0 });
  });
});
