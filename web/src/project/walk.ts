// What the lines of control come to at a station of the shell: the worst of what is drawn there.
import type { WalkStop } from '@/api/client';

export const LINES = ['rain', 'air', 'vapour', 'heat'] as const;
export type ControlLine = (typeof LINES)[number];
export type LineState = 'continuous' | 'broken' | 'undecided' | 'none';

/** One broken line breaks a station, one undecided leaves it open. */
export function worstOf(stops: readonly WalkStop[], line: ControlLine): LineState {
  const states = stops.map((stop) => stop.lines[line]);
  if (!states.length) return 'none';
  return states.includes('broken') ? 'broken' : states.includes('undecided') ? 'undecided' : 'continuous';
}
