import { PLANES } from '../../memory/pool.ts';
import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, shippedSlopes } from './reference.ts';

const wasmShippedSlopes =
  (call: Call): typeof shippedSlopes =>
  (planes, green) =>
    call((exports, arena) => {
      const { length } = planes[0];
      const slopes: [Float32Array, Float32Array] = [PLANES.take(length), PLANES.take(length)];
      arena.begin(3 * vectors(BLOCK));
      const at = planes.map(() => arena.room(vectors(BLOCK)));
      for (let from = 0; from < length; from += BLOCK) {
        const count = Math.min(BLOCK, length - from);
        for (const [c, plane] of planes.entries()) {
          arena.view(at[c], count).set(plane.subarray(from, from + count));
        }
        exports.shippedSlopes(at[0], at[1], at[2], vectors(count), green);
        for (const [c, out] of slopes.entries()) out.set(arena.view(at[c], count), from);
      }
      return slopes;
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  shippedSlopes: wasmShippedSlopes(call),
});
