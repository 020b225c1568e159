// What a building comes to with other build-ups in the place of one of its own, as the answers come in.
import { SvelteMap } from 'svelte/reactivity';
import { api, inProject, take } from '@/api/client';
import type { Assembly, OnTheWhole } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { stream, ticket } from '@/api/stream.svelte';

/** A build-up that takes the place, by a name of who asks. */
export interface Instead {
  key: string;
  assembly: Assembly;
}

interface Question {
  /** All that an answer rests on besides the rows: another one begins anew. */
  of: string;
  project: string;
  building: string;
  assembly: string;
  rows: Instead[];
  joints: boolean;
  ticket: string;
}

const MOST = 40;

export class Wholes {
  readonly #known = new SvelteMap<string, OnTheWhole>();
  #of = '';
  #ticket = $state(ticket());

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
    return null;
  });

  /** Why the newest question has no answer. */
  readonly problem = $derived(this.#live.problem);

  /** Questions of joints and fixings that are still to be solved. */
  readonly waiting = $derived(
    [...this.#known.values()].reduce((sum, one) => sum + (one.sums?.waiting ?? 0), 0),
  );
  /** Whether the solver queue is at them. */
  readonly solving = $derived(this.#ticket in stream.under);

  get(key: string): OnTheWhole | undefined {
    return this.#known.get(key);
  }

  /** Ask for what is not known yet of these rows; asked again with every answer of the solver queue. */
  follow(
    at: { of: string; project: string; building: string; assembly: string },
    moisture: Instead[],
    joints: Instead[],
  ): void {
    if (at.of !== this.#of) {
      this.#of = at.of;
      this.#known.clear();
    }
    const settled = (key: string) => {
      const one = this.#known.get(key);
      return one !== undefined && (one.passes !== null || one.why_not !== '');
    };
    const summed = (key: string) => {
      const sums = this.#known.get(key)?.sums;
      return !!sums && sums.waiting === 0;
    };
    const whole = joints.filter((row) => !summed(row.key)).slice(0, MOST);
    const rows = whole.length ? whole : moisture.filter((row) => !settled(row.key)).slice(0, MOST);
    if (rows.length) this.#live.ask({ ...at, rows, joints: whole.length > 0, ticket: this.#ticket });
  }

  /** Let go of what is being solved; what is known stays. */
  stop(): void {
    const path = { ticket: this.#ticket };
    this.#ticket = ticket();
    void take(api.DELETE('/api/v1/solving/{ticket}', { params: { path } })).catch(() => undefined);
  }
}
