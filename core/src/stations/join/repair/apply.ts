import { keyOf } from '../../../hashing/key-of.ts';
import type { Edges } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import type { WorkContext } from '../../../team/context.ts';
import { type PhotoPicture, patchOf, putPatch } from './patch.ts';
import type { Repair } from './repair.ts';
import type { RepairedKind } from './repaired.ts';

/**
 * The tile with its repairs laid on one after the other; itself where there are none. Each patch is kept by all
 * that came before it, so that one more stroke costs one stroke. `id` says which picture of the tile this is.
 */
export async function repaired(
  tile: Raster,
  photo: PhotoPicture,
  repairs: Repair[],
  kind: RepairedKind,
  id: unknown,
  edges: Edges,
  context: WorkContext,
): Promise<Raster> {
  if (repairs.length === 0) return tile;
  const out = new Raster(
    tile.width,
    tile.height,
    tile.planes.map((plane) => plane.slice()),
  );
  let key = keyOf([id, edges]);
  for (const [k, repair] of repairs.entries()) {
    await context.checkpoint(k / repairs.length);
    key = keyOf([key, repair]);
    const patch = await context.part('repair', key, () => patchOf(out, photo, repair, kind, edges));
    if (patch) putPatch(out, patch, edges);
  }
  return out;
}
