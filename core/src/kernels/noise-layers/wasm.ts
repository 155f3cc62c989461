import { AROUND } from '../cell-noise/reference.ts';
import { MEASURES, POINTS } from '../cell-noise/wasm.ts';
import { COS, SIN } from '../gradient-noise/reference.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { CELL_KINDS, isCellular, type noiseLayers, type reference } from './reference.ts';

/** The codes of the ways a layer is bent, as the module has them. */
const BENDS = { fractal: 0, billowed: 1, ridged: 2 };
const CELLULAR = 3;

const wasmNoiseLayers =
  (call: Call): typeof noiseLayers =>
  (kind, layers, xs, ys, out) =>
    call((exports, arena) => {
      const count = xs.length;
      arena.begin(AROUND.byteLength + POINTS + 2 * COS.byteLength + 3 * xs.byteLength + out.byteLength + 160);
      const put = (values: Float64Array) => {
        const at = arena.room(values.byteLength);
        arena.doubles(at, values);
        return at;
      };
      const [x, y] = [xs, ys].map(put);
      const made = arena.room(xs.byteLength);
      const sum = arena.room(out.byteLength);
      arena.view(sum, count).fill(0);
      if (isCellular(kind)) {
        const [measure, whole] = CELL_KINDS[kind];
        const around = arena.integers(AROUND);
        const points = arena.room(POINTS);
        for (const { lattice, seed, times, weight } of layers) {
          const { row, rows, shift } = lattice;
          const how = [times, row, rows, shift, seed, MEASURES[measure], around, points];
          exports.cellNoise(x, y, made, count, ...how);
          exports.addLayer(made, sum, count, weight, CELLULAR, whole);
        }
      } else {
        const [cos, sin] = [COS, SIN].map(put);
        for (const { lattice, seed, times, weight } of layers) {
          const { row, rows, shift } = lattice;
          exports.gradientNoise(x, y, made, count, times, row, rows, shift, seed, cos, sin);
          exports.addLayer(made, sum, count, weight, BENDS[kind], 1);
        }
      }
      out.set(arena.view(sum, count));
    });

export const wasm = ({ call }: WasmHost): typeof reference => ({ noiseLayers: wasmNoiseLayers(call) });
