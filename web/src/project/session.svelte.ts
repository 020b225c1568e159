// What this window holds: the shipped, the open project with its versions, and what is written of it.
import { api, asProblem, inBuilding, inProject, take } from '@/api/client';
import type {
  Assembly,
  Basis,
  Building,
  Consequence,
  Delta,
  Material,
  FlatFace,
  OwnMaterial,
  UnitType,
  ProjectOut,
  Shipped,
} from '@/api/client';
import { Units } from '@/kit/units';
import type { UnitSystem } from '@/kit/units';
import { itemsOf, withDelta } from './delta';
import { rebased } from './rebase';
import { Saves } from './saves.svelte';
import { Live } from '@/api/live.svelte';

export type Place = 'wall' | 'roof' | 'floor';

const UNITS = 'nimble-units';
function kept(): UnitSystem | undefined {
  const found = globalThis.localStorage?.getItem(UNITS); // there is none under test
  return found === 'SI' || found === 'IP' ? found : undefined;
}

class Session {
  shipped = $state.raw<Shipped>();
  open = $state.raw<ProjectOut>();
  loading = $state(false);
  readonly saves = new Saves(this);

  readonly ledger = new Live<
    { project: string; building: string; revision: number; system: string },
    Consequence
  >(({ project, building }) =>
    take(
      api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/ledger', inBuilding(project, building)),
    ),
  );
  /** The units that the person at this window reads in; until one is chosen those of the project. */
  #chosen = $state(kept());
  readonly system = $derived(this.#chosen ?? this.open?.project.basis.schools.units ?? 'SI');
  readonly units = $derived.by(() => {
    const comma = this.open?.project.basis.schools.decimal === 'comma';
    const mark = comma ? 'comma' : this.system === 'IP' ? 'point' : undefined;
    return this.shipped ? new Units(this.system, this.shipped.dimensions, mark) : undefined;
  });
  readAs(system: UnitSystem): void {
    this.#chosen = system;
    localStorage.setItem(UNITS, system);
  }
  /** The project's catalogue, as the server has it: shipped and own materials, at the practice's rates. */
  readonly materials = $derived(
    new Map<string, Material>(
      [...(this.shipped?.materials ?? []), ...(this.open?.derived.catalogue ?? [])].map((one) => [
        one.key,
        one,
      ]),
    ),
  );

  async start(): Promise<void> {
    if (this.shipped) return;
    this.shipped = await take(api.GET('/api/v1/shipped'));
  }

  /** Which project this window is to hold; none while it shows the list. */
  #wanted = '';

  async load(id: string): Promise<void> {
    this.#wanted = id;
    this.loading = this.open?.project.id !== id;
    if (!this.loading) return;
    await this.#left();
    try {
      await this.start();
      const found = await take(api.GET('/api/v1/projects/{project_id}', inProject(id)));
      if (this.#wanted === id) this.open = found;
    } catch (error) {
      if (this.#wanted !== id) return;
      this.saves.trouble = {
        problem: asProblem(error),
        doing: 'open the project',
        retry: () => this.reload(id),
      };
    } finally {
      if (this.#wanted === id) this.loading = false;
    }
  }

  /** What could not be written to a project that the window went on from, said where it went. */
  unsaved = $state.raw<{ project: string; said: string }>();

  /** What was typed in a project is written to it before the window holds another one. */
  async #left(): Promise<void> {
    const { open } = this;
    const before = this.saves.trouble;
    if (open) await this.saves.done();
    if (this.open?.project.id === this.#wanted) return; // it came back meanwhile
    const { trouble } = this.saves;
    if (open && trouble && trouble !== before) {
      const doing = this.units?.said(trouble.doing) ?? trouble.doing;
      const why = trouble.problem.items.length ? trouble.problem.clause : trouble.problem.body.title;
      this.unsaved = {
        project: open.project.id,
        said: `Not saved in ${open.project.name}: ${doing}. ${why}.`,
      };
    }
    this.open = undefined;
    this.saves.forget();
    this.#own.clear();
  }

  /** Fetch the project again, whatever this window holds. */
  async reload(id = this.open?.project.id ?? ''): Promise<boolean> {
    try {
      await this.start();
      this.open = await take(api.GET('/api/v1/projects/{project_id}', inProject(id)));
      this.saves.trouble = undefined;
      return true;
    } catch (error) {
      this.saves.trouble = {
        problem: asProblem(error),
        doing: 'open the project',
        retry: () => this.reload(id),
      };
      return false;
    }
  }

  async leave(): Promise<void> {
    this.#wanted = '';
    this.loading = false;
    await this.#left();
  }

  building(id: string): Building | undefined {
    return this.open?.project.buildings?.find((building) => building.id === id);
  }

  assembly(id: string | null | undefined): Assembly | undefined {
    return this.open?.project.assemblies?.find((assembly) => assembly.id === id);
  }

  /** The revision of what this window itself has saved last of a draft: it need not fear that. */
  #own = new Map<string, number>();

  /** A draft that was begun on what was stored at a revision: what differs from that is written, and nothing else. */
  saveAssembly(
    assembly: Assembly,
    text: string,
    zone: string,
    begun: { on: Assembly; read: number },
  ): Promise<boolean> {
    const key = `assembly/${assembly.id}`;
    return this.saves.edit(
      (force) =>
        itemsOf('assembly', begun.on, assembly, force ?? Math.max(begun.read, this.#own.get(key) ?? 0)),
      text,
      zone,
      (saved) => this.#own.set(key, saved.revision),
    );
  }

  /** What a basis changes of the one it was made of, and a new name, done to what stands when it is written. */
  saveBasis(basis: Basis, name: string, text: string): Promise<boolean> {
    const on = this.open?.project;
    return this.saves.edit(
      (force) => {
        const now = this.open?.project;
        if (!on || !now) return [];
        const written = rebased(on.basis, basis, now.basis);
        const read = force ?? this.saves.revision;
        return [
          ...(name === on.name ? [] : [{ kind: 'project', owner: '', id: '', read, document: { name } }]),
          ...(written === now.basis
            ? []
            : [{ kind: 'basis', owner: '', id: '', read, document: { ...written } }]),
        ];
      },
      text,
      '1',
    );
  }

  /** What a building changes of `on`, the one it was made of, done to what stands when it is written. */
  saveBuilding(
    building: Building,
    text: string,
    zone: string,
    on = this.building(building.id),
  ): Promise<boolean> {
    return this.saves.edit(
      (force) => {
        const now = this.building(building.id);
        const written = on && now ? rebased(on, building, now) : building;
        return itemsOf('building', now, written, force ?? this.saves.revision);
      },
      text,
      zone,
    );
  }

  removeBuilding(building: Building): Promise<boolean> {
    return this.#removeRoot('building', building.id, `${building.name} removed`);
  }

  saveMaterial(material: OwnMaterial, text: string): Promise<boolean> {
    const stored = () => this.open?.project.materials?.find((one) => one.key === material.key);
    const on = stored();
    return this.saves.edit(
      (force) => {
        const now = stored();
        const read = on ? (force ?? this.saves.revision) : null;
        const document = { ...(on && now ? rebased(on, material, now) : material) };
        return [{ kind: 'material', owner: '', id: material.key, read, document }];
      },
      text,
      '1',
    );
  }

  removeMaterial(key: string, text: string): Promise<boolean> {
    return this.#removeRoot('material', key, text);
  }

  /** A type of window or door, changed as it stands when it is written. */
  saveUnit(
    id: string,
    change: (now: UnitType | undefined) => Pick<UnitType, 'id' | 'name'> & Partial<UnitType>,
    text: string,
  ): Promise<boolean> {
    return this.saves.edit(
      (force) => {
        const known = this.open?.project.units?.find((one) => one.id === id);
        const read = known ? (force ?? this.saves.revision) : null;
        return [{ kind: 'unit', owner: '', id, read, document: { ...change(known) } }];
      },
      text,
      '1',
    );
  }

  removeUnit(id: string, text: string): Promise<boolean> {
    return this.#removeRoot('unit', id, text);
  }

  /** A thing of the project's own is taken away. */
  #removeRoot(kind: string, id: string, text: string): Promise<boolean> {
    return this.saves.edit(
      (force) => [{ kind, owner: '', id, read: force ?? this.saves.revision, document: null }],
      text,
      '1',
    );
  }

  /** A face that no body has, changed as it stands when it is written; none takes it away. */
  saveFace(
    building: string,
    id: string,
    change: (now: FlatFace | undefined) => FlatFace | null,
    text: string,
  ): Promise<boolean> {
    return this.saves.edit(
      (force) => {
        const known = this.building(building)?.faces.find((one) => one.id === id);
        const face = change(known);
        const read = known ? (force ?? this.saves.revision) : null;
        return [{ kind: 'face', owner: building, id, read, document: face ? { ...face } : null }];
      },
      text.slice(0, 200),
      '1',
    );
  }

  /** Openings of a building take a type of window or door with its size; joints that are theirs alone follow. */
  fillOpenings(building: string, openings: string[], unit: string, text: string): Promise<boolean> {
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/openings/unit', {
        params: { path: { project_id: project, building_id: building }, query: { since } },
        body: { text: text.slice(0, 200), zone: '1', openings, unit },
      }),
    );
  }

  /** Joints round openings of one type take its frame, place, shim and fin. */
  fitJoints(building: Building): Promise<boolean> {
    const text = `${building.name}: joints as their windows and doors`.slice(0, 200);
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/openings/joints', {
        params: { path: { project_id: project, building_id: building.id }, query: { since } },
        body: { text, zone: '1' },
      }),
    );
  }

  /** Build with measures: one change, taken back in one step. */
  adopt(building: string, keys: string[], text: string): Promise<boolean> {
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/measures/adoption', {
        params: { path: { project_id: project, building_id: building }, query: { since } },
        body: { text: text.slice(0, 200), zone: 'D7', keys },
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
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/assemblies', {
        params: { path: { project_id: project }, query: { since } },
        body: { building_id: building, element_id: element, system, values, text, zone },
      }),
    );
  }

  /** Put another build-up of the project in an element's place, or a copy of its own; its joints follow. */
  useAssembly(
    building: string,
    element: string,
    assembly: string | null,
    text: string,
    zone: string,
  ): Promise<boolean> {
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/alternatives', {
        params: { path: { project_id: project }, query: { since } },
        body: { building_id: building, element_id: element, assembly_id: assembly, text, zone },
      }),
    );
  }

  /** A joint for each edge of a building's shape that has none, where a family suits. */
  drawJoints(building: Building): Promise<boolean> {
    const text = `${building.name}: a joint for each edge`.slice(0, 200);
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shape/joints', {
        params: { path: { project_id: project, building_id: building.id }, query: { since } },
        body: { text, zone: '1' },
      }),
    );
  }

  /** Typed areas and lengths are given back to the shape, wherever it has them. */
  followShape(building: Building): Promise<boolean> {
    const text = `${building.name}: areas and lengths follow the shape`.slice(0, 200);
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/shape/followed', {
        params: { path: { project_id: project, building_id: building.id }, query: { since } },
        body: { text, zone: '1' },
      }),
    );
  }

  /** Take a build-up away; what uses it stands in the way, or goes along. */
  removeAssembly(assembly: Assembly, users: 'refuse' | 'take along', zone: string): Promise<boolean> {
    const text = `${assembly.name} removed`.slice(0, 200);
    return this.saves.save(text, (project, since, force) =>
      api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/removal', {
        params: { path: { project_id: project, assembly_id: assembly.id }, query: { since } },
        body: { text, zone, version: force ?? since, users },
      }),
    );
  }

  addMaterialLike(like: string, text: string): Promise<boolean> {
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/materials/like', {
        params: { path: { project_id: project }, query: { since } },
        body: { like, text, zone: '1' },
      }),
    );
  }

  importMaterials(content: string, text: string, instead: boolean): Promise<boolean> {
    return this.saves.save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/materials/csv', {
        params: { path: { project_id: project }, query: { since } },
        body: { content, text, zone: '1', instead },
      }),
    );
  }

  /** Take in what was written since, here or elsewhere. */
  merge(delta: Delta): void {
    const open = this.open;
    if (!open || open.project.id !== delta.project_id || delta.revision < open.revision) return;
    const { revision, undo, redo, changed_at } = delta;
    this.open = {
      ...open,
      project: withDelta(open.project, delta),
      revision,
      undo,
      redo,
      changed_at,
      derived: delta.derived ?? open.derived,
    };
  }
}

export const session = new Session();
