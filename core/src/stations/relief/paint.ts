import { frequency, inverseFft2, type Spectrum, spectraOfBoth } from '../../fft/fft.ts';
import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { type Edges, edgeTable } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { PAUSE_ROWS, type Steps } from '../../work/steps.ts';

/** Change of chroma (OKLab a and b, over a 512th of the longer edge) at which half of a step of tone is taken for paint. */
const HALF = 0.012;
/** Colour is looked at over so much of the longer edge, σ, at every size. */
const OVER = 1 / 512;
const BLIND = 1e-12;

/** How colourful a picture is and in which hue: a and b of OKLab (Ottosson 2020), softened. */
function* chromaOf({ width, height, planes }: Raster, edges: Edges): Steps<[Float32Array, Float32Array]> {
  const [lightness, a, b] = KERNELS.oklabPlanes(planes);
  yield;
  const sigma = OVER * Math.max(width, height);
  const soft = [
    yield* blurring(a, width, height, sigma, edges),
    yield* blurring(b, width, height, sigma, edges),
  ] as [Float32Array, Float32Array];
  PLANES.give(lightness, a, b);
  return soft;
}

/** How much of a step of tone stays, by how far chroma changes with it. */
const kept = (change: number, amount: number): number => 1 - amount * (1 - 1 / (1 + (change / HALF) ** 2));

/** Row `j` of the spectrum of what has the forward differences P and Q, by least squares; in the place of P. */
function solveRow(P: Spectrum, Q: Spectrum, j: number): void {
  const { width, height } = P;
  const v = (2 * Math.PI * frequency(j, height)) / height;
  const [yr, yi] = [Math.cos(v) - 1, Math.sin(v)];
  for (let i = 0; i < width; i++) {
    const u = (2 * Math.PI * frequency(i, width)) / width;
    const [xr, xi] = [Math.cos(u) - 1, Math.sin(u)];
    const square = xr * xr + xi * xi + yr * yr + yi * yi;
    const k = j * width + i;
    // What is level everywhere has no differences: the mean is put back at the end.
    const by = square < BLIND ? 0 : 1 / square;
    const [re, im] = [P.re[k], P.im[k]];
    // Times the conjugate of the difference.
    P.re[k] = by * (xr * re + xi * im + yr * Q.re[k] + yi * Q.im[k]);
    P.im[k] = by * (xr * im - xi * re + yr * Q.im[k] - yi * Q.re[k]);
  }
}

/** The spectrum of what has these forward differences: to the right in the real part, down in the imaginary part. */
function* solved(differences: Spectrum): Steps<Spectrum> {
  const [P, Q] = yield* spectraOfBoth(differences);
  for (let j = 0; j < P.height; j++) {
    if (j % PAUSE_ROWS === 0) yield;
    solveRow(P, Q, j);
  }
  return P;
}

/**
 * Tone without what is painted on: where chroma changes along with it a step of tone is reduced by 1/(1 + (Δchroma/τ)²), as much as
 * `amount` (0…1) says, and the field is put together again on the torus by least squares (as Frankot & Chellappa 1988 for slopes). `log` is the
 * logarithm of a grey, one value a pixel, sides powers of two; the mean stays.
 */
export function* withoutPaint(
  log: Float32Array,
  picture: Raster,
  amount: number,
  edges: Edges,
): Steps<Float32Array> {
  const { width, height } = picture;
  const [a, b] = yield* chromaOf(picture, edges);
  const columns = edgeTable(width, 0, 1, edges.x);
  const rows = edgeTable(height, 0, 1, edges.y);
  // Chroma changes by so much less from pixel to pixel as the tile is larger.
  const scale = OVER * Math.max(width, height);
  const differences = { width, height, re: new Float64Array(log.length), im: new Float64Array(log.length) };
  const { re: p, im: q } = differences;
  for (let y = 0, i = 0; y < height; y++) {
    if (y % PAUSE_ROWS === 0) yield;
    const below = rows[y + 1] * width;
    for (let x = 0; x < width; x++, i++) {
      const right = y * width + columns[x + 1];
      const under = below + x;
      p[i] = (log[right] - log[i]) * kept(scale * Math.hypot(a[right] - a[i], b[right] - b[i]), amount);
      q[i] = (log[under] - log[i]) * kept(scale * Math.hypot(a[under] - a[i], b[under] - b[i]), amount);
    }
  }
  PLANES.give(a, b);
  const { re: made } = yield* inverseFft2(yield* solved(differences));
  let mean = 0;
  for (let i = 0; i < log.length; i++) mean += log[i] / log.length;
  const tone = new Float32Array(log.length);
  for (let i = 0; i < tone.length; i++) tone[i] = made[i] + mean;
  return tone;
}
