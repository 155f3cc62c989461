import type { Coat, CoatOutput, CoatPart } from '@zesty-tile/core';
import { outputOf, partOf } from './use-coats.ts';

type Made = Omit<Coat, 'id'>;

const coat = (name: string, parts: CoatPart[], outputs: CoatOutput[], strength = 1): Made => ({
  name,
  visible: true,
  group: '',
  strength,
  parts,
  outputs,
});

/** Sizes follow the edge of the tile, in mm. */
interface Scale {
  edgeMm: number;
}

/** Coats to begin with: ordinary ones, which can be opened and changed. */
export const OFFERS: readonly [words: string, make: (scale: Scale) => Made][] = [
  [
    'Moss in hollows',
    ({ edgeMm }) =>
      coat(
        'Moss in hollows',
        [
          partOf('range', { map: 'cavity', low: 0.52, high: 0.32, blurMm: edgeMm / 400 }),
          partOf('noise', { kind: 'billowed', sizeMm: edgeMm / 5, octaves: 4, low: 0.08, high: 0.3 }),
        ],
        [
          outputOf('line', { channel: 'colour', line: 'moss' }),
          outputOf('line', { channel: 'roughness', line: 'moss' }),
          outputOf('constant', { channel: 'height', heightMm: edgeMm / 700 }),
        ],
      ),
  ],
  [
    'Worn edges',
    ({ edgeMm }) =>
      coat(
        'Worn edges',
        [
          partOf('range', { map: 'wear', widthMm: edgeMm / 120, low: 0.25, high: 0.75 }),
          partOf('noise', { kind: 'fractal', sizeMm: edgeMm / 8, octaves: 4, low: 0.35, high: 0.6 }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#d9d2c4',
            blend: 'screen',
            strength: 0.5,
          }),
          outputOf('constant', { channel: 'roughness', amount: 0.55, strength: 0.6 }),
        ],
      ),
  ],
  [
    'Dust on top',
    ({ edgeMm }) =>
      coat(
        'Dust on top',
        [
          partOf('range', { map: 'slope', low: 0.35, high: 0.1 }),
          partOf('noise', { kind: 'fractal', sizeMm: edgeMm / 3, octaves: 5, low: 0.3, high: 0.75 }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#a39a88',
            strength: 0.6,
          }),
          outputOf('constant', { channel: 'roughness', amount: 0.95, strength: 0.7 }),
        ],
      ),
  ],
  [
    'Stains',
    ({ edgeMm }) =>
      coat(
        'Stains',
        [
          partOf('noise', {
            kind: 'fractal',
            sizeMm: edgeMm / 3,
            octaves: 5,
            warp: 0.6,
            low: 0.5,
            high: 0.68,
          }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#7d6a4f',
            blend: 'multiply',
            strength: 0.7,
          }),
        ],
      ),
  ],
  [
    'Rain',
    ({ edgeMm }) =>
      coat(
        'Rain',
        [
          partOf('gradient', { kind: 'height', lowMm: 2, highMm: 0, softness: 0.8 }),
          partOf('noise', {
            kind: 'fractal',
            sizeMm: edgeMm / 2,
            octaves: 3,
            low: 0.25,
            high: 0.55,
            how: 'or',
          }),
        ],
        [
          outputOf('wetness', { channel: 'colour', wetness: 1 }),
          outputOf('wetness', { channel: 'roughness', wetness: 1.7 }),
          outputOf('wetness', { channel: 'f0', wetness: 1 }),
        ],
      ),
  ],
  [
    'Fallen leaves',
    ({ edgeMm }) =>
      coat(
        'Fallen leaves',
        [partOf('scatter', { stamp: 'lemon-leaf', spacingMm: edgeMm / 7, sizeMm: edgeMm / 6, amount: 0.7 })],
        [
          outputOf('ramp', {
            channel: 'colour',
            driver: 'part',
            part: 1,
            plane: 'value',
            stops: [
              { at: 0, colour: '#4d5a26', value: 0 },
              { at: 0.5, colour: '#86803a', value: 0.5 },
              { at: 1, colour: '#6d4a24', value: 1 },
            ],
          }),
          outputOf('constant', { channel: 'roughness', amount: 0.55 }),
          outputOf('ramp', {
            channel: 'height',
            driver: 'part',
            part: 1,
            plane: 'profile',
            lowMm: 0,
            highMm: edgeMm / 350,
          }),
        ],
      ),
  ],
  [
    'Cracks',
    ({ edgeMm }) =>
      coat(
        'Cracks',
        [
          partOf('noise', {
            kind: 'cell-edges',
            sizeMm: edgeMm / 4,
            octaves: 1,
            warp: 0.4,
            low: 0.05,
            high: 0.02,
          }),
        ],
        [
          outputOf('constant', { channel: 'colour', colour: '#3a342d', blend: 'multiply', strength: 0.9 }),
          outputOf('constant', { channel: 'height', heightMm: -edgeMm / 500 }),
        ],
      ),
  ],
  [
    'Pattern',
    ({ edgeMm }) =>
      coat(
        'Pattern',
        [
          partOf('pattern', {
            kind: 'hexagons',
            across: 4,
            down: 4,
            jointMm: edgeMm / 120,
            bevelMm: edgeMm / 200,
          }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#c8bca4',
            blend: 'multiply',
          }),
          outputOf('constant', { channel: 'height', heightMm: edgeMm / 300 }),
        ],
      ),
  ],
  [
    'Painted light',
    () => coat('Painted light', [], [outputOf('light', { channel: 'colour', strength: 0.8 })]),
  ],
  [
    'Flat colour',
    () => coat('Flat colour', [], [outputOf('constant', { channel: 'colour', colour: '#8a8f5a' })]),
  ],
];
