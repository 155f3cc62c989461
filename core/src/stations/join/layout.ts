import { MIRROR } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { resampleGrid } from '../../sampling/resample-grid.ts';
import { resampleField } from '../../sampling/sample.ts';
import type { WorkContext } from '../../team/context.ts';
import { inBands } from '../../team/in-bands.ts';
import type { Margins } from '../square/output.ts';
import { type Bend, bendAt } from './bend.ts';
import type { TileVectors, Vector } from './vectors.ts';

const WHOLE = 1e-6;

const isWhole = (value: number) => Math.abs(value - Math.round(value)) < WHOLE;

/**
 * The tile with what reaches beyond it on the joined axes, taken from the crop with its margins along the
 * tile's vectors: (1 + 2·reach) times its pixels on each axis. Where the vectors are the crop's own edges nothing is
 * resampled. `bend` moves what lies about the seam from left to right, so that it meets.
 */
export async function layOut(
  picture: Raster,
  margins: Margins,
  { width: across, height: down }: Sides,
  { corner, u, v }: TileVectors,
  reach: Vector,
  bend: Bend | null,
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
): Promise<Raster> {
  const before: Vector = [Math.round(reach[0] * across), Math.round(reach[1] * down)];
  const width = across + 2 * before[0];
  const height = down + 2 * before[1];
  const right: Vector = [u[0], (u[1] * down) / across];
  const below: Vector = [(v[0] * across) / down, v[1]];
  // Pixel centres: half a pixel of the tile is a step along both of its edges.
  const originX =
    margins.left + corner[0] * across + (0.5 - before[0]) * right[0] + (0.5 - before[1]) * below[0] - 0.5;
  const originY =
    margins.top + corner[1] * down + (0.5 - before[0]) * right[1] + (0.5 - before[1]) * below[1] - 0.5;
  const upright = Math.abs(u[0] - 1) + Math.abs(u[1]) + Math.abs(v[0]) + Math.abs(v[1] - 1) < WHOLE;
  if (upright && !bend && isWhole(originX) && isWhole(originY)) {
    return picture.cut(Math.round(originX), Math.round(originY), width, height);
  }
  if (!bend) {
    const grid = {
      originX,
      originY,
      rightX: right[0],
      rightY: right[1],
      downX: below[0],
      downY: below[1],
    };
    const stretch = Math.max(1, Math.hypot(...right), Math.hypot(...below));
    const how = { grid, stretch, edges: MIRROR, out: { width, height } };
    return inBands(resampleGrid, picture, how, team, checkpoint);
  }
  const place = (y: number, xs: Float64Array, ys: Float64Array) => {
    for (let x = 0; x < width; x++) {
      const [dx, dy] = bendAt(bend, (x + 0.5 - before[0]) / across, (y + 0.5) / height, reach[0]);
      const p = x + dx * across;
      const q = y + dy * across;
      xs[x] = originX + p * right[0] + q * below[0];
      ys[x] = originY + p * right[1] + q * below[1];
    }
  };
  return resampleField(picture, width, height, place, MIRROR, checkpoint);
}
