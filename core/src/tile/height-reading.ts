/** From what of the colour height is read. */
export const GREYS = ['luminance', 'darkest', 'red', 'green', 'blue', 'nearness'] as const;
export type Grey = (typeof GREYS)[number];

/** How height is read from a tile: what every station that needs one goes by. */
export interface HeightReading {
  /** The source that comes first; a supplied height stands before all. */
  from: 'tone' | 'light' | 'normals';
  isDarkHigh: boolean;
  grey: Grey;
  /** The colour to which nearness is measured (#rrggbb). */
  greyColour: string;
  /** Weights of six bands of tone, fine to broad. */
  weights: readonly number[];
  /** Where slanting light comes from, clockwise from the top; null where it is to be found. */
  lightDegrees: number | null;
}
