import { inPlace } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { combineCovers, levelPlane, reference } from './reference.ts';

const COMBINING = { and: 0, or: 1, without: 2 };

const wasmCombineCovers =
  (call: Call): typeof combineCovers =>
  (cover, own, how) =>
    inPlace(call, cover, [own], (exports, at, [over], bytes, [step]) =>
      exports.combineCovers(at, over, bytes, step, COMBINING[how]),
    );

const wasmLevelPlane =
  (call: Call): typeof levelPlane =>
  (plane, middle, scale) =>
    inPlace(call, plane, [], (exports, at, _others, bytes) => exports.levelPlane(at, bytes, middle, scale));

export const wasm = ({ call }: WasmHost): typeof reference => ({
  combineCovers: wasmCombineCovers(call),
  levelPlane: wasmLevelPlane(call),
});
