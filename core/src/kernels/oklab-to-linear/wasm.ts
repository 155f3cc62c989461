import { onBlocks } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { type oklabToRgb, ROUNDS, type reference, SLACK } from './reference.ts';

const wasmOklabToRgb =
  (call: Call): typeof oklabToRgb =>
  (lab, into) =>
    onBlocks(call, lab, into, (exports, [at], bytes) => exports.oklabToRgb(at, bytes, SLACK, ROUNDS));

export const wasm = ({ call }: WasmHost): typeof reference => ({ oklabToRgb: wasmOklabToRgb(call) });
