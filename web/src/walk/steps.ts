import type { StationName } from '@zesty-tile/core';

export interface WalkStep {
  title: string;
  words: string;
  /** The station that is open at it. */
  station: StationName;
  /** What is meant, as a selector. */
  target: string;
}

/** From the photo to the crate: one look at each part of the Bench. */
export const WALK: readonly WalkStep[] = [
  {
    title: 'The Course',
    words:
      'A tile goes through eleven stations, from photo to finished files. Each shows its picture and what it measured; press one to open it.',
    station: 'source',
    target: 'nav[aria-label="Course"]',
  },
  {
    title: 'The Floor',
    words:
      'The tile repeated 2 × 2, so that its edges meet in the middle. Press T for more repeats, H to bring the edge to the middle of the tile.',
    station: 'join',
    target: 'section[aria-label="Floor"]',
  },
  {
    title: 'Dials and verdict',
    words:
      'The box says what was measured and what to do; a button in it does it. Below are the settings. Everything is saved as you go, and Undo takes back any step.',
    station: 'gauge',
    target: 'section[aria-label="Dials"]',
  },
  {
    title: 'The Sill',
    words: 'All maps together, lit. Drag the disc to move the sun, drag the surface to turn it.',
    station: 'relief',
    target: 'section[aria-label="Sill"]',
  },
  {
    title: 'The crate',
    words:
      'The finished files with a manifest of how they were made. Press “Crate it”: they appear here, ready to download.',
    station: 'crate',
    target: '[data-crates-it]',
  },
];
