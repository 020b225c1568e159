// The joint on the bench: a draft, its answers in two variants, working accuracy at once and final accuracy at rest.
import { api, take } from '@/api/client';
import type { Building, Joint, JointOut, JointStandard } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { session } from '@/project/session.svelte';
import { Solving } from '@/api/solving.svelte';
import { router } from '@/project/router.svelte';

interface Question {
  project: string;
  joint: Joint;
  variant: string;
  condition: string;
  accuracy: 'working' | 'final';
  revision: number;
}

const REST = 350; // after the last change, before the final answer is asked [ms]

const asked =
  (solving: Solving) =>
  ({ project, joint, variant, condition, accuracy }: Question) =>
    solving.run((ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/joint', {
          params: { path: { project_id: project } },
          body: { joint, building_id: router.place.building, variant, condition, accuracy, ticket },
        }),
      ),
    );

export class Joints {
  /** The practice's own, withdrawn ones included. */
  standards = $state.raw<JointStandard[]>([]);
  draft = $state.raw<Joint>();
  readonly solvingA = new Solving();
  readonly solvingB = new Solving();
  readonly a = new Live<Question, JointOut>(asked(this.solvingA));
  readonly b = new Live<Question, JointOut>(asked(this.solvingB));
  #saved: Joint | undefined;
  #where = { project: '', condition: 'winter', revision: 0 };
  #resting: ReturnType<typeof setTimeout> | undefined;

  async loadStandards(): Promise<void> {
    this.standards = await take(api.GET('/api/v1/joint-standards'));
  }

  /** Follow what is stored: another joint, an undo, a changed build-up. */
  follow(project: string, condition: string, stored: Joint, revision: number): void {
    const moved =
      this.#where.project !== project ||
      this.#where.condition !== condition ||
      this.#where.revision !== revision;
    this.#where = { project, condition, revision };
    if (stored !== this.#saved) {
      this.#saved = stored;
      this.draft = stored;
      this.#ask();
    } else if (moved) this.#ask();
  }

  /** Change the draft without saving: the hand is still moving. */
  move(change: Partial<Joint>): void {
    if (!this.draft) return;
    this.draft = { ...this.draft, ...change };
    this.#ask();
  }

  /** A parameter of the draft; a number or a word. */
  turned(key: string, value: number | string): Partial<Joint> {
    const rest = (this.draft?.values ?? []).filter((one) => one.key !== key);
    const own = typeof value === 'number' ? { key, number: value } : { key, word: value };
    return { values: [...rest, own] };
  }

  /** Change the draft and save it as one undoable step. */
  async commit(building: Building, change: Partial<Joint>, text: string): Promise<void> {
    if (!this.draft) return;
    const next = { ...this.draft, ...change };
    this.draft = next;
    this.#ask();
    const joints = (building.joints ?? []).map((one) => (one.id === next.id ? next : one));
    const good = await session.saveBuilding({ ...building, joints }, text.slice(0, 200), `${next.station}3`);
    if (!good && this.draft === next) {
      this.draft = this.#saved;
      this.#ask();
    }
  }

  /** Ask again for the draft as it is: something was stopped. */
  again(): void {
    this.#ask();
  }

  #ask(): void {
    clearTimeout(this.#resting);
    this.#put('working');
    this.#resting = setTimeout(() => this.#put('final'), REST);
  }

  #put(accuracy: 'working' | 'final'): void {
    const joint = this.draft;
    if (!joint) return;
    this.a.ask({ ...this.#where, joint, variant: joint.variant, accuracy });
    if (joint.other) this.b.ask({ ...this.#where, joint, variant: joint.other, accuracy });
  }
}

export const joints = new Joints();
