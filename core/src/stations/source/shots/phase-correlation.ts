import { inverseFft2, realSpectra } from '../../../fft/fft.ts';
import { mean } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';

/** By how much one plane lies away from another, in pixels. */
export interface Shift {
  x: number;
  y: number;
  /** How sure it is: 1 where the two are the same. */
  peak: number;
}

const powerAbove = (n: number) => 2 ** Math.ceil(Math.log2(n));

/** A plane softened to its border, in the middle of a larger one of zeros. */
function windowed(plane: Float32Array, width: number, height: number, edge: number): Float32Array {
  const out = new Float32Array(edge * edge);
  const level = mean(plane);
  const hann = (k: number, n: number) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / n);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      out[y * edge + x] = (plane[y * width + x] - level) * hann(x, width) * hann(y, height);
  }
  return out;
}

/** Where a parabola through three values has its top, −½…½ from the middle one. */
const top = (before: number, at: number, after: number): number => {
  const bend = before - 2 * at + after;
  return bend < 0 ? Math.min(0.5, Math.max(-0.5, (before - after) / (2 * bend))) : 0;
};

/** By how much the second plane shows the first farther right and down: phase correlation (Kuglin & Hines 1975). No farther than `farthest`. */
export function* phaseCorrelation(
  first: Float32Array,
  second: Float32Array,
  width: number,
  height: number,
  farthest: number,
): Steps<Shift> {
  const edge = powerAbove(Math.max(width, height));
  const [a, other] = yield* realSpectra(
    windowed(first, width, height, edge),
    windowed(second, width, height, edge),
    edge,
    edge,
  );
  const b = other!;
  for (let i = 0; i < a.re.length; i++) {
    const re = a.re[i] * b.re[i] + a.im[i] * b.im[i];
    const im = a.re[i] * b.im[i] - a.im[i] * b.re[i];
    const size = Math.hypot(re, im) || 1;
    a.re[i] = re / size;
    a.im[i] = im / size;
  }
  const { re } = yield* inverseFft2(a);
  const signed = (k: number) => (k > edge / 2 ? k - edge : k);
  let best = 0;
  for (let i = 0; i < re.length; i++) {
    if (re[i] > re[best] && Math.hypot(signed(i % edge), signed(Math.floor(i / edge))) <= farthest) best = i;
  }
  const [x, y] = [best % edge, Math.floor(best / edge)];
  const at = (i: number, j: number) => re[((j + edge) % edge) * edge + ((i + edge) % edge)];
  // Conjugated, the spectra shift the other way.
  return {
    x: signed(x) + top(at(x - 1, y), at(x, y), at(x + 1, y)),
    y: signed(y) + top(at(x, y - 1), at(x, y), at(x, y + 1)),
    peak: re[best],
  };
}
