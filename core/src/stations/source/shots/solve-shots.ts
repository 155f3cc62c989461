import type { Pixels } from '../../../pixels/pixels.ts';
import { Raster } from '../../../raster/raster.ts';
import type { Sharing } from '../../../team/context.ts';
import { eachBand } from '../../../team/in-bands.ts';
import { type Homography, movedTo } from './homography.ts';
import type { ShotLights } from './lights-at.ts';
import { ceilingOf, linearRows } from './linear.ts';
import { type ShotRows, SOLVED_PLANES, solveBand } from './solve-band.ts';

/** Pixels of a shot that are linear at one time. */
const STRIP = 2 ** 20;
/** Rows beside those that are asked for that the sampling reads. */
const BESIDE = 3;
const LEAST_ROWS = 16;

/** What several shots of a surface come to, at the sides of the first. */
export interface SolvedShots {
  /** Linear RGB, over the strength of the first light. */
  albedo: Raster;
  /** Codes (n + 1)/2, green up. */
  normal: Raster;
  /** What the shots differ by from what is predicted, over the albedo; 1 where nothing could be solved. */
  residual: Float32Array;
  /** Share of pixels for which fewer than three shots could be used. */
  unsolved: number;
}

/** Which rows of a shot some rows of the first need. */
function neededRows(
  shot: Pixels,
  homography: Homography | null,
  { width, height }: Pixels,
  from: number,
  to: number,
): [number, number] {
  if (!homography) return [from, to];
  const longer = Math.max(width, height);
  const own = Math.max(shot.width, shot.height);
  const rows = [from, to].flatMap((y) =>
    [-0.5, 0.5].map((side) => {
      const [, v] = movedTo(homography, (side * width) / longer, (y - height / 2) / longer);
      return v * own + shot.height / 2;
    }),
  );
  const held = (row: number) => Math.min(shot.height, Math.max(0, row));
  const first = held(Math.floor(Math.min(...rows)) - BESIDE);
  return [Math.min(first, shot.height - 1), Math.max(first + 1, held(Math.ceil(Math.max(...rows)) + BESIDE))];
}

/**
 * Albedo, normals and what is left over from several shots of one surface in different light (Woodham 1980), by all of a team. `homographies`
 * say where each shows what the first shows, null for one in its place. Strips of the shots are linear at one time.
 */
export async function solveShots(
  shots: readonly Pixels[],
  homographies: readonly (Homography | null)[],
  lights: ShotLights,
  isLinear: boolean,
  { team, checkpoint }: Sharing,
): Promise<SolvedShots> {
  const [first] = shots;
  const { width, height } = first;
  const into = Array.from({ length: SOLVED_PLANES }, () => team.empty(width * height));
  const strip = Math.max(LEAST_ROWS, Math.floor(STRIP / width));
  for (let from = 0; from < height; from += strip) {
    const to = Math.min(height, from + strip);
    const rows = shots.map((shot, k): ShotRows => {
      const [begin, end] = neededRows(shot, homographies[k], first, from, to);
      const planes = [0, 1, 2].map(() => team.take((end - begin) * shot.width));
      linearRows(shot, begin, isLinear, planes);
      return {
        planes,
        from: begin,
        width: shot.width,
        height: shot.height,
        homography: homographies[k],
        ceiling: ceilingOf(shot, isLinear),
      };
    });
    await eachBand(solveBand, [{ shots: rows, lights, width, height, offset: from }, into], to - from, {
      team,
      checkpoint: (done) => checkpoint((from + done * (to - from)) / height),
    });
    for (const { planes } of rows) team.give(...planes);
  }
  const kept = into[7];
  let unsolved = 0;
  for (let i = 0; i < kept.length; i++) if (kept[i] < 3) unsolved++;
  team.give(kept);
  return {
    albedo: new Raster(width, height, into.slice(0, 3)),
    normal: new Raster(width, height, into.slice(3, 6)),
    residual: into[6],
    unsolved: unsolved / kept.length,
  };
}
