import type { Call, WasmHost } from '../host/wasm.ts';
import { COS, type gradientNoise, type reference, SIN } from './reference.ts';

const wasmGradientNoise =
  (call: Call): typeof gradientNoise =>
  ({ row, rows, shift }, seed, xs, ys, times, out) =>
    call((exports, arena) => {
      arena.begin(COS.byteLength + SIN.byteLength + 3 * xs.byteLength + 64);
      const put = (values: Float64Array) => {
        const at = arena.room(values.byteLength);
        arena.doubles(at, values);
        return at;
      };
      const [cos, sin, x, y] = [COS, SIN, xs, ys].map(put);
      const made = arena.room(out.byteLength);
      exports.gradientNoise(x, y, made, xs.length, times, row, rows, shift, seed, cos, sin);
      arena.doublesInto(out, made, xs.length);
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ gradientNoise: wasmGradientNoise(call) });
