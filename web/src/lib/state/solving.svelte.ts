// A question on its way: how far it is, once it takes long enough to be told, and a way to stop it.
import { api, take } from '$lib/api/client';

const PATIENCE = 450; // before and between looks [ms]

const count = (value: number) => value.toLocaleString('en').replaceAll(',', '\u2009');
/** Of what is solved on grids. */
const grids = (at: number, unknowns: number) => `grid ${at}, ${count(unknowns)} unknowns`;
/** Of a run through hours. */
export const hours = (done: number, of: number) => `hour ${count(done)} of ${count(of)}`;

export class Solving {
  /** Where the solution is, in words; empty while there is nothing to tell. */
  text = $state('');
  #ticket = '';

  constructor(private readonly words: (done: number, of: number) => string = grids) {}

  /** Ask with a ticket of its own. */
  async run<T>(ask: (ticket: string) => Promise<T>): Promise<T> {
    const ticket = crypto.randomUUID();
    this.#ticket = ticket;
    const looks = setInterval(() => void this.#look(ticket), PATIENCE);
    try {
      return await ask(ticket);
    } finally {
      clearInterval(looks);
      if (this.#ticket === ticket) this.text = '';
    }
  }

  /** Stop it; who asked is told so. */
  stop(): void {
    void take(api.DELETE('/api/v1/solving/{ticket}', { params: { path: { ticket: this.#ticket } } })).catch(
      () => undefined,
    );
  }

  async #look(ticket: string): Promise<void> {
    try {
      const at = await take(api.GET('/api/v1/solving/{ticket}', { params: { path: { ticket } } }));
      if (this.#ticket !== ticket) return;
      const rest = at.waiting ? `, ${at.waiting} waiting` : '';
      this.text = at.grids
        ? `${this.words(at.grids, at.unknowns)}${rest}`
        : at.waiting
          ? `${at.waiting} waiting`
          : '';
    } catch {
      this.text = '';
    }
  }
}
