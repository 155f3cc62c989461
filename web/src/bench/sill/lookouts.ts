type Point = [number, number, number];

/** Where a viewer stands and what they look at, in metres. */
export interface Lookout {
  words: string;
  eye: Point;
  at: Point;
}

/** Of the terrace, whose floor's middle is the origin. */
export const LOOKOUTS = {
  overview: { words: 'Overview', eye: [-0.5, 2.1, 6.6], at: [0, 0.95, -1.2] },
  near: { words: 'Walk-up', eye: [0.25, 1.55, 0.15], at: [-1.35, 1.0, -3] },
  grazing: { words: 'Grazing', eye: [-0.2, 0.42, 3.6], at: [0.25, 0.35, -2.5] },
} satisfies Record<string, Lookout>;
export type LookoutName = keyof typeof LOOKOUTS;

/** Of open ground. */
export const DISTANCES = {
  near: { words: 'Near', eye: [0, 1.65, 0], at: [0, 0, -2.8] },
  middle: { words: 'Middle', eye: [0, 6, 0], at: [0, 0, -16] },
  far: { words: 'Far', eye: [0, 22, 0], at: [0, 0, -95] },
} satisfies Record<string, Lookout>;
export type DistanceName = keyof typeof DISTANCES;
