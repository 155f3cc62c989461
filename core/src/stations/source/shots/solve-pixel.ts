import type { Subsets } from './subsets.ts';

/** What one pixel of several shots comes to. */
export interface PixelSolution {
  /** Albedo times unit normal, in the brightness of the shots over the strength of the light. */
  x: number;
  y: number;
  z: number;
  /** The shots it follows from, by bits. */
  kept: number;
}

/** A shot so much darker than the brightest lies in shadow. */
const DARK = 0.1;
/** An error of so much of the albedo is no noise. */
const NOISE = 0.03;
/** Above this cost no shadow or highlight explains a shot. */
const EXPLAINED = 0.75;
/** How far from the mirror direction a highlight is still believed: 1 less the cosine. */
const LOBE = 0.3;
/** Rounds in which the even light, which depends on the albedo, is found. */
const EVEN_ROUNDS = 3;

const countOf = (mask: number): number => {
  let count = 0;
  for (let rest = mask; rest; rest &= rest - 1) count++;
  return count;
};

/**
 * Solves one pixel after another: albedo times normal by least squares (Woodham 1980), without the shots in shadow and those that
 * show a highlight. With four shots and more the one whose error is best explained by either is left out, again while four are
 * left (after Coleman & Jain 1982, and Barsky & Petrou 2003).
 */
export class PixelSolver {
  readonly out: PixelSolution = { x: 0, y: 0, z: 0, kept: 0 };
  #ambient: number;
  #at: Float64Array;
  #without = { x: 0, y: 0, z: 0 };

  /** `ambient` is the even light, where that of one lamp is 1. */
  constructor(ambient: number, shots: number) {
    this.#ambient = ambient;
    this.#at = new Float64Array(shots);
  }

  /** Least squares over a set of shots, less the even light; false where they tell no normal. */
  #fit(
    values: Float64Array,
    subsets: Subsets,
    mask: number,
    to: { x: number; y: number; z: number },
  ): boolean {
    const subset = subsets.of(mask);
    if (!subset) return false;
    const { inverse } = subset;
    let [x, y, z] = [0, 0, 0];
    let [sumX, sumY, sumZ] = [0, 0, 0];
    for (let k = 0; k < values.length; k++) {
      if (!(mask & (1 << k))) continue;
      x += inverse[3 * k] * values[k];
      y += inverse[3 * k + 1] * values[k];
      z += inverse[3 * k + 2] * values[k];
      sumX += inverse[3 * k];
      sumY += inverse[3 * k + 1];
      sumZ += inverse[3 * k + 2];
    }
    to.x = x;
    to.y = y;
    to.z = z;
    for (let round = 0; this.#ambient > 0 && round < EVEN_ROUNDS; round++) {
      const even = this.#ambient * Math.sqrt(to.x * to.x + to.y * to.y + to.z * to.z);
      to.x = x - even * sumX;
      to.y = y - even * sumY;
      to.z = z - even * sumZ;
    }
    return true;
  }

  /** How well a shadow or a highlight explains that one shot does not fit the others; 0 is best. */
  #cost(value: number, [lx, ly, lz]: readonly number[], g: { x: number; y: number; z: number }): number {
    const albedo = Math.sqrt(g.x * g.x + g.y * g.y + g.z * g.z) || 1e-9;
    const strength = Math.sqrt(lx * lx + ly * ly + lz * lz);
    const predicted = Math.max(0, lx * g.x + ly * g.y + lz * g.z) + this.#ambient * albedo;
    // In its own shadow: the others say that light does not reach it.
    if (value < DARK * albedo * strength && predicted < 2 * DARK * albedo * strength) return 0;
    if (value < predicted) return Math.max(0, value - this.#ambient * albedo) / predicted;
    // Towards the middle between light and eye.
    const [hx, hy, hz] = [lx, ly, lz + strength];
    const half = Math.sqrt(hx * hx + hy * hy + hz * hz);
    return (1 - (hx * g.x + hy * g.y + hz * g.z) / (half * albedo)) / LOBE;
  }

  /** The set without the shot that is best explained as shadow or highlight; 0 where all fit, or nothing explains them. */
  #lessOne(values: Float64Array, subsets: Subsets, mask: number): number {
    const { x, y, z } = this.out;
    const { freedom } = subsets.of(mask)!;
    const albedo = Math.sqrt(x * x + y * y + z * z);
    let worst = 0;
    for (let k = 0; k < values.length; k++) {
      if (!(mask & (1 << k))) continue;
      const [lx, ly, lz] = subsets.lights[k];
      const miss = Math.abs(values[k] - this.#ambient * albedo - (lx * x + ly * y + lz * z));
      this.#at[k] = miss;
      if (freedom[k] > 1e-6) worst = Math.max(worst, miss / Math.sqrt(freedom[k]));
    }
    if (worst <= NOISE * albedo) return 0;
    let least = EXPLAINED;
    let left = 0;
    for (let k = 0; k < values.length; k++) {
      const bit = 1 << k;
      if (!(mask & bit) || freedom[k] < 1e-3) continue;
      if (!this.#fit(values, subsets, mask & ~bit, this.#without)) continue;
      // A shot whose going changes little is not at fault.
      const share = this.#at[k] / Math.sqrt(freedom[k]) / worst;
      const cost = this.#cost(values[k], subsets.lights[k], this.#without) + (1 - share);
      if (cost < least) {
        least = cost;
        left = mask & ~bit;
      }
    }
    return left;
  }

  /** Solves a pixel by all shots of a set as they are. False where no normal follows. */
  solveAll(values: Float64Array, mask: number, subsets: Subsets): boolean {
    this.out.kept = mask;
    return this.#fit(values, subsets, mask, this.out);
  }

  /** Solves a pixel of these brightnesses; `usable` are the shots in which it is neither clipped nor outside. False where no normal follows. */
  solve(values: Float64Array, usable: number, subsets: Subsets): boolean {
    let mask = usable;
    let most = 0;
    for (let k = 0; k < values.length; k++) if (mask & (1 << k)) most = Math.max(most, values[k]);
    for (let k = 0; k < values.length; k++) {
      const without = mask & ~(1 << k);
      if (without !== mask && values[k] < DARK * most && countOf(without) >= 3 && subsets.of(without))
        mask = without;
    }
    if (!this.#fit(values, subsets, mask, this.out)) return false;
    while (countOf(mask) > 3) {
      const less = this.#lessOne(values, subsets, mask);
      if (less === 0) break;
      mask = less;
      this.#fit(values, subsets, mask, this.out);
    }
    this.out.kept = mask;
    return true;
  }
}
