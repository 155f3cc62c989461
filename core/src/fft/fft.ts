import type { Spectrum } from '../kernels/fft/reference.ts';
import { KERNELS } from '../kernels/kernels.ts';
import { PAUSE_ROWS, type Steps } from '../work/steps.ts';

export type { Spectrum };

const isPowerOfTwo = (n: number) => n > 1 && (n & (n - 1)) === 0;

function transform(spectrum: Spectrum): Steps<Spectrum> {
  const { width, height } = spectrum;
  if (!isPowerOfTwo(width) || !isPowerOfTwo(height)) {
    throw new RangeError(`The Fourier transform takes powers of two, not ${width} × ${height}.`);
  }
  return KERNELS.fourier(spectrum);
}

/** The whole frequency at place `i` of a transform of `n`: below zero in the second half. */
export const frequency = (i: number, n: number): number => (i < n / 2 ? i : i - n);

/** Forward 2-D transform of a complex plane, not scaled. @throws RangeError off powers of two. */
export function fft2(spectrum: Spectrum): Steps<Spectrum> {
  return transform(spectrum);
}

function scaleBy(values: Float64Array, scale: number): void {
  for (let i = 0; i < values.length; i++) values[i] *= scale;
}

/** Inverse 2-D transform, scaled by 1/(width·height). @throws RangeError off powers of two. */
export function* inverseFft2(spectrum: Spectrum): Steps<Spectrum> {
  const { width, height, re, im } = spectrum;
  // With its parts changed over, a forward transform goes backwards.
  const back = yield* transform({ width, height, re: im, im: re });
  const scale = 1 / (width * height);
  for (const part of [back.re, back.im]) {
    yield;
    scaleBy(part, scale);
  }
  return { width, height, re: back.im, im: back.re };
}

/**
 * Spectra of one or two real planes from a single complex transform: the second plane rides in the
 * imaginary part and is taken apart by Hermitian symmetry (Press et al., Numerical Recipes, 1992).
 */
export function* realSpectra(
  first: Float32Array,
  second: Float32Array | null,
  width: number,
  height: number,
): Steps<[Spectrum, Spectrum | null]> {
  const re = new Float64Array(first);
  const im = second ? new Float64Array(second) : new Float64Array(first.length);
  const planes = { width, height, re, im };
  if (!second) return [yield* fft2(planes), null];
  return yield* spectraOfBoth(planes);
}

/** Spectra of two real planes, one in the real part and one in the imaginary part, which are written over. */
export function* spectraOfBoth(planes: Spectrum): Steps<[Spectrum, Spectrum]> {
  const { width, height, re, im } = planes;
  const both = yield* fft2(planes);
  const other: Spectrum = { width, height, re, im };
  for (let y = 0; 2 * y <= height; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    apart(both, other, y);
  }
  return [both, other];
}

/** Takes two spectra apart in a row and the one that mirrors it: `both` becomes the first, `other` the second. */
function apart(both: Spectrum, other: Spectrum, y: number): void {
  const { width, height, re, im } = both;
  const { re: otherRe, im: otherIm } = other;
  const row = y * width;
  const mirror = (y === 0 ? 0 : height - y) * width;
  // A row that mirrors itself is done by half.
  const last = mirror === row ? width / 2 : width - 1;
  for (let x = 0; x <= last; x++) {
    const i = row + x;
    const j = mirror + (x === 0 ? 0 : width - x);
    const [ri, rj, ii, ij] = [re[i], re[j], im[i], im[j]];
    re[i] = (ri + rj) / 2;
    im[i] = (ii - ij) / 2;
    re[j] = re[i];
    im[j] = -im[i];
    otherRe[i] = (ii + ij) / 2;
    otherIm[i] = (rj - ri) / 2;
    otherRe[j] = otherRe[i];
    otherIm[j] = -otherIm[i];
  }
}
