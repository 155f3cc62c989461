import { edgeIndex } from '../../raster/edges.ts';
import { CROSS } from '../../raster/gradient.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, structureTensor } from './reference.ts';

/** Vectors at the end of a row look at, and write, a little more than it. */
const BEYOND = 4;

const wasmStructureTensor =
  (call: Call): typeof structureTensor =>
  (planes, weights, { width, height, edges }, { from, to }) =>
    call((exports, arena) => {
      const stride = width + 2 + BEYOND;
      const field = 4 * stride * (to - from + 2);
      const length = width * (to - from);
      const bytes = 4 * (length + BEYOND);
      arena.begin(field + 3 * bytes + 128);
      const source = arena.room(field);
      const made = [arena.room(bytes), arena.room(bytes), arena.room(bytes)];
      for (const at of made) arena.view(at, length).fill(0);
      const before = edgeIndex(-1, width, edges.x);
      const after = edgeIndex(width, width, edges.x);
      for (const [c, plane] of planes.entries()) {
        const rows = arena.view(source, field / 4);
        for (let y = from - 1; y <= to; y++) {
          const row = edgeIndex(y, height, edges.y) * width;
          const at = (y - from + 1) * stride;
          rows[at] = plane[row + before];
          rows.set(plane.subarray(row, row + width), at + 1);
          rows[at + 1 + width] = plane[row + after];
        }
        exports.structureTensor(source, 4 * stride, ...made, width, to - from, ...CROSS.scharr, weights[c]);
      }
      return made.map((at) => arena.read(at, length));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  structureTensor: wasmStructureTensor(call),
});
