import { type Edge, type Edges, edgeIndex, edgeTable } from '../raster/edges.ts';
import type { Sides } from '../raster/sides.ts';
import { PAUSE_ROWS, type Steps } from '../work/steps.ts';

/** How far the nearest marked pixel is, in pixels from middle to middle, and which it is. */
export interface Nearest {
  distance: Float32Array;
  index: Int32Array;
}

/** Squares further than any tile is wide. */
const FAR = 1e9;

/** The row of the nearest marked pixel of each column, −1 where the column has none; its distance is that along the column. */
function nearestRows(mask: Uint8Array, { width, height }: Sides, edge: Edge): Int32Array {
  const found = new Int32Array(mask.length).fill(-1);
  const step = new Float32Array(mask.length).fill(FAR);
  // Down and up, and over the edge as often as a value can travel.
  for (const way of [1, -1]) {
    for (let k = 0; k < 2 * height; k++) {
      const y = way === 1 ? k % height : height - 1 - (k % height);
      const isFirst = edge !== 'wrap' && k % height === 0;
      const from = isFirst ? y : edgeIndex(y - way, height, edge);
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (mask[i] === 1) {
          found[i] = y;
          step[i] = 0;
          continue;
        }
        const j = from * width + x;
        if (step[j] + 1 < step[i]) {
          step[i] = step[j] + 1;
          found[i] = found[j];
        }
      }
    }
  }
  return found;
}

/** The lower envelope of parabolas: where each begins to be the lowest, and which it is. */
interface Envelope {
  vertex: Int32Array;
  border: Float64Array;
}

/** Builds the envelope of parabolas of these heights about each place; how many it has. */
function envelope(heights: Float64Array, { vertex, border }: Envelope): number {
  let last = -1;
  for (let k = 0; k < heights.length; k++) {
    if (heights[k] >= FAR) continue;
    let meets = Number.NEGATIVE_INFINITY;
    while (last >= 0) {
      const v = vertex[last];
      meets = (heights[k] + k * k - heights[v] - v * v) / (2 * (k - v));
      if (meets > border[last]) break;
      last--;
    }
    if (last < 0) meets = Number.NEGATIVE_INFINITY;
    vertex[++last] = k;
    border[last] = meets;
  }
  border[last + 1] = Number.POSITIVE_INFINITY;
  return last + 1;
}

/**
 * Exact Euclidean distances to the nearest pixel whose mask is 1, over edges that wrap: lower envelopes of parabolas, axis by axis
 * (Felzenszwalb & Huttenlocher 2012). Where nothing is marked distances are infinite and indices −1.
 */
export function* nearestMarked(mask: Uint8Array, sides: Sides, edges: Edges): Steps<Nearest> {
  const { width, height } = sides;
  const rows = nearestRows(mask, sides, edges.y);
  yield;
  const distance = new Float32Array(mask.length).fill(Number.POSITIVE_INFINITY);
  const index = new Int32Array(mask.length).fill(-1);
  // A row, with half of one on either side where it wraps.
  const beyond = edges.x === 'wrap' ? Math.ceil(width / 2) : 0;
  const columns = edgeTable(width, beyond, beyond, edges.x);
  const heights = new Float64Array(columns.length);
  const found = { vertex: new Int32Array(columns.length), border: new Float64Array(columns.length + 1) };
  for (let y = 0; y < height; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    const row = y * width;
    for (let k = 0; k < columns.length; k++) {
      const nearest = rows[row + columns[k]];
      const away = Math.abs(nearest - y);
      const down = edges.y === 'wrap' ? Math.min(away, height - away) : away;
      heights[k] = nearest < 0 ? FAR : down * down;
    }
    if (envelope(heights, found) === 0) continue;
    const { vertex, border } = found;
    for (let x = 0, n = 0; x < width; x++) {
      const k = x + beyond;
      while (border[n + 1] < k) n++;
      const v = vertex[n];
      distance[row + x] = Math.sqrt((k - v) ** 2 + heights[v]);
      index[row + x] = rows[row + columns[v]] * width + columns[v];
    }
  }
  return { distance, index };
}
