import { KERNELS, type Kernels } from '../kernels/kernels.ts';
import { resampleGrid } from '../raster/resample-grid.ts';
import { divideBand } from '../stations/even/divide-band.ts';
import { toneBand } from '../stations/gauge/tone-band.ts';
import { bandStrengths } from '../stations/proof/band-strengths.ts';
import { resampleBand } from '../stations/square/resample-band.ts';

/** Awaited inside long loops with the share done, 0..1. */
export type Checkpoint = (done: number) => Promise<void>;

/** What members of a team do beside one another: each takes plain data and planes, and gives planes. */
export const TASKS = {
  blendChannel: (_breathe: Checkpoint, ...given: Parameters<Kernels['blendChannel']>) =>
    KERNELS.blendChannel(...given),
  bandStrengths,
  divideBand,
  resampleBand,
  resampleGrid,
  toneBand,
  sweepHorizons: (_breathe: Checkpoint, ...given: Parameters<Kernels['sweepHorizons']>) =>
    KERNELS.sweepHorizons(...given),
};

export type TaskName = keyof typeof TASKS;
type Rest<T> = T extends (checkpoint: Checkpoint, ...given: infer G) => unknown ? G : never;
export type Given<N extends TaskName> = Rest<(typeof TASKS)[N]>;
export type Made<N extends TaskName> = Awaited<ReturnType<(typeof TASKS)[N]>>;

/** Does one task on this thread. */
export async function done<N extends TaskName>(
  name: N,
  given: Given<N>,
  checkpoint: Checkpoint,
): Promise<Made<N>> {
  const task = TASKS[name] as unknown as (
    checkpoint: Checkpoint,
    ...given: Given<N>
  ) => Made<N> | Promise<Made<N>>;
  return task(checkpoint, ...given);
}
