import type { Affine } from '../raster/affine.ts';
import type { Band } from '../raster/band.ts';
import type { Edges } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import { task } from '../team/task.ts';
import type { Checkpoint } from '../work/checkpoint.ts';
import { resampleAffine } from './sample.ts';

/** A picture, and the grid along which this many pixels are to be taken from it. */
export interface Gridding {
  planes: Float32Array[];
  width: number;
  height: number;
  grid: Affine;
  stretch: number;
  edges: Edges;
  out: { width: number; height: number };
}

/** Rows along a grid, one plane a channel, in their place in `into`. */
export const resampleGrid = task(
  'resampleGrid',
  async (
    checkpoint: Checkpoint,
    { planes, width, height, grid, stretch, edges, out }: Gridding,
    into: Float32Array[],
    band: Band,
  ): Promise<void> => {
    const raster = new Raster(width, height, planes);
    const whole = new Raster(out.width, out.height, into);
    await resampleAffine(raster, out.width, out.height, grid, stretch, edges, checkpoint, band, whole);
  },
);
