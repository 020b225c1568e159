// What the server refused, for the field that had it written: it says so where it stands, with what was typed.
import type { Problem } from '@/api/client';

/** What became of what a field had written. */
interface Outcome {
  field: string;
  /** None where it was saved. */
  problem: Problem | undefined;
}

class Refusals {
  /** What was refused last, until something is saved. */
  current = $state.raw<Problem>();
  /** A refusal that stands at its field, and need not stand elsewhere. */
  shown = $state.raw<Problem>();
  readonly atField = $derived(this.current !== undefined && this.shown === this.current);
  last = $state.raw<Outcome>();
  /** How often something was saved: what was refused before may be taken now. */
  saved = 0;
  /** The field that has something written just now; none where it is a button's or the hand's. */
  sender = '';
  /** What else ends with a refusal. */
  onwithdraw: (() => void) | undefined;

  /** A field has something written: what is put into the queue meanwhile is its own. */
  writing<T>(field: string, write: () => T): T {
    this.sender = field;
    try {
      return write();
    } finally {
      this.sender = '';
    }
  }

  /** What a field had written was saved, or refused. */
  tell(field: string, problem: Problem | undefined): void {
    this.current = problem;
    if (!problem) this.saved += 1;
    this.last = { field, problem };
  }

  /** Nothing is asked any more of what was refused: its field went back to what stands. */
  withdraw(field: string): void {
    if (!this.current || this.last?.field !== field) return;
    this.current = this.shown = this.last = undefined;
    this.onwithdraw?.();
  }

  /** Another project. */
  forget(): void {
    this.current = this.shown = this.last = undefined;
  }
}

export const refusals = new Refusals();
