// Moisture of every element and joint of the building, the least margin first: the ledger shows the least one.
import { api, take } from '@/api/client';
import type { Places } from '@/api/client';
import { Live } from '@/api/live.svelte';
import type { SurfacesQuestion } from './surfaces.svelte';

class Verdicts {
  readonly live = new Live<SurfacesQuestion & { look: number }, Places>(({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/verdicts', {
        params: { path: { project_id: project, building_id: building } },
      }),
    ),
  );

  /**
   * Whether something of the building is still being judged: the answer changes as it comes in. Derived, so that who
   * asks again because of it does so when it turns, not with every answer.
   */
  readonly waiting = $derived((this.live.answer?.places ?? []).some((one) => !one.verdict && !one.why_not));

  ask(question: SurfacesQuestion, look = 0): void {
    this.live.askNew({ ...question, look });
  }

  /** What is known of a building; nothing while another one's answer is here. */
  of(building: string): Places | undefined {
    return this.live.answered?.building === building ? this.live.answer : undefined;
  }
}

export const verdicts = new Verdicts();
