// A question on its way: how far it is, once it takes long enough to be told, and a way to stop it.
import { api, take } from './client';
import { stream, ticket } from './stream.svelte';

const count = (value: number) => value.toLocaleString('en').replaceAll(',', '\u2009');
/** Of what is solved on grids. */
const grids = (at: number, unknowns: number) => `grid ${at}, ${count(unknowns)} unknowns`;
/** Of a run through hours. */
export const hours = (done: number, of: number) => `hour ${count(done)} of ${count(of)}`;
/** Of a building re-run with one set of measures after the other; it may end before the last. */
export const reruns = (done: number, of: number) => `re-run ${done} of at most ${of}`;

export class Solving {
  #ticket = $state('');

  constructor(private readonly words: (done: number, of: number) => string = grids) {}

  /** Where the solution is, in words; empty while there is nothing to tell. */
  readonly text = $derived.by(() => {
    const at = stream.under[this.#ticket];
    if (!at) return '';
    const rest = at.waiting ? `, ${at.waiting} waiting` : '';
    if (at.grids) return `${this.words(at.grids, at.unknowns)}${rest}`;
    return at.waiting ? `${at.waiting} waiting` : '';
  });

  /** Ask with a ticket of its own. */
  async run<T>(ask: (ticket: string) => Promise<T>): Promise<T> {
    const own = ticket();
    this.#ticket = own;
    try {
      return await ask(own);
    } finally {
      if (this.#ticket === own) this.#ticket = '';
    }
  }

  /** Stop it; who asked is told so. */
  stop(): void {
    if (!this.#ticket) return;
    void take(api.DELETE('/api/v1/solving/{ticket}', { params: { path: { ticket: this.#ticket } } })).catch(
      () => undefined,
    );
  }
}
