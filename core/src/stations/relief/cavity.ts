import { blurPlanes } from '../../filters/blur-planes.ts';
import { blurring, type Field } from '../../filters/gaussian.ts';
import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Sharing } from '../../team/context.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';

/** Height less its surroundings at `sigma` px: positive on ridges, negative in hollows. */
export function* localRelief(
  height: Float32Array,
  sides: Sides,
  sigma: number,
  edges: Edges,
): Steps<Float32Array> {
  const around = yield* blurring(height, sides.width, sides.height, sigma, edges);
  return yield* summing([height, around], [1, -1], {}, around);
}

/** How strong a cavity map is about flat: of what lies below its surroundings and of what stands out of them. */
export interface CavityStrength {
  hollows: number;
  edges: number;
}

/** A local relief as values about 0.5, hollows and what stands out by a gain each, in place. */
function twoSided(local: Float32Array, hollow: number, edge: number): void {
  for (let i = 0; i < local.length; i++) {
    const value = local[i];
    local[i] = Math.min(1, Math.max(0, 0.5 + value * (value < 0 ? hollow : edge)));
  }
}

/** Signed cavity 0..1, 0.5 where flat, darker in hollows; `spread` is the deviation that fills a third. */
export async function cavityMap(
  height: Float32Array,
  field: Field,
  sigma: number,
  spread: number,
  strength: CavityStrength,
  sharing: Sharing,
): Promise<Float32Array> {
  const { checkpoint, team } = sharing;
  if (!(spread > 0)) return team.take(height.length).fill(0.5);
  const [hollow, edge] = [strength.hollows, strength.edges].map((one) => one / (6 * spread));
  const [around] = await blurPlanes([{ plane: height, sigma }], field, sharing);
  if (hollow === edge) {
    const range = { base: 0.5, low: 0, high: 1 };
    return runSteps(summing([height, around], [edge, -edge], range, around), checkpoint);
  }
  const local = await runSteps(summing([height, around], [1, -1], {}, around), checkpoint);
  await runSteps(
    inParts(local.length, (from, to) => twoSided(local.subarray(from, to), hollow, edge)),
    checkpoint,
  );
  return local;
}
