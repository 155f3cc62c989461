import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, takeCodes } from './reference.ts';

/** Pixels that are read at once. */
const BLOCK = 2 ** 15;

const wasmTakeCodes =
  (call: Call): typeof takeCodes =>
  (data, channels, table, planes) =>
    call((exports, arena) => {
      const bytes = data.BYTES_PER_ELEMENT;
      const codesBytes = BLOCK * channels * bytes;
      arena.begin(codesBytes + 12 * BLOCK + table.byteLength + 64);
      const by = arena.floats(table);
      const from = arena.room(codesBytes);
      const to = arena.room(12 * BLOCK);
      const take = bytes === 1 ? exports.takeCodes8 : exports.takeCodes16;
      const { length } = planes[0];
      for (let at = 0; at < length; at += BLOCK) {
        const count = Math.min(BLOCK, length - at);
        const codes = data.subarray(at * channels, (at + count) * channels);
        arena.codes(from, codes.length, bytes === 1 ? 8 : 16).set(codes);
        take(from, count, channels, by, to);
        for (let c = 0; c < 3; c++) planes[c].set(arena.view(to + 4 * c * count, count), at);
      }
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  takeCodes: wasmTakeCodes(call),
});
