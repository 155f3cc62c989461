import { vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { divideRows, reference } from './reference.ts';

const wasmDivideRows =
  (call: Call): typeof divideRows =>
  (from, out, { width, terms, start, step }, shade) =>
    call((exports, arena) => {
      // The last vector of a row may reach into the next one, which is written after it.
      arena.begin((shade ? 3 : 2) * (vectors(from.length) + 16) + vectors(terms.length) + 64);
      const source = arena.floats(from);
      const light = arena.floats(terms);
      const shades = shade ? arena.floats(shade) : 0;
      const made = arena.room(vectors(from.length) + 16);
      exports.divideRows(source, made, width, from.length / width, light, start, step, shades);
      out.set(arena.view(made, out.length));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  divideRows: wasmDivideRows(call),
});
