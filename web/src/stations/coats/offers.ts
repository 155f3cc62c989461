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
          outputOf('line', { channel: 'colour', line: 'moss' } as Partial<CoatOutput>),
          outputOf('line', { channel: 'roughness', line: 'moss' } as Partial<CoatOutput>),
          outputOf('constant', { channel: 'height', heightMm: edgeMm / 700 } as Partial<CoatOutput>),
        ],
      ),
  ],
  [
    'Worn edges',
    ({ edgeMm }) =>
      coat(
        'Worn edges',
        [
          partOf('range', { map: 'wear', widthMm: edgeMm / 120, low: 0.25, high: 0.75 } as Partial<CoatPart>),
          partOf('noise', { kind: 'fractal', sizeMm: edgeMm / 8, octaves: 4, low: 0.35, high: 0.6 }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#d9d2c4',
            blend: 'screen',
            strength: 0.5,
          } as Partial<CoatOutput>),
          outputOf('constant', { channel: 'roughness', amount: 0.55, strength: 0.6 } as Partial<CoatOutput>),
        ],
      ),
  ],
  [
    'Dust on top',
    ({ edgeMm }) =>
      coat(
        'Dust on top',
        [
          partOf('range', { map: 'slope', low: 0.35, high: 0.1 } as Partial<CoatPart>),
          partOf('noise', { kind: 'fractal', sizeMm: edgeMm / 3, octaves: 5, low: 0.3, high: 0.75 }),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#a39a88',
            strength: 0.6,
          } as Partial<CoatOutput>),
          outputOf('constant', { channel: 'roughness', amount: 0.95, strength: 0.7 } as Partial<CoatOutput>),
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
          } as Partial<CoatPart>),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#7d6a4f',
            blend: 'multiply',
            strength: 0.7,
          } as Partial<CoatOutput>),
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
          } as Partial<CoatPart>),
        ],
        [
          outputOf('constant', {
            channel: 'colour',
            colour: '#c8bca4',
            blend: 'multiply',
          } as Partial<CoatOutput>),
          outputOf('constant', { channel: 'height', heightMm: edgeMm / 300 } as Partial<CoatOutput>),
        ],
      ),
  ],
  [
    'Flat colour',
    () =>
      coat(
        'Flat colour',
        [],
        [outputOf('constant', { channel: 'colour', colour: '#8a8f5a' } as Partial<CoatOutput>)],
      ),
  ],
];
