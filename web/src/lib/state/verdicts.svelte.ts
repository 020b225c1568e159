// Moisture of every element and joint of the building, the least margin first: the ledger shows the least one.
import { api, take } from '$lib/api/client';
import type { Places } from '$lib/api/client';
import { Live } from './live.svelte';
import type { SurfacesQuestion } from './surfaces.svelte';

const PATIENCE = 1500; // before what is still being judged is looked for again [ms]

class Verdicts {
  #waiting: ReturnType<typeof setTimeout> | undefined;
  readonly live = new Live<SurfacesQuestion & { look: number }, Places>(async ({ project, building }) => {
    const found = await take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/verdicts', {
        params: { path: { project_id: project, building_id: building } },
      }),
    );
    if (found.places.some((one) => !one.verdict && !one.why_not)) this.#again();
    return found;
  });

  ask(question: SurfacesQuestion): void {
    this.live.ask({ ...question, look: 0 });
  }

  /** What is known of a building; nothing while another one's answer is here. */
  of(building: string): Places | undefined {
    return this.live.answered?.building === building ? this.live.answer : undefined;
  }

  #again(): void {
    clearTimeout(this.#waiting);
    this.#waiting = setTimeout(() => {
      const last = this.live.asked;
      if (last) this.live.ask({ ...last, look: last.look + 1 });
    }, PATIENCE);
  }
}

export const verdicts = new Verdicts();
