import { AROUND_NAMES, type AroundName } from '@zesty-tile/core';

export const AROUND_WORDS: Record<AroundName, string> = {
  overcast: 'Overcast',
  terrace: 'Noon terrace',
  'lemon-house': 'Lemon house',
  dusk: 'Dusk',
  studio: 'White studio',
};

/** Whether surroundings are the project's own, and not a custom picture. */
export const isMadeUp = (name: string): name is AroundName =>
  (AROUND_NAMES as readonly string[]).includes(name);
