// Runs by the hour: what is supposed, the run, its field, and the fan of harder lives.
import { api, take } from '@/api/client';
import type { Assembly, Fan, HoursRun, Life } from '@/api/client';
import type { States } from '@/draw/states';
import { Live } from '@/api/live.svelte';
import { hours, Solving } from '@/api/solving.svelte';

export interface HoursQuestion {
  project: string;
  building: string;
  revision: number;
  assembly: Assembly;
  life: Life;
  /** Asked again, as after a stop. */
  again: number;
}

export const STATES_A_DAY = 4;

const solving = new Solving(hours);
const fanning = new Solving(hours);

const body = ({ building, assembly, life }: HoursQuestion, ticket: string) => ({
  building_id: building,
  assembly,
  life,
  ticket,
});

class Hours {
  readonly solving = solving;
  readonly fanning = fanning;
  /** What the designer supposes, by building and build-up; what is not there is at its start. */
  lives = $state.raw<Record<string, Partial<Life>>>({});
  field = $state.raw<States>();
  readonly run = new Live<HoursQuestion, HoursRun>((question) =>
    solving.run((ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/hours', {
          params: { path: { project_id: question.project } },
          body: body(question, ticket),
        }),
      ),
    ),
  );
  readonly fan = new Live<HoursQuestion, Fan>((question) =>
    fanning.run((ticket) =>
      take(
        api.POST('/api/v1/projects/{project_id}/moisture/fan', {
          params: { path: { project_id: question.project } },
          body: body(question, ticket),
        }),
      ),
    ),
  );

  /** The states of a run, once it is there. */
  async load(run: HoursRun): Promise<void> {
    if (this.field?.key === run.key) return;
    const answer = await fetch(`/api/v1/moisture/hours/${run.key}/field`);
    if (!answer.ok) return;
    const all = new DataView(await answer.arrayBuffer());
    const places = run.x.length;
    this.field = {
      key: run.key,
      places,
      at: (state, place) => {
        const row = 3 * places * Math.min(Math.max(state, 0), run.hours - 1);
        return {
          theta: all.getInt16(2 * (row + place), true) / 100,
          phi: all.getInt16(2 * (row + places + place), true) / 10000,
          w: all.getInt16(2 * (row + 2 * places + place), true) / 10,
        };
      },
    };
  }
}

export const runs = new Hours();
