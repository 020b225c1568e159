// Footprints from a few lengths, as the core has them: anticlockwise from the lower left corner. Metres.
import type { Body, Building } from '@/api/client';
import type { Outline } from './outline';

export type Plan = 'rectangle' | 'L' | 'T' | 'U';

export function footprint(plan: Plan, long: number, wide: number, arm: number, depth: number): Outline {
  const low = wide - depth;
  if (plan === 'rectangle')
    return [
      [0, 0],
      [long, 0],
      [long, wide],
      [0, wide],
    ];
  if (plan === 'L')
    return [
      [0, 0],
      [long, 0],
      [long, low],
      [arm, low],
      [arm, wide],
      [0, wide],
    ];
  if (plan === 'U')
    return [
      [0, 0],
      [long, 0],
      [long, wide],
      [long - arm, wide],
      [long - arm, low],
      [arm, low],
      [arm, wide],
      [0, wide],
    ];
  const [a, b] = [(long - arm) / 2, (long + arm) / 2];
  return [
    [0, 0],
    [long, 0],
    [long, low],
    [b, low],
    [b, wide],
    [a, wide],
    [a, low],
    [0, low],
  ];
}

/** A body to begin with: one storey under a flat roof, counted with the building's first wall, roof and floor. */
export function newBody(building: Building, outline: Outline, source = ''): Body {
  const first = (stations: string) =>
    building.elements?.find((one) => stations.includes(one.station))?.id ?? '';
  return {
    id: 'b1',
    name: building.name.slice(0, 80),
    outline,
    storeys: [2.8],
    roof: { form: 'flat', pitch: 0, towards: 180, overhang: 0, parapet: 0 },
    base: 0,
    ground: 0,
    sides: [],
    parts: [],
    below: '',
    wall: first('D'),
    top: first('B'),
    floor: first('HF'),
    source,
  };
}
