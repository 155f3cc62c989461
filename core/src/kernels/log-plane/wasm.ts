import { byBlocks } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { logPlane, reference } from './reference.ts';

const wasmLogPlane =
  (call: Call): typeof logPlane =>
  (plane, floor) =>
    byBlocks(call, plane, (exports, at, bytes) => exports.logPlane(at, bytes, floor));

export const wasm = ({ call }: WasmHost): typeof reference => ({
  logPlane: wasmLogPlane(call),
});
