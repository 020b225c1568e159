// The one register of what is open in the building: strip, mast, ledger and the key n read it, and nothing else.
import { api, take } from '@/api/client';
import type { OpenDecision, Register } from '@/api/client';
import { Live } from '@/api/live.svelte';
import type { SurfacesQuestion } from './surfaces.svelte';

class Decisions {
  readonly live = new Live<SurfacesQuestion & { look: number; system: string }, Register>(
    ({ project, building }) =>
      take(
        api.GET('/api/v1/projects/{project_id}/buildings/{building_id}/decisions', {
          params: { path: { project_id: project, building_id: building } },
        }),
      ),
  );

  /** Read it anew: what was searched is a way out of what is open. */
  again(): void {
    this.live.again();
  }

  /** Whether a building's register has been read; until then nothing is known of what is open. */
  knows(building: string): boolean {
    return this.live.answered?.building === building;
  }

  /** Whether some of it is still being found out. */
  readonly waiting = $derived((this.live.answer?.waiting ?? 0) > 0);

  /** What is known of a building; nothing while another one's answer is here. */
  of(building: string): readonly OpenDecision[] {
    return this.live.answered?.building === building ? (this.live.answer?.decisions ?? []) : [];
  }

  /** What falls short in a building, without what nobody has said yet. */
  open(building: string): readonly OpenDecision[] {
    return this.of(building).filter((one) => one.state === 'open');
  }
}

export const decisions = new Decisions();

/** Whether a decision is seen in a step: where it stands, and surfaces of joints in Moisture, too. */
export function seenIn(one: OpenDecision, step: number): boolean {
  return one.step === step || (one.matter === 'surface' && step === 5);
}

/** The decision after the one that was gone to last; from the end it begins again. */
export function after(all: readonly OpenDecision[], last: string): OpenDecision | undefined {
  const at = all.findIndex((one) => one.key === last);
  return all[(at + 1) % all.length];
}
