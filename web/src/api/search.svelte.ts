// A search that somebody asks for: it runs with a ticket, can be stopped, and its answer is kept for what it was about.
import { asProblem } from './client';
import type { Solving } from './solving.svelte';

const STOPPED = 409;

export class Search<T> {
  busy = $state(false);
  problem = $state('');
  #found = $state.raw<{ of: string; answer: T }>();

  constructor(private readonly solving: Solving) {}

  /** The answer, as long as it is about this. */
  of(question: string): T | undefined {
    return this.#found?.of === question ? this.#found.answer : undefined;
  }

  async run(question: string, ask: (ticket: string) => Promise<T>): Promise<void> {
    this.busy = true;
    this.problem = '';
    try {
      this.#found = { of: question, answer: await this.solving.run(ask) };
    } catch (error) {
      const told = asProblem(error);
      this.problem = told.status === STOPPED ? 'The search was stopped.' : told.sentence;
    } finally {
      this.busy = false;
    }
  }
}
