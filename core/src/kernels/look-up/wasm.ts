import { PLANES } from '../../memory/pool.ts';
import { BLOCK, vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { lookUp, reference } from './reference.ts';

const wasmLookUp =
  (call: Call): typeof lookUp =>
  (values, tables) => {
    const outs = tables.map(() => PLANES.take(values.length));
    call((exports, arena) => {
      const room = vectors(Math.min(BLOCK, values.length));
      const entries = tables[0].length - 1;
      arena.begin((2 * tables.length + 1) * Math.max(room, vectors(entries + 1)));
      const at = arena.room(room);
      const out = arena.room(room);
      const places = tables.map((table) => arena.floats(table));
      for (let from = 0; from < values.length; from += BLOCK) {
        const block = values.subarray(from, from + BLOCK);
        arena.view(at, block.length).set(block);
        for (const [c, table] of places.entries()) {
          exports.lookUp(at, out, vectors(block.length), table, entries);
          outs[c].set(arena.view(out, block.length), from);
        }
      }
    });
    return outs;
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({ lookUp: wasmLookUp(call) });
