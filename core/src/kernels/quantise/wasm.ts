import type { Call, WasmHost } from '../host/wasm.ts';
import type { quantise, reference } from './reference.ts';

/** Values of a plane that become codes at once. */
const BLOCK = 2 ** 16;

const wasmQuantise =
  (call: Call): typeof quantise =>
  (planes, bits, out = new (bits === 8 ? Uint8Array : Uint16Array)(planes[0].length * planes.length)) => {
    const { length } = planes[0];
    const [channels, bytes] = [planes.length, bits / 8];
    call((exports, arena) => {
      arena.begin(4 * BLOCK + channels * bytes * BLOCK + 64);
      const values = arena.room(4 * BLOCK);
      const codes = arena.room(channels * bytes * BLOCK);
      const quantise = bits === 8 ? exports.quantise8 : exports.quantise16;
      for (let from = 0; from < length; from += BLOCK) {
        const count = Math.min(BLOCK, length - from);
        for (const [c, plane] of planes.entries()) {
          arena.view(values, count).set(plane.subarray(from, from + count));
          quantise(values, codes + c * bytes, (count + 3) & ~3, channels * bytes);
        }
        out.set(arena.codes(codes, count * channels, bits), from * channels);
      }
    });
    return out;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  quantise: wasmQuantise(call),
});
