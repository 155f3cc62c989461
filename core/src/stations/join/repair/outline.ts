import type { Strip } from '../../../kernels/cut-costs/strip.ts';
import type { Edges } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import { sampleBilinear } from '../../../sampling/sample.ts';
import { runToEnd } from '../../../work/steps.ts';
import { minimumCut } from '../cut.ts';

/** Between these shares of the radius the outline may wander. */
const INNER = 0.6;
const OUTER = 1.4;
/** Least columns in which there is a way to choose. */
const LEAST_ACROSS = 8;
/** By how much of a pixel an outline may be straightened. */
const STRAIGHT = 0.6;

export interface Place {
  picture: Raster;
  /** Pixels, whole numbers at pixel centres. */
  x: number;
  y: number;
  edges: Edges;
}

/** The ring about a place unrolled: a row for each angle, a column for each radius. */
function unroll({ picture, x, y, edges }: Place, radius: number, across: number, around: number) {
  const { width, height } = picture;
  const planes = picture.planes.map(() => new Float32Array(across * around));
  for (let row = 0; row < around; row++) {
    const angle = (2 * Math.PI * (row + 0.5)) / around;
    for (let column = 0; column < across; column++) {
      const away = radius * (INNER + ((OUTER - INNER) * (column + 0.5)) / across);
      const [px, py] = [x + away * Math.cos(angle), y + away * Math.sin(angle)];
      planes.forEach((plane, c) => {
        plane[row * across + column] = sampleBilinear(picture.planes[c], width, height, px, py, edges);
      });
    }
  }
  return planes;
}

const meanOf = (plane: Float32Array) => plane.reduce((sum, value) => sum + value, 0) / plane.length;

/** Drops points that lie within a hair of the line between their neighbours (Ramer 1972). */
function straightened(points: [number, number][], slack: number): [number, number][] {
  const keep = new Uint8Array(points.length);
  const walk = (from: number, to: number) => {
    const [[ax, ay], [bx, by]] = [points[from], points[to]];
    const long = Math.hypot(bx - ax, by - ay);
    let farthest = -1;
    let most = slack;
    for (let k = from + 1; k < to; k++) {
      const [px, py] = points[k];
      const off =
        long > 0
          ? Math.abs((bx - ax) * (py - ay) - (by - ay) * (px - ax)) / long
          : Math.hypot(px - ax, py - ay);
      if (off > most) {
        most = off;
        farthest = k;
      }
    }
    if (farthest < 0) return;
    keep[farthest] = 1;
    walk(from, farthest);
    walk(farthest, to);
  };
  const half = points.length >> 1;
  keep[0] = 1;
  keep[half] = 1;
  walk(0, half);
  walk(half, points.length - 1);
  return points.filter((_, k) => keep[k]);
}

/**
 * The closed minimum cut about a place between what lies there and a patch from elsewhere: points of the outline in
 * pixels about the place, for a patch of `radius` pixels. Found on the unrolled ring by the cyclic minimum cut
 * (see `minimumCut`), once the patch has been brought to the same mean light.
 */
export function outlineOf(place: Place, patch: Place, radius: number): [number, number][] {
  const across = Math.max(LEAST_ACROSS, Math.round(radius * (OUTER - INNER)));
  const around = Math.max(24, Math.round(2 * Math.PI * radius));
  const a = unroll(place, radius, across, around);
  const b = unroll(patch, radius, across, around);
  b.forEach((plane, c) => {
    const gain = (meanOf(a[c]) + 1e-3) / (meanOf(plane) + 1e-3);
    for (let i = 0; i < plane.length; i++) plane[i] *= gain;
  });
  const strip: Strip = { width: across, length: around, a, b };
  const path = runToEnd(minimumCut(strip, true));
  const points = Array.from(path.columns, (column, k): [number, number] => {
    const away = radius * (INNER + ((OUTER - INNER) * column) / across);
    const angle = (2 * Math.PI * path.rows[k]) / around;
    return [away * Math.cos(angle), away * Math.sin(angle)];
  });
  return straightened(points, STRAIGHT);
}
