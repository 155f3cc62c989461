import type { Coat } from '@zesty-tile/core';
import { coat, output, part, stops } from './making.ts';

/** Boards of a lemon crate that differ in their shape alone. */
export interface BoardShape {
  name: string;
  /** Boards down the tile. */
  down: number;
  seed: number;
}

export const BOARD_SHAPES: readonly BoardShape[] = [
  { name: 'Lemon-crate boards, three', down: 3, seed: 3 },
  { name: 'Lemon-crate boards, four', down: 4, seed: 12 },
  { name: 'Lemon-crate boards, six', down: 6, seed: 25 },
];

export const BOARDS_HEX = '#8f8f8f';
export const BOARDS_METRES = 0.48;
/** Between the deepest gap and the highest board, mm. */
export const BOARDS_DEPTH = 9;

/** The shape of boards, as it might come from a program for shapes: bowed, with grain, knots and nails. */
export function boardsShape({ down, seed }: BoardShape): Coat[] {
  const planks = { kind: 'planks', across: 1, down, jointMm: 4, bevelMm: 3, roundMm: 3, jitter: 0.4, seed };
  return [
    coat(
      'Boards',
      [part('pattern', { ...planks, pick: 'face' })],
      [
        output('ramp', 'height', {
          driver: 'part',
          part: 1,
          plane: 'profile',
          kind: 'smooth',
          lowMm: 0,
          highMm: 7,
        }),
        output('ramp', 'height', { driver: 'part', part: 1, plane: 'value', lowMm: 0, highMm: 1.5 }),
      ],
    ),
    coat(
      'Grain',
      [
        part('pattern', { ...planks, pick: 'face' }),
        part('noise', { kind: 'fractal', sizeMm: 9, octaves: 4, stretch: 14, warp: 0.7, seed }),
      ],
      [output('constant', 'height', { heightMm: 1.1 })],
    ),
    coat(
      'Cracks along the grain',
      [
        part('pattern', { ...planks, pick: 'face' }),
        part('noise', {
          kind: 'ridged',
          sizeMm: 26,
          octaves: 2,
          stretch: 20,
          warp: 0.9,
          low: 0.86,
          high: 0.97,
          seed,
        }),
        part('noise', { kind: 'fractal', sizeMm: 120, octaves: 3, low: 0.5, high: 0.62, seed: seed + 1 }),
      ],
      [output('constant', 'height', { heightMm: -2.2 })],
    ),
    coat(
      'Knots',
      [part('scatter', { stamp: 'stone', spacingMm: 150, sizeMm: 17, variety: 0.5, amount: 0.8, seed })],
      [output('ramp', 'height', { driver: 'part', part: 1, plane: 'profile', lowMm: 0, highMm: -1.2 })],
    ),
    coat(
      'Nails',
      [
        part('scatter', {
          stamp: 'nail',
          spacingMm: 70,
          sizeMm: 7,
          variety: 0.1,
          amount: 0.5,
          seed: seed + 2,
        }),
        part('pattern', { ...planks, pick: 'face' }),
      ],
      [output('ramp', 'height', { driver: 'part', part: 1, plane: 'profile', lowMm: 0, highMm: 1.4 })],
    ),
  ];
}

/** Colour of the boards by ramps along the maps that came with them: the same for every shape. */
export const boards: Coat[] = [
  coat(
    'Raw wood',
    [],
    [
      output('ramp', 'colour', {
        driver: 'cavity',
        kind: 'smooth',
        stops: [
          { at: 0.25, colour: '#5a3d22', value: 0 },
          { at: 0.45, colour: '#a37a48', value: 0.4 },
          { at: 0.6, colour: '#c9a26a', value: 0.7 },
          { at: 0.85, colour: '#e0c596', value: 1 },
        ],
      }),
      output('constant', 'roughness', { amount: 0.78 }),
    ],
  ),
  coat(
    'Each its own tone',
    [part('noise', { kind: 'fractal', sizeMm: 210, octaves: 3, stretch: 6 })],
    [
      output('ramp', 'colour', {
        driver: 'mask',
        blend: 'soft-light',
        strength: 0.9,
        stops: stops('#3a2c22', '#8a8078', '#e0d0b0'),
      }),
    ],
  ),
  coat(
    'Grain',
    [part('noise', { kind: 'fractal', sizeMm: 7, octaves: 4, stretch: 16, warp: 0.6 })],
    [
      output('ramp', 'colour', {
        driver: 'mask',
        blend: 'soft-light',
        strength: 0.75,
        stops: stops('#2c2018', '#7c7468', '#d0c0a0'),
      }),
    ],
  ),
  coat(
    'Green paint',
    [
      part('shape', { kind: 'rectangle', x: 0.5, y: 0.5, widthMm: 480, heightMm: 170 }),
      part('range', { map: 'cavity', low: 0.4, high: 0.5 }),
      part('noise', { kind: 'fractal', sizeMm: 60, octaves: 5, stretch: 3, low: 0.36, high: 0.46 }),
    ],
    [
      output('constant', 'colour', { colour: '#2f5b52' }),
      output('constant', 'roughness', { amount: 0.55 }),
      output('constant', 'height', { heightMm: 0.2 }),
    ],
  ),
  coat(
    'Lemons in print',
    [
      ...[0.18, 0.5, 0.82].flatMap((x, k) => [
        part('shape', {
          kind: 'ellipse',
          x,
          y: 0.5,
          widthMm: 78,
          heightMm: 54,
          degrees: -18,
          ...(k > 0 ? { how: 'or' } : {}),
        }),
        part('shape', {
          kind: 'rectangle',
          x,
          y: 0.5,
          widthMm: 92,
          heightMm: 9,
          roundMm: 4,
          degrees: -18,
          how: 'or',
        }),
      ]),
      part('noise', { kind: 'fractal', sizeMm: 22, octaves: 5, stretch: 2, low: 0.3, high: 0.4 }),
      part('range', { map: 'cavity', low: 0.38, high: 0.5 }),
    ],
    [output('constant', 'colour', { colour: '#f0d65c' }), output('constant', 'roughness', { amount: 0.5 })],
  ),
  coat(
    'Leaves in print',
    [
      ...[0.18, 0.5, 0.82].map((x, k) =>
        part('shape', {
          kind: 'ellipse',
          x: x + 0.085,
          y: 0.415,
          widthMm: 46,
          heightMm: 17,
          degrees: -38,
          ...(k > 0 ? { how: 'or' } : {}),
        }),
      ),
      part('noise', { kind: 'fractal', sizeMm: 22, octaves: 5, stretch: 2, seed: 4, low: 0.3, high: 0.4 }),
      part('range', { map: 'cavity', low: 0.38, high: 0.5 }),
    ],
    [output('constant', 'colour', { colour: '#4f7a3e' })],
  ),
  coat(
    'Shade in the gaps',
    [],
    [
      output('ramp', 'colour', {
        driver: 'occlusion',
        blend: 'multiply',
        strength: 0.8,
        stops: stops('#3a2c22', '#cbb9a2', '#ffffff'),
      }),
    ],
  ),
  coat(
    'Light from above',
    [],
    [
      output('ramp', 'colour', {
        driver: 'facing',
        degrees: 0,
        blend: 'soft-light',
        strength: 0.5,
        stops: stops('#4c4a58', '#808080', '#d6cdb8'),
      }),
    ],
  ),
  coat(
    'Worn edges',
    [
      part('range', { map: 'wear', widthMm: 5, low: 0.3, high: 0.8 }),
      part('noise', { kind: 'fractal', sizeMm: 40, octaves: 4, low: 0.3, high: 0.6 }),
    ],
    [
      output('constant', 'colour', { colour: '#e6d2a8', strength: 0.5 }),
      output('constant', 'roughness', { amount: 0.66 }),
    ],
  ),
];
