import { coat, output, part, stops } from './making.ts';

const PANES = { kind: 'hexagons', across: 4, down: 4, jointMm: 6, bevelMm: 3 };

/** Glass of a lantern: amber panes in lead, lit from behind. */
export const lantern = {
  hex: '#c98f2e',
  edgeMetres: 0.24,
  stack: [
    coat(
      'Panes',
      [part('pattern', { ...PANES, pick: 'face' })],
      [
        output('ramp', 'colour', {
          driver: 'part',
          part: 1,
          plane: 'value',
          stops: stops('#b8741f', '#d89a35', '#e0b25a', '#c4862a'),
        }),
        output('constant', 'roughness', { amount: 0.08 }),
        output('constant', 'opacity', { amount: 0.55 }),
      ],
    ),
    coat(
      'Ripples in the glass',
      [
        part('pattern', { ...PANES, pick: 'face' }),
        part('noise', { kind: 'fractal', sizeMm: 26, octaves: 2, stretch: 2.5, degrees: 60, warp: 0.6 }),
      ],
      [
        output('constant', 'height', { heightMm: 0.5 }),
        output('ramp', 'colour', {
          driver: 'part',
          part: 2,
          plane: 'cover',
          blend: 'soft-light',
          strength: 0.6,
          stops: stops('#4a4a4a', '#b8b8b8'),
        }),
      ],
    ),
    coat(
      'Bubbles',
      [
        part('pattern', { ...PANES, pick: 'face' }),
        part('scatter', { stamp: 'dot', spacingMm: 7, sizeMm: 2.2, variety: 0.8, amount: 0.4 }),
      ],
      [
        output('constant', 'height', { heightMm: 0.2 }),
        output('constant', 'colour', { colour: '#f4dca0', strength: 0.35 }),
      ],
    ),
    coat(
      'Glow',
      [
        part('pattern', { ...PANES, pick: 'profile' }),
        part('noise', { kind: 'fractal', sizeMm: 110, octaves: 2, low: 0.1, high: 0.8 }),
      ],
      [
        output('ramp', 'emission', {
          driver: 'mask',
          kind: 'smooth',
          stops: stops('#1a0a00', '#a8560c', '#ffb84a'),
        }),
      ],
    ),
    coat(
      'Lead',
      [part('pattern', { ...PANES, pick: 'face', invert: true })],
      [
        output('constant', 'colour', { colour: '#d2d3d5' }),
        output('constant', 'metallic', { amount: 1 }),
        output('constant', 'roughness', { amount: 0.48 }),
        output('constant', 'opacity', { amount: 1 }),
        output('constant', 'emission', { colour: '#000000' }),
        output('constant', 'height', { heightMm: 1.6 }),
      ],
    ),
    coat(
      'Tarnish',
      [
        part('pattern', { ...PANES, pick: 'face', invert: true }),
        part('noise', { kind: 'fractal', sizeMm: 12, octaves: 5, low: 0.3, high: 0.7 }),
      ],
      [
        output('constant', 'roughness', { amount: 0.72 }),
        output('constant', 'colour', { colour: '#c2c3c5', strength: 0.6 }),
      ],
    ),
  ],
};
