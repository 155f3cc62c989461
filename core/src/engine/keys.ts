import type { StationSettings } from '../stations/index.ts';
import { DECIDES_FROM, finishZones, gaugeZones, isRead, READS } from '../stations/index.ts';
import type { StationName } from '../stations/types.ts';
import type { Zone } from '../zones/zone.ts';
import { contentKey } from './hash.ts';

/** Version of the computation; raise it when results change, so that old decisions are made anew. */
export const COMPUTATION = 5;

/** A zone counts by what it picks, and where it is put to use. */
const essence = (zones: Zone[]) => zones.map(({ id, parts, wetness }) => [id, parts, wetness]);

/** Settings that change the station's own result: size and edge act through the frame, words on a picture not at all. */
export function keySettings(stations: StationSettings, name: StationName): unknown {
  switch (name) {
    case 'source': {
      const { reads, given, givenGreen } = stations.source;
      const maps = Object.entries(given).map(([map, ref]) => `${map} ${ref?.sha256}`);
      return [reads, givenGreen, maps.sort()];
    }
    case 'square': {
      const { size: _size, edgeMetres: _edge, ...rest } = stations.square;
      return rest;
    }
    case 'gauge': {
      // Readings only look.
      const { readings: _readings, zones: _zones, ...rest } = stations.gauge;
      return [rest, essence(gaugeZones(stations.gauge))];
    }
    case 'finish':
      return [stations.finish, essence(finishZones(stations))];
    default:
      return stations[name];
  }
}

/** Which of some stations one reads, by its settings. */
export const readsOf = (stations: StationSettings, name: StationName, among: StationName[]): StationName[] =>
  among.filter((read) => isRead(name, read, stations));

function pathKey(stations: StationSettings, name: StationName): string {
  const before = readsOf(stations, name, READS[name]).map((read) => pathKey(stations, read));
  return contentKey([name, keySettings(stations, name), before]);
}

/** What stands before a station, without any size: the source, and the settings on the way to it. */
export function originKey(stations: StationSettings, sha256: string, name: StationName): string {
  const before = readsOf(stations, name, DECIDES_FROM[name]).map((read) => pathKey(stations, read));
  return contentKey([sha256, before]);
}

/** Parts of a station outlive changes of its other dials, so they hang on its input alone. */
export function partsKey(
  stations: StationSettings,
  name: StationName,
  size: number,
  inputs: string[],
): string {
  const read = readsOf(stations, name, READS[name]).length;
  return contentKey([COMPUTATION, name, size, inputs.slice(0, read)]);
}
