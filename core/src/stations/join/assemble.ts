import type { Raster } from '../../raster/raster.ts';
import { resizeLanczos } from '../../raster/resize.ts';
import { roll } from '../../raster/roll.ts';
import { transpose } from '../../raster/transpose.ts';
import type { Margins } from '../types.ts';
import { blendBands } from './blend.ts';
import type { AxisPlan, OverlapPlan } from './overlap.ts';
import type { Strip } from './strip.ts';

/** Gives the mask (1 = the far copy) of one axis's strip; told whether the strip is cyclic. */
export type MaskOf = (axis: 'x' | 'y', strip: Strip, cyclic: boolean) => Float32Array;

/** The strip at the left of `raster` and its copy one period to the right. */
export function stripOf(raster: Raster, period: number, overlap: number): Strip {
  return {
    width: overlap,
    length: raster.height,
    a: raster.cut(period, 0, overlap, raster.height).planes,
    b: raster.cut(0, 0, overlap, raster.height).planes,
  };
}

async function joinAcross(
  raster: Raster,
  period: number,
  overlap: number,
  axis: 'x' | 'y',
  cyclic: boolean,
  maskOf: MaskOf,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const strip = stripOf(raster, period, overlap);
  const blended = await blendBands(strip, maskOf(axis, strip, cyclic), cyclic, breathe);
  const out = raster.cut(0, 0, period, raster.height);
  out.planes.forEach((plane, c) => {
    for (let y = 0; y < raster.height; y++) {
      plane.set(blended[c].subarray(y * overlap, (y + 1) * overlap), y * period);
    }
  });
  return out;
}

/**
 * Makes the tile from the crop with margins: across first, then down on the already cyclic picture,
 * rolled so that the crop's corner is the tile's, and brought to `size` where the overlap had to be
 * taken from the crop. `maskOf` supplies the cut.
 */
export async function assemble(
  picture: Raster,
  margins: Margins,
  size: number,
  plan: OverlapPlan,
  maskOf: MaskOf,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const px = (share: number) => Math.round(share * size);
  const period = px(plan.period);
  const overlap = px(plan.overlap);
  const span = (axis: AxisPlan) => period + (axis.joined ? overlap : 0);
  let tile = picture.cut(
    margins.left + px(plan.x.start),
    margins.top + px(plan.y.start),
    span(plan.x),
    span(plan.y),
  );
  if (plan.x.joined) {
    tile = await joinAcross(tile, period, overlap, 'x', false, maskOf, (done) => breathe(done / 2));
  }
  if (plan.y.joined) {
    const turned = await joinAcross(transpose(tile), period, overlap, 'y', plan.x.joined, maskOf, (done) =>
      breathe(0.5 + done / 2),
    );
    tile = transpose(turned);
  }
  tile = roll(
    tile,
    plan.x.joined ? px(plan.x.start) - px(plan.x.origin) : 0,
    plan.y.joined ? px(plan.y.start) - px(plan.y.origin) : 0,
  );
  if (period !== size) {
    tile = resizeLanczos(tile, size, size, {
      x: plan.x.joined ? 'wrap' : 'mirror',
      y: plan.y.joined ? 'wrap' : 'mirror',
    });
  }
  for (const plane of tile.planes) for (let i = 0; i < plane.length; i++) if (plane[i] < 0) plane[i] = 0;
  return tile;
}
