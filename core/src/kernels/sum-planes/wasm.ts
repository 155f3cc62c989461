import { PLANES } from '../../memory/pool.ts';
import type { Arena } from '../host/arena.ts';
import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, sumPlanes } from './reference.ts';

const wasmSumPlanes =
  (call: Call): typeof sumPlanes =>
  (planes, weights, range = {}, out = PLANES.take(planes[0].length)) => {
    const { base = 0, low = Number.NEGATIVE_INFINITY, high = Number.POSITIVE_INFINITY } = range;
    call((exports, arena: Arena) => {
      arena.begin((planes.length + 1) * vectors(BLOCK) + vectors(weights.length));
      const by = arena.floats(Float32Array.from(weights));
      const at = planes.map(() => arena.room(vectors(BLOCK)));
      const sum = arena.room(vectors(BLOCK));
      for (let from = 0; from < out.length; from += BLOCK) {
        const count = Math.min(BLOCK, out.length - from);
        const bytes = vectors(count);
        for (const [k, plane] of planes.entries()) {
          arena.view(at[0] + k * bytes, count).set(plane.subarray(from, from + count));
        }
        exports.sumPlanes(at[0], bytes, planes.length, by, sum, base, low, high);
        out.set(arena.view(sum, count), from);
      }
    });
    return out;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  sumPlanes: wasmSumPlanes(call),
});
