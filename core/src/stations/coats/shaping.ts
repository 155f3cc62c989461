import { summing } from '../../planes/summing.ts';
import type { Raster } from '../../raster/raster.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Team } from '../../team/team.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import { cavityMap } from '../relief/cavity.ts';
import { normalsByTeam } from '../relief/normals-band.ts';
import { occlusionMap } from '../relief/occlusion-map.ts';
import type { ReliefOutput } from '../relief/output.ts';
import { cavitySigma } from '../relief/scale.ts';
import { KEPT_SIZE } from './kept.ts';

/** What follows from a height: made by Relief's own rules, so that coats and relief agree. */
export interface Shape {
  normal: Raster;
  cavity: Float32Array;
  /** Null where it was not asked for. */
  occlusion: Float32Array | null;
}

type Context = Pick<WorkContext, 'checkpoint' | 'team'>;

/**
 * The normals of a height in mm: those of Relief, which may have detail of their own, with the slopes of what was added to its
 * height. For a height that Relief made its normals from this is what it would make of the sum.
 */
export async function normalOf(
  heightMm: Float32Array,
  relief: ReliefOutput,
  frame: Frame,
  { team, checkpoint }: Context,
): Promise<Raster> {
  const { kernel, normalStrength, normalY } = relief.shaping.chosen;
  const { depthMm, height } = relief;
  const added = team.take(height.length);
  await runSteps(summing([heightMm, height], [1, -depthMm], {}, added), checkpoint);
  const { width, edges } = frame;
  const how = { kernel, normalY, strength: normalStrength, depthShare: 1 / 1000 / frame.edgeMetres };
  const slopes = await normalsByTeam(
    added,
    relief.normal,
    { ...how, width, height: frame.height, edges },
    { team, checkpoint },
  );
  team.give(added);
  return slopes;
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
  const field = context.team.take(heightMm.length);
  await runSteps(summing([heightMm], [1 / depth], {}, field), context.checkpoint);
  // A flat relief has no spread of its own to go by.
  const spread = cavitySpread > 0 ? cavitySpread * (relief.depthMm / depth) : FLAT_SPREAD;
  const made = await cavityMap(field, frame, cavitySigma(chosen, frame), spread, strength, context);
  context.team.give(field);
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
  const made = await occlusionMap(
    heightMm,
    { ...chosen, depthMm: 1 },
    frame,
    context.checkpoint,
    context.team,
  );
  if (!isOcclusionGiven) return made;
  const given = relief.occlusion;
  return made.map((value, i) => Math.min(value, given[i]));
}

const MADE = new WeakMap<Float32Array, Partial<Shape>>();
const MAKING: {
  [K in keyof Shape]: (
    heightMm: Float32Array,
    relief: ReliefOutput,
    frame: Frame,
    context: Context,
  ) => Promise<Shape[K]>;
} = { normal: normalOf, cavity: cavityOf, occlusion: occlusionOf };

/** What follows from a height in mm, made once as long as that lives, however many coats see it. */
export async function shapeOf<K extends keyof Shape>(
  what: K,
  heightMm: Float32Array,
  relief: ReliefOutput,
  frame: Frame,
  context: Context,
): Promise<Shape[K]> {
  const made = MADE.get(heightMm) ?? {};
  MADE.set(heightMm, made);
  const known = made[what];
  if (known !== undefined) return known;
  const found = await MAKING[what](heightMm, relief, frame, context);
  if (frame.size <= KEPT_SIZE) made[what] = found as Partial<Shape>[K];
  return found;
}

/** Gives back what followed from a height that nobody reads any more. */
export function giveBackShape(heightMm: Float32Array, team: Team): void {
  const { normal, cavity, occlusion } = MADE.get(heightMm) ?? {};
  MADE.delete(heightMm);
  for (const plane of [...(normal?.planes ?? []), cavity, occlusion]) if (plane) team.give(plane);
}

/** A height 0..1 between two heights in mm. */
export function scaledHeight(heightMm: Float32Array, lowMm: number, highMm: number): Steps<Float32Array> {
  const scale = highMm > lowMm ? 1 / (highMm - lowMm) : 0;
  return summing([heightMm], [scale], { base: scale === 0 ? 0.5 : -lowMm * scale, low: 0, high: 1 });
}
