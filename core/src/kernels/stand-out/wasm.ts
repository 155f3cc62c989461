import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, standOut } from './reference.ts';
import { BINS } from './reference.ts';

const wasmStandOut =
  (call: Call): typeof standOut =>
  (plane, other, weight, floor) =>
    call((exports, arena) => {
      const { length } = plane;
      arena.begin(2 * plane.byteLength + 4 * BINS + 64);
      const at = arena.floats(plane);
      const beside = arena.floats(other);
      exports.standOut(at, beside, (length + 3) & ~3, length, weight, floor, arena.room(4 * BINS), BINS);
      return arena.read(at, length);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  standOut: wasmStandOut(call),
});
