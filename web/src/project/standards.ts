// Standards of the practice: kept from this project, used in it, and their newer versions taken.
import { api } from '@/api/client';
import type { Joint, Standard } from '@/api/client';
import { session, type Place } from './session.svelte';

export function keepStandard(
  assembly: string,
  place: Place,
  reason: string,
  source: string,
  trusted_since: string,
): Promise<boolean> {
  return session.saves.save('kept as a standard', (project, since) =>
    api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/standard', {
      params: { path: { project_id: project, assembly_id: assembly }, query: { since } },
      body: { place, reason, source, trusted_since },
    }),
  );
}

export function useStandard(
  building: string,
  element: string,
  standard: Standard,
  zone: string,
): Promise<boolean> {
  const text = `${standard.assembly.name}, standard ${standard.version}`.slice(0, 200);
  return session.saves.save(text, (project, since) =>
    api.POST('/api/v1/projects/{project_id}/standards', {
      params: { path: { project_id: project }, query: { since } },
      body: { building_id: building, element_id: element, standard_id: standard.id, text, zone },
    }),
  );
}

export function takeOffer(assembly: string, version: number, zone: string): Promise<boolean> {
  const text = `Standard taken, version ${version}`;
  return session.saves.save(text, (project, since, force) =>
    api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/offer', {
      params: { path: { project_id: project, assembly_id: assembly }, query: { since } },
      body: { text, zone, version: force ?? since },
    }),
  );
}

export function keepJointStandard(
  building: string,
  joint: string,
  reason: string,
  source: string,
  trusted_since: string,
): Promise<boolean> {
  return session.saves.save('kept as a standard', (project, since) =>
    api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/standard', {
      params: { path: { project_id: project, building_id: building, joint_id: joint }, query: { since } },
      body: { reason, source, trusted_since },
    }),
  );
}

export function takeJointStandard(
  building: string,
  joint: Joint,
  standard: string,
  version: number,
): Promise<boolean> {
  const text = `${joint.name}: standard taken, version ${version}`.slice(0, 200);
  return session.saves.save(text, (project, since, force) =>
    api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/offer', {
      params: {
        path: { project_id: project, building_id: building, joint_id: joint.id },
        query: { since },
      },
      body: {
        text,
        zone: `${joint.station}3`,
        standard_id: standard,
        version: force ?? since,
      },
    }),
  );
}
