import { NOISE_KINDS, noiseRow } from '../../../noise/noise.ts';
import { choice, number } from '../../../settings/kinds.ts';
import { partKind } from './part.ts';

/** Noise that repeats with the tile. */
export const noise = partKind({
  title: 'Noise',
  settings: {
    kind: choice({
      label: 'Kind',
      help: 'What the noise looks like.',
      default: 'fractal',
      options: NOISE_KINDS,
      names: ['Clouds', 'Ridges', 'Billows', 'Cells', 'Cell edges', 'Second cells', 'Flat cells', 'Waves'],
    }),
    sizeMm: number({
      label: 'Size',
      help: 'Of the coarsest features; the nearest that repeats with the tile is used.',
      default: 120,
      min: 0.5,
      max: 10000,
      step: 1,
      unit: 'mm',
    }),
    octaves: number({
      label: 'Octaves',
      help: 'Layers of noise, each twice as fine as the one before.',
      default: 3,
      min: 1,
      max: 8,
      step: 1,
      unit: '',
    }),
    gain: number({
      label: 'Gain',
      help: 'How much each octave weighs against the one before.',
      default: 0.5,
      min: 0.05,
      max: 1,
      step: 0.05,
      unit: '×',
    }),
    stretch: number({
      label: 'Stretch',
      help: 'How many times as long as wide features are.',
      default: 1,
      min: 1,
      max: 20,
      step: 0.1,
      unit: '×',
    }),
    degrees: number({
      label: 'Angle',
      help: 'Direction of the stretch, clockwise from the right; the nearest that repeats with the tile is used.',
      default: 0,
      min: -90,
      max: 90,
      step: 1,
      unit: '°',
    }),
    warp: number({
      label: 'Warp',
      help: 'How far places are displaced by a slower noise, in sizes.',
      default: 0,
      min: 0,
      max: 2,
      step: 0.05,
      unit: '',
    }),
    seed: number({
      label: 'Seed',
      help: 'Another number gives another noise of the same kind.',
      default: 1,
      min: 0,
      max: 9999,
      step: 1,
      unit: '',
    }),
  },
  reads: () => [],
  rows({ kind, ...shape }, frame) {
    const { width, height } = frame;
    const row = noiseRow({ ...shape, kind, seed: shape.seed + 7919 * frame.seed }, frame);
    const us = Float64Array.from({ length: width }, (_, x) => (x + 0.5) / width);
    return (into, from, to) => {
      for (let y = from; y < to; y++) row(us, (y + 0.5) / height, into, (y - from) * width);
    };
  },
});
