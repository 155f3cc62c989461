import { partKind } from './part.ts';

/** The whole tile. */
export const whole = partKind({
  title: 'Whole tile',
  settings: {},
  reads: () => [],
  values: async () => 1,
});
