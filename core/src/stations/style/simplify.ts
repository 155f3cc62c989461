import { blurPlanes } from '../../filters/blur-planes.ts';
import type { Field } from '../../filters/gaussian.ts';
import type { Band } from '../../raster/band.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { task } from '../../team/task.ts';
import { flowBand, structureTensor } from './flow.ts';
import { channelBand, planesOf } from './interleaved.ts';
import { type AlongFlow, shockBand, smoothBand } from './simplify-band.ts';

/** Lengths as shares of the smallest shape kept. */
const BEFORE = 0.12;
const INNER = 0.15;
const OUTER = 0.7;
const ALONG = 0.75;
const ACROSS = 0.22;
const STEP = 0.2;
/** Rounds of smoothing and sharpening. */
const ROUNDS = 2;
/** σ of the wider of two Gaussians whose difference tells the bright side of an edge, by the narrower one's. */
const WIDER = 1.6;
/** Difference of lightness at which an edge is sharpened with most of its strength. */
const PLAIN = 0.004;
/** σ of what takes away the steps that sharpening leaves, as a share of the shorter edge, in pixels at most. */
const AFTER = 0.0005;
const AFTER_MOST = 0.5;

/** Signs of edges by the lightness blurred narrowly, written over by them, and widely, in the places of some rows. */
export const signsBand = task(
  'signsBand',
  (_checkpoint, narrow: Float32Array, wide: Float32Array, width: number, band: Band): void => {
    for (let i = band.from * width; i < band.to * width; i++) {
      const d = (narrow[i] - wide[i]) / PLAIN;
      narrow[i] = d / Math.sqrt(1 + d * d);
    }
  },
);

/** Bright and dark sides of edges: above and below 0, −1..1, by the difference of two Gaussians. The lightness is given back. */
async function edgeSigns(
  lightness: Float32Array,
  field: Field,
  sigma: number,
  context: Sharing,
): Promise<Float32Array> {
  const [narrow] = await blurPlanes([{ plane: lightness, sigma }], field, context);
  context.team.give(lightness);
  // Variances of Gaussians add.
  const more = sigma * Math.sqrt(WIDER * WIDER - 1);
  const [wide] = await blurPlanes([{ plane: narrow, sigma: more }], field, context);
  await eachBand(signsBand, [narrow, wide, field.width], field.height, context);
  context.team.give(wide);
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
 * carved; `shape` is the size of the smallest shape kept, as a share of the shorter edge. The planes stay as they are; `onRead` is called
 * when they are not needed any more; what is made all of a team see.
 */
export async function simplified(
  planes: readonly Float32Array[],
  shape: number,
  { width, height, edges }: Field,
  context: Sharing,
  onRead = () => {},
): Promise<Float32Array[]> {
  const { team } = context;
  const field = { width, height, edges };
  const edge = Math.min(width, height);
  const c = shape * edge;
  const tensor = await structureTensor(planes, field, INNER * c, OUTER * c, context);
  const flow = team.take(2 * width * height);
  await eachBand(flowBand, [tensor, width, flow], height, context);
  team.give(tensor.xx, tensor.xy, tensor.yy);
  const blurred = (all: readonly Float32Array[], sigma: number) =>
    blurPlanes(
      all.map((plane) => ({ plane, sigma })),
      field,
      context,
    );
  // Two arrays in turns: each step reads one and writes the other.
  const pixels = team.take(4 * width * height);
  for (const [k, plane] of planes.entries()) {
    const [soft] = await blurred([plane], BEFORE * c);
    await eachBand(channelBand, [soft, k, width, pixels], height, context);
    team.give(soft);
  }
  onRead();
  const other = team.take(pixels.length);
  const reach = Math.max(1, Math.round(ACROSS * c));
  const along = stepsAlong(ALONG * c, STEP * c);
  const steps = { count: reach, step: (ACROSS * c) / reach };
  for (let k = 0; k < ROUNDS; k++) {
    const how = { pixels, flow, edges, width, height };
    const lightness = team.take(width * height);
    await eachBand(smoothBand, [how, along, other, lightness], height, context);
    const signs = await edgeSigns(lightness, field, ACROSS * c, context);
    await eachBand(shockBand, [{ ...how, pixels: other, signs }, steps, pixels], height, context);
    team.give(signs);
  }
  const after = Math.min(AFTER_MOST, AFTER * edge);
  team.give(other, flow);
  const sharp = await planesOf(pixels, field, context);
  team.give(pixels);
  const made = await blurred(sharp, after);
  team.give(...sharp);
  return made;
}
