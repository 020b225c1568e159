// The one stream by which the server tells this window what it did not ask for.

/** How far the questions of a ticket are. */
export interface Under {
  waiting: number;
  grids: number;
  unknowns: number;
}

interface Handlers {
  /** The project has this revision. */
  changed: (revision: number) => void;
  /** It was moved to the bin. */
  gone: () => void;
}

/** This window's name; tickets of its questions begin with it. (randomUUID is missing on a plain office address.) */
export const WINDOW = Array.from(crypto.getRandomValues(new Uint8Array(12)), (one) =>
  one.toString(16).padStart(2, '0'),
).join('');
let questions = 0;
/** A name for a question of this window. */
export const ticket = () => `${WINDOW}.${(questions += 1)}`;

class Stream {
  /** Counts answers of the solver queue: what rests on them asks again. */
  answers = $state(0);
  under = $state.raw<Record<string, Under>>({});
  #source: EventSource | undefined;

  /** Follow a project; what was followed before is let go. */
  follow(project: string, handlers: Handlers): () => void {
    const address = `/api/v1/projects/${project}/events?window=${WINDOW}`;
    const source = (this.#source = new EventSource(address));
    const hear = <T>(name: string, told: (data: T) => void) =>
      source.addEventListener(name, (event) => told(JSON.parse((event as MessageEvent<string>).data) as T));
    hear<{ revision: number }>('changed', ({ revision }) => handlers.changed(revision));
    hear<unknown>('answered', () => (this.answers += 1));
    hear<{ tickets: Record<string, Under> }>('under', ({ tickets }) => (this.under = tickets));
    hear<unknown>('gone', () => {
      source.close();
      handlers.gone();
    });
    return () => {
      source.close();
      if (this.#source === source) this.under = {};
    };
  }
}

export const stream = new Stream();
