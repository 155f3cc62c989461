import { PLANES } from '../../memory/pool.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { type reference, transposePlane } from './reference.ts';

/** Values that are turned at once, about. */
const BLOCK = 2 ** 20;

/** Sides that are no whole vectors are left to the reference. */
const wasmTransposePlane =
  (call: Call): typeof transposePlane =>
  (plane, width, height) => {
    if (width % 4 !== 0 || height % 4 !== 0) return transposePlane(plane, width, height);
    const out = PLANES.take(plane.length);
    const most = Math.max(4, Math.floor(BLOCK / width / 4) * 4);
    call((exports, arena) => {
      arena.begin(8 * width * Math.min(most, height));
      const from = arena.room(4 * width * Math.min(most, height));
      const turned = arena.room(4 * width * Math.min(most, height));
      for (let y = 0; y < height; y += most) {
        const rows = Math.min(most, height - y);
        arena.view(from, width * rows).set(plane.subarray(y * width, (y + rows) * width));
        exports.transposeBlock(from, turned, width, rows);
        const columns = arena.view(turned, width * rows);
        for (let x = 0; x < width; x++) {
          out.set(columns.subarray(x * rows, (x + 1) * rows), x * height + y);
        }
      }
    });
    return out;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  transposePlane: wasmTransposePlane(call),
});
