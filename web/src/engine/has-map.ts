import type { ShownMaps } from './protocol.ts';

/** Maps that only some tiles have. */
export const SOME_MAPS = ['opacity', 'emission'] as const;

/** Whether the tile in hand has a view: all do, but for opacity and emission. */
export const hasMap = (maps: ShownMaps | null, view: string): boolean =>
  !(SOME_MAPS as readonly string[]).includes(view) || maps?.[view as (typeof SOME_MAPS)[number]] != null;
