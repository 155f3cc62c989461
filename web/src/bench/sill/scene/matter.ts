import {
  type Coat,
  newCoat,
  newOutput,
  newPart,
  newRecipe,
  type Recipe,
  type SourceRef,
} from '@zesty-tile/core';
import { plainSource } from '../../../engine/plain-source.ts';

/** What parts of the scene are made of where no tile of the project is on them. */
export const MATTERS = [
  'limewash',
  'limestone',
  'flags',
  'terracotta',
  'rooftiles',
  'timber',
  'stucco',
] as const;
export type Matter = (typeof MATTERS)[number];

export const MATTER_WORDS: Record<Matter, string> = {
  limewash: 'Limewash',
  limestone: 'Limestone',
  flags: 'Stone flags',
  terracotta: 'Terracotta',
  rooftiles: 'Roof tiles',
  timber: 'Painted timber',
  stucco: 'Warm stucco',
};

interface Made {
  hex: string;
  edgeMetres: number;
  stack: Coat[];
}

const noise = (changes: object) => newPart('noise', { kind: 'fractal', octaves: 4, ...changes });
const pattern = (changes: object) => newPart('pattern', { pick: 'face', ...changes });
const colour = (hex: string, changes: object = {}) =>
  newOutput('constant', { channel: 'colour', colour: hex, ...changes });
const high = (heightMm: number) => newOutput('constant', { channel: 'height', heightMm });
const rough = (amount: number) => newOutput('constant', { channel: 'roughness', amount });
const coat = (name: string, parts: Coat['parts'], outputs: Coat['outputs']): Coat =>
  newCoat({ id: name.toLowerCase().replace(/[^a-z]+/g, '-'), name, strength: 1, parts, outputs });
const stops = (...hexes: string[]) =>
  hexes.map((hex, k) => ({ at: k / (hexes.length - 1), colour: hex, value: k / (hexes.length - 1) }));
const shades = (...hexes: string[]) =>
  newOutput('ramp', { channel: 'colour', driver: 'part', part: 1, plane: 'value', stops: stops(...hexes) });
const profile = (highMm: number) =>
  newOutput('ramp', {
    channel: 'height',
    driver: 'part',
    part: 1,
    plane: 'profile',
    kind: 'smooth',
    lowMm: 0,
    highMm,
  });

/** Plaster: clouds of tone, grain, and stains that run down. */
const plaster = (hex: string, light: string, stain: string): Coat[] => [
  coat('Matt', [], [rough(0.92)]),
  coat('Clouds', [noise({ sizeMm: 700, low: 0.3, high: 0.75 })], [colour(light)]),
  coat('Trowel', [noise({ sizeMm: 160, octaves: 3, warp: 0.6, low: 0.3, high: 0.8 })], [high(1.6)]),
  coat('Grain', [noise({ sizeMm: 14, octaves: 3 })], [high(0.5), colour(hex, { strength: 0.25 })]),
  coat(
    'Stains',
    [noise({ sizeMm: 620, stretch: 3, degrees: 90, octaves: 5, low: 0.56, high: 0.8, seed: 8 })],
    [colour(stain, { strength: 0.5 })],
  ),
];

const MADE: Record<Matter, Made> = {
  limewash: { hex: '#d8d2c4', edgeMetres: 2, stack: plaster('#c9c2b2', '#e2ddd1', '#a39a86') },
  stucco: { hex: '#c79a68', edgeMetres: 2, stack: plaster('#b98a58', '#d6ae7e', '#8d6a45') },
  limestone: {
    hex: '#b9ae98',
    edgeMetres: 1,
    stack: [
      coat('Matt', [], [rough(0.8)]),
      coat(
        'Beds',
        [noise({ sizeMm: 300, stretch: 4, octaves: 5, low: 0.35, high: 0.7 })],
        [colour('#cabfa9')],
      ),
      coat(
        'Pits',
        [noise({ sizeMm: 20, octaves: 3, low: 0.62, high: 0.75, seed: 3 })],
        [high(-1.2), colour('#8f846e', { strength: 0.7 })],
      ),
      coat(
        'Grain',
        [noise({ sizeMm: 8, octaves: 3, seed: 5 })],
        [high(0.4), colour('#a79b84', { strength: 0.35 })],
      ),
    ],
  },
  flags: {
    hex: '#6f675a',
    edgeMetres: 2.4,
    stack: [
      coat('Matt', [], [rough(0.85)]),
      coat(
        'Flags',
        [
          pattern({
            kind: 'running',
            across: 4,
            down: 6,
            jointMm: 14,
            bevelMm: 9,
            roundMm: 10,
            jitter: 0.25,
            seed: 4,
          }),
        ],
        [shades('#8d8270', '#a3977f', '#9b8f7c', '#857a69', '#ab9f88'), profile(9), rough(0.7)],
      ),
      coat(
        'Worn',
        [noise({ sizeMm: 240, octaves: 5, low: 0.35, high: 0.75 })],
        [high(1.8), colour('#b3a892', { strength: 0.45 })],
      ),
      coat(
        'Pits',
        [noise({ sizeMm: 26, octaves: 3, low: 0.6, high: 0.75, seed: 3 })],
        [high(-1.5), colour('#6a604f', { strength: 0.5 })],
      ),
    ],
  },
  terracotta: {
    hex: '#a8613c',
    edgeMetres: 0.8,
    stack: [
      coat('Matt', [], [rough(0.82)]),
      coat('Fired', [noise({ sizeMm: 260, octaves: 4, low: 0.3, high: 0.75 })], [colour('#bd7850')]),
      coat(
        'Bloom',
        [noise({ sizeMm: 180, octaves: 5, low: 0.58, high: 0.8, seed: 6 })],
        [colour('#d3b49a', { strength: 0.6 })],
      ),
      coat('Rings', [noise({ sizeMm: 16, octaves: 2, stretch: 20, seed: 2 })], [high(0.8)]),
    ],
  },
  rooftiles: {
    hex: '#4a2f22',
    edgeMetres: 1.2,
    stack: [
      coat('Matt', [], [rough(0.85)]),
      coat(
        'Tiles',
        [
          pattern({
            kind: 'running',
            across: 6,
            down: 4,
            jointMm: 8,
            bevelMm: 60,
            roundMm: 12,
            jitter: 0.2,
            seed: 5,
          }),
        ],
        [shades('#96543a', '#a9674a', '#8a4c33', '#b57a58'), profile(34), rough(0.8)],
      ),
      coat(
        'Lichen',
        [noise({ sizeMm: 110, octaves: 5, low: 0.6, high: 0.78, seed: 9 })],
        [colour('#a8a078', { strength: 0.7 })],
      ),
    ],
  },
  timber: {
    hex: '#22302c',
    edgeMetres: 1,
    stack: [
      coat('Satin', [], [rough(0.55)]),
      coat(
        'Boards',
        [
          pattern({
            kind: 'planks',
            across: 1,
            down: 8,
            jointMm: 4,
            bevelMm: 3,
            roundMm: 2,
            jitter: 0.3,
            seed: 3,
          }),
        ],
        [shades('#3d5a50', '#456459', '#3a554c'), profile(4)],
      ),
      coat(
        'Grain',
        [noise({ sizeMm: 10, octaves: 4, stretch: 14, warp: 0.5, seed: 3 })],
        [high(0.5), colour('#557368', { strength: 0.3 })],
      ),
      coat(
        'Worn',
        [noise({ sizeMm: 120, stretch: 5, octaves: 5, low: 0.66, high: 0.74, seed: 12 })],
        [colour('#8a7a62'), rough(0.8)],
      ),
    ],
  },
};

/** Length of a matter's edge, in metres. */
export const matterEdge = (matter: Matter): number => MADE[matter].edgeMetres;

/** The recipe of a matter and what it starts from. */
export function matterGiven(matter: Matter): { recipe: Recipe; source: SourceRef } {
  const { hex, edgeMetres, stack } = MADE[matter];
  const recipe = newRecipe();
  const { source, square, even, join } = recipe.stations;
  return {
    source: plainSource(hex),
    recipe: {
      ...recipe,
      stations: {
        ...recipe.stations,
        source: { ...source, origin: 'one colour' },
        square: { ...square, size: 512, share: 1, edgeMetres },
        even: { ...even, amount: 0 },
        join: { ...join, method: 'none' },
        coats: { stack, groups: [] },
      },
    },
  };
}
