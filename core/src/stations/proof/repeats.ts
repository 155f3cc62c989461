import { OPPONENTS } from '../../colour/opponents.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { resizingArea } from '../../sampling/resize.ts';
import type { GivenOf } from '../../team/task.ts';
import { ALONE, type Team } from '../../team/team.ts';
import { runSteps } from '../../work/steps.ts';
import { BANDS, bandStrengths, FINEST, STEP } from './band-strengths.ts';

/** From here on a spot is plainly seen; below, one has to look for it. */
export const PLAIN = 10;

/** A spot that will be seen again and again where the tile repeats. */
export interface Repeat {
  /** Its middle, as shares of the width and height. */
  x: number;
  y: number;
  /** Its size (σ) as a share of the shorter edge. */
  sigma: number;
  /** How far it stands out, in medians of its band. */
  strength: number;
}

const WORKING = 256;
const LOG_FLOOR = 0.01;
/** In normal noise a value of six medians is one of four deviations: chance alone gives hardly any. */
const STANDS_OUT = 6.5;
const WEIGHTS = [1, 0.7, 0.5];

/** Log-opponent planes of a linear colour picture: lightness, red against green, yellow against blue. */
function opponents(picture: Raster): Float32Array[] {
  const logs = picture.planes.map((plane) => KERNELS.logPlane(plane, LOG_FLOOR));
  const out = OPPONENTS.map((weights) => KERNELS.sumPlanes(logs, weights));
  PLANES.give(...logs);
  return out;
}

/** Strength of every pixel in every band, as `bandStrengths` has it, of the plane where it stands out most. */
async function strengths(
  picture: Raster,
  edges: Edges,
  team: Team,
  checkpoint: (done: number) => Promise<void>,
): Promise<Float32Array[]> {
  const { width, height } = picture;
  const sides = { width, height };
  const tasks = opponents(picture).map(
    (plane, c): GivenOf<typeof bandStrengths> => [
      plane,
      sides,
      edges,
      { weight: WEIGHTS[c], isColour: c > 0 },
    ],
  );
  let out: Float32Array[] = [];
  const take = (bands: Float32Array[]) => {
    if (out.length === 0) out = bands;
    else {
      for (const [k, band] of bands.entries()) KERNELS.raisePlane(out[k], band);
      PLANES.give(...bands);
    }
  };
  await team.each(bandStrengths, tasks, take, checkpoint);
  return out;
}

/**
 * Spots of a linear colour tile that stand out from it, strongest first: maxima over place and size of
 * differences of Gaussians in log-opponent colour, on the torus (scale-space blobs, Lindeberg 1998); broad ones as they
 * are seen on eight by eight tiles.
 */
export async function findRepeats(
  picture: Raster,
  edges: Edges,
  checkpoint: (done: number) => Promise<void> = async () => {},
  team: Team = ALONE,
): Promise<Repeat[]> {
  const scale = Math.min(1, WORKING / Math.min(picture.width, picture.height));
  const width = Math.max(1, Math.round(picture.width * scale));
  const height = Math.max(1, Math.round(picture.height * scale));
  const small = await runSteps(resizingArea(picture, width, height), checkpoint);
  const bands = await strengths(small, edges, team, checkpoint);
  return summits(bands, width, height, edges).sort((a, b) => b.strength - a.strength);
}

/**
 * How much of a tile will be seen repeating, as one figure: the sum of what its spots stand out by beyond what chance
 * gives, in multiples of that. 0 where nothing does.
 */
export const repeatFigure = (repeats: readonly Repeat[]): number =>
  repeats.reduce((sum, { strength }) => sum + strength / STANDS_OUT, 0);

/** Where a band stands out: a loop of its own, which is compiled as one. */
function standingOut(band: Float32Array): number[] {
  const out: number[] = [];
  for (let i = 0; i < band.length; i++) if (band[i] >= STANDS_OUT) out.push(i);
  return out;
}

/** Maxima over place and size that stand out. */
function summits(bands: Float32Array[], width: number, height: number, edges: Edges): Repeat[] {
  const found: Repeat[] = [];
  for (const [k, band] of bands.entries()) {
    for (const i of standingOut(band)) {
      const [x, y] = [i % width, Math.floor(i / width)];
      if (!isSummit(bands, k, x, y, width, height, edges, band[i])) continue;
      found.push({
        x: (x + 0.5) / width,
        y: (y + 0.5) / height,
        sigma: FINEST * STEP ** k,
        strength: band[i],
      });
    }
  }
  return found;
}

function isSummit(
  bands: Float32Array[],
  k: number,
  x: number,
  y: number,
  width: number,
  height: number,
  edges: Edges,
  here: number,
): boolean {
  for (let n = Math.max(0, k - 1); n <= Math.min(BANDS - 1, k + 1); n++) {
    for (let dy = -1; dy <= 1; dy++) {
      const row = edgeIndex(y + dy, height, edges.y) * width;
      for (let dx = -1; dx <= 1; dx++) {
        if (n === k && dx === 0 && dy === 0) continue;
        if (bands[n][row + edgeIndex(x + dx, width, edges.x)] >= here) return false;
      }
    }
  }
  return true;
}
