import { fullDisk } from './full-disk.ts';
import { fuzzRoutes } from './fuzz.ts';
import { hostileFiles } from './hostile-files.ts';
import { killBake } from './kill-bake.ts';
import { killRedis, killWorker } from './kill-queue.ts';
import { killServer } from './kill-server.ts';
import { largePictures } from './large-pictures.ts';
import { load } from './load.ts';
import type { Trial } from './trial.ts';

interface Planned {
  trial: Trial;
  /** How many are tried in the short form, which belongs to the tests, and in the long form. */
  short: number;
  long: number;
}

/** Every trial by its name. */
export const TRIALS: Record<string, Planned> = {
  server: { trial: killServer, short: 2, long: 350 },
  bake: { trial: killBake, short: 5, long: 400 },
  worker: { trial: killWorker, short: 2, long: 200 },
  redis: { trial: killRedis, short: 1, long: 50 },
  files: { trial: hostileFiles, short: 150, long: 10_000 },
  large: { trial: largePictures, short: 1, long: 10 },
  routes: { trial: fuzzRoutes, short: 400, long: 20_000 },
  disk: { trial: fullDisk, short: 3, long: 60 },
  load: { trial: load, short: 2, long: 60 },
};
