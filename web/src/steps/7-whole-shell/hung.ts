// Losses as rows that hang from their place on the section.
import type { HungLoss } from '@/api/client';

export const ROW = 24;
const GAP = 7;
const HEAD = 4;

export type Order = 'station' | 'loss';

export interface HungRow {
  loss: HungLoss;
  /** Top of the row [px]. */
  y: number;
  /** Whether a station begins with it. */
  first: boolean;
}

export interface StationSpan {
  station: string;
  rows: number;
  top: number;
  bottom: number;
}

const size = (loss: HungLoss) => (loss.H === null ? -Infinity : Math.abs(loss.H));

/** The rows in an order, each with its place. What is not known stands last. */
export function hung(losses: readonly HungLoss[], order: Order): HungRow[] {
  const sorted = losses.toSorted(
    (a, b) =>
      (order === 'station' ? (a.station || 'Z').localeCompare(b.station || 'Z') : 0) || size(b) - size(a),
  );
  let y = HEAD;
  let before = '';
  return sorted.map((loss, at) => {
    const first = order === 'station' && loss.station !== before;
    before = loss.station;
    if (first && at > 0) y += GAP;
    const row = { loss, y, first };
    y += ROW;
    return row;
  });
}

/** From where to where each station's rows stand. */
export function stationsOf(rows: readonly HungRow[]): StationSpan[] {
  const found = new Map<string, StationSpan>();
  for (const { loss, y } of rows) {
    const known = found.get(loss.station);
    if (known) {
      known.rows += 1;
      known.bottom = y + ROW;
    } else found.set(loss.station, { station: loss.station, rows: 1, top: y, bottom: y + ROW });
  }
  return [...found.values()];
}

export const HATCH: Record<HungLoss['kind'], string> = {
  areas: 'url(#h-foam-s)',
  glazing: 'url(#h-glass-s)',
  ground: 'url(#h-earth-s)',
  joints: 'var(--ink)',
  fixings: 'url(#whole-ruled)',
  air: 'url(#whole-dots)',
};

export const KINDS: { kind: HungLoss['kind']; text: string }[] = [
  { kind: 'areas', text: 'areas' },
  { kind: 'glazing', text: 'glazing' },
  { kind: 'ground', text: 'ground' },
  { kind: 'joints', text: 'joints' },
  { kind: 'fixings', text: 'fixings' },
  { kind: 'air', text: 'air' },
];
