import { coat, output, part, stops } from './making.ts';

interface Layer {
  name: string;
  stamp: string;
  sizeMm: number;
  spacingMm: number;
  seed: number;
  colours: string[];
  heightMm: number;
  roughness?: number;
  amount?: number;
}

const layer = ({
  name,
  stamp,
  sizeMm,
  spacingMm,
  seed,
  colours,
  heightMm,
  roughness = 0.62,
  amount = 1,
}: Layer) =>
  coat(
    name,
    [part('scatter', { stamp, sizeMm, spacingMm, seed, amount, variety: 0.35 })],
    [
      output('ramp', 'colour', { driver: 'part', part: 1, plane: 'value', stops: stops(...colours) }),
      output('ramp', 'height', { driver: 'part', part: 1, plane: 'profile', lowMm: 0.6, highMm: heightMm }),
      output('constant', 'roughness', { amount: roughness }),
      output('constant', 'opacity', { amount: 1 }),
    ],
  );

/** Litter under the lemon trees: leaves, twigs and two fallen lemons, with holes where the ground is to be seen. */
export const litter = {
  hex: '#4a3c2b',
  edgeMetres: 0.6,
  stack: [
    coat('Holes', [], [output('constant', 'opacity', { amount: 0 })]),
    layer({
      name: 'Old leaves',
      stamp: 'leaf',
      sizeMm: 95,
      spacingMm: 30,
      seed: 3,
      colours: ['#5a4128', '#75532f', '#654a30', '#86623a'],
      heightMm: 2.2,
      roughness: 0.8,
    }),
    layer({
      name: 'Twigs',
      stamp: 'twig',
      sizeMm: 150,
      spacingMm: 90,
      seed: 8,
      colours: ['#4d3c2b', '#6e583f'],
      heightMm: 3.4,
      roughness: 0.85,
      amount: 0.8,
    }),
    layer({
      name: 'Brown leaves',
      stamp: 'lemon-leaf',
      sizeMm: 105,
      spacingMm: 42,
      seed: 5,
      colours: ['#7a552b', '#94692f', '#8a7a3a', '#6d5226'],
      heightMm: 3.4,
      amount: 0.85,
    }),
    layer({
      name: 'Yellow leaves',
      stamp: 'lemon-leaf',
      sizeMm: 110,
      spacingMm: 90,
      seed: 12,
      colours: ['#a08a34', '#b89e3a', '#8c8a38'],
      heightMm: 3.8,
      roughness: 0.5,
    }),
    layer({
      name: 'Green leaves',
      stamp: 'lemon-leaf',
      sizeMm: 105,
      spacingMm: 160,
      seed: 21,
      colours: ['#4c5f2c', '#5f7434'],
      heightMm: 4.2,
      roughness: 0.42,
    }),
    layer({
      name: 'Petals',
      stamp: 'petal',
      sizeMm: 20,
      spacingMm: 70,
      seed: 30,
      colours: ['#e4ddc8', '#f0ead8'],
      heightMm: 2,
      roughness: 0.6,
      amount: 0.7,
    }),
    coat(
      'Veins and blotches',
      [part('noise', { kind: 'fractal', sizeMm: 22, octaves: 5 })],
      [
        output('ramp', 'colour', {
          driver: 'mask',
          blend: 'soft-light',
          strength: 0.6,
          stops: stops('#4a4a4a', '#b8b8b8'),
        }),
      ],
    ),
    coat(
      'Shade',
      [part('range', { map: 'cavity', low: 0.5, high: 0.2 })],
      [output('constant', 'colour', { colour: '#7a6a58', blend: 'multiply', strength: 0.6 })],
    ),
  ],
};
