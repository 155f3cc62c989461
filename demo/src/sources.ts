import { type Photo, photograph } from './photograph.ts';
import type { Pose, Scene } from './scene.ts';
import { CANE_PERIOD, cane } from './surfaces/cane.ts';
import { copper } from './surfaces/copper.ts';
import { PAMMENT_PERIOD, pamments } from './surfaces/pamments.ts';
import { layCard, ripples } from './surfaces/ripples.ts';
import { shells } from './surfaces/shells.ts';
import { stucco } from './surfaces/stucco.ts';

type Light = [number, number, number];

interface Definition {
  name: string;
  /** Width of what the picture shows, in mm. */
  viewMm: number;
  pose: Pose;
  scene(width: number, height: number, mmPerPixel: number, pose: Pose): Scene;
  light: {
    sunDegrees: number;
    sunHeightDegrees: number;
    sun: number;
    sky: number;
    exposure: number;
    noise: number;
    uneven(x: number, y: number): Light;
  };
  /** Period of the pattern in mm, where it has one. */
  periodMm?: number;
}

const grey = (v: number): Light => [v, v, v];
const vignette = (x: number, y: number, k: number) => -k * (x * x + y * y);

export const DEFINITIONS = {
  stucco: {
    name: 'Limewashed stucco',
    viewMm: 2000,
    pose: { turnDegrees: 0, bow: 0.01 },
    scene: stucco,
    light: {
      sunDegrees: 300,
      sunHeightDegrees: 48,
      sun: 0.5,
      sky: 0.55,
      exposure: 0.82,
      noise: 0.006,
      uneven: (x: number, y: number) => {
        const slope = -0.3 * x + 0.16 * y + vignette(x, y, 0.12) + 0.05 * x * y;
        return [slope + 0.05 * x, slope, slope - 0.07 * x + 0.02 * y];
      },
    },
  },
  pamments: {
    name: 'Terrace pamments',
    viewMm: 2000,
    pose: { turnDegrees: 1.6, bow: 0.004 },
    scene: pamments,
    light: {
      sunDegrees: 318,
      sunHeightDegrees: 52,
      sun: 0.55,
      sky: 0.5,
      exposure: 1.25,
      noise: 0.006,
      uneven: (x: number, y: number) => grey(0.16 * x - 0.1 * y + vignette(x, y, 0.1)),
    },
    periodMm: PAMMENT_PERIOD,
  },
  shells: {
    name: 'Oyster-shell path',
    viewMm: 900,
    pose: { turnDegrees: 0, bow: 0.006 },
    scene: shells,
    light: {
      sunDegrees: 330,
      sunHeightDegrees: 55,
      sun: 0.5,
      sky: 0.55,
      exposure: 0.95,
      noise: 0.006,
      uneven: (x: number, y: number) => grey(-0.12 * x - 0.14 * y + vignette(x, y, 0.09)),
    },
  },
  cane: {
    name: 'Split-cane matting',
    viewMm: 420,
    pose: { turnDegrees: -0.9, bow: 0.004 },
    scene: cane,
    light: {
      sunDegrees: 310,
      sunHeightDegrees: 50,
      sun: 0.5,
      sky: 0.55,
      exposure: 1.1,
      noise: 0.006,
      uneven: (x: number, y: number) => {
        const v = 0.14 * x + 0.12 * y + vignette(x, y, 0.1);
        return [v + 0.03 * x, v, v - 0.04 * x];
      },
    },
    periodMm: CANE_PERIOD,
  },
  ripples: {
    name: 'Salt-pan ripples',
    viewMm: 2600,
    pose: { turnDegrees: 0, bow: 0.006 },
    scene: (width: number, height: number, mm: number, pose: Pose) =>
      layCard(ripples(width, height, mm, pose), pose),
    light: {
      sunDegrees: 345,
      sunHeightDegrees: 40,
      sun: 0.5,
      sky: 0.55,
      exposure: 0.9,
      noise: 0.006,
      uneven: (x: number, y: number) => grey(0.1 * x + 0.2 * y + vignette(x, y, 0.08)),
    },
  },
  copper: {
    name: 'Verdigris copper',
    viewMm: 1000,
    pose: { turnDegrees: 0, bow: 0.005 },
    scene: copper,
    light: {
      sunDegrees: 320,
      sunHeightDegrees: 55,
      sun: 0.4,
      sky: 0.65,
      exposure: 1.05,
      noise: 0.006,
      uneven: (x: number, y: number) => grey(0.12 * x - 0.12 * y + vignette(x, y, 0.08)),
    },
  },
} satisfies Record<string, Definition>;

export type DemoId = keyof typeof DEFINITIONS;
export const DEMO_IDS = Object.keys(DEFINITIONS) as DemoId[];

/** Size of the demo pictures; tests may ask for smaller ones of the same view. */
export const DEMO_WIDTH = 1600;

/** A demo picture with the truth about it. */
export interface DemoSource extends Photo {
  id: DemoId;
  name: string;
  scene: Scene;
  pose: Pose;
  periodMm: number | null;
}

/** Makes a demo picture, 4:3, the same for the same width. */
export function makeSource(id: DemoId, width = DEMO_WIDTH): DemoSource {
  const d: Definition = DEFINITIONS[id];
  const height = Math.round((width * 3) / 4);
  const scene = d.scene(width, height, d.viewMm / width, d.pose);
  const { uneven, ...light } = d.light;
  const photo = photograph(scene, { ...light, unevenLog: uneven, seed: 7 + DEMO_IDS.indexOf(id) });
  return { ...photo, id, name: d.name, scene, pose: d.pose, periodMm: d.periodMm ?? null };
}
