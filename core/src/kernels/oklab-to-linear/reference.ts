import { oklabToLinear } from '../../colour/oklab.ts';

/** How far a colour may lie outside of 0..1 and count as one that screens have. */
export const SLACK = 1e-4;
/** Halvings of what is left of a colour's richness. */
export const ROUNDS = 8;

const isInside = (rgb: readonly number[]) => rgb.every((v) => v >= -SLACK && v <= 1 + SLACK);
const held = (value: number) => Math.min(1, Math.max(0, value));

function inGamut(L: number, a: number, b: number): [number, number, number] {
  const lightness = held(L);
  const rgb = oklabToLinear(lightness, a, b);
  if (isInside(rgb)) return rgb;
  let [low, high] = [0, 1];
  for (let k = 0; k < ROUNDS; k++) {
    const middle = (low + high) / 2;
    if (isInside(oklabToLinear(lightness, a * middle, b * middle))) low = middle;
    else high = middle;
  }
  return oklabToLinear(lightness, a * low, b * low);
}

/**
 * Linear RGB 0..1 of planes of OKLab, into planes as long. A colour that no screen has loses richness, not hue or lightness, until
 * it has one.
 */
export function oklabToRgb([L, a, b]: readonly Float32Array[], into: readonly Float32Array[]): void {
  for (let i = 0; i < L.length; i++) {
    const rgb = inGamut(L[i], a[i], b[i]);
    for (let c = 0; c < 3; c++) into[c][i] = held(rgb[c]);
  }
}

export const reference = { oklabToRgb };
