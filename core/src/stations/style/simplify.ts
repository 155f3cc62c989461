import { blurring } from '../../filters/gaussian.ts';
import { PLANES } from '../../memory/pool.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { WorkContext } from '../../team/context.ts';
import { bandsOf } from '../../team/in-bands.ts';
import type { GivenOf } from '../../team/task.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import { flowOf, structureTensor } from './flow.ts';
import { interleave, planeOf } from './interleaved.ts';
import { type AlongFlow, shockBand, smoothBand } from './simplify-band.ts';

/** Lengths as shares of the smallest shape kept. */
const BEFORE = 0.12;
const INNER = 0.15;
const OUTER = 0.7;
const ALONG = 0.75;
const ACROSS = 0.22;
const STEP = 0.15;
/** Rounds of smoothing and sharpening. */
const ROUNDS = 2;
/** σ of the wider of two Gaussians whose difference tells the bright side of an edge, by the narrower one's. */
const WIDER = 1.6;
/** Difference of lightness at which an edge is sharpened with most of its strength. */
const PLAIN = 0.004;
/** σ of what takes away the steps that sharpening leaves, as a share of the shorter edge, in pixels at most. */
const AFTER = 0.0005;
const AFTER_MOST = 0.5;

/** Bright and dark sides of edges: above and below 0, −1..1, by the difference of two Gaussians. */
async function edgeSigns(
  lightness: Float32Array,
  { width, height }: Sides,
  edges: Edges,
  sigma: number,
  checkpoint: Checkpoint,
): Promise<Float32Array> {
  const narrow = await runSteps(blurring(lightness, width, height, sigma, edges), checkpoint);
  const wide = await runSteps(blurring(lightness, width, height, sigma * WIDER, edges), checkpoint);
  for (let i = 0; i < narrow.length; i++) {
    const d = (narrow[i] - wide[i]) / PLAIN;
    narrow[i] = d / Math.sqrt(1 + d * d);
  }
  PLANES.give(wide);
  await checkpoint(0);
  return narrow;
}

/** Steps along a Gaussian of `sigma` pixels, no further apart than what was blurred before shows. */
export function stepsAlong(sigma: number, apart: number): AlongFlow {
  const step = Math.max(1, apart);
  const count = Math.ceil((2 * sigma) / step);
  const weight = (k: number) => Math.exp(-((k * step) ** 2) / (2 * sigma * sigma));
  return { weights: Array.from({ length: count + 1 }, (_, k) => weight(k)), step };
}

/**
 * Shapes simplified and their contours kept: smoothed along the structure, sharpened across it, twice (Kyprianidis & Kang
 * 2011; shock filter: Osher & Rudin 1990). `planes` are L, a, b (OKLab) and a height, which goes along, so that relief looks
 * carved; `shape` is the size of the smallest shape kept, as a share of the shorter edge. The planes stay as they are.
 */
export async function simplified(
  planes: readonly Float32Array[],
  shape: number,
  sides: Sides,
  edges: Edges,
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
): Promise<Float32Array[]> {
  const { width, height } = sides;
  const edge = Math.min(width, height);
  const c = shape * edge;
  const tensor = await runSteps(
    structureTensor(planes.slice(0, 3), sides, edges, INNER * c, OUTER * c),
    checkpoint,
  );
  const { x, y } = await runSteps(flowOf(tensor, null), checkpoint);
  PLANES.give(tensor.xx, tensor.xy, tensor.yy);
  const count = width * height;
  const flow = interleave([x, y], team.empty(2 * count));
  PLANES.give(x, y);
  const blurred = async (plane: Float32Array, sigma: number) =>
    runSteps(blurring(plane, width, height, sigma, edges), checkpoint);
  const soft: Float32Array[] = [];
  for (const plane of planes) soft.push(await blurred(plane, BEFORE * c));
  // Two arrays in turns: each step reads one and writes the other.
  const pixels = interleave(soft, team.empty(4 * count));
  const other = team.empty(4 * count);
  PLANES.give(...soft);
  const bands = bandsOf(height, team);
  const reach = Math.max(1, Math.round(ACROSS * c));
  const along = stepsAlong(ALONG * c, STEP * c);
  const steps = { count: reach, step: (ACROSS * c) / reach };
  for (let k = 0; k < ROUNDS; k++) {
    const how = { pixels, flow, edges, width, height };
    const smoothing = bands.map((band): GivenOf<typeof smoothBand> => [how, along, other, band]);
    await team.each(smoothBand, smoothing, () => {}, checkpoint);
    const lightness = planeOf(other, 0, 4);
    const signs = team.shared(await edgeSigns(lightness, sides, edges, ACROSS * c, checkpoint));
    const sharp = { ...how, pixels: other, signs };
    const sharpening = bands.map((band): GivenOf<typeof shockBand> => [sharp, steps, pixels, band]);
    await team.each(shockBand, sharpening, () => {}, checkpoint);
  }
  const after = Math.min(AFTER_MOST, AFTER * edge);
  const out: Float32Array[] = [];
  for (let k = 0; k < 4; k++) out.push(await blurred(planeOf(pixels, k, 4), after));
  return out;
}
