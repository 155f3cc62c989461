import { vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { oklabPlanes, reference } from './reference.ts';

const wasmOklabPlanes =
  (call: Call): typeof oklabPlanes =>
  (planes) =>
    call((exports, arena) => {
      const { length } = planes[0];
      arena.begin(3 * vectors(length));
      const at = planes.map((plane) => arena.floats(plane));
      exports.toOklab(at[0], vectors(length));
      return at.map((one) => arena.read(one, length));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  oklabPlanes: wasmOklabPlanes(call),
});
