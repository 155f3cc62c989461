import { byBlocks } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { encodeSrgbPlane, reference } from './reference.ts';

const wasmEncodeSrgbPlane =
  (call: Call): typeof encodeSrgbPlane =>
  (plane) =>
    byBlocks(call, plane, (exports, at, bytes) => exports.encodeSrgb(at, bytes / 4));

export const wasm = ({ call }: WasmHost): typeof reference => ({
  encodeSrgbPlane: wasmEncodeSrgbPlane(call),
});
