import type { Call, WasmHost } from '../host/wasm.ts';
import { AROUND, type cellNoise, type reference } from './reference.ts';

/** The codes of what is measured, as the module has them. */
export const MEASURES = { first: 0, second: 1, between: 2, value: 3 };
/** Bytes of the points about a cell: three values of each. */
export const POINTS = 8 * 3 * 25;

const wasmCellNoise =
  (call: Call): typeof cellNoise =>
  ({ row, rows, shift }, seed, xs, ys, times, measure, out) =>
    call((exports, arena) => {
      arena.begin(AROUND.byteLength + POINTS + 3 * xs.byteLength + 96);
      const put = (values: Float64Array) => {
        const at = arena.room(values.byteLength);
        arena.doubles(at, values);
        return at;
      };
      const [x, y] = [xs, ys].map(put);
      const around = arena.integers(AROUND);
      const points = arena.room(POINTS);
      const made = arena.room(out.byteLength);
      const code = MEASURES[measure];
      exports.cellNoise(x, y, made, xs.length, times, row, rows, shift, seed, code, around, points);
      arena.doublesInto(out, made, xs.length);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ cellNoise: wasmCellNoise(call) });
