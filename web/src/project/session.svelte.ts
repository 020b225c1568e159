// What this window holds: the shipped, the open project with its versions, and the saves on their way.
import { api, asProblem, Problem, take } from '@/api/client';
import type {
  Assembly,
  Basis,
  Building,
  Change,
  Consequence,
  Delta,
  Joint,
  Material,
  OwnMaterial,
  ProblemBody,
  ProjectOut,
  Shipped,
  Standard,
} from '@/api/client';
import { Units } from '@/kit/units';
import { itemsOf, withDelta, type Item } from './delta';
import { Live } from '@/api/live.svelte';

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

/** A refusal of an edit with its places named by the things: `#/items/0/document/area` is `#/element/area`. */
function ofThings(error: unknown, items: readonly Item[]): unknown {
  const problem = error as ProblemBody | undefined;
  if (!problem?.errors) return error;
  const named = (pointer: string) =>
    pointer.replace(/^#\/items\/(\d+)(\/document)?/, (_, at: string) => `#/${items[Number(at)]?.kind ?? ''}`);
  return { ...problem, errors: problem.errors.map((one) => ({ ...one, pointer: named(one.pointer) })) };
}

class Session {
  shipped = $state.raw<Shipped>();
  open = $state.raw<ProjectOut>();
  loading = $state(false);
  trouble = $state.raw<Trouble>();
  saving = $state(0);
  /** What was done elsewhere last, until something is done here. */
  elsewhere = $state.raw<{ text: string; who: string }>();
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

  /** The revision of what this window itself has saved last of a draft: it need not fear that. */
  #own = new Map<string, number>();

  /** Write things as one undoable change; without anything to write it is done. */
  #edit(
    items: (force: number | undefined) => Item[],
    text: string,
    zone: string,
    own?: string,
  ): Promise<boolean> {
    return this.#save(
      text,
      (project, since, force) => {
        const written = items(force);
        if (!written.length) return undefined;
        const reply = api.POST('/api/v1/projects/{project_id}/edit', {
          params: { path: { project_id: project }, query: { since } },
          body: { text, zone, items: written },
        });
        return reply.then((got) => ({ ...got, error: ofThings(got.error, written) }));
      },
      (saved) => own && this.#own.set(own, saved.revision),
    );
  }

  /** A draft that was begun on what was stored at a revision: what differs from that is written, and nothing else. */
  saveAssembly(
    assembly: Assembly,
    text: string,
    zone: string,
    begun: { on: Assembly; read: number },
  ): Promise<boolean> {
    const key = `assembly/${assembly.id}`;
    return this.#edit(
      (force) =>
        itemsOf('assembly', begun.on, assembly, force ?? Math.max(begun.read, this.#own.get(key) ?? 0)),
      text,
      zone,
      key,
    );
  }

  saveBasis(basis: Basis, name: string, text: string): Promise<boolean> {
    return this.#edit(
      (force) => [
        ...(name === this.open?.project.name
          ? []
          : [{ kind: 'project', owner: '', id: '', read: force ?? this.#revision, document: { name } }]),
        ...(basis === this.open?.project.basis
          ? []
          : [{ kind: 'basis', owner: '', id: '', read: force ?? this.#revision, document: { ...basis } }]),
      ],
      text,
      '1',
    );
  }

  saveBuilding(building: Building, text: string, zone: string): Promise<boolean> {
    return this.#edit(
      (force) => itemsOf('building', this.building(building.id), building, force ?? this.#revision),
      text,
      zone,
    );
  }

  removeBuilding(building: Building): Promise<boolean> {
    return this.#edit(
      (force) => [
        { kind: 'building', owner: '', id: building.id, read: force ?? this.#revision, document: null },
      ],
      `${building.name} removed`,
      '1',
    );
  }

  saveMaterial(material: OwnMaterial, text: string): Promise<boolean> {
    const known = this.open?.project.materials?.some((one) => one.key === material.key);
    return this.#edit(
      (force) => [
        {
          kind: 'material',
          owner: '',
          id: material.key,
          read: known ? (force ?? this.#revision) : null,
          document: { ...material },
        },
      ],
      text,
      '1',
    );
  }

  removeMaterial(key: string, text: string): Promise<boolean> {
    return this.#edit(
      (force) => [{ kind: 'material', owner: '', id: key, read: force ?? this.#revision, document: null }],
      text,
      '1',
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
    return this.#save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/assemblies', {
        params: { path: { project_id: project }, query: { since } },
        body: { building_id: building, element_id: element, system, values, text, zone },
      }),
    );
  }

  addMaterialLike(like: string, text: string): Promise<boolean> {
    return this.#save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/materials/like', {
        params: { path: { project_id: project }, query: { since } },
        body: { like, text, zone: '1' },
      }),
    );
  }

  importMaterials(content: string, text: string): Promise<boolean> {
    return this.#save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/materials/csv', {
        params: { path: { project_id: project }, query: { since } },
        body: { content, text, zone: '1' },
      }),
    );
  }

  keepStandard(
    assembly: string,
    place: Place,
    reason: string,
    source: string,
    trusted_since: string,
  ): Promise<boolean> {
    return this.#save('kept as a standard', (project, since) =>
      api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/standard', {
        params: { path: { project_id: project, assembly_id: assembly }, query: { since } },
        body: { place, reason, source, trusted_since },
      }),
    );
  }

  useStandard(building: string, element: string, standard: Standard, zone: string): Promise<boolean> {
    const text = `${standard.assembly.name}, standard ${standard.version}`.slice(0, 200);
    return this.#save(text, (project, since) =>
      api.POST('/api/v1/projects/{project_id}/standards', {
        params: { path: { project_id: project }, query: { since } },
        body: { building_id: building, element_id: element, standard_id: standard.id, text, zone },
      }),
    );
  }

  takeOffer(assembly: string, version: number, zone: string): Promise<boolean> {
    const text = `Standard taken, version ${version}`;
    return this.#save(text, (project, since, force) =>
      api.POST('/api/v1/projects/{project_id}/assemblies/{assembly_id}/offer', {
        params: { path: { project_id: project, assembly_id: assembly }, query: { since } },
        body: { text, zone, version: force ?? since },
      }),
    );
  }

  keepJointStandard(
    building: string,
    joint: string,
    reason: string,
    source: string,
    trusted_since: string,
  ): Promise<boolean> {
    return this.#save('kept as a standard', (project, since) =>
      api.POST('/api/v1/projects/{project_id}/buildings/{building_id}/joints/{joint_id}/standard', {
        params: { path: { project_id: project, building_id: building, joint_id: joint }, query: { since } },
        body: { reason, source, trusted_since },
      }),
    );
  }

  takeJointStandard(building: string, joint: Joint, standard: string, version: number): Promise<boolean> {
    const text = `${joint.name}: standard taken, version ${version}`.slice(0, 200);
    return this.#save(text, (project, since, force) =>
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

  /** Take back the newest change, or do the last undone one again. */
  step(direction: 'undo' | 'redo'): Promise<boolean> {
    return this.#save(direction, (project, since) => {
      const number = this.open?.[direction]?.number;
      if (number === undefined) return undefined;
      const address = `/api/v1/projects/{project_id}/${direction}` as const;
      return api.POST(address, {
        params: { path: { project_id: project }, query: { since } },
        body: { number },
      });
    });
  }

  async changes(): Promise<Change[]> {
    const id = this.open?.project.id ?? '';
    return take(api.GET('/api/v1/projects/{project_id}/changes', { params: { path: { project_id: id } } }));
  }

  get #revision(): number {
    return this.open?.revision ?? 0;
  }

  /** One save after the other, each naming the version the one before it left. */
  #save(
    doing: string,
    call: (
      project: string,
      since: number,
      force: number | undefined,
    ) => Promise<{ data?: Delta; error?: unknown; response: Response }> | undefined,
    after: (saved: Delta) => void = () => undefined,
  ): Promise<boolean> {
    const attempt = async (force?: number): Promise<boolean> => {
      const open = this.open;
      const request = open && call(open.project.id, open.revision, force);
      if (!request) return open !== undefined;
      this.saving += 1;
      try {
        const saved = await take(request);
        this.merge(saved);
        this.elsewhere = undefined;
        after(saved);
        this.trouble = undefined;
        this.announcement = doing;
        return true;
      } catch (error) {
        const problem = asProblem(error);
        this.trouble = {
          problem,
          doing,
          retry: () => this.#next(() => attempt()),
          ...(problem.status === 409 && doing !== 'undo' && doing !== 'redo'
            ? { insist: () => this.#next(() => this.#overwrite(attempt)) }
            : {}),
        };
        return false;
      } finally {
        this.saving -= 1;
      }
    };
    return this.#next(() => attempt());
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

  /** The server has a newer revision than was known: another window's, unless a save of this one is on its way. */
  seen(revision: number): Promise<boolean> {
    return this.#next(async () => {
      const open = this.open;
      if (!open || revision <= open.revision) return true;
      try {
        await this.#catchUp();
        const newest = (await this.changes()).at(0);
        if (newest) {
          this.elsewhere = { text: newest.text, who: newest.who };
          this.announcement = `Changed in another window: ${newest.text}`;
        }
        return true;
      } catch {
        return false; // the next save, or the next look, tells it again
      }
    });
  }

  async #catchUp(): Promise<void> {
    const open = this.open;
    if (!open) return;
    const path = { project_id: open.project.id };
    const query = { since: open.revision };
    this.merge(await take(api.GET('/api/v1/projects/{project_id}/delta', { params: { path, query } })));
  }

  /** Learn what was written since, then save on top of it, as the person decided. */
  async #overwrite(again: (force: number) => Promise<boolean>): Promise<boolean> {
    if (!this.open) return false;
    try {
      await this.#catchUp();
      return await again(this.#revision);
    } catch (error) {
      this.trouble = { problem: asProblem(error), doing: 'load the newer version' };
      return false;
    }
  }

  #next(work: () => Promise<boolean>): Promise<boolean> {
    const turn = this.#queue.then(work);
    this.#queue = turn.catch(() => undefined);
    return turn;
  }
}

export const session = new Session();
