import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { drawTo, reference } from './reference.ts';

const wasmDrawTo =
  (call: Call): typeof drawTo =>
  (planes, { values, steps, low, scale }, into) =>
    call((exports, arena) => {
      const { length } = planes[0];
      const room = vectors(Math.min(BLOCK, length));
      arena.begin(7 * room + values.byteLength + 64);
      const at = arena.room(3 * room);
      const out = arena.room(4 * room);
      const table = arena.floats(values);
      for (let from = 0; from < length; from += BLOCK) {
        const count = Math.min(BLOCK, length - from);
        for (const [c, plane] of planes.entries()) {
          arena.view(at + c * room, count).set(plane.subarray(from, from + count));
        }
        exports.drawTo(at, room, count, out, table, steps, ...low, ...scale);
        into.set(arena.view(out, 4 * count), 4 * from);
      }
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ drawTo: wasmDrawTo(call) });
