// The build-up on the bench: a draft that follows the hand, figures that follow the draft, saves at rest.
import { api, asProblem, take } from '@/api/client';
import type { Assembly, BenchOut, Layer, Problem } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { valued } from '@/kit/units';
import { withCore } from './core';
import { session } from './session.svelte';

interface Question {
  project: string;
  building: string;
  condition: string;
  assembly: Assembly;
  /** Of the stored project: a changed Basis is a new question. */
  revision: number;
}

export class Bench {
  draft = $state.raw<Assembly>();
  selected = $state(0);
  /** Thickness before the newest edit, for the ghost line. */
  ghost = $state.raw<{ layer: string; d: number }>();
  /** What was refused, kept until the next edit. */
  refused = $state.raw<Problem>();
  #place = { project: '', building: '', condition: '0' };
  #saved: Assembly | undefined;
  /** Revision that the draft was begun on. */
  #read = 0;
  /** The hand is on the draft, or a save of it is on its way: what the server holds is older. */
  #busy = $state(0);

  readonly live = new Live<Question, BenchOut>(({ project, building, condition, assembly }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/bench', {
        params: { path: { project_id: project } },
        body: { building_id: building, condition, assembly },
      }),
    ),
  );

  readonly found = $derived(this.live.answer);
  readonly layer = $derived(this.draft?.layers[this.selected]);

  /** Follow what is stored: another wall, an undo, another window's save that was loaded. */
  follow(project: string, building: string, condition: string, stored: Assembly, revision: number): void {
    const another = project !== this.#place.project;
    this.#place = { project, building, condition };
    if (another || (this.#busy === 0 && stored !== this.#saved)) {
      if (another || stored.id !== this.#saved?.id) {
        this.selected = Math.max(
          0,
          stored.layers.findIndex((layer) => layer.studied),
        );
        this.ghost = undefined;
      }
      this.#saved = stored;
      this.#read = revision;
      this.draft = stored;
      this.selected = Math.min(this.selected, stored.layers.length - 1);
    }
    if (this.draft) this.#ask(this.draft, revision);
  }

  /** The hand takes hold of the draft: until it lets go, nothing stored replaces it. */
  hold(): void {
    this.#busy += 1;
  }

  release(): void {
    this.#busy -= 1;
  }

  /** A step of the arrow keys; a run of steps is saved as one edit once the keys rest. */
  nudge(index: number, by: number, zone: string): void {
    const layer = this.draft?.layers[index];
    if (!layer) return;
    const d = Number((layer.d + by).toFixed(6));
    if (d <= 0) return;
    if (this.#resting === undefined) {
      this.hold();
      this.#from = layer.d;
    } else clearTimeout(this.#resting);
    this.move(this.setThickness(index, d));
    this.#rest = () => this.rest(index, zone);
    this.#resting = setTimeout(this.#rest, 500);
  }

  /** Save what the arrow keys did. */
  rest(index: number, zone: string): void {
    if (this.#resting === undefined) return;
    clearTimeout(this.#resting);
    this.#resting = this.#rest = undefined;
    const layer = this.draft?.layers[index];
    if (layer && layer.d !== this.#from) this.thickness(index, layer.d, this.#from, zone);
    this.release();
  }

  /** The window goes to another project: what the arrow keys did belongs to this one. */
  leave(): void {
    this.#rest?.();
  }

  /** Save a thickness, with the one before as ghost. */
  thickness(index: number, d: number, from: number, zone: string): void {
    const layer = this.draft?.layers[index];
    if (!layer) return;
    this.ghost = { layer: layer.id, d: from };
    const name = layer.studied ? 'Core' : (session.materials.get(layer.material ?? '')?.name ?? 'Air layer');
    const text = `${name} ${valued(from, 'length')} to ${valued(d, 'length')}`;
    void this.commit(this.setThickness(index, d), text, zone);
  }

  #resting: ReturnType<typeof setTimeout> | undefined;
  #rest: (() => void) | undefined;
  #from = 0;

  /** Change the draft without saving: the hand is still moving. */
  move(change: (draft: Assembly) => Assembly): void {
    if (!this.draft) return;
    this.draft = change(this.draft);
    this.refused = undefined;
    this.#ask(this.draft);
  }

  /** Change the draft and save it as one undoable step. */
  async commit(change: (draft: Assembly) => Assembly, text: string, zone: string): Promise<void> {
    if (!this.draft || !this.#saved) return;
    const before = this.#saved;
    const next = change(this.draft);
    this.draft = next;
    this.refused = undefined;
    this.#ask(next);
    this.#busy += 1;
    const good = await session.saveAssembly(next, text, zone, { on: before, read: this.#read });
    this.#busy -= 1;
    const refused = !good && this.draft === next ? session.saves.takeRefusal() : undefined;
    if (refused) {
      this.refused = refused;
      this.draft = before;
      this.#ask(before);
    }
    if (good && this.draft === next) {
      this.#saved = session.assembly(next.id) ?? next;
      this.#read = session.open?.revision ?? this.#read;
    }
  }

  /** Take the stored version instead of the draft. */
  drop(): void {
    this.#saved = undefined;
  }

  /** Ask again for the same draft: something it counts has been solved. */
  again(): void {
    this.live.again();
  }

  /** A layer of another thickness [m]; of the core, with the panels that go with it. */
  setThickness(index: number, d: number): (draft: Assembly) => Assembly {
    return (draft) =>
      draft.layers[index]?.studied ? withCore(draft, d) : this.setLayer(index, { d })(draft);
  }

  setLayer(index: number, change: Partial<Layer>): (draft: Assembly) => Assembly {
    return (draft) => ({
      ...draft,
      layers: draft.layers.map((layer, at) => (at === index ? { ...layer, ...change } : layer)),
    });
  }

  /** Why the newest question has no answer. */
  readonly problem = $derived(this.live.error ? asProblem(this.live.error) : undefined);

  #ask(assembly: Assembly, revision = this.live.asked?.revision ?? 0): void {
    this.live.askNew({ ...this.#place, assembly, revision });
  }
}

export const bench = new Bench();
