// The changes that would settle a decision, searched where it stands: of a joint's surface, or of a build-up's moisture.
import { api, asProblem, inProject, take } from '@/api/client';
import type { Building, OpenDecision } from '@/api/client';
import type { Solving } from '@/api/solving.svelte';
import { decisions } from '@/project/decisions.svelte';
import { router } from '@/project/router.svelte';
import { session } from '@/project/session.svelte';

const STOPPED = 409;

/** Search, and read the register anew; what went wrong in words, empty where nothing did. */
export async function searchWays(one: OpenDecision, building: Building, solving: Solving): Promise<string> {
  const at = inProject(router.place.project);
  const element = building.elements?.find(({ id }) => id === one.id);
  const assembly = session.assembly(element?.assembly_id);
  try {
    await solving.run<unknown>((ticket) =>
      assembly
        ? take(
            api.POST('/api/v1/projects/{project_id}/moisture/verdict', {
              ...at,
              body: { building_id: building.id, assembly, ticket },
            }),
          )
        : take(
            api.POST('/api/v1/projects/{project_id}/moisture/joint-surface', {
              ...at,
              body: { building_id: building.id, joint_id: one.id, ticket },
            }),
          ),
    );
    return '';
  } catch (error) {
    const problem = asProblem(error);
    return problem.status === STOPPED ? 'The search was stopped.' : problem.sentence;
  } finally {
    decisions.again();
  }
}
