// What the server refused last, for the field that had it written: it says so where it stands, with what was typed.
import type { Problem } from '@/api/client';

class Refusals {
  /** Until something is saved. */
  current = $state.raw<Problem>();
  /** The field that had something written last. */
  sender = '';
  /** A refusal that stands at its field, and need not stand elsewhere. */
  shown = $state.raw<Problem>();
  /** What else ends with a refusal. */
  onwithdraw: (() => void) | undefined;
  /** Nothing is asked any more of what was refused: its field went back to what stands. */
  withdraw(sender: string): void {
    if (!this.current || this.sender !== sender) return;
    this.current = this.shown = undefined;
    this.onwithdraw?.();
  }
  readonly atField = $derived(this.current !== undefined && this.shown === this.current);
}

export const refusals = new Refusals();
