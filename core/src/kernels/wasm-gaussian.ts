import { firKernel } from '../filters/gaussian-fir.ts';
import { recursionFor, recursivePad } from '../filters/gaussian-recursive.ts';
import { edgeTable } from '../raster/edges.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Lines that go side by side. */
const LINES = 4;

export const wasmGaussianFir =
  (call: Call): Kernels['gaussianFir'] =>
  (plane, width, height, sigma, edges) => {
    const kernel = Float32Array.from(firKernel(sigma));
    const radius = kernel.length - 1;
    const columns = edgeTable(width, radius, radius, edges.x);
    const rows = edgeTable(height, radius, radius, edges.y);
    return call((exports, arena) => {
      const line = 4 * (width + 2 * radius);
      arena.begin(
        2 * plane.byteLength + columns.byteLength + rows.byteLength + 2 * line + 64 * kernel.length,
      );
      const source = arena.floats(plane);
      const middle = arena.room(plane.byteLength);
      exports.gaussianFir(
        source,
        middle,
        width,
        height,
        arena.integers(columns),
        arena.integers(rows),
        arena.floats(kernel),
        radius,
        arena.room(line),
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
    const { gain, feedback } = recursionFor(sigma);
    const pad = recursivePad(sigma);
    const columns = edgeTable(width, pad, pad, edges.x);
    const rows = edgeTable(height, pad, pad, edges.y);
    return call((exports, arena) => {
      const buffer = 8 * LINES * Math.max(columns.length, 4 * rows.length);
      arena.begin(2 * plane.byteLength + columns.byteLength + rows.byteLength + buffer + 256);
      const source = arena.floats(plane);
      const middle = arena.room(plane.byteLength);
      exports.gaussianRecursive(
        source,
        middle,
        width,
        height,
        arena.integers(columns),
        arena.integers(rows),
        pad,
        arena.room(buffer),
        gain,
        ...feedback,
      );
      return arena.read(source, plane.length);
    });
  };
