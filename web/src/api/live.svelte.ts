import { untrack } from 'svelte';
import { asProblem } from './client';

/**
 * The answer to the newest question, for a stream of questions such as a drag. One request is in flight at a time;
 * of the questions that come meanwhile only the newest is asked, so the server is never flooded and no late reply to
 * an older question is shown as the newest one.
 */
export class Live<Q, A> {
  answer = $state.raw<A>();
  error = $state.raw<unknown>();
  /** The question the answer belongs to. */
  answered = $state.raw<Q>();
  asked = $state.raw<Q>();
  #busy = false;

  constructor(private readonly fetcher: (question: Q) => Promise<A>) {}

  /** Whether the shown answer belongs to an older question. */
  get stale(): boolean {
    return this.asked !== this.answered;
  }

  /** Why the newest question has no answer. */
  readonly problem = $derived(this.error ? asProblem(this.error) : undefined);

  /** The answer, as long as it belongs to a question like this. */
  of(like: Partial<Q>): A | undefined {
    const of = this.answered;
    return of && (Object.keys(like) as (keyof Q)[]).every((key) => of[key] === like[key])
      ? this.answer
      : undefined;
  }

  ask(question: Q): void {
    this.asked = question;
    if (!this.#busy) void this.#run();
  }

  /** Ask it, unless just that is asked or answered already: an effect also runs where nothing of its question changed. */
  askNew(question: Q & object): void {
    const before = this.asked as Q | undefined;
    const same =
      before && (Object.keys(question) as (keyof Q)[]).every((key) => before[key] === question[key]);
    if (!same || this.error !== undefined) this.ask(question);
  }

  /** Ask what was asked last once more. */
  again(): void {
    if (this.asked) this.ask({ ...this.asked });
  }

  async #run(): Promise<void> {
    this.#busy = true;
    let last: Q | undefined;
    while (this.asked !== last) {
      last = this.asked;
      const question = last as Q;
      try {
        this.answer = await this.fetcher(question);
        this.answered = question;
        this.error = undefined;
      } catch (error) {
        if (this.asked === question) this.error = error;
      }
    }
    this.#busy = false;
  }
}

/**
 * A question of a component, asked again whenever what it is made of changes. While it is undefined nothing is asked,
 * and the answer before stands.
 */
export function asking<Q, A>(
  question: () => Q | undefined,
  fetcher: (question: Q) => Promise<A>,
): Live<Q, A> {
  const live = new Live(fetcher);
  $effect(() => {
    const newest = question();
    if (newest !== undefined) untrack(() => live.ask(newest));
  });
  return live;
}
