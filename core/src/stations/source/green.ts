import { realSpectra } from '../../fft/fft.ts';
import type { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import { statistics } from '../../statistics/statistics.ts';
import { runToEnd } from '../../work/steps.ts';

/** What a normal map says about itself. */
export interface GreenFound {
  /** False where the picture cannot be a normal map at all. */
  isNormal: boolean;
  /** Share of the slopes' energy that no height explains, if green points up, and if it points down. */
  up: number;
  down: number;
  /** Where its green points; null where both readings explain it, or neither does. */
  points: 'up' | 'down' | null;
}

const MEASURED = 256;
/** Cycles below which the window, and above which noise, decide. */
const LOWEST = 3;
const HIGHEST = MEASURED / 5;
/** Vectors of other mean length, or this flat, are none; nor are planes that are nearly one and the same. */
const LENGTH_SLACK = 0.3;
const FLAT = 0.002;
const GREY = 0.02;
/** The wrong reading must leave so much unexplained, and this many times what the right one leaves. */
const PLAIN = 0.02;
const TIMES = 1.6;

const NONE: GreenFound = { isNormal: false, up: 0, down: 0, points: null };

function isNormalMap([x, y, z]: Float32Array[]): boolean {
  let length = 0;
  let apart = 0;
  for (let i = 0; i < x.length; i++) {
    length += Math.hypot(x[i], y[i], z[i]);
    apart += Math.abs(x[i] - y[i]) + Math.abs(y[i] - z[i]);
  }
  const facesOut = statistics(z).mean > 0.3;
  const isUnit = Math.abs(length / x.length - 1) < LENGTH_SLACK;
  return facesOut && isUnit && apart / x.length > GREY;
}

/**
 * Whether a picture is a normal map and where its green points, from codes (n + 1)/2: only for one sign of green
 * do the slopes come from a height, whose curl is none (Frankot & Chellappa 1988 for the symbols). Where both
 * readings come out alike the answer is null: heights that are sums of a function of x and one of y have no curl
 * either way, and noise has it both ways.
 */
export function greenOf(codes: Raster): GreenFound {
  const small = resizeArea(codes, MEASURED, MEASURED);
  const planes = small.planes.map((plane) => plane.map((value) => 2 * value - 1));
  if (!isNormalMap(planes)) return NONE;
  const [x, y, z] = planes;
  const p = x.map((value, i) => -value / Math.max(0.05, z[i]));
  // Rows run down, so slopes downwards carry the sign of a green that points up.
  const q = y.map((value, i) => value / Math.max(0.05, z[i]));
  const spread = Math.hypot(statistics(p).deviation, statistics(q).deviation);
  if (spread < FLAT) return { isNormal: true, up: 0, down: 0, points: null };
  const [meanP, meanQ] = [statistics(p).mean, statistics(q).mean];
  const hann = (k: number) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / MEASURED);
  for (let j = 0; j < MEASURED; j++) {
    for (let i = 0; i < MEASURED; i++) {
      const k = j * MEASURED + i;
      const window = hann(i) * hann(j);
      p[k] = window * (p[k] - meanP);
      q[k] = window * (q[k] - meanQ);
    }
  }
  const [P, second] = runToEnd(realSpectra(p, q, MEASURED, MEASURED));
  const Q = second!;
  let energy = 0;
  let up = 0;
  let down = 0;
  for (let j = 0; j < MEASURED; j++) {
    const fy = j < MEASURED / 2 ? j : j - MEASURED;
    for (let i = 0; i < MEASURED; i++) {
      const fx = i < MEASURED / 2 ? i : i - MEASURED;
      const cycles = Math.hypot(fx, fy);
      if (cycles < LOWEST || cycles > HIGHEST) continue;
      const k = j * MEASURED + i;
      const sx = Math.sin((2 * Math.PI * fx) / MEASURED);
      const sy = Math.sin((2 * Math.PI * fy) / MEASURED);
      const square = sx * sx + sy * sy;
      energy += P.re[k] ** 2 + P.im[k] ** 2 + Q.re[k] ** 2 + Q.im[k] ** 2;
      up += ((sx * Q.re[k] - sy * P.re[k]) ** 2 + (sx * Q.im[k] - sy * P.im[k]) ** 2) / square;
      down += ((sx * Q.re[k] + sy * P.re[k]) ** 2 + (sx * Q.im[k] + sy * P.im[k]) ** 2) / square;
    }
  }
  if (energy === 0) return { isNormal: true, up: 0, down: 0, points: null };
  up /= energy;
  down /= energy;
  const [least, most] = [Math.min(up, down), Math.max(up, down)];
  const isPlain = most > PLAIN && most > TIMES * least;
  return { isNormal: true, up, down, points: isPlain ? (up < down ? 'up' : 'down') : null };
}
