import type { ChartLine } from '@zesty-tile/core';

/** A line of a custom chart. */
export const TUFF: Extract<ChartLine, { kind: 'dielectric' }> = {
  id: 'tuff',
  name: 'Tuff',
  group: 'stone',
  kind: 'dielectric',
  reflectance: [0.2, 0.3],
  f0: 0.04,
  roughness: [0.7, 0.9],
};
