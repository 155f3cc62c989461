import type { FarFilter } from '@zesty-tile/core';
import { create } from 'zustand';

/** From straight above, or along the ground. */
export type FarView = 'above' | 'along';

/** What lies on or beside the Floor. */
interface Sight {
  cut: boolean;
  heat: boolean;
  hatching: boolean;
  /** Colour removed from colour views: luminance alone. */
  luminance: boolean;
  guides: boolean;
  /** At Proof: a far field in place of the laid tiles, and how a game would look at it. */
  far: FarView | null;
  filter: FarFilter;
}

export const useSight = create<Sight>(() => ({
  cut: true,
  heat: false,
  hatching: true,
  luminance: false,
  guides: false,
  far: null,
  filter: 'eight',
}));
