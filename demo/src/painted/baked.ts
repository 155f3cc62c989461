import { encodeWhole, sha256Of, sourceHost } from '@zesty-tile/codecs';
import { Engine, type GivenRefs, Raster, type Recipe } from '@zesty-tile/core';

/** Maps that were made of a shape, and how a recipe refers to them. */
export interface BakedMaps {
  given: GivenRefs;
  files: Uint8Array[];
}

/** What stands in for the maps that a program for shapes would have baked: height, normal, occlusion and cavity of a recipe's surface. */
export async function bakedMaps(recipe: Recipe, source: Uint8Array, size: number): Promise<BakedMaps> {
  const engine = new Engine(
    sourceHost(async () => source),
    2 ** 29,
  );
  const { surface } = await engine.evaluate({
    recipe,
    source: { sha256: sha256Of(source), width: size, height: size },
    size,
    until: 'coats',
    withoutVerdicts: true,
  });
  const { relief, normal, occlusion, cavity } = surface!;
  const one = (plane: Float32Array) => new Raster(size, size, [plane]);
  const made = {
    height: await encodeWhole(one(relief), 'height'),
    normal: await encodeWhole(normal, 'normal'),
    occlusion: await encodeWhole(one(occlusion!), 'occlusion'),
    cavity: await encodeWhole(one(cavity), 'cavity'),
  };
  const refs = Object.entries(made).map(([map, bytes]) => [
    map,
    { sha256: sha256Of(bytes), width: size, height: size, name: `boards_${map}.png` },
  ]);
  return { given: Object.fromEntries(refs), files: Object.values(made) };
}
