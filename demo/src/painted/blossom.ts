import { HAND_STROKES } from './blossom-strokes.ts';
import { coat, output, part, stops } from './making.ts';

const TILES = { kind: 'grid', across: 2, down: 2, jointMm: 5, bevelMm: 5, roundMm: 3 };

/** Where a ring about the middle of each of the four tiles is. */
const middles = (kind: string, changes: object) =>
  [0.25, 0.75].flatMap((x) =>
    [0.25, 0.75].map((y, k) =>
      part('shape', { kind, x, y, how: x === 0.25 && k === 0 ? 'and' : 'or', ...changes }),
    ),
  );

/** Four leaves about the middle of both tiles of a row. */
const leaves = (name: string, y: number) =>
  coat(
    name,
    [0.25, 0.75].flatMap((x) =>
      [45, 135, -135, -45].map((degrees, k) => {
        const turn = (degrees * Math.PI) / 180;
        return part('shape', {
          kind: 'ellipse',
          x: x + 0.145 * Math.sin(turn),
          y: y - 0.145 * Math.cos(turn),
          widthMm: 14,
          heightMm: 44,
          degrees,
          softMm: 0.8,
          how: x === 0.25 && k === 0 ? 'and' : 'or',
        });
      }),
    ),
    [output('constant', 'colour', { colour: '#4d6b46' })],
    0.85,
  );

/** Glazed wall tiles with a lemon blossom: painted under a clear glaze that pools and crackles. */
export const blossom = {
  hex: '#b3aa98',
  edgeMetres: 0.3,
  stack: [
    coat(
      'Biscuit',
      [part('pattern', { ...TILES, pick: 'face' })],
      [
        output('constant', 'colour', { colour: '#ddd6c2' }),
        output('ramp', 'height', {
          driver: 'part',
          part: 1,
          plane: 'profile',
          kind: 'smooth',
          lowMm: 0,
          highMm: 2.2,
        }),
      ],
    ),
    coat(
      'Tile by tile',
      [part('pattern', { ...TILES, pick: 'face' })],
      [
        output('ramp', 'colour', {
          driver: 'part',
          part: 1,
          plane: 'value',
          blend: 'soft-light',
          strength: 0.4,
          stops: stops('#6a6a62', '#9a968a'),
        }),
      ],
    ),
    ...[0.25, 0.75].map((y, row) => leaves(row === 0 ? 'Upper leaves' : 'Lower leaves', y)),
    coat(
      'Blossoms',
      [part('pattern', { kind: 'rosettes', across: 2, down: 2, jointMm: 70, pick: 'face' })],
      [output('constant', 'colour', { colour: '#f4efe0' }), output('constant', 'height', { heightMm: 0.15 })],
    ),
    coat(
      'Outline',
      [
        part('pattern', { kind: 'rosettes', across: 2, down: 2, jointMm: 66, pick: 'face' }),
        part('pattern', { kind: 'rosettes', across: 2, down: 2, jointMm: 71, pick: 'face', how: 'without' }),
      ],
      [output('constant', 'colour', { colour: '#2f4a7c' })],
    ),
    coat('Hearts', middles('ellipse', { widthMm: 15, heightMm: 15, softMm: 1 }), [
      output('constant', 'colour', { colour: '#d8a92e' }),
    ]),
    coat(
      'Rings',
      middles('ellipse', { widthMm: 128, heightMm: 128, isOutlined: true, lineMm: 2.4 }),
      [output('constant', 'colour', { colour: '#2f4a7c' })],
      0.9,
    ),
    coat(
      'Hand strokes',
      [part('strokes', { strokes: HAND_STROKES })],
      [output('painted', 'colour', { part: 1 }), output('painted', 'height', { part: 1 })],
    ),
    coat(
      'Glaze',
      [part('pattern', { ...TILES, pick: 'face' })],
      [
        output('constant', 'roughness', { amount: 0.12 }),
        output('constant', 'colour', { colour: '#f3efe0', blend: 'multiply' }),
      ],
    ),
    coat(
      'Pooled glaze',
      [
        part('pattern', { ...TILES, pick: 'face' }),
        part('noise', { kind: 'fractal', sizeMm: 90, octaves: 4, warp: 0.5, low: 0.35, high: 0.75 }),
      ],
      [
        output('constant', 'colour', { colour: '#cfd4bd', blend: 'multiply', strength: 0.7 }),
        output('constant', 'height', { heightMm: 0.25 }),
        output('constant', 'roughness', { amount: 0.07 }),
      ],
    ),
    coat(
      'Crackle',
      [
        part('pattern', { ...TILES, pick: 'face' }),
        part('noise', { kind: 'cell-edges', sizeMm: 13, octaves: 1, warp: 0.35, low: 0.05, high: 0.015 }),
      ],
      [output('constant', 'colour', { colour: '#8d7f66', blend: 'multiply', strength: 0.5 })],
    ),
    coat(
      'Grout',
      [
        part('pattern', { ...TILES, pick: 'face', invert: true }),
        part('noise', { kind: 'fractal', sizeMm: 6, octaves: 4 }),
      ],
      [
        output('ramp', 'colour', {
          driver: 'part',
          part: 2,
          plane: 'cover',
          stops: stops('#8b8172', '#bdb4a2'),
        }),
        output('constant', 'roughness', { amount: 0.92 }),
        output('constant', 'height', { heightMm: 0.5 }),
      ],
    ),
    coat(
      'Chipped corners',
      [
        part('range', { map: 'wear', widthMm: 3, low: 0.35, high: 0.8 }),
        part('noise', { kind: 'fractal', sizeMm: 25, octaves: 4, low: 0.56, high: 0.66 }),
      ],
      [
        output('constant', 'colour', { colour: '#a9876a' }),
        output('constant', 'roughness', { amount: 0.85 }),
        output('constant', 'height', { heightMm: -0.7 }),
      ],
    ),
  ],
};
