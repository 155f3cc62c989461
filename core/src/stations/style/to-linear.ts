import { oklabToLinear } from '../../colour/oklab.ts';
import { PLANES } from '../../memory/pool.ts';
import { inParts, type Steps } from '../../work/steps.ts';

const SLACK = 1e-4;
const ROUNDS = 8;
const isInside = (rgb: readonly number[]) => rgb.every((v) => v >= -SLACK && v <= 1 + SLACK);
const held = (value: number) => Math.min(1, Math.max(0, value));

/** Linear RGB 0..1 of an OKLab colour; one that no screen has loses richness, not hue or lightness, until it has. */
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

/** Planes of linear RGB 0..1 of planes of OKLab. */
export function* toLinear([L, a, b]: readonly Float32Array[]): Steps<Float32Array[]> {
  const out = [PLANES.take(L.length), PLANES.take(L.length), PLANES.take(L.length)];
  yield* inParts(L.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const rgb = inGamut(L[i], a[i], b[i]);
      for (let c = 0; c < 3; c++) out[c][i] = held(rgb[c]);
    }
  });
  return out;
}
