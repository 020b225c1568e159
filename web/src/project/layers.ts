// Where in a build-up something is, in words.
import type { Assembly, Material } from '@/api/client';

type Materials = Map<string, Material>;

export function layerName(assembly: Assembly, materials: Materials, at: number): string {
  return materials.get(assembly.layers[at]?.material ?? '')?.name ?? 'air layer';
}

/** Between two layers, or inside of one. */
export function where(assembly: Assembly, materials: Materials, inner: number, outer: number): string {
  return inner === outer
    ? `inside ${layerName(assembly, materials, inner)}`
    : `between ${layerName(assembly, materials, inner)} and ${layerName(assembly, materials, outer)}`;
}

/** At a depth from the inner face, in metres. */
export function beside(assembly: Assembly, materials: Materials, x: number): string {
  let face = 0;
  for (const [at, layer] of assembly.layers.entries()) {
    if (x < face + layer.d - 1e-6) return where(assembly, materials, at, at);
    face += layer.d;
    if (Math.abs(x - face) < 1e-6) return where(assembly, materials, at, at + 1);
  }
  return '';
}
