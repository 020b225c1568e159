// What this window holds: the shipped, the open project with its versions, and the saves on their way.
import { api, asProblem, Problem, take } from '$lib/api/client';
import type {
  Assembly,
  Basis,
  Building,
  Change,
  Consequence,
  Joint,
  Material,
  OwnMaterial,
  ProjectOut,
  Shipped,
  Standard,
} from '$lib/api/client';
import { Units } from '$lib/units';
import { Live } from './live.svelte';

export type Place = 'wall' | 'roof' | 'floor';

/** Something the person must know or decide about saving. */
export interface Trouble {
  problem: Problem;
  /** What was being done, in words. */
  doing: string;
  /** Do it again as it was. */
  retry?: () => Promise<boolean>;
  /** Save over the newer version. */
  insist?: () => Promise<boolean>;
}

class Session {
  shipped = $state.raw<Shipped>();
  open = $state.raw<ProjectOut>();
  loading = $state(false);
  trouble = $state.raw<Trouble>();
  saving = $state(0);
  /** Said politely to screen readers, once per edit. */
  announcement = $state('');
  #queue: Promise<unknown> = Promise.resolve();

  readonly ledger = new Live<{ project: string; building: string; revision: number }, Consequence>(
    ({ project, building }) =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/ledger', {
          params: { path: { project_id: project, building_id: building } },
        }),
      ),
  );
  /** The ledger with a draft that is not saved yet; shown instead of the saved one. */
  preview = $state.raw<Consequence>();

  readonly units = $derived(
    this.shipped
      ? new Units(this.open?.project.basis.schools.units ?? 'SI', this.shipped.dimensions)
      : undefined,
  );
  /** Shipped and own materials, at the practice's rates: the project's catalogue. */
  readonly materials = $derived.by(() => {
    const own = (this.open?.project.materials ?? []).map((one) => ({
      ...one,
      conductivity: one.lambda,
      conductivity_fresh: one.lambda_fresh ?? null,
      sd: one.sd ?? null,
    }));
    const rates = this.open?.project.basis.rates ?? [];
    const every: Material[] = [...(this.shipped?.materials ?? []), ...own];
    return new Map<string, Material>(
      every.map((one) => {
        const rate = rates.find((each) => each.material === one.key);
        const at = rate && {
          cost: rate.cost ?? one.cost,
          carbon: rate.carbon ?? one.carbon,
          stock: rate.stock ?? one.stock,
        };
        return [one.key, { ...one, ...at }];
      }),
    );
  });

  async start(): Promise<void> {
    if (this.shipped) return;
    this.shipped = await take(api.GET('/api/v1/shipped'));
  }

  async load(id: string): Promise<void> {
    if (this.open?.project.id === id) return;
    this.loading = true;
    this.open = undefined;
    this.trouble = undefined;
    try {
      await this.start();
      this.open = await take(
        api.GET('/api/v1/projects/{project_id}', { params: { path: { project_id: id } } }),
      );
    } catch (error) {
      this.trouble = { problem: asProblem(error), doing: 'open the project', retry: () => this.reload(id) };
    } finally {
      this.loading = false;
    }
  }

  /** Fetch the project again, whatever this window holds. */
  async reload(id = this.open?.project.id ?? ''): Promise<boolean> {
    try {
      await this.start();
      this.open = await take(
        api.GET('/api/v1/projects/{project_id}', { params: { path: { project_id: id } } }),
      );
      this.trouble = undefined;
      return true;
    } catch (error) {
      this.trouble = { problem: asProblem(error), doing: 'open the project', retry: () => this.reload(id) };
      return false;
    }
  }

  leave(): void {
    this.open = undefined;
    this.trouble = undefined;
    this.preview = undefined;
  }

  building(id: string): Building | undefined {
    return this.open?.project.buildings?.find((building) => building.id === id);
  }

  assembly(id: string | null | undefined): Assembly | undefined {
    return this.open?.project.assemblies?.find((assembly) => assembly.id === id);
  }

  saveAssembly(assembly: Assembly, text: string, zone: string): Promise<boolean> {
    return this.#save(text, (project, force) =>
      api.PUT('/api/v1/projects/{project_id}/assemblies', {
        params: { path: { project_id: project } },
        body: { assembly, text, zone, version: this.#version(`assembly/${assembly.id}`, force) },
      }),
    );
  }

  saveBasis(basis: Basis, name: string, text: string): Promise<boolean> {
    return this.#save(text, (project, force) =>
      api.PUT('/api/v1/projects/{project_id}/basis', {
        params: { path: { project_id: project } },
        body: { basis, name, text, zone: '1', version: this.#version('basis', force) },
      }),
    );
  }

  saveBuilding(building: Building, text: string, zone: string): Promise<boolean> {
    return this.#save(text, (project, force) => {
      const known = this.open?.versions[`building/${building.id}`] !== undefined;
      const version = known ? this.#version(`building/${building.id}`, force) : null;
      return api.PUT('/api/v1/projects/{project_id}/buildings', {
        params: { path: { project_id: project } },
        body: { building, text, zone, version },
      });
    });
  }

  removeBuilding(building: Building): Promise<boolean> {
    const text = `${building.name} removed`;
    return this.#save(text, (project, force) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/removal', {
        params: { path: { project_id: project, building_id: building.id } },
        body: { text, zone: '1', version: this.#version(`building/${building.id}`, force) },
      }),
    );
  }

  startAssembly(
    building: string,
    element: string,
    system: string,
    values: Record<string, number | string>,
    text: string,
    zone: string,
  ): Promise<boolean> {
    return this.#save(text, (project) =>
      api.POST('/api/v1/projects/{project_id}/assemblies', {
        params: { path: { project_id: project } },
        body: { building_id: building, element_id: element, system, values, text, zone },
      }),
    );
  }

  saveMaterials(materials: OwnMaterial[], text: string): Promise<boolean> {
    return this.#save(text, (project, force) =>
      api.PUT('/api/v1/projects/{project_id}/materials', {
        params: { path: { project_id: project } },
        body: { materials, text, zone: '1', version: this.#version('basis', force) },
      }),
    );
  }

  addMaterialLike(like: string, text: string): Promise<boolean> {
    return this.#save(text, (project, force) =>
      api.POST('/api/v1/projects/{project_id}/materials/like', {
        params: { path: { project_id: project } },
        body: { like, text, zone: '1', version: this.#version('basis', force) },
      }),
    );
  }

  importMaterials(content: string, text: string): Promise<boolean> {
    return this.#save(text, (project, force) =>
      api.POST('/api/v1/projects/{project_id}/materials/csv', {
        params: { path: { project_id: project } },
        body: { content, text, zone: '1', version: this.#version('basis', force) },
      }),
    );
  }

  keepStandard(
    assembly: string,
    place: Place,
    reason: string,
    source: string,
    since: string,
  ): Promise<boolean> {
    return this.#save('kept as a standard', (project) =>
      api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/standard', {
        params: { path: { project_id: project, assembly_id: assembly } },
        body: { place, reason, source, trusted_since: since },
      }),
    );
  }

  useStandard(building: string, element: string, standard: Standard, zone: string): Promise<boolean> {
    const text = `${standard.assembly.name}, standard ${standard.version}`.slice(0, 200);
    return this.#save(text, (project) =>
      api.POST('/api/v1/projects/{project_id}/standards', {
        params: { path: { project_id: project } },
        body: { building_id: building, element_id: element, standard_id: standard.id, text, zone },
      }),
    );
  }

  takeOffer(assembly: string, version: number, zone: string): Promise<boolean> {
    const text = `Standard taken, version ${version}`;
    return this.#save(text, (project, force) =>
      api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/offer', {
        params: { path: { project_id: project, assembly_id: assembly } },
        body: { text, zone, version: this.#version(`assembly/${assembly}`, force) },
      }),
    );
  }

  keepJointStandard(
    building: string,
    joint: string,
    reason: string,
    source: string,
    since: string,
  ): Promise<boolean> {
    return this.#save('kept as a standard', (project) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/standard', {
        params: { path: { project_id: project, building_id: building, joint_id: joint } },
        body: { reason, source, trusted_since: since },
      }),
    );
  }

  takeJointStandard(building: string, joint: Joint, standard: string, version: number): Promise<boolean> {
    const text = `${joint.name}: standard taken, version ${version}`.slice(0, 200);
    return this.#save(text, (project, force) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/offer', {
        params: { path: { project_id: project, building_id: building, joint_id: joint.id } },
        body: {
          text,
          zone: `${joint.station}3`,
          standard_id: standard,
          version: this.#version(`building/${building}`, force),
        },
      }),
    );
  }

  /** Take back the newest change, or do the last undone one again. */
  step(direction: 'undo' | 'redo'): Promise<boolean> {
    return this.#save(direction, (project) => {
      const number = this.open?.[direction]?.number;
      if (number === undefined) return undefined;
      const address = `/api/v1/projects/{project_id}/${direction}` as const;
      return api.POST(address, { params: { path: { project_id: project } }, body: { number } });
    });
  }

  async changes(): Promise<Change[]> {
    const id = this.open?.project.id ?? '';
    return take(api.GET('/api/v1/projects/{project_id}/changes', { params: { path: { project_id: id } } }));
  }

  #forced: Record<string, number> | undefined;

  #version(key: string, force: boolean): number {
    return (force ? this.#forced?.[key] : undefined) ?? this.open?.versions[key] ?? 0;
  }

  /** One save after the other, each naming the version the one before it left. */
  #save(
    doing: string,
    call: (
      project: string,
      force: boolean,
    ) => Promise<{ data?: ProjectOut; error?: unknown; response: Response }> | undefined,
  ): Promise<boolean> {
    const attempt = async (force: boolean): Promise<boolean> => {
      const project = this.open?.project.id;
      const request = project && call(project, force);
      if (!request) return false;
      this.saving += 1;
      try {
        const saved = await take(request);
        this.open = saved;
        this.trouble = undefined;
        this.announcement = doing;
        return true;
      } catch (error) {
        const problem = asProblem(error);
        this.trouble = {
          problem,
          doing,
          retry: () => this.#next(() => attempt(false)),
          ...(problem.status === 409 && doing !== 'undo' && doing !== 'redo'
            ? { insist: () => this.#next(() => this.#overwrite(() => attempt(true))) }
            : {}),
        };
        return false;
      } finally {
        this.saving -= 1;
      }
    };
    return this.#next(() => attempt(false));
  }

  /** Learn the newest versions, then save on top of them, as the person decided. */
  async #overwrite(again: () => Promise<boolean>): Promise<boolean> {
    const id = this.open?.project.id ?? '';
    try {
      const newest = await take(
        api.GET('/api/v1/projects/{project_id}', { params: { path: { project_id: id } } }),
      );
      this.#forced = newest.versions;
      return await again();
    } catch (error) {
      this.trouble = { problem: asProblem(error), doing: 'load the newer version' };
      return false;
    } finally {
      this.#forced = undefined;
    }
  }

  #next(work: () => Promise<boolean>): Promise<boolean> {
    const turn = this.#queue.then(work);
    this.#queue = turn.catch(() => undefined);
    return turn;
  }
}

export const session = new Session();
