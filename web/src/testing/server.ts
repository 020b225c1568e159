// A stand-in for the server in tests: every request is recorded, and answered when the test says so.
import { vi } from 'vitest';
import type { Delta, ProblemBody, ProjectOut } from '@/api/client';

export interface Asked {
  method: string;
  path: string;
  params: { path?: Record<string, string>; query?: Record<string, unknown> };
  body: unknown;
  reply: (data: unknown) => void;
  refuse: (status: number, body?: Partial<ProblemBody>) => void;
  /** The server does not answer. */
  lose: () => void;
}

/** Requests in the order in which they were made. */
export const asked: Asked[] = [];
export const newest = (): Asked => {
  const last = asked.at(-1);
  if (!last) throw new Error('nothing was asked');
  return last;
};
/** Let everything that waits go on. */
export const settle = () => new Promise((done) => setTimeout(done));

function request(method: string) {
  return (path: string, options: Partial<Asked> = {}) =>
    new Promise((answer, fail) => {
      const status = (code: number) => ({ ok: code < 400, status: code }) as Response;
      asked.push({
        method,
        path,
        params: options.params ?? {},
        body: options.body,
        reply: (data) => answer({ data, response: status(200) }),
        refuse: (code, body = {}) =>
          answer({
            error: { title: 'Refused', status: code, detail: '', hint: '', errors: [], ...body },
            response: status(code),
          }),
        lose: () => fail(new TypeError('fetch failed')),
      });
    });
}

/** The client module with this stand-in for its requests; for `vi.mock`. */
export async function standIn(original: () => Promise<unknown>): Promise<Record<string, unknown>> {
  const real = (await original()) as Record<string, unknown>;
  const api = { use: vi.fn() } as Record<string, unknown>;
  for (const method of ['GET', 'POST', 'PUT', 'DELETE']) api[method] = request(method);
  return { ...real, api };
}

/** An open project with as much in it as a test names. */
export function opened(project: Record<string, unknown> = {}, more: Partial<ProjectOut> = {}): ProjectOut {
  const basis = { schools: { units: 'SI' } };
  return {
    project: { id: 'p', name: 'P', basis, buildings: [], assemblies: [], materials: [], ...project },
    revision: 1,
    undo: null,
    redo: null,
    changed_at: '',
    derived: { catalogue: [] },
    ...more,
  } as unknown as ProjectOut;
}

/** What a save of this revision answers. */
export const written = (revision: number, more: Partial<Delta> = {}): Delta =>
  ({
    project_id: 'p',
    revision,
    undo: null,
    redo: null,
    changed_at: '',
    things: [],
    orders: [],
    derived: null,
    ...more,
  }) as unknown as Delta;
