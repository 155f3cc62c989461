import type { Lattice } from '../../lattice/lattice.ts';
import { type CellMeasure, reference as cell } from '../cell-noise/reference.ts';
import { reference as gradient } from '../gradient-noise/reference.ts';

/** The far end of the distances of cellular noise, in cells. */
const FARTHEST = 1.15;
const SECOND_FARTHEST = 1.5;

/** What each kind of cellular noise measures, and what of it comes to 1. */
export const CELL_KINDS = {
  cells: ['first', FARTHEST],
  'second-cells': ['second', SECOND_FARTHEST],
  'cell-edges': ['between', 1],
  'cell-values': ['value', 1],
} as const satisfies Record<string, readonly [CellMeasure, number]>;

/** Values 0..1 of gradient noise −1..1: as they are, billowed or ridged (Musgrave 1994). */
export const BENT = {
  fractal: (value: number) => 0.5 + 0.5 * value,
  billowed: (value: number) => Math.abs(value),
  ridged(value: number) {
    const ridge = 1 - Math.abs(value);
    return ridge * ridge;
  },
};

/** Noise that is made of layers of one kind. */
export type LayeredNoise = keyof typeof BENT | keyof typeof CELL_KINDS;

export const isCellular = (kind: LayeredNoise): kind is keyof typeof CELL_KINDS => kind in CELL_KINDS;

/** One layer: its cells, which are `times` as fine as those that places are given in, and how much it weighs. */
export interface NoiseLayer {
  lattice: Lattice;
  seed: number;
  times: number;
  weight: number;
}

/** Values 0..1 of noise at places in cells, the sum of its layers, into `out`. */
export function noiseLayers(
  kind: LayeredNoise,
  layers: readonly NoiseLayer[],
  xs: Float64Array,
  ys: Float64Array,
  out: Float32Array,
): void {
  const values = new Float64Array(xs.length);
  out.fill(0);
  for (const { lattice, seed, times, weight } of layers) {
    if (isCellular(kind)) {
      const [measure, whole] = CELL_KINDS[kind];
      cell.cellNoise(lattice, seed, xs, ys, times, measure, values);
      for (let k = 0; k < values.length; k++) out[k] += weight * Math.min(1, values[k] / whole);
    } else {
      const bent = BENT[kind];
      gradient.gradientNoise(lattice, seed, xs, ys, times, values);
      for (let k = 0; k < values.length; k++) out[k] += weight * bent(values[k]);
    }
  }
}

export const reference = { noiseLayers };
