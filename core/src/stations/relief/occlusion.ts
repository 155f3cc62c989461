import { type Edges, edgeIndex } from '../../raster/edges.ts';

interface Sweep {
  /** Rows crossed for one step along a row. */
  slope: number;
  /** Walk the rows from their end. */
  back: boolean;
  /** Work on the transposed field. */
  turned: boolean;
}

const TAN_22 = Math.SQRT2 - 1;

/** Sixteen directions, each one step on its major axis. */
const SWEEPS: Sweep[] = [false, true].flatMap((turned) =>
  [false, true].flatMap((back) =>
    // The diagonals belong to one orientation only, so that none is walked twice.
    (turned ? [-TAN_22, 0, TAN_22] : [-1, -TAN_22, 0, TAN_22, 1]).map((slope) => ({ slope, back, turned })),
  ),
);

export const DIRECTIONS = SWEEPS.length;

function transpose(plane: Float32Array, size: number): Float32Array {
  const out = new Float32Array(plane.length);
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) out[x * size + y] = plane[y * size + x];
  return out;
}

/**
 * Adds cos² of the horizon along one direction to `sum`. A convex hull of what lies behind is kept
 * along each line; points beyond the radius leave it at its far end.
 */
function sweep(
  field: Float32Array,
  size: number,
  { slope, back }: Sweep,
  radius: number,
  edgeAlong: Edges['x'],
  edgeAcross: Edges['y'],
  sum: Float32Array,
): void {
  const step = Math.sqrt(1 + slope * slope);
  const reach = Math.max(1, Math.floor(radius / step));
  const count = size + reach;
  const column = new Int32Array(count);
  const shift = new Int32Array(count);
  const part = new Float64Array(count);
  const target = new Int32Array(count);
  for (let k = 0; k < count; k++) {
    const t = k - reach;
    column[k] = edgeIndex(back ? size - 1 - t : t, size, edgeAlong);
    const drop = t * slope;
    shift[k] = Math.floor(drop);
    part[k] = drop - Math.floor(drop);
    target[k] = Math.round(drop);
  }
  const low = Math.min(shift[0], shift[count - 1], target[0], target[count - 1]);
  const high = Math.max(shift[0], shift[count - 1], target[0], target[count - 1]) + 2;
  // On a mirrored axis lines also start outside the field, so that each of its pixels is reached once.
  const wraps = edgeAcross === 'wrap';
  const first = wraps ? 0 : -high;
  const last = wraps ? size : size - low;
  const rows = new Int32Array(last - first + high - low);
  for (let k = 0; k < rows.length; k++) rows[k] = edgeIndex(first + low + k, size, edgeAcross) * size;
  const base = first + low;
  const hullAt = new Int32Array(count);
  const hullHeight = new Float64Array(count);
  for (let line = first; line < last; line++) {
    let head = 0;
    let tail = 0;
    for (let k = 0; k < count; k++) {
      const f = part[k];
      const x = column[k];
      let h = field[rows[line + shift[k] - base] + x];
      if (f !== 0) h += (field[rows[line + shift[k] + 1 - base] + x] - h) * f;
      while (head < tail && k - hullAt[head] > reach) head++;
      let top = 0;
      if (head < tail) {
        top = (hullHeight[tail - 1] - h) / (k - hullAt[tail - 1]);
        while (tail - head > 1) {
          const second = (hullHeight[tail - 2] - h) / (k - hullAt[tail - 2]);
          if (second < top) break;
          top = second;
          tail--;
        }
      }
      if (k >= reach) {
        const row = line + target[k];
        if (wraps || (row >= 0 && row < size)) {
          const tan = top > 0 ? top / step : 0;
          sum[rows[row - base] + x] += 1 / (1 + tan * tan);
        }
      }
      hullAt[tail] = k;
      hullHeight[tail] = h;
      tail++;
    }
  }
}

/**
 * Ambient visibility 0..1 of a height field: mean over sixteen directions of cos² of the horizon, the
 * cosine-weighted share of the sky that a level receiver sees. Line sweep with a convex hull (Timonen &
 * Westerholm 2010), cost independent of the radius. `height` in pixels of the same scale as the plane
 * (`size` × `size`), `radius` in pixels, at most half the tile.
 */
export async function visibility(
  height: Float32Array,
  size: number,
  radius: number,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
): Promise<Float32Array> {
  const reach = Math.min(size / 2, Math.max(1, radius));
  const upright = new Float32Array(height.length);
  const turned = new Float32Array(height.length);
  const flipped = transpose(height, size);
  for (let k = 0; k < SWEEPS.length; k++) {
    const s = SWEEPS[k];
    if (s.turned) sweep(flipped, size, s, reach, edges.y, edges.x, turned);
    else sweep(height, size, s, reach, edges.x, edges.y, upright);
    await breathe((k + 1) / SWEEPS.length);
  }
  const back = transpose(turned, size);
  for (let i = 0; i < upright.length; i++) upright[i] = (upright[i] + back[i]) / SWEEPS.length;
  return upright;
}
