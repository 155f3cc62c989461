import { frequency, inverseFft2, realSpectra, type Spectrum } from '../../fft/fft.ts';
import type { Raster } from '../../raster/raster.ts';
import { PAUSE_ROWS, type Steps } from '../../work/steps.ts';

/** Below this a frequency has no slope that the kernel sees. */
const BLIND = 1e-9;

/** What the fourth-order central difference makes of a wave, without the i. */
const symbol = (turn: number) => (8 * Math.sin(turn) - Math.sin(2 * turn)) / 6;

/** Slopes across and down that unit normals with y up tell. */
function slopesOf({ planes: [x, y, z] }: Raster): [Float32Array, Float32Array] {
  const [p, q] = [new Float32Array(x.length), new Float32Array(x.length)];
  for (let i = 0; i < p.length; i++) {
    const up = Math.max(0.02, z[i]);
    p[i] = -x[i] / up;
    // Rows run down.
    q[i] = y[i] / up;
  }
  return [p, q];
}

/** Heights in pixels as shares of the longer edge. */
function inShares(heights: Float64Array, longer: number): Float32Array {
  const out = new Float32Array(heights.length);
  for (let i = 0; i < out.length; i++) out[i] = heights[i] / longer;
  return out;
}

/** Row `j` of the height's spectrum from those of its slopes. */
function integrateRow(
  P: Spectrum,
  Q: Spectrum,
  across: Float64Array,
  j: number,
  re: Float64Array,
  im: Float64Array,
): void {
  const { width, height } = P;
  const dy = symbol((2 * Math.PI * frequency(j, height)) / height);
  for (let i = 0; i < width; i++) {
    const dx = across[i];
    const square = dx * dx + dy * dy;
    if (square < BLIND) continue;
    const k = j * width + i;
    // Times conj(i·d): (a + ib)·(−i) = b − ia.
    re[k] = (dx * P.im[k] + dy * Q.im[k]) / square;
    im[k] = -(dx * P.re[k] + dy * Q.re[k]) / square;
  }
}

/**
 * The height whose slopes come nearest to those of a normal map on the torus (Frankot & Chellappa 1988), as shares
 * of the longer edge, mean 0. `normals` are unit vectors with y up, sides powers of two. The symbol is that of the sharp kernel, so that
 * `normalMap` of the height gives the normals back.
 */
export function* heightOfNormals(normals: Raster): Steps<Float32Array> {
  const { width, height } = normals;
  const [p, q] = slopesOf(normals);
  yield;
  const [P, second] = yield* realSpectra(p, q, width, height);
  const Q = second!;
  const across = Float64Array.from({ length: width }, (_, i) =>
    symbol((2 * Math.PI * frequency(i, width)) / width),
  );
  const re = new Float64Array(width * height);
  const im = new Float64Array(width * height);
  for (let j = 0; j < height; j++) {
    if (j % PAUSE_ROWS === 0) yield;
    integrateRow(P, Q, across, j, re, im);
  }
  const { re: told } = yield* inverseFft2({ width, height, re, im });
  return inShares(told, Math.max(width, height));
}
