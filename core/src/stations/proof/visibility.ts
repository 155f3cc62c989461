/** How many tiles are seen side by side, and over how many degrees of view: a floor of eight by eight, some way off. */
const TILES = 8;
const DEGREES = 12;
/** A light or dark blob is just noticed from this contrast on, where the eye sees best, as a share. */
const LEAST_LIGHT = 0.016;
/** The same of a blob that differs in colour alone. */
const LEAST_COLOUR = 0.012;

/** Sensitivity of the eye to contrast at a spatial frequency in cycles per degree, at most about 1 (Mannos & Sakrison 1974). */
export const contrastSensitivity = (cyclesPerDegree: number): number => {
  const f = 0.114 * cyclesPerDegree;
  return 2.6 * (0.0192 + f) * Math.exp(-(f ** 1.1));
};

/** A difference of Gaussians of σ and √2 σ passes most at this frequency, times 1/σ. */
const PEAK_FREQUENCY = Math.sqrt(Math.LN2 / 2) / Math.PI;
/** What such a difference leaves of a blob of its own size: 3 − 2√2. */
export const PEAK_RESPONSE = 3 - 2 * Math.SQRT2;

/**
 * The least contrast, as a difference of logarithms, at which a blob of size `sigma` (a share of the tile's shorter edge) is
 * noticed on the repeated tile. Lightness falls off towards broad blobs; colour does not (Mullen 1985).
 */
export function leastVisible(sigma: number, isColour: boolean): number {
  if (isColour) return LEAST_COLOUR;
  const cyclesPerDegree = ((PEAK_FREQUENCY / sigma) * TILES) / DEGREES;
  return LEAST_LIGHT / contrastSensitivity(cyclesPerDegree);
}

/** About how many independent places a fine band has; the largest value that chance gives grows with them. */
const MANY = 1000;
/** How far apart, in σ, such places lie. */
const APART = 2.5;

/** The largest of so many normal deviates, about, in deviations (Cramér 1946). */
const largestOf = (count: number) => Math.sqrt(2 * Math.log(2 * Math.max(2, count)));

/**
 * By how much a band's strengths are raised, so that one limit means the same in each: a broad band has few places that differ,
 * so its largest value by chance is smaller.
 */
export const rarityGain = (sigma: number): number =>
  Math.max(1, largestOf(MANY) / largestOf((APART * sigma) ** -2));
