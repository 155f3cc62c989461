import type { Edges } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { solvePoisson } from './poisson.ts';
import type { Strip } from './strip.ts';

/**
 * Joins at the cut in the gradient domain (Pérez, Gangnet & Blake 2003): every step inside a copy stays as
 * it is, the step across the cut becomes the mean of the two copies' own, and the picture is the one whose
 * steps come nearest. `tile` holds the hard cut in its first `strip.width` columns and is changed in place.
 * Means stay.
 */
export async function joinGradients(
  tile: Raster,
  strip: Strip,
  mask: Float32Array,
  alongWraps: boolean,
  breathe: (done: number) => Promise<void>,
): Promise<void> {
  const { width, height } = tile;
  const edges: Edges = { x: 'wrap', y: alongWraps ? 'wrap' : 'mirror' };
  const inside = (x: number, y: number) => y * strip.width + x;
  for (const [c, plane] of tile.planes.entries()) {
    const flow = new Float32Array(plane.length);
    const a = strip.a[c];
    const b = strip.b[c];
    const across = (p: number, q: number, here: number, there: number) => {
      if (mask[p] === mask[q]) return;
      // From a to b the step of the hard cut is b(q) − a(p); the mean of both copies' own is wanted.
      const missing = ((mask[p] > mask[q] ? 1 : -1) * (a[p] - b[p] + a[q] - b[q])) / 2;
      flow[here] += missing;
      flow[there] -= missing;
    };
    for (let y = 0; y < height; y++) {
      const below = y + 1 < height ? y + 1 : alongWraps ? 0 : -1;
      for (let x = 0; x < strip.width; x++) {
        if (x + 1 < strip.width) across(inside(x, y), inside(x + 1, y), y * width + x, y * width + x + 1);
        if (below >= 0) across(inside(x, y), inside(x, below), y * width + x, below * width + x);
      }
    }
    const change = await solvePoisson(flow, width, height, edges, (done) =>
      breathe((c + done) / tile.planes.length),
    );
    for (let i = 0; i < plane.length; i++) plane[i] += change[i];
  }
}
