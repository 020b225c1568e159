// Changes of what is drawn: each makes another drawing of it. What a hand has changed is no longer as its file has it.
import type { Body, BodyOpening, UnitType } from '@/api/client';
import type { Drawn } from '@/project/shape.svelte';
import { bounds, without, withCornerIn } from './outline';
import type { Outline } from './outline';

type Edit = (now: Drawn) => Drawn;

export const fresh = (prefix: string) => `${prefix}${crypto.randomUUID().replaceAll('-', '').slice(0, 10)}`;

export const withBody =
  (id: string, change: Partial<Body>): Edit =>
  (now) => ({
    ...now,
    bodies: now.bodies.map((one) => (one.id === id ? { ...one, ...change, source: '' } : one)),
  });

export const withOpening =
  (id: string, change: Partial<BodyOpening>): Edit =>
  (now) => ({
    ...now,
    openings: now.openings.map((one) => (one.id === id ? { ...one, ...change, source: '' } : one)),
  });

export const withoutOpening =
  (id: string): Edit =>
  (now) => ({ ...now, openings: now.openings.filter((one) => one.id !== id) });

/** With its openings. */
export const withoutBody =
  (id: string): Edit =>
  (now) => ({
    ...now,
    bodies: now.bodies.filter((one) => one.id !== id),
    openings: now.openings.filter((one) => one.body !== id),
  });

/** A body beside another one: a wing of half its size, against its right side. */
export function wingOf(last: Body): Body {
  const box = bounds(last.outline);
  const [wide, deep] = [(box.right - box.left) / 2, (box.high - box.low) / 2];
  const [x, y] = [box.right, box.low];
  return {
    ...last,
    id: fresh('b'),
    name: 'Wing',
    storeys: [last.storeys[0] ?? 2.8],
    sides: [],
    parts: [],
    outline: [
      [x, y],
      [x + wide, y],
      [x + wide, y + deep],
      [x, y + deep],
    ],
    source: '',
  };
}

/** A corner more in a side, or a corner less: what stands in the sides behind it goes with them. */
export const renumbered =
  (id: string, at: number, by: 1 | -1): Edit =>
  (now) => {
    const numbered = (n: number) => (n > at || (by === -1 && n === at) ? n + by : n);
    return {
      ...now,
      bodies: now.bodies.map((one) =>
        one.id === id
          ? {
              ...one,
              outline:
                by === 1 ? withCornerIn(one.outline as Outline, at) : without(one.outline as Outline, at),
              sides: one.sides.map((side) => ({ ...side, number: numbered(side.number) })),
              parts: one.parts.map((part) => ({ ...part, side: numbered(part.side) })),
              source: '',
            }
          : one,
      ),
      openings: now.openings.map((one) =>
        one.body === id ? { ...one, side: Math.max(numbered(one.side), 0) } : one,
      ),
    };
  };

/** A new opening round a place in a side: of the type that its kind had last, else of the first type of its kind. */
export function newOpening(
  now: Drawn,
  kind: 'window' | 'door',
  place: { body: string; side: number; u: number; z: number; length: number },
  types: readonly UnitType[],
  firstElement: string,
): BodyOpening {
  const newest = now.openings.findLast((one) => one.kind === kind && one.unit)?.unit;
  const type = types.find((one) => one.id === newest) ?? types.find((one) => one.kind === kind);
  const [w, h] = type ? [type.w, type.h] : kind === 'door' ? [1.0, 2.1] : [1.2, 1.2];
  const base = now.bodies.find((one) => one.id === place.body)?.base ?? 0;
  const known = now.openings.map((one) => Number(/^\D+(\d+)$/.exec(one.mark)?.[1] ?? 0));
  return {
    id: fresh('o'),
    body: place.body,
    side: place.side,
    kind,
    mark: `${kind === 'door' ? 'D' : 'W'}${Math.max(0, ...known) + 1}`,
    u: Number(Math.min(Math.max(place.u - w / 2, 0), Math.max(place.length - w, 0)).toFixed(2)),
    sill: kind === 'door' ? 0 : Number(Math.max(place.z - base - h / 2, 0).toFixed(2)),
    w,
    h,
    zone: now.openings.find((one) => one.kind === kind)?.zone ?? firstElement,
    unit: type?.id ?? '',
    source: '',
  };
}
