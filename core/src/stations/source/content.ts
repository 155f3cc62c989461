import { codesRaster } from '../../pixels/codes-raster.ts';
import type { Pixels } from '../../pixels/pixels.ts';
import { statistics } from '../../statistics/statistics.ts';
import { type GreenFound, greenOf } from './green.ts';

/** What the values of a picture say it is, whatever its name. */
export interface PictureContent {
  /** Directions, one plane three times, several maps one in each channel, or colours. */
  kind: 'normal' | 'grey' | 'packed' | 'colour';
  /** Whether its alpha says anything: it differs from place to place. */
  hasAlpha: boolean;
  green: GreenFound;
}

/** Channels that lie closer together than this, on average, are one plane. */
const GREY = 0.004;
/** Channels of one picture that change together less than this hold different maps. */
const APART = 0.35;
/** A channel that differs less than this from place to place is one value all over. */
const FLAT = 0.004;
/** A channel of one value this close to 0 or 1 is a map that says “nowhere” or “everywhere”. */
const END = 0.01;

/** Correlation of two planes; 1 where either is flat. */
function correlation(a: Float32Array, b: Float32Array): number {
  const [one, other] = [statistics(a), statistics(b)];
  if (one.deviation < FLAT || other.deviation < FLAT) return 1;
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] - one.mean) * (b[i] - other.mean);
  return sum / (a.length * one.deviation * other.deviation);
}

function isPacked(planes: readonly Float32Array[]): boolean {
  const told = planes.map((plane) => statistics(plane));
  const isFlat = told.map(({ deviation }) => deviation < FLAT);
  if (isFlat.every(Boolean)) return false;
  const isAtEnd = told.some(({ mean }, k) => isFlat[k] && (mean < END || mean > 1 - END));
  const [r, g, b] = planes;
  const least = Math.min(correlation(r, g), correlation(g, b), correlation(r, b));
  return isAtEnd || least < APART;
}

/**
 * What a decoded picture holds, from its codes: the channels of a photo change together, those of a packed
 * picture do not, and a metallic of none is 0 all over. A guess to be looked at, not a proof.
 */
export function contentOf(pixels: Pixels): PictureContent {
  const codes = codesRaster(pixels, 3);
  const green = greenOf(codes);
  const alpha = pixels.channels === 4 ? codesRaster(pixels, 1, 3).planes[0] : null;
  const hasAlpha = alpha !== null && statistics(alpha).deviation > FLAT;
  if (green.isNormal) return { kind: 'normal', hasAlpha, green };
  const [r, g, b] = codes.planes;
  let apart = 0;
  for (let i = 0; i < r.length; i++) apart += Math.abs(r[i] - g[i]) + Math.abs(g[i] - b[i]);
  const isGrey = apart / r.length < GREY;
  return { kind: isGrey ? 'grey' : isPacked(codes.planes) ? 'packed' : 'colour', hasAlpha, green };
}
