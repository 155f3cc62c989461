import type { Call, WasmHost } from '../host/wasm.ts';
import type { addSteps, reference } from './reference.ts';

const wasmAddSteps =
  (call: Call): typeof addSteps =>
  (plane, width, columns) =>
    call((exports, arena) => {
      const rows = plane.length / width;
      const count = Math.max(0, rows - 1);
      arena.begin(plane.byteLength + columns.byteLength + 8 * count + 128);
      const source = arena.floats(plane);
      const sums = arena.room(columns.byteLength);
      const between = arena.room(8 * count);
      arena.doubles(sums, columns);
      exports.addSteps(source, width, rows, sums, between);
      columns.set(arena.doublesAt(sums, width));
      return arena.doublesAt(between, count);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  addSteps: wasmAddSteps(call),
});
