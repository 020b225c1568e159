// The shape of the building in hand: a draft that follows the hand, quantities that follow the draft, saved on Enter.
import { api, take } from '@/api/client';
import type { Body, BodyOpening, Building, Problem, ShapeAnswer } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { itemsOf } from './delta';
import { rebased } from './rebase';
import { session } from './session.svelte';

export interface Drawn {
  bodies: Body[];
  openings: BodyOpening[];
  north: number;
}

interface Question {
  project: string;
  building: string;
  revision: number;
  system: string;
  drawn: Drawn | undefined;
}

/** What is chosen on the sheet: an opening, or a side or corner of a body. */
export type Chosen =
  { kind: 'side' | 'corner'; body: string; at: number } | { kind: 'opening'; id: string } | undefined;

export const shapeOf = (building: Building): Drawn => ({
  bodies: building.bodies ?? [],
  openings: building.openings ?? [],
  north: building.north ?? 0,
});

class Shape {
  /** What is drawn and not taken yet; undefined while nothing differs from what is stored. */
  draft = $state.raw<Drawn>();
  /** What the draft is, in words, for the change log and the ledger. */
  words = $state('');
  chosen = $state.raw<Chosen>();
  refused = $state.raw<Problem>();
  #building = $state('');
  #project = '';
  #begun: { on: Building; read: number } | undefined;
  /** The revision that this window left last when it wrote what was drawn here. */
  #own = 0;

  readonly live = new Live<Question, ShapeAnswer>(({ project, building, drawn }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shape', {
        params: { path: { project_id: project, building_id: building } },
        body: drawn ? { ...drawn } : {},
      }),
    ),
  );
  /** The newest answer about this building. */
  readonly answer = $derived(this.live.answered?.building === this.#building ? this.live.answer : undefined);
  readonly problem = $derived(this.refused ?? this.live.problem);

  /** Another building, or an edit that came from anywhere: what is drawn here stays until it is taken or dropped. */
  follow(project: string, building: Building, revision: number): void {
    if (this.#building !== building.id || this.#project !== project) {
      [this.#building, this.#project] = [building.id, project];
      this.draft = undefined;
      this.chosen = undefined;
      this.refused = undefined;
      this.#own = 0;
    }
    this.#ask(revision);
  }

  /** Change what is drawn; nothing is saved. */
  move(change: (now: Drawn) => Drawn, words: string): void {
    const building = session.building(this.#building);
    if (!building) return;
    if (!this.draft) this.#begun = { on: building, read: session.open?.revision ?? 0 };
    const next = change(this.draft ?? shapeOf(building));
    // What is back where it was is no draft.
    this.draft = JSON.stringify(next) === JSON.stringify(shapeOf(building)) ? undefined : next;
    this.words = words;
    this.refused = undefined;
    this.#ask(session.open?.revision ?? 0);
  }

  /** Back to what is stored. */
  drop(): void {
    if (!this.draft && !this.refused) return;
    this.draft = undefined;
    this.refused = undefined;
    this.#ask(session.open?.revision ?? 0);
  }

  /** Save what is drawn as one undoable edit; refused, it stays as it is drawn, and the old shape stands. */
  async apply(): Promise<boolean> {
    const [draft, begun] = [this.draft, this.#begun];
    if (!draft || !begun) return false;
    const good = await session.saves.edit(
      (force) => {
        // What this window has written itself since, or is to be written over, stands; the rest is a conflict.
        const read = force ?? Math.max(begun.read, this.#own);
        const on = (read > begun.read && session.building(begun.on.id)) || begun.on;
        return itemsOf('building', on, rebased(begun.on, { ...begun.on, ...draft }, on), read);
      },
      this.words.slice(0, 200),
      '1',
      (saved) => (this.#own = saved.revision),
    );
    if (good) {
      if (this.draft === draft) {
        this.draft = undefined;
        this.#ask(session.open?.revision ?? 0);
      }
    } else {
      const refused = session.saves.takeRefusal();
      if (this.draft === draft) this.refused = refused;
    }
    return good;
  }

  /** Change and save at once. */
  async commit(change: (now: Drawn) => Drawn, words: string): Promise<boolean> {
    this.move(change, words);
    return this.apply();
  }

  #ask(revision: number): void {
    this.live.askNew({
      project: this.#project,
      building: this.#building,
      revision,
      system: session.system,
      drawn: this.draft,
    });
  }
}

export const shape = new Shape();
