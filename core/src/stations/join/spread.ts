import type { Edges } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { solvePoisson } from './poisson.ts';

/**
 * The periodic part of a picture on the axes that wrap (Moisan 2011, periodic plus smooth decomposition):
 * the jumps across the edges are spread smoothly over the whole picture and taken out. Linear values; the
 * mean of each plane stays.
 */
export async function spreadJumps(
  picture: Raster,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Raster> {
  const { width, height } = picture;
  const planes: Float32Array[] = [];
  for (const [c, plane] of picture.planes.entries()) {
    const jumps = new Float32Array(plane.length);
    if (edges.x === 'wrap') {
      for (let y = 0; y < height; y++) {
        const left = y * width;
        const jump = plane[left] - plane[left + width - 1];
        jumps[left] -= jump;
        jumps[left + width - 1] += jump;
      }
    }
    if (edges.y === 'wrap') {
      const last = (height - 1) * width;
      for (let x = 0; x < width; x++) {
        const jump = plane[x] - plane[last + x];
        jumps[x] -= jump;
        jumps[last + x] += jump;
      }
    }
    const smooth = await solvePoisson(jumps, width, height, edges, (done) =>
      breathe((c + done) / picture.planes.length),
    );
    planes.push(plane.map((v, i) => v - smooth[i]));
  }
  return new Raster(width, height, planes);
}
