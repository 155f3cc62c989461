import type { PhaseTable } from '../../raster/phases.ts';
import type { Arena } from '../host/arena.ts';
import type { Exports, WasmHost } from '../host/wasm.ts';
import type { reference, rowResampler } from './reference.ts';
import { resampleRow } from './reference.ts';

const FOUR = 4;

interface Weights {
  taps: number;
  weights: Float32Array;
}

const known = new WeakMap<PhaseTable, Weights>();

/** Weights with nothing added until the taps of a phase are a whole number of vectors; made once for a table. */
export function inFours(table: PhaseTable): Weights {
  const found = known.get(table);
  if (found) return found;
  const { taps, weights } = table;
  const more = Math.ceil(taps / FOUR) * FOUR;
  const phases = weights.length / taps;
  const out = new Float32Array(phases * more);
  for (let phase = 0; phase < phases; phase++)
    for (let k = 0; k < taps; k++) out[phase * more + k] = weights[phase * taps + k];
  const made = { taps: more, weights: out };
  known.set(table, made);
  return made;
}

/** The picture lies in the memory of an instance of its own while rows are asked for. */
const wasmRowResampler =
  (instance: () => { exports: Exports; arena: Arena }): typeof rowResampler =>
  (raster, edges) => {
    const { width, height, planes } = raster;
    const planeBytes = planes[0].byteLength;
    const { exports, arena } = instance();
    // Beyond the last row a vector may still look at what is weighed by nothing.
    arena.begin(planes.length * (planeBytes + 16) + 1024);
    const source = planes.map((plane) => arena.floats(plane));
    const apart = source.length > 1 ? source[1] - source[0] : 0;
    const begin = arena.mark();
    let held: { table: PhaseTable; at: number; taps: number } | null = null;
    let row: { width: number; out: number; xs: number; ys: number } | null = null;
    return (out, y, xs, ys, table) => {
      if (held?.table !== table || row?.width !== out.width) {
        const fours = inFours(table);
        const outBytes = 4 * out.width * planes.length;
        arena.resume(begin, fours.weights.byteLength + outBytes + 16 * out.width + 1024);
        held = { table, taps: fours.taps, at: arena.floats(fours.weights) };
        row = {
          width: out.width,
          out: arena.room(outBytes),
          xs: arena.room(8 * out.width),
          ys: arena.room(8 * out.width),
        };
      }
      arena.doubles(row.xs, xs);
      arena.doubles(row.ys, ys);
      const beyond = exports.resampleRow(
        source[0],
        apart,
        planes.length,
        width,
        height,
        row.out,
        4 * out.width,
        out.width,
        row.xs,
        row.ys,
        held.at,
        held.taps,
        table.taps,
        table.before,
      );
      for (let c = 0; c < planes.length; c++)
        out.planes[c].set(arena.view(row.out + 4 * out.width * c, out.width), y * out.width);
      if (beyond > 0) resampleRow(raster, edges, out, y, xs, ys, table, true);
    };
  };

export const wasm = ({ instance }: WasmHost): typeof reference => ({
  rowResampler: wasmRowResampler(instance),
});
