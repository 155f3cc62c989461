import { edgeIndex, edgeTable } from '../../raster/edges.ts';
import type { Arena } from '../host/arena.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import type { reference, sweepHorizons } from './reference.ts';

/** Columns that look at once. */
const ACROSS = 16;
/** Steps whose highest value is known at once. */
const STEPS = 8;

const inWhole = (columns: number) => ACROSS * Math.ceil(columns / ACROSS);

/** Rows of a square field from `low` on, so many, going on to both sides by `pad` columns. */
function padded(
  arena: Arena,
  field: Float32Array,
  size: number,
  edges: Parameters<typeof sweepHorizons>[2]['edges'],
  { low, rows, width, pad }: { low: number; rows: number; width: number; pad: number },
): number {
  const at = arena.room(4 * width * rows);
  const out = arena.view(at, width * rows);
  const columns = edgeTable(size, pad, width - pad - size, edges.x);
  for (let y = 0; y < rows; y++) {
    const from = edgeIndex(low + y, size, edges.y) * size;
    const to = y * width;
    for (let x = 0; x < pad; x++) out[to + x] = field[from + columns[x]];
    out.set(field.subarray(from, from + size), to + pad);
    for (let x = pad + size; x < width; x++) out[to + x] = field[from + columns[x]];
  }
  return at;
}

const wasmSweepHorizons =
  (call: Call): typeof sweepHorizons =>
  (field, size, { directions, radius, bias, edges }, { from, to }) =>
    call((exports, arena) => {
      const beyond = Math.floor(radius) + STEPS;
      const pad = inWhole(beyond + ACROSS);
      const across = inWhole(size);
      const width = across + 2 * pad;
      const rows = to - from + 2 * beyond;
      arena.begin(4 * (width * rows * (1 + 1 / ACROSS) + across * (to - from) + beyond) + 256);
      const source = padded(arena, field, size, edges, { low: from - beyond, rows, width, pad });
      const peaks = arena.room((4 * width * rows) / ACROSS);
      exports.peaksOf(source, width, rows, peaks);
      const inverse = arena.floats(Float32Array.from({ length: beyond }, (_, steps) => 1 / steps));
      const sum = arena.room(4 * across * (to - from));
      arena.view(sum, across * (to - from)).fill(0);
      for (const { down, slope, share } of directions) {
        const step = Math.sqrt(1 + slope * slope);
        exports.sweepHorizons(
          source,
          width,
          peaks,
          inverse,
          beyond,
          to - from,
          pad,
          across,
          sum,
          down,
          2 * slope,
          Math.max(1, Math.floor(radius / step)),
          step,
          bias,
          share,
        );
      }
      const out = new Float32Array(size * (to - from));
      for (let y = 0; y < to - from; y++) out.set(arena.view(sum + 4 * across * y, size), size * y);
      return out;
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({
  sweepHorizons: wasmSweepHorizons(call),
});
