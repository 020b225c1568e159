// Geometry of a drawn section: outside on the left, to scale, labels where there is room. No physics, no DOM.
import type { Assembly, Layer, Material } from '@/api/client';
import type { Units } from '@/kit/units';

export interface Slab {
  /** Index in the assembly, from inside. */
  index: number;
  layer: Layer;
  x0: number;
  x1: number;
}

/** Layers as drawn, outermost first; `scale` is px per metre. */
export function slabs(layers: readonly Layer[], left: number, scale: number): Slab[] {
  let x = left;
  return layers
    .map((layer, index) => ({ layer, index }))
    .reverse()
    .map(({ layer, index }) => {
      const slab = { index, layer, x0: x, x1: x + layer.d * scale };
      x = slab.x1;
      return slab;
    });
}

/** px per metre that fits a thickness into a width, no larger than 1:1 on a common screen. */
export function fit(thickness: number, width: number): number {
  return Math.min(width / Math.max(thickness, 0.001), 3200);
}

export interface Flag {
  index: number;
  row: number;
  /** Where the leader meets the slab. */
  x: number;
  side: 'left' | 'right';
}

/**
 * Leader labels: those outside of the core step down from the left, those inside of it from the right. Where a left
 * and a right label of one row would meet, all of the right ones go below the left ones.
 */
export function flags(
  drawn: readonly Slab[],
  wide: number,
  textWidth: (index: number) => number,
): { flags: Flag[]; rows: number; inside: number[] } {
  const core = drawn.findIndex((slab) => slab.layer.studied);
  const split = core >= 0 ? core : Math.floor(drawn.length / 2);
  const inside = drawn
    .filter((slab) => slab.layer.studied && slab.x1 - slab.x0 > wide)
    .map((slab) => slab.index);
  const labelled = drawn.filter((slab) => !inside.includes(slab.index));
  const left = labelled.filter((slab) => drawn.indexOf(slab) <= split);
  const right = labelled.filter((slab) => drawn.indexOf(slab) > split).reverse();
  const place = (side: 'left' | 'right') => (slab: Slab, row: number) => ({
    index: slab.index,
    row,
    x: (slab.x0 + slab.x1) / 2,
    side,
  });
  const lefts = left.map(place('left'));
  const rights = right.map(place('right'));
  const meet = rights.some((flag) => {
    const other = lefts[flag.row];
    return other && other.x + textWidth(other.index) > flag.x - textWidth(flag.index);
  });
  if (meet) for (const flag of rights) flag.row += lefts.length;
  const found = [...lefts, ...rights];
  return { flags: found, rows: Math.max(1, ...found.map((flag) => flag.row + 1)), inside };
}

/** Rows for dimension texts so that neighbours do not touch: 0 above the line, 1 and 2 below it. */
export function dimensionRows(drawn: readonly Slab[], widths: readonly number[]): number[] {
  const ends = [-Infinity, -Infinity, -Infinity];
  return drawn.map((slab, at) => {
    const middle = (slab.x0 + slab.x1) / 2;
    const half = (widths[at] ?? 20) / 2 + 2;
    const row = ends.findIndex((end) => middle - half > end);
    const chosen = row < 0 ? ends.indexOf(Math.min(...ends)) : row;
    ends[chosen] = middle + half;
    return chosen;
  });
}

/** A dragged thickness: whole millimetres or sixteenths, caught by a stock size within reach unless freed. */
export function dragged(
  start: number,
  move: number,
  stock: readonly number[],
  reach: number,
  step: number,
  free: boolean,
): number {
  const raw = Math.max(start + move, step);
  if (!free) {
    const near = stock.find((size) => Math.abs(size - raw) <= reach);
    if (near !== undefined) return near;
  }
  return Number((Math.round(raw / step) * step).toFixed(7));
}

/** Where a section stands on its drawing [px]. */
export interface Frame {
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Of the line of dimensions, and of the overall one below it. */
  dimY: number;
  overallY: number;
  width: number;
  /** px per metre. */
  scale: number;
}

/** What layers are called, and what is said of them. */
export class Words {
  constructor(
    private readonly assembly: Assembly,
    private readonly materials: Map<string, Material>,
    private readonly units: Units,
    /** How many layers count, from inside. */
    private readonly counting: number,
  ) {}

  readonly name = (material: string | undefined): string =>
    material ? (this.materials.get(material)?.name ?? material) : 'Air layer';
  readonly hatch = (material: string | undefined): string | undefined =>
    material ? this.materials.get(material)?.hatch : undefined;
  readonly counted = (index: number): boolean => index < this.counting;

  readonly detail = (index: number): string => {
    const layer = this.assembly.layers[index];
    if (!layer) return '';
    if (!this.counted(index)) return 'not counted';
    if (layer.air)
      return layer.air.ventilation === 'slightly' ? 'slightly ventilated' : layer.air.ventilation;
    const lambda = layer.lambda ?? this.materials.get(layer.material ?? '')?.conductivity;
    return lambda === undefined ? '' : `λ ${this.units.show(lambda, 'conductivity')}`;
  };
}
