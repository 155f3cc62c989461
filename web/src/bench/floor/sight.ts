import { create } from 'zustand';

/** What lies on or beside the Floor. */
interface Sight {
  cut: boolean;
  heat: boolean;
  hatching: boolean;
  /** Colour taken out of colour views: luminance alone. */
  luminance: boolean;
  guides: boolean;
}

export const useSight = create<Sight>(() => ({
  cut: true,
  heat: false,
  hatching: true,
  luminance: false,
  guides: false,
}));
