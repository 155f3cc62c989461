import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { runSteps } from '../../work/steps.ts';
import { solvePoisson } from './poisson.ts';

/** What is missing from pixel to pixel over the edges that wrap. */
function jumpsOf(plane: Float32Array, { width, height }: Sides, edges: Edges): Float32Array {
  const jumps = new Float32Array(plane.length);
  const over = (before: number, after: number) => {
    const jump = plane[after] - plane[before];
    jumps[after] -= jump;
    jumps[before] += jump;
  };
  if (edges.x === 'wrap') for (let y = 0; y < height; y++) over((y + 1) * width - 1, y * width);
  if (edges.y === 'wrap') for (let x = 0; x < width; x++) over((height - 1) * width + x, x);
  return jumps;
}

/**
 * The periodic part of a picture on the axes that wrap (Moisan 2011, periodic plus smooth decomposition):
 * the jumps across the edges are spread smoothly over the whole picture and removed. Linear values; the
 * mean of each plane stays.
 */
export async function spreadJumps(
  picture: Raster,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
): Promise<Raster> {
  const { width, height } = picture;
  const planes: Float32Array[] = [];
  for (const [c, plane] of picture.planes.entries()) {
    const jumps = jumpsOf(plane, picture, edges);
    const smooth = await solvePoisson(jumps, width, height, edges, (done) =>
      checkpoint((c + done) / picture.planes.length),
    );
    planes.push(await runSteps(summing([plane, smooth], [1, -1]), checkpoint));
  }
  return new Raster(width, height, planes);
}
