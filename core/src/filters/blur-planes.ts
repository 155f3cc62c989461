import { type Band, bandParts } from '../raster/band.ts';
import type { Sharing } from '../team/context.ts';
import { task } from '../team/task.ts';
import { runSteps } from '../work/steps.ts';
import { blurringColumns, blurringRows, type Field, hasColumns } from './gaussian.ts';

/** Parts of a pass for each member, at least, so that nobody waits long for the last one. */
const PARTS_EACH = 3;
/** Lines of a part at least, in whole groups of those that go through the recursion side by side. */
const LEAST_LINES = 64;
const GROUP = 16;

/** A plane that is to be blurred, and by how much: σ in pixels. */
export interface Blur {
  plane: Float32Array;
  sigma: number;
}

/** The first pass of a blur on some rows, into a plane that all of a team see. */
export const blurRows = task(
  'blurRows',
  (checkpoint, { plane, sigma }: Blur, field: Field, into: Float32Array, rows: Band): Promise<void> =>
    runSteps(blurringRows(plane, into, field, sigma, rows), checkpoint),
);

/** The second pass of a blur on some columns of that plane. */
export const blurColumns = task(
  'blurColumns',
  (checkpoint, sigma: number, field: Field, into: Float32Array, columns: Band): Promise<void> =>
    runSteps(blurringColumns(into, field, sigma, columns), checkpoint),
);

/** Gaussian blurs of planes of one field, shared by all of a team (see `blurring`). New planes that all of it see. */
export async function blurPlanes(
  blurs: readonly Blur[],
  { width, height, edges }: Field,
  { team, checkpoint }: Sharing,
): Promise<Float32Array[]> {
  const field = { width, height, edges };
  const made = blurs.map(({ plane }) => team.take(plane.length));
  const seen = new Map(blurs.map(({ plane }) => [plane, team.shared(plane)]));
  /** Lines in parts, of which all blurs together make enough. */
  const parts = (lines: number): Band[] => {
    const count = team.size === 1 ? 1 : Math.ceil((PARTS_EACH * team.size) / blurs.length);
    const step = Math.max(LEAST_LINES, Math.ceil(lines / count / GROUP) * GROUP);
    return [...bandParts({ from: 0, to: lines }, step)];
  };
  const rows = blurs.flatMap(({ plane, sigma }, k) =>
    parts(height).map((band): [Blur, Field, Float32Array, Band] => {
      return [{ plane: seen.get(plane)!, sigma }, field, made[k], band];
    }),
  );
  await team.each(blurRows, rows, () => {}, checkpoint);
  const columns = blurs.flatMap(({ sigma }, k) =>
    hasColumns(sigma)
      ? parts(width).map((band): [number, Field, Float32Array, Band] => [sigma, field, made[k], band])
      : [],
  );
  await team.each(blurColumns, columns, () => {}, checkpoint);
  for (const [plane, copy] of seen) if (copy !== plane) team.give(copy);
  return made;
}
