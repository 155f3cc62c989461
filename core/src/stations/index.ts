import type { Values } from '../settings/settings.ts';
import { readsRelief, type Zone } from '../zones/zone.ts';
import { crate } from './crate/station.ts';
import { even } from './even/station.ts';
import { finish } from './finish/station.ts';
import { gauge } from './gauge/station.ts';
import { join } from './join/station.ts';
import { proof } from './proof/station.ts';
import { relief } from './relief/station.ts';
import { source } from './source/station.ts';
import { square } from './square/station.ts';
import type { StationName } from './types.ts';

/** Every station by name, in the order of the Course. */
export const STATIONS = { source, square, even, join, gauge, relief, finish, proof, crate };

/** The settings of all stations. */
export type StationSettings = { [K in StationName]: Values<(typeof STATIONS)[K]['settings']> };

/** What each station makes. */
export type StationOutputs = {
  [K in StationName]: Awaited<ReturnType<(typeof STATIONS)[K]['run']>>;
};

/** Which earlier stations each one reads. Nobody reads Gauge but Proof and the crate. */
export const READS: Record<StationName, StationName[]> = {
  source: [],
  square: ['source'],
  even: ['square'],
  join: ['square', 'even'],
  gauge: ['join', 'relief'],
  relief: ['join'],
  finish: ['join', 'relief'],
  proof: ['join', 'gauge', 'relief', 'finish'],
  crate: ['join', 'gauge', 'relief', 'finish'],
};

/** What each station's decision is made from, where that is not all it reads. */
export const DECIDES_FROM: Record<StationName, StationName[]> = {
  ...READS,
  gauge: ['join', 'relief', 'source'],
  finish: ['join'],
};

/** The zones that Gauge or Finish has values for, and wet ones. */
const inUse = (zones: readonly Zone[], values: readonly { zone: string }[]): Zone[] =>
  zones.filter(({ id, wetness }) => wetness > 0 || values.some(({ zone }) => zone === id));
export const gaugeZones = ({ zones, zoneTones }: StationSettings['gauge']): Zone[] => inUse(zones, zoneTones);
export const finishZones = ({ gauge, finish }: StationSettings): Zone[] =>
  inUse(gauge.zones, finish.zoneFinish);

/** Settings as far as any result hangs on them: without readings, and zones that nothing is set for. */
export const effective = (stations: StationSettings): StationSettings => ({
  ...stations,
  gauge: {
    ...stations.gauge,
    readings: [],
    zones: stations.gauge.zones.filter(
      (zone) => gaugeZones(stations.gauge).includes(zone) || finishZones(stations).includes(zone),
    ),
  },
});

/** Gauge reads Relief only where a zone is picked by it, and the photo only where patches lie in it. */
export function isRead(by: StationName, read: StationName, { gauge }: StationSettings): boolean {
  if (by !== 'gauge') return true;
  if (read === 'relief') return readsRelief(gaugeZones(gauge));
  return read !== 'source' || (gauge.fitBy === 'patches' && gauge.patches.length > 0);
}
