// The figure opened to its working.
import { api, asProblem, inBuilding, take } from '@/api/client';
import type { Assembly, Problem, Studied, WorkingStep } from '@/api/client';

export interface Opened {
  figure: string;
  title: string;
  dimension: string;
  /** Where it is shown finer than its dimension usually is. */
  decimals?: number | undefined;
  project: string;
  building: string;
  condition: string;
  /** The build-up as drafted; none for a figure of the whole shell. */
  assembly?: Assembly | undefined;
  /** What was asked of a study; none for a figure of the build-up. */
  of?: Studied | undefined;
  /** A figure of the whole building: its losses, air, loads and year. */
  whole?: boolean;
  /** The face, panel or build-up that a figure of the set-out or the shop is of. */
  panel?: string;
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
      const { building, condition, figure, assembly, of } = opened;
      const params = { path: { project_id: opened.project } };
      const found = await take(
        opened.panel !== undefined
          ? api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/panel-working', {
              ...inBuilding(opened.project, building),
              body: { figure, of: opened.panel },
            })
          : opened.whole
            ? api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/whole-working', {
                ...inBuilding(opened.project, building),
                body: { figure },
              })
            : of && assembly
              ? api.POST('/api/v1/projects/{project_id}/study-working', {
                  params,
                  body: { building_id: building, assembly, figure, of },
                })
              : api.POST('/api/v1/projects/{project_id}/working', {
                  params,
                  body: { building_id: building, condition, figure, assembly: assembly ?? null },
                }),
      );
      if (turn === this.#turn) this.steps = found.steps;
    } catch (error) {
      if (turn === this.#turn) this.problem = asProblem(error);
    }
  }

  /** A figure whose working came along with it. */
  lay(opened: Opened, steps: WorkingStep[]): void {
    this.#turn += 1;
    this.opened = opened;
    this.problem = undefined;
    this.steps = steps;
  }

  close(): void {
    this.#turn += 1;
    this.opened = undefined;
  }
}

export const working = new Working();
