// The units that this window writes and reads in: set once by the frame, read wherever a field stands.
import { createContext } from 'svelte';
import type { Units } from './units';

export const [unitsInUse, setUnitsInUse] = createContext<() => Units | undefined>();

/** A number of things: 1 building, 2 buildings. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}
