import type { Band } from '../raster/band.ts';
import { Raster } from '../raster/raster.ts';
import type { Checkpoint } from '../work/checkpoint.ts';
import type { Sharing } from './context.ts';
import type { Task } from './task.ts';
import type { Team } from './team.ts';

/** Bands for each member, so that nobody waits long for the last one. */
const BANDS_EACH = 2;
const SMALL_BANDS_EACH = 5;

/** A picture to make another from. */
interface Picture {
  planes: Float32Array[];
  width: number;
  height: number;
}

/** What a task that makes rows of a picture is told, beside the picture it makes them from. */
interface Making {
  out: { width: number; height: number };
}

/** Rows cut into bands, enough for every member of a team. */
export function bandsOf(rows: number, team: Team, each = BANDS_EACH): Band[] {
  const count = team.size === 1 ? 1 : Math.min(rows, each * team.size);
  const cut = (k: number) => Math.round((k * rows) / count);
  return Array.from({ length: count }, (_, k) => ({ from: cut(k), to: cut(k + 1) }));
}

/** A task done on bands of rows by all of a team, none with fewer than `least`; each writes into what it is given. */
export const eachBand = <Given extends unknown[]>(
  task: Task<[...Given, band: Band], void>,
  given: Given,
  rows: number,
  { team, checkpoint }: Sharing,
  least = 1,
): Promise<void> => {
  const each = Math.max(1, Math.min(SMALL_BANDS_EACH, Math.floor(rows / least / team.size)));
  const tasks = bandsOf(rows, team, each).map((band): [...Given, Band] => [...given, band]);
  return team.each(task, tasks, () => {}, checkpoint);
};

/** A picture made from another in bands of rows by all of a team. */
export async function inBands<How extends Making & { planes: Float32Array[] }>(
  task: Task<[how: How, into: Float32Array[], band: Band], void>,
  { planes, width, height }: Raster,
  how: Omit<How, keyof Picture>,
  team: Team,
  checkpoint: Checkpoint,
): Promise<Raster> {
  const { out } = how as unknown as Making;
  const whole = {
    ...how,
    planes: planes.map((plane) => team.shared(plane)),
    width,
    height,
  } as unknown as How;
  const into = planes.map(() => team.empty(out.width * out.height));
  const tasks = bandsOf(out.height, team).map((band): [How, Float32Array[], Band] => [whole, into, band]);
  await team.each(task, tasks, () => {}, checkpoint);
  return new Raster(out.width, out.height, into);
}
