import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { transposePlane } from '../../raster/transpose.ts';
import { HorizonLine } from './horizon.ts';

interface Sweep {
  /** Rows crossed for one step along a row. */
  slope: number;
  /** Walk the rows from their end. */
  back: boolean;
  /** Work on the transposed field. */
  turned: boolean;
  /** Degrees of the sky this direction stands for. */
  share: number;
}

const HALF_TURN = (Math.atan(0.5) * 180) / Math.PI;

/** Degrees half-way to the neighbouring directions, by the steepness of a direction. */
const SHARES = new Map([
  [0, HALF_TURN],
  [0.5, 22.5],
  [1, 45 - HALF_TURN],
]);

/** Sixteen directions, each one step on its major axis, none falling between pixels for long. */
const SWEEPS: Sweep[] = [false, true].flatMap((turned) =>
  [false, true].flatMap((back) =>
    // The diagonals belong to one orientation only, so that none is walked twice.
    (turned ? [-0.5, 0, 0.5] : [-1, -0.5, 0, 0.5, 1]).map((slope) => ({
      slope,
      back,
      turned,
      share: SHARES.get(Math.abs(slope))! / 360,
    })),
  ),
);

/** Adds cos² of the horizon along one direction, times the direction's share, to `sum`. */
function sweep(
  field: Float32Array,
  size: number,
  { slope, back, share }: Sweep,
  radius: number,
  edgeAlong: Edges['x'],
  edgeAcross: Edges['y'],
  bias: number,
  sum: Float32Array,
): void {
  const step = Math.sqrt(1 + slope * slope);
  const reach = Math.max(1, Math.floor(radius / step));
  const horizon = new HorizonLine(reach);
  const count = size + reach;
  const column = new Int32Array(count);
  const shift = new Int32Array(count);
  const heights = new Float64Array(count);
  const rises = new Float64Array(count);
  /** Points that lie between two pixels: they hide others, but are nobody's. */
  const between = new Uint8Array(count);
  for (let k = 0; k < count; k++)
    column[k] = edgeIndex(back ? size - 1 - (k - reach) : k - reach, size, edgeAlong);
  // A line of slope ½ meets pixel centres at every other step only: a second one takes the others.
  const phases = Number.isInteger(slope) ? 1 : 2;
  for (let phase = 0; phase < phases; phase++) {
    for (let k = 0; k < count; k++) shift[k] = Math.floor((k - reach + phase) * slope);
    for (let k = 0; k < count; k++) between[k] = phases === 2 ? (k - reach + phase) & 1 : 0;
    const low = Math.min(shift[0], shift[count - 1]);
    const high = Math.max(shift[0], shift[count - 1]) + 1;
    // On a mirrored axis lines also start outside the field, so that each of its pixels is reached once.
    const wraps = edgeAcross === 'wrap';
    const first = wraps ? 0 : -high;
    const last = wraps ? size : size - low;
    const base = first + low;
    const rows = new Int32Array(last - first + high - low + 1);
    for (let k = 0; k < rows.length; k++) rows[k] = edgeIndex(base + k, size, edgeAcross) * size;
    for (let line = first; line < last; line++) {
      for (let k = 0; k < count; k++) {
        const at = line + shift[k] - base;
        const h = field[rows[at] + column[k]];
        heights[k] = between[k] ? (h + field[rows[at + 1] + column[k]]) / 2 : h;
      }
      horizon.sweep(heights, count, rises, between);
      for (let k = reach; k < count; k++) {
        if (between[k]) continue;
        const row = line + shift[k];
        if (!wraps && (row < 0 || row >= size)) continue;
        const tan = Math.max(0, rises[k] / step - bias);
        sum[rows[row - base] + column[k]] += share / (1 + tan * tan);
      }
    }
  }
}

/**
 * Ambient visibility 0..1 of a height field: mean over sixteen directions of cos² of the horizon, the
 * cosine-weighted share of the sky that a level receiver sees. Line sweep with convex hulls (after
 * Timonen & Westerholm 2010, exact within the radius), cost all but independent of the radius. `height`
 * in pixels of the same scale as the plane (`size` × `size`), `radius` in pixels, at most half the tile. `bias`
 * is taken off the tangent of every horizon.
 */
export async function visibility(
  height: Float32Array,
  size: number,
  radius: number,
  edges: Edges,
  breathe: (done: number) => Promise<void>,
  bias = 0,
): Promise<Float32Array> {
  const reach = Math.min(size / 2, Math.max(1, radius));
  const upright = new Float32Array(height.length);
  const turned = new Float32Array(height.length);
  const flipped = transposePlane(height, size, size);
  for (let k = 0; k < SWEEPS.length; k++) {
    const s = SWEEPS[k];
    if (s.turned) sweep(flipped, size, s, reach, edges.y, edges.x, bias, turned);
    else sweep(height, size, s, reach, edges.x, edges.y, bias, upright);
    await breathe((k + 1) / SWEEPS.length);
  }
  const back = transposePlane(turned, size, size);
  for (let i = 0; i < upright.length; i++) upright[i] += back[i];
  return upright;
}
