import { fft2, frequency, inverseFft2, type Spectrum } from '../../fft/fft.ts';
import type { Sides } from '../../raster/sides.ts';
import { mean } from '../../statistics/statistics.ts';
import { PAUSE_ROWS, type Steps } from '../../work/steps.ts';
import { type SideLight, sideLightIn } from '../even/side-light.ts';

/** Regularisation: how much a frequency square to the light must not be trusted. */
const LAMBDA = 0.3;
/** Cycles over the longer edge below which light and colour, not relief, make the tone. */
const BROAD = 10;

/** The line of slanting light in a tile that wraps, by its log luminance: no window is needed, no part counts less. */
export function* lightInTile(log: Float32Array, { width, height }: Sides): Steps<SideLight> {
  const spectrum = { width, height, re: new Float64Array(log), im: new Float64Array(log.length) };
  return yield* sideLightIn(yield* fft2(spectrum), null);
}

/** From which side a line of light (degrees clockwise from level) comes if it comes from above, clockwise from the top. */
export function fromAbove(line: number): number {
  const turn = (line * Math.PI) / 180;
  const up = Math.sin(turn) > 0 ? -1 : 1;
  const degrees = (Math.atan2(up * Math.cos(turn), -up * Math.sin(turn)) * 180) / Math.PI;
  return (degrees + 360) % 360;
}

/** Tone about its mean, as a share of that. */
function contrastOf(grey: Float32Array): Float64Array {
  const middle = Math.max(1e-6, mean(grey));
  const out = new Float64Array(grey.length);
  for (let i = 0; i < out.length; i++) out[i] = grey[i] / middle - 1;
  return out;
}

/** Row `y` of a spectrum of tone becomes that of height. */
function slantRow({ width, height, re, im }: Spectrum, y: number, degrees: number): void {
  const turn = (degrees * Math.PI) / 180;
  const [lx, ly] = [Math.sin(turn), -Math.cos(turn)];
  const longer = Math.max(width, height);
  const fy = frequency(y, height) / height;
  for (let x = 0; x < width; x++) {
    const fx = frequency(x, width) / width;
    const i = y * width + x;
    const square = (2 * Math.PI) ** 2 * (fx * fx + fy * fy);
    if (square === 0) {
      re[i] = 0;
      im[i] = 0;
      continue;
    }
    const k = -2 * Math.PI * (fx * lx + fy * ly);
    const cycles = Math.sqrt(fx * fx + fy * fy) * longer;
    const gain = ((1 - Math.exp(-((cycles / BROAD) ** 2))) * k) / (k * k + LAMBDA * square);
    // Times conj(i·k)/(k² + λω²).
    const [a, b] = [re[i], im[i]];
    re[i] = gain * b;
    im[i] = -gain * a;
  }
}

/**
 * Height from the shading by slanting light, linear and on the torus (Pentland 1990): tone is the slope towards the
 * light, so each frequency is divided by i·k, k the frequency along the light, with what lies square to it held back
 * (λ) and broad change left out. `grey` is linear, before any light is removed; `degrees` is where the light comes
 * from, clockwise from the top of the picture. Sides are powers of two. Returns heights of any scale, mean 0.
 */
export function* slantHeight(
  grey: Float32Array,
  { width, height }: Sides,
  degrees: number,
): Steps<Float32Array> {
  const re = contrastOf(grey);
  yield;
  const spectrum = yield* fft2({ width, height, re, im: new Float64Array(re.length) });
  for (let y = 0; y < height; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    slantRow(spectrum, y, degrees);
  }
  return new Float32Array((yield* inverseFft2(spectrum)).re);
}
