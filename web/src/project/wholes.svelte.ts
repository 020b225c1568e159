// What a building comes to with other build-ups in the place of one of its own, as the answers come in.
import { SvelteMap } from 'svelte/reactivity';
import { api, inProject, take } from '@/api/client';
import type { Assembly, OnTheWhole } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { ticket } from '@/api/stream.svelte';

/** A build-up that takes the place, by a name of who asks. */
export interface Instead {
  key: string;
  assembly: Assembly;
}

interface Place {
  /** All that an answer rests on besides the rows: another one begins anew. */
  of: string;
  project: string;
  building: string;
  /** Whose place they take. */
  assembly: string;
}

interface Question extends Place {
  rows: Instead[];
  joints: boolean;
  ticket: string;
}

const MOST = 40;

export class Wholes {
  readonly #known = new SvelteMap<string, OnTheWhole>();
  #of = '';
  #wanted: { at: Place; moisture: Instead[]; joints: Instead[] } | undefined;
  #ticket = ticket();

  readonly #live = new Live<Question, null>(async (question) => {
    const { project, building, assembly, rows, joints, ticket } = question;
    const { rows: found } = await take(
      api.POST('/api/v1/projects/{project_id}/on-the-whole', {
        ...inProject(project),
        body: {
          building_id: building,
          assembly_id: assembly,
          instead: rows.map((row) => row.assembly),
          joints,
          ticket,
        },
      }),
    );
    if (question.of !== this.#of) return null;
    rows.forEach((row, at) => {
      const one = found[at];
      // Sums that were found stay when only the moisture is asked again.
      if (one) this.#known.set(row.key, { ...one, sums: one.sums ?? this.#known.get(row.key)?.sums ?? null });
    });
    this.#ask(true);
    return null;
  });

  /** Why the newest question has no answer. */
  readonly problem = $derived(this.#live.problem);

  /** Questions of joints and fixings that are still to be solved. */
  readonly waiting = $derived(
    [...this.#known.values()].reduce((sum, one) => sum + (one.sums?.waiting ?? 0), 0),
  );
  get(key: string): OnTheWhole | undefined {
    return this.#known.get(key);
  }

  /** Ask for what is not known yet of these rows; asked again with every answer of the solver queue. */
  follow(at: Place, moisture: Instead[], joints: Instead[]): void {
    if (at.of !== this.#of) {
      this.#of = at.of;
      this.#known.clear();
    }
    this.#wanted = { at, moisture, joints };
    this.#ask(false);
  }

  /** Ask for what is still to come, or only for what was never asked. */
  #ask(newOnly: boolean): void {
    if (!this.#wanted) return;
    const { at, moisture, joints } = this.#wanted;
    const open = (
      rows: Instead[],
      settled: (one: OnTheWhole) => boolean,
      asked: (one: OnTheWhole) => boolean,
    ) =>
      rows.filter(({ key }) => {
        const one = this.#known.get(key);
        return !one || !(newOnly ? asked(one) : settled(one));
      });
    const whole = open(
      joints,
      (one) => !!one.sums && one.sums.waiting === 0,
      (one) => !!one.sums,
    );
    const damp = open(
      moisture,
      (one) => one.passes !== null || one.why_not !== '',
      () => true,
    );
    // What was never asked comes first: what waits is asked again with every answer.
    const rows = (whole.length ? whole : damp).toSorted(
      (a, b) => Number(this.#known.has(a.key)) - Number(this.#known.has(b.key)),
    );
    if (rows.length)
      this.#live.ask({ ...at, rows: rows.slice(0, MOST), joints: whole.length > 0, ticket: this.#ticket });
  }

  /** Let go of what is being solved; what is known stays. Who follows on asks for no joints, or begins again. */
  stop(): void {
    if (!this.waiting) return;
    const path = { ticket: this.#ticket };
    this.#ticket = ticket();
    void take(api.DELETE('/api/v1/solving/{ticket}', { params: { path } })).catch(() => undefined);
  }
}
