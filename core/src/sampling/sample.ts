import { KERNELS } from '../kernels/kernels.ts';
import { leansLittle } from '../kernels/resample-block/reference.ts';
import type { Affine } from '../raster/affine.ts';
import type { Band } from '../raster/band.ts';
import { type Edges, edgeIndex } from '../raster/edges.ts';
import { LOBES, phaseTable } from '../raster/phases.ts';
import { Raster } from '../raster/raster.ts';
import { resampleUpright } from './resize.ts';

/** Bilinear value of a plane at (x, y), in pixels with whole numbers at pixel centres. */
export function sampleBilinear(
  plane: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  edges: Edges,
): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  const xa = edgeIndex(x0, width, edges.x);
  const xb = edgeIndex(x0 + 1, width, edges.x);
  const ya = edgeIndex(y0, height, edges.y) * width;
  const yb = edgeIndex(y0 + 1, height, edges.y) * width;
  const top = plane[ya + xa] * (1 - fx) + plane[ya + xb] * fx;
  const bottom = plane[yb + xa] * (1 - fx) + plane[yb + xb] * fx;
  return top * (1 - fy) + bottom * fy;
}

/** Says where the pixels of output row `y` lie in the input, whole numbers at pixel centres. */
export type Place = (y: number, xs: Float64Array, ys: Float64Array) => void;

/** Steps between the stretches for which tables are made, per doubling. */
const STRETCH_STEPS = 4;

const apart = (xs: Float64Array, ys: Float64Array, i: number, j: number, xs2 = xs, ys2 = ys) =>
  Math.hypot(xs2[j] - xs[i], ys2[j] - ys[i]);

/** Resamples row `y` of a picture that is made row by row, into row `to` of `out`. */
type ResampledRow = (out: Raster, y: number, to: number) => void;

/** Rows at any places, stretched row by row to the widest step between neighbouring places. */
function rowsOfField(
  raster: Raster,
  width: number,
  height: number,
  place: Place,
  edges: Edges,
): ResampledRow {
  const resample = KERNELS.rowResampler(raster, edges);
  let [xs, ys, nextXs, nextYs] = Array.from({ length: 4 }, () => new Float64Array(width));
  let known = -1;
  return (out, y, to) => {
    if (known !== y) place(y, xs, ys);
    // The last row has the step of the row before it.
    place(y + 1 < height ? y + 1 : Math.max(0, y - 1), nextXs, nextYs);
    let widest = 1;
    for (let x = 0; x < width; x += 8) {
      if (x + 1 < width) widest = Math.max(widest, apart(xs, ys, x, x + 1));
      widest = Math.max(widest, apart(xs, ys, x, x, nextXs, nextYs));
    }
    // A step that is wide by rounding alone is none.
    const step = Math.round(Math.log2(widest) * STRETCH_STEPS);
    resample(out, to, xs, ys, phaseTable(2 ** (step / STRETCH_STEPS)));
    [xs, ys, nextXs, nextYs] = [nextXs, nextYs, xs, ys];
    known = y + 1 < height ? y + 1 : -1;
  };
}

/** Rows of a picture that a band of a grid looks at, all of it where it goes on over its edges. */
function rowsRead(
  raster: Raster,
  width: number,
  { originY, rightY, downY }: Affine,
  stretch: number,
  edges: Edges,
  { from, to }: Band,
): Band {
  const { height } = raster;
  const across = (width - 1) * rightY;
  const ends = [from, to - 1].flatMap((y) => [originY + y * downY, originY + across + y * downY]);
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
  const reach = Math.ceil(LOBES * stretch) + 1;
  // What is mirrored at an edge may lie anywhere, but for places that reach over it by their taps alone.
  const isFar = least < 0 || most > height - 1 || height < 2 * reach;
  if (isFar || edges.y === 'wrap') return { from: 0, to: height };
  const low = Math.floor(least) - reach;
  const high = Math.ceil(most) + 1 + reach;
  return { from: Math.max(0, Math.min(low, height - reach)), to: Math.min(height, Math.max(high, reach)) };
}

/** Rows along an affine grid; the picture's own begin at `top` of the whole. */
function rowsOfGrid(
  raster: Raster,
  width: number,
  { originX, originY, rightX, rightY, downX, downY }: Affine,
  stretch: number,
  edges: Edges,
  top: number,
): ResampledRow {
  const table = phaseTable(Math.max(1, stretch));
  const resample = KERNELS.rowResampler(raster, edges);
  const xs = new Float64Array(width);
  const ys = new Float64Array(width);
  return (out, y, to) => {
    for (let x = 0; x < width; x++) {
      xs[x] = originX + x * rightX + y * downX;
      ys[x] = originY + x * rightY + y * downY - top;
    }
    resample(out, to, xs, ys, table);
  };
}

async function inRows(
  row: ResampledRow,
  { from, to }: Band,
  out: Raster,
  checkpoint: (done: number) => Promise<void>,
): Promise<Raster> {
  for (let y = from; y < to; y++) {
    if (((y - from) & 31) === 0) await checkpoint((y - from) / (to - from));
    row(out, y, y);
  }
  return out;
}

/**
 * Resample a raster at any places, one pass, Lanczos of three lobes, stretched row by row to the widest
 * step between neighbouring places (never below 1), so that nothing aliases. `checkpoint` is awaited
 * between blocks of rows; only the rows of `band` are made, where it is given, in their place in `into`.
 */
export async function resampleField(
  raster: Raster,
  width: number,
  height: number,
  place: Place,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
  band: Band = { from: 0, to: height },
  into = Raster.filled(width, height, raster.channels),
): Promise<Raster> {
  return inRows(rowsOfField(raster, width, height, place, edges), band, into, checkpoint);
}

/** Whether the rows of a grid are rows of the picture: then it is resampled along either axis by itself. */
export const isUpright = ({ rightY, downX }: Affine): boolean => rightY === 0 && downX === 0;

/** Rows that are made at once. */
const ROWS = 64;

/** Rows along a grid that leans little. */
async function inBlocks(
  raster: Raster,
  grid: Affine,
  stretch: number,
  edges: Edges,
  { from, to }: Band,
  out: Raster,
  checkpoint: (done: number) => Promise<void>,
): Promise<Raster> {
  const table = phaseTable(stretch);
  for (let y = from; y < to; y += ROWS) {
    const block = { x: 0, y, width: out.width, height: Math.min(ROWS, to - y) };
    KERNELS.resampleBlock(raster, edges, grid, table, block, out);
    await checkpoint((y - from) / (to - from));
  }
  return out;
}

/**
 * Resample a raster along an affine grid, Lanczos of three lobes stretched by `stretch` (≥ 1 when the grid is coarser than
 * the picture, so that nothing aliases): in two passes where it lies along the picture or leans little against it, else in
 * one. `checkpoint` is awaited between blocks of rows; only the rows of `band` are made, where it is given, in their place in
 * `into`.
 */
export async function resampleAffine(
  raster: Raster,
  width: number,
  height: number,
  grid: Affine,
  stretch: number,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
  band: Band = { from: 0, to: height },
  into = Raster.filled(width, height, raster.channels),
): Promise<Raster> {
  if (isUpright(grid)) {
    const { originX, originY, rightX: stepX, downY: stepY } = grid;
    const [originBand, rows] = [originY + band.from * stepY, band.to - band.from];
    const part = { originX, originY: originBand, stepX, stepY, width, height: rows };
    await resampleUpright(raster, part, stretch, edges, checkpoint, into, band.from);
    return into;
  }
  if (leansLittle(grid)) return inBlocks(raster, grid, Math.max(1, stretch), edges, band, into, checkpoint);
  const read = rowsRead(raster, width, grid, stretch, edges, band);
  const part = new Raster(
    raster.width,
    read.to - read.from,
    raster.planes.map((plane) => plane.subarray(read.from * raster.width, read.to * raster.width)),
  );
  const rows = rowsOfGrid(part, width, grid, stretch, edges, read.from);
  return inRows(rows, band, into, checkpoint);
}
