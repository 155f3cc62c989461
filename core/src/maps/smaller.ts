import { mapped } from '../planes/mapped.ts';
import { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';
import { glossOf } from '../surface/convert.ts';
import type { MapName } from './maps.ts';

/** Below this a normal has no slope that can be determined. */
const FLATTEST = 0.02;

/** Unit vectors from area means of unit vectors. */
function shortened(normal: Raster, width: number, height: number): Raster {
  const mean = resizeArea(normal, width, height);
  const [x, y, z] = mean.planes;
  for (let i = 0; i < x.length; i++) {
    const inverse = 1 / Math.max(1e-6, Math.hypot(x[i], y[i], z[i]));
    x[i] *= inverse;
    y[i] *= inverse;
    z[i] *= inverse;
  }
  return mean;
}

/** Mean variance of the slopes within each pixel of a smaller size, of both axes. */
function slopeVariance(normal: Raster, width: number, height: number): Float32Array {
  const [x, y, z] = normal.planes;
  const slope = (plane: Float32Array) => mapped(plane, (value, i) => -value / Math.max(FLATTEST, z[i]));
  const [p, q] = [slope(x), slope(y)];
  const squares = p.map((value, i) => value * value + q[i] * q[i]);
  const { planes } = resizeArea(new Raster(normal.width, normal.height, [p, q, squares]), width, height);
  const [mp, mq, ms] = planes;
  return ms.map((value, i) => Math.max(0, value - mp[i] * mp[i] - mq[i] * mq[i]) / 2);
}

/**
 * Roughness at a smaller size: what the normals lose in variance of slope is added to it, α'² = α² + 2σ² with
 * α = roughness² (Olano & Baker 2010), so that a tile far away shines as broadly as it did.
 */
function roughened(roughness: Raster, normal: Raster, width: number, height: number): Raster {
  const squares = roughness.mapPlanes((plane) => mapped(plane, (value) => value ** 4));
  const mean = resizeArea(squares, width, height);
  const variance = slopeVariance(normal, width, height);
  return mean.mapPlanes((plane) =>
    mapped(plane, (value, i) => Math.min(1, Math.max(0, value + 2 * variance[i])) ** 0.25),
  );
}

/** Share of values at or above a half. */
const covered = (plane: Float32Array, scale = 1): number => {
  let count = 0;
  for (const value of plane) if (value * scale >= 0.5) count++;
  return count / plane.length;
};

const HALVINGS = 20;

/** Opacity at a smaller size, scaled so that as much of it is closed as before (Castaño 2010). */
function keptCoverage(opacity: Raster, width: number, height: number): Raster {
  const wanted = covered(opacity.planes[0]);
  const mean = resizeArea(opacity, width, height);
  let [low, high] = [0, 8];
  for (let k = 0; k < HALVINGS; k++) {
    const middle = (low + high) / 2;
    if (covered(mean.planes[0], middle) < wanted) low = middle;
    else high = middle;
  }
  const { planes } = mean;
  const off = (scale: number) => Math.abs(covered(planes[0], scale) - wanted);
  // Coverage goes in steps: the nearer side of the step is taken, and nothing is changed where that is no nearer.
  const scale = [low, high].reduce((best, one) => (off(one) < off(best) ? one : best), 1);
  return mean.mapPlanes((plane) => mapped(plane, (value) => Math.min(1, value * scale)));
}

/**
 * A map at a smaller size. Colour and data are area means (colour in linear light); normals are unit again; roughness and
 * gloss take up what the normals lose; opacity keeps its coverage. `rasterOf` gives the maps at the tile's own size.
 */
export function smallerMap(
  map: MapName,
  rasterOf: (map: MapName) => Raster,
  width: number,
  height: number,
): Raster {
  const raster = rasterOf(map);
  if (raster.width === width && raster.height === height) return raster;
  switch (map) {
    case 'normal':
      return shortened(raster, width, height);
    case 'roughness':
      return roughened(raster, rasterOf('normal'), width, height);
    case 'gloss':
      return roughened(rasterOf('roughness'), rasterOf('normal'), width, height).mapPlanes((plane) =>
        mapped(plane, glossOf),
      );
    case 'opacity':
      return keptCoverage(raster, width, height);
    default:
      return resizeArea(raster, width, height);
  }
}
