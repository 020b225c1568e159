// The core of a build-up, and the panels that go with it.
import type { Assembly } from '@/api/client';

/** The build-up with another core; panels that go with it take its material, where that changes, and its proportion. */
export function withCore(assembly: Assembly, d: number, material?: string): Assembly {
  const now = assembly.layers.find((layer) => layer.studied);
  const core = material !== undefined && material !== now?.material ? material : undefined;
  return {
    ...assembly,
    layers: assembly.layers.map((layer) =>
      now && (layer === now || layer.goes_with_core)
        ? {
            ...layer,
            material: core ?? layer.material,
            d: d * (layer.d / now.d),
            // A declared conductivity belongs to the material that it was declared of.
            lambda: core !== undefined && layer.material !== core ? null : (layer.lambda ?? null),
          }
        : layer,
    ),
  };
}
