import { STATION_NAMES, STATIONS, type StationName } from '../stations/index.ts';

const weightOf = (name: StationName): number => STATIONS[name].weight;

/** How much of a walk along some stations is done; it never goes back. */
export class Progress {
  #total: number;
  #done = 0;
  #reported = 0;
  #report: (station: StationName, share: number) => void;

  constructor(path: readonly StationName[], report: (station: StationName, share: number) => void) {
    this.#total = path.reduce((sum, name) => sum + weightOf(name), 0);
    this.#report = report;
  }

  /** A station is at work for the one that asked, and this share of it is done, 0..1. */
  at(asking: StationName, name: StationName, share: number): void {
    this.#advance(asking, this.#done + Math.min(weightOf(asking), weightOf(name) * share));
  }

  /** A station is done. */
  done(name: StationName): void {
    this.#done += weightOf(name);
    this.#advance(name, this.#done);
  }

  #advance(name: StationName, weight: number): void {
    const now = Math.min(1, weight / this.#total);
    if (now <= this.#reported) return;
    this.#reported = now;
    this.#report(name, now);
  }
}

/** The stations up to one, in their order; all of them where none is given. */
export const pathTo = (last: StationName = STATION_NAMES.at(-1)!): StationName[] =>
  STATION_NAMES.slice(0, STATION_NAMES.indexOf(last) + 1);
