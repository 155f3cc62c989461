import { STATION_NAMES, type StationName } from '../stations/types.ts';

/** Share of the whole that each station usually takes, for an honest progress bar. */
const WEIGHT: Record<StationName, number> = {
  source: 4,
  square: 22,
  even: 6,
  join: 14,
  gauge: 8,
  relief: 36,
  finish: 4,
  proof: 3,
  crate: 6,
};

/** How much of a walk along some stations is done; it never goes back. */
export class Progress {
  #total: number;
  #done = 0;
  #told = 0;
  #tell: (station: StationName, share: number) => void;

  constructor(path: readonly StationName[], tell: (station: StationName, share: number) => void) {
    this.#total = path.reduce((sum, name) => sum + WEIGHT[name], 0);
    this.#tell = tell;
  }

  /** A station is at work for the one that asked, and so much of it is done, 0..1. */
  at(asking: StationName, name: StationName, share: number): void {
    this.#say(asking, this.#done + Math.min(WEIGHT[asking], WEIGHT[name] * share));
  }

  /** A station is done. */
  done(name: StationName): void {
    this.#done += WEIGHT[name];
    this.#say(name, this.#done);
  }

  #say(name: StationName, weight: number): void {
    const now = Math.min(1, weight / this.#total);
    if (now <= this.#told) return;
    this.#told = now;
    this.#tell(name, now);
  }
}

/** The stations up to one, in their order. */
export const pathTo = (last: StationName = 'crate'): StationName[] =>
  STATION_NAMES.slice(0, STATION_NAMES.indexOf(last) + 1);
