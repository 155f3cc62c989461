import { type Coat, type CoatOutput, type CoatPart, newCoat, newOutput, newPart } from '@zesty-tile/core';

type Made = Omit<Coat, 'id'>;

const coat = (name: string, parts: CoatPart[], outputs: CoatOutput[], strength = 1): Made =>
  newCoat({ name, strength, parts, outputs });

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
          newPart('range', { map: 'cavity', low: 0.52, high: 0.32, blurMm: edgeMm / 400 }),
          newPart('noise', { kind: 'billowed', sizeMm: edgeMm / 5, octaves: 4, low: 0.08, high: 0.3 }),
        ],
        [
          newOutput('line', { channel: 'colour', line: 'moss' }),
          newOutput('line', { channel: 'roughness', line: 'moss' }),
          newOutput('constant', { channel: 'height', heightMm: edgeMm / 700 }),
        ],
      ),
  ],
  [
    'Worn edges',
    ({ edgeMm }) =>
      coat(
        'Worn edges',
        [
          newPart('range', { map: 'wear', widthMm: edgeMm / 120, low: 0.25, high: 0.75 }),
          newPart('noise', { kind: 'fractal', sizeMm: edgeMm / 8, octaves: 4, low: 0.35, high: 0.6 }),
        ],
        [
          newOutput('constant', {
            channel: 'colour',
            colour: '#d9d2c4',
            blend: 'screen',
            strength: 0.5,
          }),
          newOutput('constant', { channel: 'roughness', amount: 0.55, strength: 0.6 }),
        ],
      ),
  ],
  [
    'Dust on top',
    ({ edgeMm }) =>
      coat(
        'Dust on top',
        [
          newPart('range', { map: 'slope', low: 0.35, high: 0.1 }),
          newPart('noise', { kind: 'fractal', sizeMm: edgeMm / 3, octaves: 5, low: 0.3, high: 0.75 }),
        ],
        [
          newOutput('constant', {
            channel: 'colour',
            colour: '#a39a88',
            strength: 0.6,
          }),
          newOutput('constant', { channel: 'roughness', amount: 0.95, strength: 0.7 }),
        ],
      ),
  ],
  [
    'Stains',
    ({ edgeMm }) =>
      coat(
        'Stains',
        [
          newPart('noise', {
            kind: 'fractal',
            sizeMm: edgeMm / 3,
            octaves: 5,
            warp: 0.6,
            low: 0.5,
            high: 0.68,
          }),
        ],
        [
          newOutput('constant', {
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
          newPart('gradient', { kind: 'height', lowMm: 2, highMm: 0, softness: 0.8 }),
          newPart('noise', {
            kind: 'fractal',
            sizeMm: edgeMm / 2,
            octaves: 3,
            low: 0.25,
            high: 0.55,
            how: 'or',
          }),
        ],
        [
          newOutput('wetness', { channel: 'colour', wetness: 1 }),
          newOutput('wetness', { channel: 'roughness', wetness: 1.7 }),
          newOutput('wetness', { channel: 'f0', wetness: 1 }),
        ],
      ),
  ],
  [
    'Fallen leaves',
    ({ edgeMm }) =>
      coat(
        'Fallen leaves',
        [newPart('scatter', { stamp: 'lemon-leaf', spacingMm: edgeMm / 7, sizeMm: edgeMm / 6, amount: 0.7 })],
        [
          newOutput('ramp', {
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
          newOutput('constant', { channel: 'roughness', amount: 0.55 }),
          newOutput('ramp', {
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
          newPart('noise', {
            kind: 'cell-edges',
            sizeMm: edgeMm / 4,
            octaves: 1,
            warp: 0.4,
            low: 0.05,
            high: 0.02,
          }),
        ],
        [
          newOutput('constant', { channel: 'colour', colour: '#3a342d', blend: 'multiply', strength: 0.9 }),
          newOutput('constant', { channel: 'height', heightMm: -edgeMm / 500 }),
        ],
      ),
  ],
  [
    'Pattern',
    ({ edgeMm }) =>
      coat(
        'Pattern',
        [
          newPart('pattern', {
            kind: 'hexagons',
            across: 4,
            down: 4,
            jointMm: edgeMm / 120,
            bevelMm: edgeMm / 200,
          }),
        ],
        [
          newOutput('constant', {
            channel: 'colour',
            colour: '#c8bca4',
            blend: 'multiply',
          }),
          newOutput('constant', { channel: 'height', heightMm: edgeMm / 300 }),
        ],
      ),
  ],
  [
    'Painted light',
    () => coat('Painted light', [], [newOutput('light', { channel: 'colour', strength: 0.8 })]),
  ],
  [
    'Painted by hand',
    () =>
      coat(
        'Painted by hand',
        [newPart('strokes', {})],
        [newOutput('painted', { channel: 'colour', part: 1 })],
      ),
  ],
  [
    'Flat colour',
    () => coat('Flat colour', [], [newOutput('constant', { channel: 'colour', colour: '#8a8f5a' })]),
  ],
];
