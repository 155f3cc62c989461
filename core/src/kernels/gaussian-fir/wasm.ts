import { edgeIndex, edgeTable } from '../../raster/edges.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { gaussianFirBand, reference } from './reference.ts';

/** Columns that are gone down together: the rows of them that are looked at stay in the processor's first cache. */
const STRIP = 256;

const wasmGaussianFirBand =
  (call: Call): typeof gaussianFirBand =>
  (plane, out, { width, height, edges }, half, { from, to }) => {
    const kernel = Float32Array.from(half);
    const radius = kernel.length - 1;
    const columns = edgeTable(width, radius, radius, edges.x);
    call((exports, arena) => {
      const rows = to - from;
      const ring = 2 * radius + 1;
      const line = width + 2 * radius;
      const all = line * (rows + 2 * radius);
      arena.begin(4 * (all + rows * width + line + kernel.length + ring * (STRIP + 1)) + 256);
      const block = arena.room(4 * all);
      const lines = arena.view(block, all);
      for (let k = 0; k < rows + 2 * radius; k++) {
        const row = edgeIndex(from - radius + k, height, edges.y) * width;
        lines.set(plane.subarray(row, row + width), k * line + radius);
      }
      const result = arena.room(4 * rows * width);
      exports.gaussianFirBand(
        block,
        result,
        width,
        rows,
        plane[0],
        arena.integers(columns),
        arena.floats(kernel),
        radius,
        arena.room(4 * ring * STRIP),
        STRIP,
        arena.room(4 * ring),
      );
      out.set(arena.view(result, rows * width), from * width);
    });
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  gaussianFirBand: wasmGaussianFirBand(call),
});
