import { describe, expect, it } from 'vitest';
import { hung, stationsOf } from './hung';

const loss = (id: string, station: string, H: number | null) =>
  ({ id, station, name: id, kind: 'areas', H, amount: 1, unit: 'area' }) as const;

describe('rows that hang from the section', () => {
  const losses = [
    loss('wall', 'D', 20),
    loss('roof', 'B', 30),
    loss('corner', 'D', -2),
    loss('eave', 'C', null),
  ];

  it('stand by station from the ridge down, the largest of a station first', () => {
    const rows = hung(losses, 'station');
    expect(rows.map((one) => one.loss.id)).toEqual(['roof', 'eave', 'wall', 'corner']);
    expect(rows.map((one) => one.y)).toEqual([...rows.map((one) => one.y)].toSorted((a, b) => a - b));
  });

  it('or by what they lose, what is not known last', () => {
    expect(hung(losses, 'loss').map((one) => one.loss.id)).toEqual(['roof', 'wall', 'corner', 'eave']);
  });

  it('and a station spans its rows', () => {
    const [first] = stationsOf(hung(losses, 'station')).filter((one) => one.station === 'D');
    expect(first).toBeDefined();
    expect(first && first.bottom - first.top).toBeGreaterThan(first ? first.rows * 10 : 0);
  });
});
