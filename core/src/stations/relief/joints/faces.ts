import type { Connected } from '../../../raster/connected.ts';
import type { Edges } from '../../../raster/edges.ts';
import type { Sides } from '../../../raster/sides.ts';
import { median } from '../../../statistics/statistics.ts';
import type { Steps } from '../../../work/steps.ts';
import { LARGEST_FACE, SMALLEST_FACE } from './net.ts';

/** What faces are like, at each place that of the nearest face. */
export interface Faces {
  /** 1 where a face is closed, 0 where the net leaks. */
  closed: Float32Array;
  /** How far the middle of the face is from its border, in pixels. */
  radius: Float32Array;
  /** How much brighter the face is than the others, −1…1. */
  level: Float32Array;
  /** How much brighter the place should be than its face by the plane that fits the face's tone best, −1…1. */
  tilt: Float32Array;
  /** How many are closed. */
  count: number;
}

interface Face {
  size: number;
  radius: number;
  /** Middle, from an arbitrary pixel of it, so that a face over the edge is one. */
  x0: number;
  y0: number;
  sums: Float64Array;
}

/** Terms that are summed up over a face: x, y, g, xx, xy, yy, xg, yg. */
const TERMS = 8;
/** A difference of tone (encoded) between faces, and over one, that counts as the whole. */
const LEAST_SPREAD = 0.01;

const wrap = (away: number, n: number, isWrapped: boolean) =>
  isWrapped ? away - n * Math.round(away / n) : away;

/** Adds a pixel to the sums of its face. */
function add(sums: Float64Array, x: number, y: number, g: number): void {
  sums[0] += x;
  sums[1] += y;
  sums[2] += g;
  sums[3] += x * x;
  sums[4] += x * y;
  sums[5] += y * y;
  sums[6] += x * g;
  sums[7] += y * g;
}

/** The tone of a face as a plane: mean, and slopes across and down, from its middle. */
function planeOf({ size, sums }: Face): { mean: number; mx: number; my: number; p: number; q: number } {
  if (size === 0) return { mean: 0, mx: 0, my: 0, p: 0, q: 0 };
  const [x, y, g, xx, xy, yy, xg, yg] = sums;
  const [mx, my, mean] = [x / size, y / size, g / size];
  const [vxx, vxy, vyy] = [xx / size - mx * mx, xy / size - mx * my, yy / size - my * my];
  const [cxg, cyg] = [xg / size - mx * mean, yg / size - my * mean];
  const determinant = vxx * vyy - vxy * vxy;
  if (determinant < 1e-6) return { mean, mx, my, p: 0, q: 0 };
  return { mean, mx, my, p: (cxg * vyy - cyg * vxy) / determinant, q: (cyg * vxx - cxg * vxy) / determinant };
}

/**
 * Faces that meet in the middle of the joints (`labels`), and what the tone of each says. `away` is the distance from
 * the joints' border in pixels, `grey` is encoded.
 */
export function* facesOf(
  { labels, sizes }: Connected,
  away: Float32Array,
  grey: Float32Array,
  sides: Sides,
  edges: Edges,
): Steps<Faces> {
  const { width, height } = sides;
  const count = labels.length;
  const faces: Face[] = sizes.map(() => ({
    size: 0,
    radius: 0,
    x0: -1,
    y0: 0,
    sums: new Float64Array(TERMS),
  }));
  const [isAcross, isDown] = [edges.x === 'wrap', edges.y === 'wrap'];
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      if (labels[i] < 0 || away[i] <= 0) continue;
      const face = faces[labels[i]];
      if (face.x0 < 0) {
        face.x0 = x;
        face.y0 = y;
      }
      face.size++;
      if (away[i] > face.radius) face.radius = away[i];
      add(face.sums, wrap(x - face.x0, width, isAcross), wrap(y - face.y0, height, isDown), grey[i]);
    }
  }
  yield;
  const isClosed = sizes.map((size) => size >= SMALLEST_FACE * count && size <= LARGEST_FACE * count);
  const planes = faces.map(planeOf);
  const means = planes.flatMap(({ mean }, k) => (isClosed[k] ? [mean] : []));
  const middle = means.length > 0 ? median(means) : 0;
  const spread = Math.max(LEAST_SPREAD, ...means.map((mean) => Math.abs(mean - middle)));
  // Far over a face its tone rises by this much at most.
  const rises = planes.map(({ p, q }, k) => Math.hypot(p, q) * 2 * faces[k].radius);
  const steepest = Math.max(LEAST_SPREAD, ...rises.filter((_, k) => isClosed[k]));
  const [closed, radius, level, tilt] = [0, 1, 2, 3].map(() => new Float32Array(count));
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const label = labels[i];
      if (label < 0 || !isClosed[label]) continue;
      const { mean, mx, my, p, q } = planes[label];
      const { x0, y0 } = faces[label];
      const dx = wrap(x - x0, width, isAcross) - mx;
      const dy = wrap(y - y0, height, isDown) - my;
      closed[i] = 1;
      radius[i] = faces[label].radius;
      level[i] = (mean - middle) / spread;
      tilt[i] = Math.min(1, Math.max(-1, (2 * (p * dx + q * dy)) / steepest));
    }
  }
  return { closed, radius, level, tilt, count: means.length };
}
