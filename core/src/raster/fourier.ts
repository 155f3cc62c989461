import FFT from 'fft.js';

/** A complex plane: real and imaginary parts, rows from the top. */
export interface Spectrum {
  width: number;
  height: number;
  re: Float64Array;
  im: Float64Array;
}

/** Forward 2-D transform of a complex plane with sides that are powers of two, not scaled. */
export function fourier(spectrum: Spectrum): Spectrum {
  const { width, height } = spectrum;
  const re = Float64Array.from(spectrum.re);
  const im = Float64Array.from(spectrum.im);
  const lines = (n: number, count: number, start: (line: number) => number, step: number) => {
    const fft = new FFT(n);
    const input = fft.createComplexArray();
    const output = fft.createComplexArray();
    for (let line = 0; line < count; line++) {
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
  };
  lines(width, height, (y) => y * width, 1);
  lines(height, width, (x) => x, width);
  return { width, height, re, im };
}
