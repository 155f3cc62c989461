import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Bytes that each step of a line, and each pixel seen, takes while a line is walked. */
const OF_A_STEP = 16 + 9;
const OF_A_REACH = 16;

export const wasmSweepHorizons =
  (call: Call): Kernels['sweepHorizons'] =>
  (field, size, { reach, step, lines }, bias, share) =>
    call((exports, arena) => {
      const count = size + reach;
      const tables = Math.max(...lines.map(({ rows }) => rows.byteLength));
      const line = OF_A_STEP * count + OF_A_REACH * (reach + 1);
      arena.begin(2 * field.byteLength + line + tables + 256);
      const source = arena.floats(field);
      const sum = arena.room(field.byteLength);
      arena.view(sum, field.length).fill(0);
      const mark = arena.mark();
      for (const { column, shift, between, rows, base, first, last, within } of lines) {
        arena.resume(mark, line + tables + 256);
        exports.sweepHorizons(
          source,
          sum,
          size,
          reach,
          arena.integers(column),
          arena.integers(shift),
          arena.bytes(between),
          arena.integers(rows),
          base,
          first,
          last,
          Number(within),
          step,
          bias,
          share,
          arena.room(16 * count + OF_A_REACH * (reach + 1)),
        );
      }
      return arena.read(sum, field.length);
    });
