import { coat, output, part, stops } from './making.ts';

const WEAVE = { kind: 'twill', across: 48, down: 48, jointMm: 0.9, bevelMm: 3, jitter: 0 };

/** Sacking: coarse jute, each strand of its own colour, frayed, with the blue stripes of the lemon house. */
export const sacking = {
  hex: '#4b3d28',
  edgeMetres: 0.3,
  stack: [
    coat(
      'Weave',
      [part('pattern', { ...WEAVE, pick: 'face' })],
      [
        output('ramp', 'colour', {
          driver: 'part',
          part: 1,
          plane: 'value',
          stops: stops('#8a7046', '#a88a5a', '#b99c6c', '#9c8050'),
        }),
        output('ramp', 'height', {
          driver: 'part',
          part: 1,
          plane: 'profile',
          kind: 'smooth',
          lowMm: 0,
          highMm: 1.5,
        }),
        output('constant', 'roughness', { amount: 0.93 }),
      ],
    ),
    coat(
      'Fibres down',
      [part('noise', { kind: 'fractal', sizeMm: 1.4, octaves: 3, stretch: 9, degrees: 90 })],
      [
        output('ramp', 'colour', {
          driver: 'mask',
          blend: 'soft-light',
          strength: 0.75,
          stops: stops('#2a2a2a', '#d8d8d8'),
        }),
        output('constant', 'height', { heightMm: 0.35 }),
      ],
    ),
    coat(
      'Fibres across',
      [part('noise', { kind: 'fractal', sizeMm: 1.6, octaves: 3, stretch: 9, seed: 4 })],
      [
        output('ramp', 'colour', {
          driver: 'mask',
          blend: 'soft-light',
          strength: 0.6,
          stops: stops('#2a2a2a', '#d8d8d8'),
        }),
        output('constant', 'height', { heightMm: 0.3 }),
      ],
    ),
    coat(
      'Stripes',
      [
        part('shape', { kind: 'rectangle', x: 0.2, y: 0.5, widthMm: 22, heightMm: 300 }),
        part('shape', { kind: 'rectangle', x: 0.3, y: 0.5, widthMm: 6, heightMm: 300, how: 'or' }),
        part('shape', { kind: 'rectangle', x: 0.1, y: 0.5, widthMm: 6, heightMm: 300, how: 'or' }),
        part('noise', { kind: 'fractal', sizeMm: 5, octaves: 3, low: 0.1, high: 0.45 }),
      ],
      [output('constant', 'colour', { colour: '#5b7f8e', blend: 'multiply', strength: 0.9 })],
    ),
    coat(
      'Frayed',
      [part('scatter', { stamp: 'straw', spacingMm: 11, sizeMm: 26, variety: 0.7, amount: 0.55 })],
      [
        output('ramp', 'colour', {
          driver: 'part',
          part: 1,
          plane: 'value',
          stops: stops('#a98c5c', '#d2b988'),
        }),
        output('ramp', 'height', { driver: 'part', part: 1, plane: 'profile', lowMm: 0, highMm: 0.7 }),
      ],
    ),
    coat(
      'Dirt',
      [
        part('range', { map: 'cavity', low: 0.55, high: 0.3 }),
        part('noise', { kind: 'fractal', sizeMm: 120, octaves: 4, low: 0.3, high: 0.7 }),
      ],
      [output('constant', 'colour', { colour: '#8a7860', blend: 'multiply', strength: 0.7 })],
    ),
  ],
};
