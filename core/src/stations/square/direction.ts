import { blurring } from '../../filters/gaussian.ts';
import { mapped } from '../../planes/mapped.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Steps } from '../../work/steps.ts';

const COARSE_STEP = 1;
const FINE_STEP = 0.1;

/** By how much lines are turned against the picture's axes, and how plainly one direction rules. */
export interface MainDirection {
  /** Clockwise, −45…45°. */
  degrees: number;
  /** How much clearer lines stand out along it than along the usual direction; above 2 it is plain. */
  plain: number;
}

/** Variance of the means along parallel lines of a direction, within the largest disc; weighed by their length. */
function clearness(plane: Float32Array, width: number, height: number, degrees: number): number {
  const turn = (degrees * Math.PI) / 180;
  // Lines run along (cos, sin); they are told apart by their distance across.
  const across = [-Math.sin(turn), Math.cos(turn)];
  const radius = Math.floor(Math.min(width, height) / 2) - 1;
  const sums = new Float64Array(2 * radius + 2);
  const counts = new Float64Array(2 * radius + 2);
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  for (let y = Math.ceil(cy - radius); y <= cy + radius; y++) {
    const half = Math.sqrt(radius * radius - (y - cy) ** 2);
    for (let x = Math.ceil(cx - half); x <= cx + half; x++) {
      const at = (x - cx) * across[0] + (y - cy) * across[1] + radius;
      const low = Math.floor(at);
      const part = at - low;
      const value = plane[y * width + x];
      sums[low] += (1 - part) * value;
      counts[low] += 1 - part;
      sums[low + 1] += part * value;
      counts[low + 1] += part;
    }
  }
  let energy = 0;
  for (let k = 0; k < sums.length; k++) if (counts[k] > radius / 4) energy += (sums[k] * sums[k]) / counts[k];
  return energy;
}

/**
 * The main direction of lines in a plane, up to quarter turns: the turn at which the means along parallel
 * lines differ most, on both axes together (projection profiles, Postl 1986), with broad tone removed.
 * Searched by whole degrees, then by tenths, its top found to a part of one.
 */
export function* mainDirection(plane: Float32Array, width: number, height: number): Steps<MainDirection> {
  const broad = yield* blurring(plane, width, height, Math.min(width, height) / 24, MIRROR);
  const fine = mapped(plane, (v, i) => v - broad[i]);
  const both = (degrees: number) =>
    clearness(fine, width, height, degrees) + clearness(fine, width, height, degrees + 90);
  const coarse: number[] = [];
  for (let degrees = -45; degrees < 45; degrees += COARSE_STEP) {
    yield;
    coarse.push(both(degrees));
  }
  const start = -45 + COARSE_STEP * coarse.indexOf(Math.max(...coarse));
  let [top, best] = [start, 0];
  for (let degrees = start - COARSE_STEP; degrees <= start + COARSE_STEP; degrees += FINE_STEP) {
    yield;
    const value = both(degrees);
    if (value > best) [top, best] = [degrees, value];
  }
  const [before, after] = [both(top - FINE_STEP), both(top + FINE_STEP)];
  const bow = before - 2 * best + after;
  const degrees = top + (bow < 0 ? (FINE_STEP * (before - after)) / (2 * bow) : 0);
  const usual = coarse.reduce((sum, v) => sum + v, 0) / coarse.length;
  return { degrees: degrees > 45 ? degrees - 90 : degrees, plain: usual > 0 ? best / usual : 0 };
}
