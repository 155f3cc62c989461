import { firKernel } from '../filters/gaussian-fir.ts';
import { recursionFor, type Way, wayAlong } from '../filters/gaussian-recursive.ts';
import { edgeTable } from '../raster/edges.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Lines that go side by side. */
const LINES = 4;
/** Columns that are gone down together. */
const GROUPS = 16;
/** Bytes of what the recursion holds of so many lines: their last four values. */
const STATE = 8 * 4 * LINES;
/** Bytes between rows that the direct filter holds, so that they do not all fall on the same places of the processor's cache. */
const APART = 192;
/** Bytes of a matrix of four rows. */
const SETTLE = 8 * 16;

export const wasmGaussianFir =
  (call: Call): Kernels['gaussianFir'] =>
  (plane, width, height, sigma, edges) => {
    const kernel = Float32Array.from(firKernel(sigma));
    const radius = kernel.length - 1;
    const columns = edgeTable(width, radius, radius, edges.x);
    const rows = edgeTable(height, radius, radius, edges.y);
    return call((exports, arena) => {
      const line = 4 * (width + 2 * radius);
      const apart = 4 * width + APART;
      const held = apart * (4 * radius + 1);
      arena.begin(
        plane.byteLength + columns.byteLength + rows.byteLength + 2 * line + held + 64 * kernel.length + 256,
      );
      const source = arena.floats(plane);
      exports.gaussianFir(
        source,
        width,
        height,
        arena.integers(columns),
        arena.integers(rows),
        arena.floats(kernel),
        radius,
        arena.room(line),
        arena.room(held),
        apart,
        arena.room(4 * (2 * radius + 1)),
      );
      return arena.read(source, plane.length);
    });
  };

export const wasmGaussianRecursive =
  (call: Call, reference: Kernels): Kernels['gaussianRecursive'] =>
  (plane, width, height, sigma, edges) => {
    if (width < LINES || height < LINES)
      return reference.gaussianRecursive(plane, width, height, sigma, edges);
    const recursion = recursionFor(sigma);
    const { gain, feedback } = recursion;
    const [x, y] = [wayAlong(width, edges.x, sigma, recursion), wayAlong(height, edges.y, sigma, recursion)];
    return call((exports, arena) => {
      const [across, down] = [x.samples.length, y.samples.length];
      const buffer = 8 * LINES * Math.max(across, 4 * down);
      // Whole groups of lines are written back where they were read; others overlap, and may not be read twice.
      const isWhole = height % LINES === 0 && width % GROUPS === 0;
      arena.begin(
        (isWhole ? 1 : 2) * plane.byteLength + 4 * (across + down) + buffer + STATE + 2 * SETTLE + 256,
      );
      const source = arena.floats(plane);
      const middle = isWhole ? source : arena.room(plane.byteLength);
      const way = ({ samples, before, warmUp, settle }: Way) => {
        const at = arena.integers(samples);
        const matrix = settle ? arena.room(SETTLE) : 0;
        if (settle) arena.doubles(matrix, settle);
        return [at, samples.length, before, warmUp, matrix];
      };
      exports.gaussianRecursive(
        ...[source, middle, width, height, ...way(x), ...way(y)],
        ...[arena.room(buffer), arena.room(STATE), gain, ...feedback],
      );
      return arena.read(source, plane.length);
    });
  };
