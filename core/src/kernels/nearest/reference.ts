/** Features by which a patch is told, in whole vectors: what is left over is 0. */
export const FEATURES = 16;

/** Patches, each `FEATURES` long in `features`, their corners as pairs (x, y). */
export interface Patches {
  features: Float32Array;
  corners: Int32Array;
}

/** The nearest patch of a bank for each of some patches, and how far it is. */
export interface Nearest {
  which: Int32Array;
  distance: Float32Array;
}

/**
 * For each of `asked` the patch of a bank that is nearest by its features; those whose corner lies less than `apart` from its
 * own on both axes are left out.
 */
export function nearestPatches(asked: Patches, bank: Patches, apart: number): Nearest {
  const count = asked.corners.length / 2;
  const which = new Int32Array(count);
  const distance = new Float32Array(count);
  for (let n = 0; n < count; n++) {
    const from = n * FEATURES;
    const [x, y] = [asked.corners[2 * n], asked.corners[2 * n + 1]];
    let best = Number.POSITIVE_INFINITY;
    for (let k = 0, at = 0; at < bank.features.length; k++, at += FEATURES) {
      let sum = 0;
      for (let f = 0; f < FEATURES; f++) {
        const d = asked.features[from + f] - bank.features[at + f];
        sum += d * d;
        // Most are out after the first few terms.
        if ((f & 3) === 3 && sum >= best) break;
      }
      if (sum >= best) continue;
      if (Math.abs(bank.corners[2 * k] - x) < apart && Math.abs(bank.corners[2 * k + 1] - y) < apart)
        continue;
      best = sum;
      which[n] = k;
    }
    distance[n] = Math.sqrt(best);
  }
  return { which, distance };
}

export const reference = { nearestPatches };
