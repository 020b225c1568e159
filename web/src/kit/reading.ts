// The units that this window writes and reads in: set once by the frame, read wherever a field stands.
import { createContext } from 'svelte';
import type { Units } from './units';

export const [unitsInUse, setUnitsInUse] = createContext<() => Units | undefined>();

/** A number of things: 1 building, 2 buildings. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}

/** The unit of a margin of room humidity. */
export function points(share: number): string {
  return Math.abs(Math.round(share * 100)) === 1 ? 'point' : 'points';
}

/** How far a figure can be relied on, in words, by its error in the unit that is shown. */
export function certainty(error: number): string {
  const good = Math.floor(-Math.log10(2 * Math.max(error, 1e-9)));
  return good >= 1
    ? `good to ${counted(Math.min(good, 4), 'decimal')}`
    : 'its first decimal is not certain yet';
}
