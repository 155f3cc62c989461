import { type Edges, edgeTable } from '../raster/edges.ts';

/** Poles for σ = 2, fourth order, smallest maximum error (van Vliet, Young & Verbeek 1998, table 2). */
const POLES: [number, number][] = [
  [1.12075, 1.27788],
  [1.76952, 0.46611],
];

interface Recursion {
  gain: number;
  feedback: [number, number, number, number];
}

function varianceOf(q: number): number {
  let sum = 0;
  for (const [re, im] of POLES) {
    const size = Math.hypot(re, im) ** (1 / q);
    const turn = Math.atan2(im, re) / q;
    const dr = size * Math.cos(turn);
    const di = size * Math.sin(turn);
    // 2·Re(2 d / (d − 1)²) for a conjugate pair
    const ar = dr - 1;
    const br = ar * ar - di * di;
    const bi = 2 * ar * di;
    sum += (4 * (dr * br + di * bi)) / (br * br + bi * bi);
  }
  return sum;
}

/** Coefficients for σ pixels: the poles are raised to 1/q, with q found so that the variance is σ². */
export function recursionFor(sigma: number): Recursion {
  let low = 0.1;
  let high = sigma + 1;
  for (let step = 0; step < 80; step++) {
    const q = (low + high) / 2;
    if (varianceOf(q) < sigma * sigma) low = q;
    else high = q;
  }
  const q = (low + high) / 2;
  let polynomial = [1];
  for (const [re, im] of POLES) {
    const size = Math.hypot(re, im) ** (-1 / q);
    const turn = Math.atan2(im, re) / q;
    const factor = [1, -2 * size * Math.cos(turn), size * size];
    const next = new Array(polynomial.length + 2).fill(0);
    polynomial.forEach((a, i) => {
      factor.forEach((b, j) => {
        next[i + j] += a * b;
      });
    });
    polynomial = next;
  }
  const gain = polynomial.reduce((a, b) => a + b, 0);
  const [, a1, a2, a3, a4] = polynomial;
  return { gain, feedback: [-a1, -a2, -a3, -a4] };
}

/** Pixels beyond an edge on which the recursion is warmed up. */
export const recursivePad = (sigma: number): number => Math.ceil(11 * sigma);

const BLOCK = 32;

/**
 * Gaussian by a fourth-order recursive filter, forward and back (van Vliet, Young & Verbeek 1998).
 * One plane, σ in pixels ≥ 2; the cost does not depend on σ. The recursion is warmed up on what lies
 * beyond the edge (wrapped or mirrored) until its start is forgotten to float precision.
 */
export function gaussianRecursive(
  plane: Float32Array,
  width: number,
  height: number,
  sigma: number,
  edges: Edges,
): Float32Array {
  const { gain, feedback } = recursionFor(sigma);
  const [b1, b2, b3, b4] = feedback;
  const pad = recursivePad(sigma);
  const out = new Float32Array(plane.length);

  const columns = edgeTable(width, pad, pad, edges.x);
  const line = new Float64Array(width + 2 * pad);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let y1 = plane[row + columns[0]];
    let y2 = y1;
    let y3 = y1;
    let y4 = y1;
    for (let k = 0; k < line.length; k++) {
      const v = gain * plane[row + columns[k]] + b1 * y1 + b2 * y2 + b3 * y3 + b4 * y4;
      line[k] = v;
      y4 = y3;
      y3 = y2;
      y2 = y1;
      y1 = v;
    }
    y1 = y2 = y3 = y4 = line[line.length - 1];
    for (let k = line.length - 1; k >= pad; k--) {
      const v = gain * line[k] + b1 * y1 + b2 * y2 + b3 * y3 + b4 * y4;
      if (k < pad + width) out[row + k - pad] = v;
      y4 = y3;
      y3 = y2;
      y2 = y1;
      y1 = v;
    }
  }

  const rows = edgeTable(height, pad, pad, edges.y);
  const length = height + 2 * pad;
  // Four rows of the starting value stand before the first sample, so that the loop has no special case.
  const block = new Float64Array((length + 8) * BLOCK);
  for (let left = 0; left < width; left += BLOCK) {
    const n = Math.min(BLOCK, width - left);
    for (let k = 0; k < 4; k++) {
      for (let x = 0; x < n; x++) block[k * BLOCK + x] = out[rows[0] * width + left + x];
    }
    for (let k = 0; k < length; k++) {
      const from = rows[k] * width + left;
      const at = (k + 4) * BLOCK;
      for (let x = 0; x < n; x++) {
        const i = at + x;
        block[i] =
          gain * out[from + x] +
          b1 * block[i - BLOCK] +
          b2 * block[i - 2 * BLOCK] +
          b3 * block[i - 3 * BLOCK] +
          b4 * block[i - 4 * BLOCK];
      }
    }
    for (let k = length + 4; k < length + 8; k++) {
      for (let x = 0; x < n; x++) block[k * BLOCK + x] = block[(length + 3) * BLOCK + x];
    }
    for (let k = length - 1; k >= pad; k--) {
      const at = (k + 4) * BLOCK;
      for (let x = 0; x < n; x++) {
        const i = at + x;
        block[i] =
          gain * block[i] +
          b1 * block[i + BLOCK] +
          b2 * block[i + 2 * BLOCK] +
          b3 * block[i + 3 * BLOCK] +
          b4 * block[i + 4 * BLOCK];
      }
    }
    for (let y = 0; y < height; y++) {
      const at = (y + pad + 4) * BLOCK;
      for (let x = 0; x < n; x++) out[y * width + left + x] = block[at + x];
    }
  }
  return out;
}
