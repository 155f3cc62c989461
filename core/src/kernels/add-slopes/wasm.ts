import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { type addSlopes, LEAST_Z, type reference } from './reference.ts';

const wasmAddSlopes =
  (call: Call): typeof addSlopes =>
  (base, added) =>
    call((exports, arena) => {
      const count = base[0].length;
      const room = vectors(Math.min(BLOCK, count));
      arena.begin(6 * room);
      const at = arena.room(6 * room);
      for (let from = 0; from < count; from += BLOCK) {
        const length = Math.min(BLOCK, count - from);
        for (const [k, plane] of [...base, ...added].entries()) {
          arena.view(at + k * room, length).set(plane.subarray(from, from + length));
        }
        exports.addSlopes(at, room, vectors(length), LEAST_Z);
        for (const [c, plane] of added.entries()) plane.set(arena.view(at + (3 + c) * room, length), from);
      }
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ addSlopes: wasmAddSlopes(call) });
