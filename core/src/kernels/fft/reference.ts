import FFT from 'fft.js';
import type { Steps } from '../../work/steps.ts';

/** A complex plane: real and imaginary parts, rows from the top. */
export interface Spectrum {
  width: number;
  height: number;
  re: Float64Array;
  im: Float64Array;
}

/** Lines between two pauses. */
const LINES = 64;

/** Forward 2-D transform of a complex plane with sides that are powers of two, not scaled. */
export function* fourier(spectrum: Spectrum): Steps<Spectrum> {
  const { width, height } = spectrum;
  const re = Float64Array.from(spectrum.re);
  const im = Float64Array.from(spectrum.im);
  function* lines(n: number, count: number, start: (line: number) => number, step: number): Steps<void> {
    const fft = new FFT(n);
    const input = fft.createComplexArray();
    const output = fft.createComplexArray();
    for (let line = 0; line < count; line++) {
      if (line % LINES === 0) yield;
      const from = start(line);
      for (let k = 0; k < n; k++) {
        input[2 * k] = re[from + k * step];
        input[2 * k + 1] = im[from + k * step];
      }
      fft.transform(output, input);
      for (let k = 0; k < n; k++) {
        re[from + k * step] = output[2 * k];
        im[from + k * step] = output[2 * k + 1];
      }
    }
  }
  yield* lines(width, height, (y) => y * width, 1);
  yield* lines(height, width, (x) => x, width);
  return { width, height, re, im };
}

export const reference = { fourier };
