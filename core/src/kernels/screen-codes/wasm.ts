import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, screenCodes } from './reference.ts';

const wasmScreenCodes =
  (call: Call): typeof screenCodes =>
  (planes, as) => {
    const { length } = planes[0];
    const out = new Uint8ClampedArray(4 * length);
    const { gain, base } = as === 'colour' ? { gain: 1, base: 0 } : as;
    call((exports, arena) => {
      arena.begin((planes.length + 1) * vectors(BLOCK));
      const at = planes.map(() => arena.room(vectors(BLOCK)));
      const [red, green, blue] = at.length === 1 ? [at[0], at[0], at[0]] : at;
      const made = arena.room(vectors(BLOCK));
      for (let from = 0; from < length; from += BLOCK) {
        const count = Math.min(BLOCK, length - from);
        for (const [c, plane] of planes.entries()) {
          arena.view(at[c], count).set(plane.subarray(from, from + count));
        }
        exports.screenCodes(red, green, blue, made, vectors(count), Number(as === 'colour'), gain, base);
        out.set(arena.codes(made, 4 * count, 8), 4 * from);
      }
    });
    return out;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  screenCodes: wasmScreenCodes(call),
});
