import { vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { raisePlane, reference } from './reference.ts';

const wasmRaisePlane =
  (call: Call): typeof raisePlane =>
  (plane, other) =>
    call((exports, arena) => {
      arena.begin(2 * vectors(plane.length));
      const at = arena.floats(plane);
      exports.raisePlane(at, arena.floats(other), vectors(plane.length));
      plane.set(arena.view(at, plane.length));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  raisePlane: wasmRaisePlane(call),
});
