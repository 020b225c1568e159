// A joint solved over one of its parameters.
import { api, inProject, take } from './client';
import type { Joint, JointFamily, SweepPoint } from './client';
import type { Solving } from './solving.svelte';

export type Parameter = JointFamily['variants'][number]['parameters'][number];

export interface Swept {
  project: string;
  building: string;
  joint: Joint;
  condition: string;
  key: string;
  values: number[];
}

/** Thirteen values over the range of a parameter; nothing where it has none. */
export function spread(parameter: Parameter | undefined): number[] | undefined {
  const { least, most } = parameter ?? {};
  if (typeof least !== 'number' || typeof most !== 'number') return undefined;
  return Array.from({ length: 13 }, (_, n) => least + (n / 12) * (most - least));
}

/** At working accuracy. */
export async function swept(asked: Swept, solving: Solving): Promise<SweepPoint[]> {
  const { project, building, joint, condition, key, values } = asked;
  const found = await solving.run((ticket) =>
    take(
      api.POST('/api/v1/projects/{project_id}/joint-sweep', {
        ...inProject(project),
        body: { joint, building_id: building, condition, key, values, ticket },
      }),
    ),
  );
  return found.points;
}
