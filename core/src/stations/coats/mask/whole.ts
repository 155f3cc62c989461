import { partKind } from './part.ts';

/** The whole tile. */
export const whole = partKind({
  title: 'Whole tile',
  settings: {},
  isOfBelow: () => false,
  values: async () => 1,
});
