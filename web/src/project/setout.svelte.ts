// Faces of the building in hand cut into panels: as saved, and the one that is being drawn on.
import { api, inBuilding, take } from '@/api/client';
import type {
  BodyOpening,
  Building,
  FaceSetOut,
  OpeningMove,
  SetOutChoices,
  SetOutCompared,
  SetOutSheet,
} from '@/api/client';
import { Live } from '@/api/live.svelte';
import { Solving } from '@/api/solving.svelte';
import { session } from './session.svelte';

interface Question {
  project: string;
  building: string;
  revision: number;
  system: string;
  /** Answers of the solver that have come in while some were missing. */
  answers: number;
}
interface Draft {
  face: string;
  choices?: SetOutChoices;
  openings?: BodyOpening[];
}
interface DraftQuestion extends Omit<Question, 'answers'> {
  draft: Draft;
}

/** Changes as they are drawn are kept to whole fractions of a millimetre, so that nothing is a draft by rounding. */
const FINE = 1e4;
export const rounded = (u: number) => Math.round(u * FINE) / FINE;

class SetOut {
  /** What is drawn on a face and not taken yet. */
  draft = $state.raw<Draft>();
  words = $state('');

  readonly solving = new Solving((done, of) => `face ${done + 1} of ${of}`);
  readonly saved = new Live<Question, SetOutSheet>(({ project, building }) =>
    this.solving.run((ticket) =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/setout', {
          params: { ...inBuilding(project, building).params, query: { ticket } },
        }),
      ),
    ),
  );
  readonly drawn = new Live<DraftQuestion, FaceSetOut>(({ project, building, draft }) =>
    take(
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/setout/face', {
        ...inBuilding(project, building),
        body: draft,
      }),
    ),
  );

  /** Joints that stay where they are, as drawn or saved. */
  pins(building: Building, face: string): NonNullable<SetOutChoices['pins']> {
    const choices = this.draft?.face === face ? this.draft.choices : undefined;
    return (choices ?? building.setout)?.pins?.filter((one) => one.face === face) ?? [];
  }

  /** A face with joints pinned anew; nothing is saved. */
  pin(building: Building, face: string, pins: NonNullable<SetOutChoices['pins']>, words: string): void {
    const others = building.setout?.pins?.filter((one) => one.face !== face) ?? [];
    const choices = { ...(building.setout ?? {}), pins: [...others, ...pins] } as SetOutChoices;
    this.#move(building, { face, choices }, words);
  }

  /** A face with an opening moved; nothing is saved. */
  move(building: Building, face: string, id: string, u: number, words: string): void {
    const openings = (building.openings ?? []).map((one) =>
      one.id === id ? { ...one, u: rounded(u) } : one,
    );
    this.#move(building, { face, openings }, words);
  }

  drop(): void {
    this.draft = undefined;
  }

  /** The building that is drawn on, as it was stored then. */
  #on: Building | undefined;
  #of = '';
  /** Another building, or project: its faces may be called alike, but what is drawn is of the one before. */
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
      ...(draft.choices ? { setout: draft.choices } : {}),
    };
    const good = await session.saveBuilding(after, this.words.slice(0, 200), 'D6', on);
    if (good && this.draft === draft) this.draft = undefined;
    return good;
  }

  /** Write a figure that panels keep to. */
  save(building: Building, change: Partial<SetOutChoices>, text: string): void {
    const setout = { ...(building.setout ?? {}), ...change } as SetOutChoices;
    void session.saveBuilding({ ...building, setout }, text, 'D6');
  }

  moves(building: string, face: string, ticket: string): Promise<OpeningMove[]> {
    const place = inBuilding(session.open?.project.id ?? '', building);
    return take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/setout/moves', {
        params: { ...place.params, query: { face, ticket } },
      }),
    );
  }

  compared(building: string, ticket: string): Promise<SetOutCompared[]> {
    const place = inBuilding(session.open?.project.id ?? '', building);
    return take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/setout/compared', {
        params: { ...place.params, query: { ticket } },
      }),
    );
  }

  #move(building: Building, draft: Draft, words: string): void {
    this.draft = draft;
    this.#on = building;
    this.words = words;
    this.drawn.ask({
      project: session.open?.project.id ?? '',
      building: building.id,
      revision: session.open?.revision ?? 0,
      system: session.system,
      draft,
    });
  }
}

export const setout = new SetOut();
