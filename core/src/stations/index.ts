import type { Values } from '../settings/kinds.ts';
import { coats } from './coats/station.ts';
import { crate } from './crate/station.ts';
import { even } from './even/station.ts';
import { finish } from './finish/station.ts';
import { gauge } from './gauge/station.ts';
import { join } from './join/station.ts';
import { proof } from './proof/station.ts';
import { relief } from './relief/station.ts';
import { source } from './source/station.ts';
import { square } from './square/station.ts';
import { style } from './style/station.ts';
import type { View } from './view.ts';

/** Every station by name, in the order of the Course. */
export const STATIONS = { source, square, even, join, style, gauge, relief, finish, coats, proof, crate };

export type StationName = keyof typeof STATIONS;
export const STATION_NAMES = Object.keys(STATIONS) as StationName[];

/** What the surface below all coats follows from. */
export type TileOutputs = Pick<StationOutputs, 'style' | 'gauge' | 'relief' | 'finish'>;

/** A picture that some station can show of its work, beside the maps. */
export type StageView = {
  [K in StationName]: (typeof STATIONS)[K]['views'] extends Record<infer V, unknown> | undefined
    ? V & string
    : never;
}[StationName];

/** The pictures that a station can show of its work, by name. */
export const viewsOf = (name: StationName): Record<string, View> =>
  (STATIONS[name] as { views?: Record<string, View> }).views ?? {};

/** The settings of all stations. */
export type StationSettings = { [K in StationName]: Values<(typeof STATIONS)[K]['settings']> };

/** What each station makes. */
export type StationOutputs = {
  [K in StationName]: Awaited<ReturnType<(typeof STATIONS)[K]['run']>>;
};
