import type { ShownMaps } from './protocol.ts';

/** Maps that only some tiles have. */
export const SOME_MAPS = ['opacity', 'emission', 'dielectric'] as const;

/** Whether the current tile has a view: all do, but for opacity, emission, and an F0 that is one for the whole of it. */
export const hasMap = (maps: ShownMaps | null, view: string): boolean => {
  if (view === 'dielectric') return maps?.specular != null;
  return !(SOME_MAPS as readonly string[]).includes(view) || maps?.[view as 'opacity' | 'emission'] != null;
};
