import { KERNELS } from '../../../kernels/kernels.ts';
import type { Raster } from '../../../raster/raster.ts';
import { resizingArea } from '../../../sampling/resize.ts';
import { type Shape, sidesOf } from '../../../tile/shape.ts';
import type { Checkpoint } from '../../../work/checkpoint.ts';
import { runSteps } from '../../../work/steps.ts';
import { decodePath } from '../cut.ts';
import type { Vector } from '../vectors.ts';
import { detailScore, type SourceDetail, sourceDetail } from './detail.ts';
import { ghosting } from './ghosting.ts';
import { banksOf, patchScore, type Spot } from './patches.ts';
import { type Crossing, crossings } from './path.ts';

/** Above this it is not measured sharper: what is seen at 512 px tells a seam. */
const MEASURED = 512;
/** Ghosts of the edges' texture that are weaker are not seen. */
const GHOSTING = 0.4;
/** Coherence of ripples and boards; below it there are no ridges to break. */
const RIDGED = 0.35;

/** How well a seam is hidden, measured along the cut. */
export interface SeamScore {
  /** 0 is as good as the source itself; below 0.1 fine, above 0.3 look. */
  score: number;
  /** Mean step over the cut ÷ that at the places of the source most alike; above 1 a line shows. */
  step: number;
  /** Fine detail at the cut over the source's. */
  detail: number;
  spots: Spot[];
}

const above = (value: number, limit: number) => Math.max(0, value - limit);

const encoded = async (
  raster: Raster,
  width: number,
  height: number,
  checkpoint: Checkpoint,
): Promise<Raster> => {
  const small = await runSteps(resizingArea(raster, width, height), checkpoint);
  await checkpoint(1);
  return small.mapPlanes(KERNELS.encodeSrgbPlane);
};

/** What others are compared with, made once for each source picture. */
interface Measures {
  size: number;
  banks: Awaited<ReturnType<typeof banksOf>>;
  detail: SourceDetail;
}

const kept = new WeakMap<Raster, Measures>();

async function measuresOf(
  source: Raster,
  size: number,
  scale: number,
  checkpoint: Checkpoint,
): Promise<Measures> {
  const known = kept.get(source);
  if (known?.size === size) return known;
  const [width, height] = [source.width, source.height].map((side) => Math.round(side * scale));
  const from = await encoded(source, width, height, checkpoint);
  const banks = await banksOf(from, checkpoint);
  const made = { size, banks, detail: await sourceDetail(from, size, checkpoint) };
  kept.set(source, made);
  return made;
}

/**
 * Score J of the joined axes of a tile, along its cuts: steps over the cut, patches unlike the source's,
 * smeared detail, jumps of broad tone, broken ridges, ghosts of texture. `source` is the picture it was taken from, at the
 * same scale; `checkpoint` is awaited on the way; cuts as texts of `workingSize`, null for a seam at the tile's edge; `spread`
 * is the crop whose edges' difference was spread over it, null where none was. Linear RGB.
 */
export async function seamScore(
  tile: Raster,
  source: Raster,
  reach: Vector,
  axes: { x: boolean; y: boolean },
  cuts: { workingSize: number; shape: Shape; cutX: string | null; cutY: string | null },
  spread: Raster | null,
  checkpoint: Checkpoint,
): Promise<SeamScore> {
  const longer = Math.max(tile.width, tile.height);
  const size = Math.min(MEASURED, longer);
  const scale = size / longer;
  const { width, height } = sidesOf(cuts.shape, size);
  await checkpoint(1);
  const small = await encoded(tile, width, height, checkpoint);
  await checkpoint(1);
  const seamOf = (text: string | null, across: number, along: number, turned: boolean): Crossing[] => {
    const path = text === null ? null : decodePath(text);
    const n = path ? cuts.workingSize : size;
    const whole = sidesOf(cuts.shape, n);
    const [over, by] = turned ? [whole.height, whole.width] : [whole.width, whole.height];
    const found = crossings(path, Math.round(across * over), Math.round(along * by), over, by, turned);
    if (n === size) return found;
    const place = (v: number, end: number) => Math.min(end - 1, Math.floor((v * size) / n));
    return found.map((one) => ({ ...one, x: place(one.x, width), y: place(one.y, height) }));
  };
  const seams: Crossing[][] = [];
  for (const [on, text, across, along, turned] of [
    [axes.x, cuts.cutX, reach[0], reach[1], false],
    [axes.y, cuts.cutY, reach[1], reach[0], true],
  ] as const) {
    if (on) seams.push(seamOf(text, across, along, turned));
  }
  if (seams.length === 0) return { score: 0, step: 0, detail: 1, spots: [] };
  const { banks, detail: from } = await measuresOf(source, size, scale, checkpoint);
  await checkpoint(1);
  const { mean, worst, spots, twins } = await patchScore(small, banks, seams, checkpoint);
  await checkpoint(1);
  const { detail, coherence, grain, broad, step } = await detailScore(small, from, twins, checkpoint);
  const ghosts = spread ? ghosting(await encoded(spread, width, height, checkpoint), axes) : 0;
  const score =
    0.5 * above(step, 1.1) +
    above(mean, 1) +
    above(worst, 1) +
    2 * above(0.95, detail) +
    0.25 * above(broad, 1.3) +
    (grain > RIDGED ? 2 * above(0.97, coherence) : 0) +
    above(ghosts, GHOSTING);
  return { score, step, detail, spots };
}
