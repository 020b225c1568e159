// Saves on their way: one after the other, each naming the version that the one before it left.
import { api, asProblem, inProject, take } from '@/api/client';
import type { Change, Delta, Problem, ProblemBody, ProjectOut } from '@/api/client';
import { refusals } from '@/kit/refusals.svelte';
import type { Item } from './delta';

/** Something the person must know or decide about saving. */
export interface Trouble {
  problem: Problem;
  /** What was being done, in words. */
  doing: string;
  /** Do it again as it was. */
  retry?: () => Promise<boolean>;
  /** Save over the newer version. */
  insist?: () => Promise<boolean>;
}

/** A refusal of an edit with its places named by the things: `#/items/0/document/area` is `#/element/area`. */
function ofThings(error: unknown, items: readonly Item[]): unknown {
  const problem = error as ProblemBody | undefined;
  if (!problem?.errors) return error;
  const named = (pointer: string) =>
    pointer.replace(/^#\/items\/(\d+)(\/document)?/, (_, at: string) => `#/${items[Number(at)]?.kind ?? ''}`);
  return { ...problem, errors: problem.errors.map((one) => ({ ...one, pointer: named(one.pointer) })) };
}

/** What the saves are about. */
export interface Held {
  readonly open: ProjectOut | undefined;
  /** Take in what was written since, here or elsewhere. */
  merge(delta: Delta): void;
}

type Reply = Promise<{ data?: Delta; error?: unknown; response: Response }>;

export class Saves {
  trouble = $state.raw<Trouble>();
  saving = $state(0);
  /** What was done elsewhere last, until something is done here. */
  elsewhere = $state.raw<{ text: string; who: string }>();
  /** Said politely to screen readers, once per edit. */
  announcement = $state('');
  #queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly held: Held) {
    refusals.onwithdraw = () => (this.trouble = undefined);
  }

  get revision(): number {
    return this.held.open?.revision ?? 0;
  }

  /** The refusal of what was typed, taken over by the place that shows it. */
  takeRefusal(): Problem | undefined {
    const problem = this.trouble?.problem;
    if (problem?.status !== 422) return undefined;
    this.trouble = undefined;
    return problem;
  }

  /** Write things as one undoable change; without anything to write it is done. */
  edit(
    items: (force: number | undefined) => Item[],
    text: string,
    zone: string,
    after?: (saved: Delta) => void,
  ): Promise<boolean> {
    return this.save(
      text,
      (project, since, force) => {
        const written = items(force);
        if (!written.length) return undefined;
        const reply = api.POST('/api/v1/projects/{project_id}/edit', {
          params: { path: { project_id: project }, query: { since } },
          body: { text, zone, items: written },
        });
        return reply.then((got) => ({ ...got, error: ofThings(got.error, written) }));
      },
      after,
    );
  }

  /** Take back the newest change, or do the last undone one again. */
  step(direction: 'undo' | 'redo'): Promise<boolean> {
    return this.save(direction, (project, since) => {
      const number = this.held.open?.[direction]?.number;
      if (number === undefined) return undefined;
      const address = `/api/v1/projects/{project_id}/${direction}` as const;
      return api.POST(address, {
        params: { path: { project_id: project }, query: { since } },
        body: { number },
      });
    });
  }

  async changes(): Promise<Change[]> {
    return take(
      api.GET('/api/v1/projects/{project_id}/changes', inProject(this.held.open?.project.id ?? '')),
    );
  }

  /** One save after the other, each naming the version the one before it left. */
  save(
    doing: string,
    call: (project: string, since: number, force: number | undefined) => Reply | undefined,
    after: (saved: Delta) => void = () => undefined,
  ): Promise<boolean> {
    const field = refusals.sender;
    const attempt = async (force?: number): Promise<boolean> => {
      const open = this.held.open;
      const request = open && call(open.project.id, open.revision, force);
      if (!request) return open !== undefined;
      this.saving += 1;
      try {
        const saved = await take(request);
        this.held.merge(saved);
        this.elsewhere = undefined;
        after(saved);
        this.trouble = undefined;
        refusals.tell(field, undefined);
        this.announcement = doing;
        return true;
      } catch (error) {
        const problem = asProblem(error);
        if (problem.status === 422) refusals.tell(field, problem);
        this.trouble = {
          problem,
          doing,
          retry: () => this.#next(() => attempt()),
          ...(problem.status === 409 && doing !== 'undo' && doing !== 'redo'
            ? { insist: () => this.#next(() => this.#overwrite(attempt)) }
            : {}),
        };
        return false;
      } finally {
        this.saving -= 1;
      }
    };
    return this.#next(() => attempt());
  }

  /** Everything that was to be written has been, or was refused. */
  async done(): Promise<void> {
    await this.#queue;
  }

  /** Another project: what was said of the one before is not said of it. */
  forget(): void {
    this.trouble = undefined;
    this.elsewhere = undefined;
    this.announcement = '';
    refusals.forget();
  }

  /** The server has a newer revision than was known: another window's, unless a save of this one is on its way. */
  seen(revision: number): Promise<boolean> {
    return this.#next(async () => {
      const open = this.held.open;
      if (!open || revision <= open.revision) return true;
      try {
        await this.#catchUp();
        const newest = (await this.changes()).at(0);
        if (newest) {
          this.elsewhere = { text: newest.text, who: newest.who };
          this.announcement = `Changed in another window: ${newest.text}`;
        }
        return true;
      } catch {
        return false; // the next save, or the next look, tells it again
      }
    });
  }

  async #catchUp(): Promise<void> {
    const open = this.held.open;
    if (!open) return;
    const path = { project_id: open.project.id };
    const query = { since: open.revision };
    this.held.merge(await take(api.GET('/api/v1/projects/{project_id}/delta', { params: { path, query } })));
  }

  /** Learn what was written since, then save on top of it, as the person decided. */
  async #overwrite(again: (force: number) => Promise<boolean>): Promise<boolean> {
    if (!this.held.open) return false;
    try {
      await this.#catchUp();
      return await again(this.revision);
    } catch (error) {
      this.trouble = { problem: asProblem(error), doing: 'load the newer version' };
      return false;
    }
  }

  #next(work: () => Promise<boolean>): Promise<boolean> {
    const turn = this.#queue.then(work);
    this.#queue = turn.catch(() => undefined);
    return turn;
  }
}
