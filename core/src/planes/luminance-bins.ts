import type { Raster } from '../raster/raster.ts';
import { luminance } from './luminance.ts';

/** Share of a picture's pixels by luminance Y, in bins of equal width in log Y. */
export interface LuminanceBins {
  low: number;
  high: number;
  shares: number[];
}

const BINS = 56;
const LOW = 0.01;

/** Histogram of a linear colour picture; what lies beyond 0.01…1 counts in the outermost bins. */
export function luminanceBins(picture: Raster): LuminanceBins {
  const shares = new Array<number>(BINS).fill(0);
  const y = luminance(picture);
  const scale = BINS / Math.log(1 / LOW);
  for (let i = 0; i < y.length; i++) {
    const bin = Math.floor(Math.log(Math.max(y[i], LOW) / LOW) * scale);
    shares[Math.min(BINS - 1, bin)]++;
  }
  return { low: LOW, high: 1, shares: shares.map((n) => n / y.length) };
}
