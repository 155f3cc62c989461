import type { SettingsOf, Values } from '../settings/kinds.ts';
import { STATIONS, type StationName } from '../stations/index.ts';
import type { Station } from '../stations/station.ts';

/** A station as the engine sees it: all alike. */
export type AnyStation = Station<SettingsOf, unknown, unknown, unknown> & { name: StationName };

/** Every station in the order of the Course. */
export const stationList = Object.values(STATIONS) as unknown as AnyStation[];

export const stationOf = (name: StationName): AnyStation => STATIONS[name] as unknown as AnyStation;

/** The settings of a station in a recipe. */
export const settingsIn = ({ stations }: { stations: object }, name: StationName): Values<SettingsOf> =>
  (stations as Record<string, Values<SettingsOf>>)[name];
