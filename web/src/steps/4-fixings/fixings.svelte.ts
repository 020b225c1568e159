// The group of fixings on the bench: what it can start as, and its answer; the draft is the build-up's.
import { api, take } from '@/api/client';
import type { Assembly, Fixing, FixingKinds, FixingOut } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { Solving } from '@/api/solving.svelte';

export interface FixingQuestion {
  project: string;
  building: string;
  assembly: Assembly;
  fixing: string;
  condition: string;
  accuracy: 'working' | 'final';
  revision: number;
}

const REST = 350; // after the last change, before the final answer is asked [ms]

class Fixings {
  offered = $state.raw<FixingKinds>();
  readonly solving = new Solving();
  readonly live = new Live<FixingQuestion, FixingOut>(
    ({ project, building, assembly, fixing, condition, accuracy }) =>
      this.solving.run((ticket) =>
        take(
          api.POST('/api/v1/projects/{project_id}/fixing', {
            params: { path: { project_id: project } },
            body: { building_id: building, assembly, fixing_id: fixing, condition, accuracy, ticket },
          }),
        ),
      ),
  );
  #resting: ReturnType<typeof setTimeout> | undefined;

  async start(): Promise<void> {
    this.offered ??= await take(api.GET('/api/v1/fixing-kinds'));
  }

  /** Working accuracy at once, final accuracy at rest. */
  ask(question: Omit<FixingQuestion, 'accuracy'>): void {
    clearTimeout(this.#resting);
    this.live.ask({ ...question, accuracy: 'working' });
    this.#resting = setTimeout(() => this.live.ask({ ...question, accuracy: 'final' }), REST);
  }

  /** A group at usual sizes for a layer of a build-up. */
  begin(
    project: string,
    building: string,
    assembly: Assembly,
    kind: string,
    layer: string,
    id: string,
  ): Promise<Fixing> {
    return take(
      api.POST('/api/v1/projects/{project_id}/fixing-start', {
        params: { path: { project_id: project } },
        body: { building_id: building, assembly, kind, layer, fixing_id: id },
      }),
    );
  }
}

export const fixings = new Fixings();
