import type { StationName } from '@zesty-tile/core';

export const STATION_WORDS: Record<StationName, string> = {
  source: 'Source',
  square: 'Square',
  even: 'Even',
  join: 'Join',
  gauge: 'Gauge',
  relief: 'Relief',
  finish: 'Finish',
  proof: 'Proof',
  crate: 'Crate',
};
