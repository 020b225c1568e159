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

  ask(question: Q): void {
    this.asked = question;
    if (!this.#busy) void this.#run();
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
