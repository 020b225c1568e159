// Form walls of the building in hand: in courses, as they drift, and as they are filled.
import { api, inBuilding, take } from '@/api/client';
import type {
  BodyOpening,
  BuckMove,
  Building,
  CourseSheet,
  DriftSheet,
  FormChoices,
  FormWall,
  PourChoices,
  PourSheet,
} from '@/api/client';
import { Live } from '@/api/live.svelte';
import { Solving } from '@/api/solving.svelte';
import { session } from './session.svelte';
import { rounded } from './setout.svelte';

interface Question {
  project: string;
  building: string;
  revision: number;
  system: string;
}
interface Draft {
  wall: string;
  openings?: BodyOpening[];
  forms?: FormChoices;
}

class Forms {
  /** What is drawn on a wall and not taken yet. */
  draft = $state.raw<Draft>();
  words = $state('');

  readonly solving = new Solving((done, of) => `wall ${done + 1} of ${of}`);
  readonly courses = new Live<Question, CourseSheet>(({ project, building }) =>
    this.solving.run((ticket) =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/courses', {
          params: { ...inBuilding(project, building).params, query: { ticket } },
        }),
      ),
    ),
  );
  readonly drawn = new Live<Question & { draft: Draft }, FormWall>(({ project, building, draft }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/courses/wall', {
        ...inBuilding(project, building),
        body: draft,
      }),
    ),
  );
  readonly drift = new Live<Question, DriftSheet>(({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/drift', inBuilding(project, building)),
    ),
  );
  readonly pour = new Live<Question, PourSheet>(({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/pour', inBuilding(project, building)),
    ),
  );

  question(building: Building): Question {
    return {
      project: session.open?.project.id ?? '',
      building: building.id,
      revision: session.open?.revision ?? 0,
      system: session.system,
    };
  }

  /** A wall with an opening moved; nothing is saved. */
  move(building: Building, wall: string, id: string, by: number, words: string): void {
    const openings = (building.openings ?? []).map((one) =>
      one.id === id ? { ...one, u: rounded(one.u + by) } : one,
    );
    this.#ask(building, { wall, openings }, words);
  }

  /** A wall with its stack joint elsewhere; nothing is saved. */
  stack(building: Building, wall: string, u: number, words: string): void {
    const forms = (building.forms ?? {}) as FormChoices;
    const stacks = [...(forms.stacks ?? []).filter((one) => one.wall !== wall), { wall, u: rounded(u) }];
    this.#ask(building, { wall, forms: { ...forms, stacks } }, words);
  }

  drop(): void {
    this.draft = undefined;
  }

  /** The building that is drawn on, as it was stored then. */
  #on: Building | undefined;
  #of = '';
  /** Another building, or project: its walls may be called alike, but what is drawn is of the one before. */
  follow(project: string, building: string): void {
    const of = `${project}/${building}`;
    if (of !== this.#of) this.drop();
    this.#of = of;
  }

  /** Save what is drawn as one undoable edit. */
  async apply(): Promise<boolean> {
    const [draft, on] = [this.draft, this.#on];
    if (!draft || !on) return false;
    const after = {
      ...on,
      ...(draft.openings ? { openings: draft.openings } : {}),
      ...(draft.forms ? { forms: draft.forms } : {}),
    };
    const good = await session.saveBuilding(after, this.words.slice(0, 200), 'D6', on);
    if (good && this.draft === draft) this.draft = undefined;
    return good;
  }

  save(building: Building, change: Partial<FormChoices>, text: string): Promise<boolean> {
    const forms = { ...(building.forms ?? {}), ...change } as FormChoices;
    return session.saveBuilding({ ...building, forms }, text, 'D6');
  }

  savePour(building: Building, change: Partial<PourChoices>, text: string): void {
    const pour = { ...(building.pour ?? {}), ...change } as PourChoices;
    void session.saveBuilding({ ...building, pour }, text, 'D6');
  }

  moves(building: Building, wall: string, ticket: string): Promise<BuckMove[]> {
    const place = inBuilding(session.open?.project.id ?? '', building.id);
    return take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/courses/moves', {
        params: { ...place.params, query: { wall, ticket } },
      }),
    );
  }

  /** What the simulated tape reads of a block, all from 0. [m] */
  async tape(building: Building, wall: string, course: number, block: number): Promise<number> {
    const place = inBuilding(session.open?.project.id ?? '', building.id);
    const found = await take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/drift/tape', {
        ...place,
        body: { wall, course, block },
      }),
    );
    return found.read;
  }

  #ask(building: Building, draft: Draft, words: string): void {
    this.draft = draft;
    this.#on = building;
    this.words = words;
    this.drawn.ask({ ...this.question(building), draft });
  }
}

export const forms = new Forms();
