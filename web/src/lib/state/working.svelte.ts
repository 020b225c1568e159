// The figure opened to its working.
import { api, asProblem, take } from '$lib/api/client';
import type { Assembly, Problem, WorkingStep } from '$lib/api/client';

export interface Opened {
  figure: string;
  title: string;
  dimension: string;
  project: string;
  building: string;
  condition: string;
  /** The build-up as drafted; none for a figure of the whole shell. */
  assembly?: Assembly | undefined;
}

class Working {
  opened = $state.raw<Opened>();
  steps = $state.raw<WorkingStep[]>([]);
  problem = $state.raw<Problem>();
  #turn = 0;

  async show(opened: Opened): Promise<void> {
    const turn = ++this.#turn;
    this.opened = opened;
    this.problem = undefined;
    this.steps = [];
    try {
      const found = await take(
        api.POST('/api/v1/projects/{project_id}/working', {
          params: { path: { project_id: opened.project } },
          body: {
            building_id: opened.building,
            condition: opened.condition,
            figure: opened.figure,
            assembly: opened.assembly ?? null,
          },
        }),
      );
      if (turn === this.#turn) this.steps = found.steps;
    } catch (error) {
      if (turn === this.#turn) this.problem = asProblem(error);
    }
  }

  close(): void {
    this.#turn += 1;
    this.opened = undefined;
  }
}

export const working = new Working();
