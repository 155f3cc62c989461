import { coat, output, part } from './making.ts';

/** What rain, moss and years have done to the terrace pamments. */
export const rain = [
  coat(
    'Worn edges',
    [
      part('range', { map: 'wear', widthMm: 9, low: 0.2, high: 0.7 }),
      part('noise', { kind: 'fractal', sizeMm: 120, octaves: 5, low: 0.35, high: 0.6 }),
    ],
    [
      output('constant', 'colour', { colour: '#c08a68', strength: 0.7 }),
      output('constant', 'height', { heightMm: -0.5 }),
    ],
  ),
  coat(
    'Soaked',
    [part('noise', { kind: 'fractal', sizeMm: 520, octaves: 5, low: 0.2, high: 0.42 })],
    [output('wetness', 'colour', { wetness: 1 }), output('wetness', 'roughness', { wetness: 1 })],
  ),
  coat(
    'Moss in joints',
    [
      part('gradient', { kind: 'height', lowMm: 2.3, highMm: 1.1 }),
      part('noise', { kind: 'fractal', sizeMm: 260, octaves: 5, low: 0.34, high: 0.5 }),
    ],
    [output('line', 'colour', { line: 'moss' }), output('line', 'roughness', { line: 'moss' })],
  ),
  coat(
    'Cushions',
    [
      part('gradient', { kind: 'height', lowMm: 2.3, highMm: 1.1 }),
      part('noise', { kind: 'fractal', sizeMm: 260, octaves: 5, low: 0.36, high: 0.52 }),
      part('noise', { kind: 'cells', sizeMm: 9, octaves: 2, invert: true, low: 0.1, high: 0.9 }),
    ],
    [
      output('constant', 'height', { heightMm: 2.2 }),
      output('constant', 'colour', { colour: '#8a9a4a', blend: 'soft-light', strength: 0.6 }),
    ],
  ),
  coat(
    'Standing water',
    [
      part('noise', { kind: 'fractal', sizeMm: 520, octaves: 5, low: 0.4, high: 0.52 }),
      part('gradient', { kind: 'height', lowMm: 6.4, highMm: 5.2 }),
    ],
    [
      output('wetness', 'roughness', { wetness: 2 }),
      output('wetness', 'f0', { wetness: 1 }),
      output('constant', 'height', { heightBlend: 'raise', heightMm: 4.4 }),
    ],
  ),
];
