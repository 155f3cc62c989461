import { KERNELS } from '../../kernels/kernels.ts';
import type { Raster } from '../../raster/raster.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';
import { cavityMap } from '../relief/cavity.ts';
import { occlusionMap } from '../relief/occlusion-map.ts';
import type { ReliefOutput } from '../relief/output.ts';
import { cavitySigma } from '../relief/scale.ts';

/** What follows from a height: made by Relief's own rules, so that coats and relief agree. */
export interface Shape {
  normal: Raster;
  cavity: Float32Array;
  /** Null where it was not asked for. */
  occlusion: Float32Array | null;
}

type Context = Pick<WorkContext, 'checkpoint' | 'team'>;

/** Adds the slopes of a height's normals to those of others: unit vectors again, in place of the second. */
function* addingSlopes(base: Raster, added: Raster): Steps<Raster> {
  const [ax, ay, az] = base.planes;
  const [bx, by, bz] = added.planes;
  yield* inParts(ax.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const za = Math.max(1e-4, az[i]);
      const x = ax[i] / za + bx[i] / bz[i];
      const y = ay[i] / za + by[i] / bz[i];
      const length = Math.sqrt(x * x + y * y + 1);
      bx[i] = x / length;
      by[i] = y / length;
      bz[i] = 1 / length;
    }
  });
  return added;
}

/**
 * The normals of a height in mm: those of Relief, which may have detail of their own, with the slopes of what was added to its
 * height. For a height that Relief made its normals from this is what it would make of the sum.
 */
export async function normalOf(
  heightMm: Float32Array,
  relief: ReliefOutput,
  frame: Frame,
  { checkpoint }: Context,
): Promise<Raster> {
  const { kernel, normalStrength, normalY } = relief.shaping.chosen;
  const added = new Float32Array(heightMm.length);
  const { depthMm, height } = relief;
  await runSteps(
    inParts(added.length, (from, to) => {
      for (let i = from; i < to; i++) added[i] = heightMm[i] - depthMm * height[i];
    }),
    checkpoint,
  );
  const mm = 1 / 1000 / frame.edgeMetres;
  const slopes = await runSteps(
    KERNELS.makingNormals(added, frame, mm, normalStrength, kernel, normalY, frame.edges),
    checkpoint,
  );
  return runSteps(addingSlopes(relief.normal, slopes), checkpoint);
}

/** A height in mm on Relief's own scale, on which its depth is 1. */
async function onScale(
  heightMm: Float32Array,
  depthMm: number,
  { checkpoint }: Context,
): Promise<Float32Array> {
  const out = new Float32Array(heightMm.length);
  await runSteps(
    inParts(out.length, (from, to) => {
      for (let i = from; i < to; i++) out[i] = heightMm[i] / depthMm;
    }),
    checkpoint,
  );
  return out;
}

/** Where Relief has no depth, heights in mm are measured by one of this many. */
const LEAST_DEPTH = 1;

/** Cavity 0..1 of a height in mm, as strong and broad as Relief's; a supplied one keeps what it says of its own. */
export async function cavityOf(
  heightMm: Float32Array,
  relief: ReliefOutput,
  frame: Frame,
  context: Context,
): Promise<Float32Array> {
  const { chosen, cavitySpread, isCavityGiven } = relief.shaping;
  const depth = Math.max(LEAST_DEPTH, relief.depthMm);
  const strength = {
    hollows: chosen.cavityStrength * chosen.cavityHollows,
    edges: chosen.cavityStrength * chosen.cavityEdges,
  };
  const field = await onScale(heightMm, depth, context);
  // A flat relief has no spread of its own to go by.
  const spread = cavitySpread > 0 ? cavitySpread * (relief.depthMm / depth) : FLAT_SPREAD;
  const made = await runSteps(
    cavityMap(field, frame, cavitySigma(chosen, frame), spread, strength, frame.edges),
    context.checkpoint,
  );
  if (!isCavityGiven) return made;
  return made.map((value, i) => Math.min(1, Math.max(0, relief.cavity[i] + value - 0.5)));
}

/** Spread of local relief, as a share of a millimetre, where Relief has none. */
const FLAT_SPREAD = 0.1;

/** Visibility 0..1 of a height in mm, as far and strong as Relief's; a supplied one is darkened by it. */
export async function occlusionOf(
  heightMm: Float32Array,
  relief: ReliefOutput,
  frame: Frame,
  context: Context,
): Promise<Float32Array | null> {
  if (!relief.occlusion) return null;
  const { chosen, isOcclusionGiven } = relief.shaping;
  const field = await onScale(heightMm, 1, context);
  const made = await occlusionMap(field, { ...chosen, depthMm: 1 }, frame, context.checkpoint, context.team);
  if (!isOcclusionGiven) return made;
  const given = relief.occlusion;
  return made.map((value, i) => Math.min(value, given[i]));
}

/** A height 0..1 between two heights in mm. */
export function* scaledHeight(heightMm: Float32Array, lowMm: number, highMm: number): Steps<Float32Array> {
  const out = new Float32Array(heightMm.length);
  const scale = highMm > lowMm ? 1 / (highMm - lowMm) : 0;
  yield* inParts(out.length, (from, to) => {
    for (let i = from; i < to; i++) {
      out[i] = scale === 0 ? 0.5 : Math.min(1, Math.max(0, (heightMm[i] - lowMm) * scale));
    }
  });
  return out;
}
