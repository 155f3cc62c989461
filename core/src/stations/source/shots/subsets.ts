import { eliminate } from '../../../algebra/eliminate.ts';
import type { LightVector } from './light.ts';

/** How the normal follows from some of the shots. */
export interface Subset {
  /** Three values for each shot (0 for those left out): their sum, weighted by the brightness of the shots, is albedo times normal. */
  inverse: Float64Array;
  /** For each shot, by how much less than its error the fit misses it: 1 less its leverage. */
  freedom: Float64Array;
}

/** Shares of what three shots tell below which the lights nearly lie in one plane. */
const FLAT = 1e-6;

/** Least squares over a set of shots, made at first need and kept; shots are counted by the bits of `mask`. */
export class Subsets {
  readonly lights: readonly LightVector[];
  #known = new Map<number, Subset | null>();

  constructor(lights: readonly LightVector[]) {
    this.lights = lights;
  }

  /** Null where the lights of the set lie in one plane, so that no normal follows. */
  of(mask: number): Subset | null {
    const known = this.#known.get(mask);
    if (known !== undefined) return known;
    const made = this.#make(mask);
    this.#known.set(mask, made);
    return made;
  }

  #make(mask: number): Subset | null {
    const { lights } = this;
    const gram = [0, 1, 2].map((i) =>
      [0, 1, 2].map((j) =>
        lights.reduce((sum, light, k) => (mask & (1 << k) ? sum + light[i] * light[j] : sum), 0),
      ),
    );
    const [[a, b, c], [, d, e], [, , f]] = gram;
    const determinant = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
    if (determinant <= FLAT * ((a + d + f) / 3) ** 3) return null;
    const columns = [0, 1, 2].map((i) => eliminate(gram.map((row, r) => [...row, r === i ? 1 : 0])));
    const inverse = new Float64Array(3 * lights.length);
    const freedom = new Float64Array(lights.length).fill(1);
    for (const [k, light] of lights.entries()) {
      if (!(mask & (1 << k))) continue;
      let leverage = 0;
      for (let i = 0; i < 3; i++) {
        const value = columns[0][i] * light[0] + columns[1][i] * light[1] + columns[2][i] * light[2];
        inverse[3 * k + i] = value;
        leverage += value * light[i];
      }
      freedom[k] = Math.max(0, 1 - leverage);
    }
    return { inverse, freedom };
  }
}
