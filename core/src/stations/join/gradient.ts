import type { Strip } from '../../kernels/cut-costs/strip.ts';
import { summing } from '../../planes/summing.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import { runSteps } from '../../work/steps.ts';
import { solvePoisson } from './poisson.ts';

/** What the steps over the cut lack to be the mean of both copies' own, as a flow into the tile's pixels. */
function missingFlow(
  a: Float32Array,
  b: Float32Array,
  mask: Float32Array,
  columns: number,
  { width, height }: Sides,
  alongWraps: boolean,
): Float32Array {
  const flow = new Float32Array(width * height);
  const across = (p: number, q: number, here: number, there: number) => {
    if (mask[p] === mask[q]) return;
    // From a to b the step of the hard cut is b(q) − a(p); the mean of both copies' own is wanted.
    const missing = ((mask[p] > mask[q] ? 1 : -1) * (a[p] - b[p] + a[q] - b[q])) / 2;
    flow[here] += missing;
    flow[there] -= missing;
  };
  for (let y = 0; y < height; y++) {
    const below = y + 1 < height ? y + 1 : alongWraps ? 0 : -1;
    for (let x = 0; x < columns; x++) {
      const p = y * columns + x;
      if (x + 1 < columns) across(p, p + 1, y * width + x, y * width + x + 1);
      if (below >= 0) across(p, below * columns + x, y * width + x, below * width + x);
    }
  }
  return flow;
}

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
  checkpoint: (done: number) => Promise<void>,
): Promise<void> {
  const { width, height } = tile;
  const edges: Edges = { x: 'wrap', y: alongWraps ? 'wrap' : 'mirror' };
  for (const [c, plane] of tile.planes.entries()) {
    const flow = missingFlow(strip.a[c], strip.b[c], mask, strip.width, tile, alongWraps);
    await checkpoint(c / tile.planes.length);
    const change = await solvePoisson(flow, width, height, edges, (done) =>
      checkpoint((c + done) / tile.planes.length),
    );
    await runSteps(summing([plane, change], [1, 1], {}, plane), checkpoint);
  }
}
