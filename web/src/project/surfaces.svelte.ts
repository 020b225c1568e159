// Inner surfaces of the building, the worst first: the sheet lists them, the mast hangs the worst at each station.
import { api, take } from '@/api/client';
import type { SurfaceRanking } from '@/api/client';
import { Live } from '@/api/live.svelte';

export interface SurfacesQuestion {
  project: string;
  building: string;
  revision: number;
  /** Joints and fixings that are still being solved: the answer changes as they come in. */
  pending: number;
}

class Surfaces {
  readonly live = new Live<SurfacesQuestion, SurfaceRanking>(({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/surfaces', {
        params: { path: { project_id: project, building_id: building } },
      }),
    ),
  );

  /** What is known of a building; nothing while another one's answer is here. */
  of(building: string): SurfaceRanking | undefined {
    return this.live.answered?.building === building ? this.live.answer : undefined;
  }
}

export const surfaces = new Surfaces();
