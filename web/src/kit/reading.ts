// The units that this window writes and reads in: set once by the frame, read wherever a field stands.
import { createContext } from 'svelte';
import type { Units } from './units';

export const [unitsInUse, setUnitsInUse] = createContext<() => Units | undefined>();
