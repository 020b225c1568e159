// What a building comes to, as saved; asked anew with every revision and every answer that was still missing.
import { api, inBuilding, take } from '@/api/client';
import type { Building, BuildingSection, Plant, WholeBuilding } from '@/api/client';
import { Live } from '@/api/live.svelte';
import { session } from './session.svelte';
import { working } from './working.svelte';

interface Question {
  project: string;
  building: string;
  revision: number;
  /** Answers of the solver that have come in while some were missing. */
  answers: number;
  system: string;
}

export const whole = new Live<Question, WholeBuilding>(({ project, building }) =>
  take(api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/whole', inBuilding(project, building))),
);

export const section = new Live<Omit<Question, 'answers' | 'system'>, BuildingSection>(
  ({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/section', inBuilding(project, building)),
    ),
);

/** Open the working of a figure of the whole building; nothing where it has none. */
export function opens(
  found: WholeBuilding,
  building: string,
  figure: string,
  title: string,
  dimension: string,
): (() => void) | undefined {
  if (!found.figures.includes(figure) && !figure.startsWith('cooling_')) return undefined;
  const project = session.open?.project.id ?? '';
  return () =>
    void working.show({ figure, title, dimension, project, building, condition: '0', whole: true });
}

/** Write a figure of a part of a building's plant. */
export function savePlant(
  building: Building,
  part: keyof Plant | '',
  field: string,
  value: unknown,
  text: string,
): void {
  const plant = (building.plant ?? {}) as Plant;
  const changed = part
    ? { ...plant, [part]: { ...(plant[part] as object), [field]: value } }
    : { ...plant, [field]: value };
  void session.saveBuilding({ ...building, plant: changed as Plant }, text, 'D7');
}
