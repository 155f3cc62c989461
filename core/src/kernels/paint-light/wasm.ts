import { onBlocks } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { paintLight, reference } from './reference.ts';

const wasmPaintLight =
  (call: Call): typeof paintLight =>
  (planes, by, into) => {
    const numbers = [by.strength, by.ink, by.byRidge, by.ofThin, by.ofWide, by.lightX, by.lightY];
    let changed = 0;
    onBlocks(call, planes, into, (exports, [at], bytes, count) => {
      changed += exports.paintLight(at, bytes, count, ...numbers, by.middleA, by.middleB, by.gain);
    });
    return changed;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({ paintLight: wasmPaintLight(call) });
