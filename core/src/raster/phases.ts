/** Of the kernel, to each side. */
export const LOBES = 3;
/** Sub-pixel places for which weights are made once: the rounding errs by less than 3e-4. */
export const PHASES = 4096;

const lanczos3 = (x: number): number => {
  const p = Math.PI * Math.abs(x);
  if (p < 1e-8) return 1;
  return p >= Math.PI * LOBES ? 0 : (LOBES * Math.sin(p) * Math.sin(p / LOBES)) / (p * p);
};

/** Weights of a Lanczos kernel for every sub-pixel place. */
export interface PhaseTable {
  taps: number;
  /** Taps before the pixel in which the centre lies. */
  before: number;
  /** `taps` weights for each phase, their sum 1. */
  weights: Float64Array;
}

/** So many stretches are kept: those of the sizes a tile is shown at, or of the rows of a bent one. */
const KEPT = 16;
const kept = new Map<number, PhaseTable>();

/** The weights of a Lanczos kernel of three lobes, stretched (Duchon 1979). */
export function phaseTable(stretch: number): PhaseTable {
  const known = kept.get(stretch);
  if (known) return known;
  const table = newTable(stretch);
  if (kept.size === KEPT) kept.delete(kept.keys().next().value!);
  kept.set(stretch, table);
  return table;
}

function newTable(stretch: number): PhaseTable {
  const reach = LOBES * stretch;
  const before = Math.ceil(reach) - 1;
  const taps = before + 1 + Math.ceil(reach);
  const weights = new Float64Array(PHASES * taps);
  for (let phase = 0; phase < PHASES; phase++) {
    const at = phase * taps;
    let sum = 0;
    for (let k = 0; k < taps; k++) sum += weights[at + k] = lanczos3((k - before - phase / PHASES) / stretch);
    for (let k = 0; k < taps; k++) weights[at + k] /= sum;
  }
  return { taps, before, weights };
}
