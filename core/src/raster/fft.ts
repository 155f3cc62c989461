import FFT from 'fft.js';

/** A complex plane: real and imaginary parts, rows from the top. */
export interface Spectrum {
  width: number;
  height: number;
  re: Float64Array;
  im: Float64Array;
}

const isPowerOfTwo = (n: number) => n > 1 && (n & (n - 1)) === 0;

function transform(spectrum: Spectrum, inverse: boolean): Spectrum {
  const { width, height } = spectrum;
  if (!isPowerOfTwo(width) || !isPowerOfTwo(height)) {
    throw new RangeError(`The Fourier transform takes powers of two, not ${width} × ${height}.`);
  }
  const re = Float64Array.from(spectrum.re);
  const im = Float64Array.from(spectrum.im);
  const lines = (fft: FFT, n: number, count: number, start: (line: number) => number, step: number) => {
    const input = fft.createComplexArray();
    const output = fft.createComplexArray();
    for (let line = 0; line < count; line++) {
      const from = start(line);
      for (let k = 0; k < n; k++) {
        input[2 * k] = re[from + k * step];
        input[2 * k + 1] = im[from + k * step];
      }
      if (inverse) fft.inverseTransform(output, input);
      else fft.transform(output, input);
      for (let k = 0; k < n; k++) {
        re[from + k * step] = output[2 * k];
        im[from + k * step] = output[2 * k + 1];
      }
    }
  };
  lines(new FFT(width), width, height, (y) => y * width, 1);
  lines(new FFT(height), height, width, (x) => x, width);
  return { width, height, re, im };
}

/** The whole frequency at place `i` of a transform of `n`: below zero in the second half. */
export const frequency = (i: number, n: number): number => (i < n / 2 ? i : i - n);

/** Forward 2-D transform of a complex plane, not scaled. @throws RangeError off powers of two. */
export function fft2(spectrum: Spectrum): Spectrum {
  return transform(spectrum, false);
}

/** Inverse 2-D transform, scaled by 1/(width·height). @throws RangeError off powers of two. */
export function inverseFft2(spectrum: Spectrum): Spectrum {
  return transform(spectrum, true);
}

/**
 * Spectra of one or two real planes from a single complex transform: the second plane rides in the
 * imaginary part and is taken apart by Hermitian symmetry (Press et al., Numerical Recipes, 1992).
 */
export function realSpectra(
  first: Float32Array,
  second: Float32Array | null,
  width: number,
  height: number,
): [Spectrum, Spectrum | null] {
  const re = Float64Array.from(first);
  const im = second ? Float64Array.from(second) : new Float64Array(first.length);
  const both = fft2({ width, height, re, im });
  if (!second) return [both, null];
  const a: Spectrum = { width, height, re: new Float64Array(re.length), im: new Float64Array(re.length) };
  const b: Spectrum = { width, height, re: new Float64Array(re.length), im: new Float64Array(re.length) };
  for (let y = 0; y < height; y++) {
    const my = y === 0 ? 0 : height - y;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const j = my * width + (x === 0 ? 0 : width - x);
      a.re[i] = (both.re[i] + both.re[j]) / 2;
      a.im[i] = (both.im[i] - both.im[j]) / 2;
      b.re[i] = (both.im[i] + both.im[j]) / 2;
      b.im[i] = (both.re[j] - both.re[i]) / 2;
    }
  }
  return [a, b];
}
