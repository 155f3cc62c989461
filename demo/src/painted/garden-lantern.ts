import type { PaintStroke } from '@zesty-tile/core';
import { LANTERN } from '../objects/lantern.ts';
import { coat, output, part, stops } from './making.ts';

/** Where the pieces of a part of the lantern lie in the tile, and a margin about them. */
const piecesOf = (name: string, marginMm = 2) =>
  part('own-shape', { from: `limonaia-lantern.obj: ${name}`, loops: LANTERN.linesOf(name), marginMm });

/** A sprig of lemon on a pane: a stem from below, and leaves on both sides of it. */
function sprigOn([left, top, right, , , bottom]: number[], seed: number): PaintStroke[] {
  const [wide, tall] = [right - left, bottom - top];
  const at = (x: number, y: number): [number, number] => [left + x * wide, top + y * tall];
  const common = { softness: 0.15, erase: false, paint: { colour: '#44633a', roughness: 0.5 } };
  const stem = [0.92, 0.78, 0.6, 0.42, 0.28].map((y, k) => at(0.5 + 0.09 * Math.sin(1.4 * k + seed), y));
  const leaves = [0.78, 0.64, 0.5, 0.36].map((y, k): PaintStroke => {
    const side = (k + seed) % 2 === 0 ? 1 : -1;
    return {
      ...common,
      points: [at(0.5 + 0.24 * side, y)],
      radius: 0.15 * wide,
      prints: {
        stamp: 'leaf',
        spacing: 1,
        turning: 'fixed',
        degrees: side * 58,
        size: 0,
        stray: 0,
        tint: 0.3,
        seed: 10 * seed + k,
      },
    };
  });
  const lemon: PaintStroke = {
    ...common,
    points: [at(0.5, 0.22), at(0.5, 0.25)],
    radius: 0.09 * wide,
    paint: { colour: '#d9b52e', roughness: 0.4 },
  };
  return [{ ...common, points: stem, radius: 0.016 * wide }, ...leaves, lemon];
}

/** A garden lantern whose parts are painted apart: iron, glass with sprigs painted on it by hand, and a copper roof. */
export const gardenLantern = {
  hex: '#4a4844',
  edgeMetres: LANTERN.edgeMetres,
  stack: [
    coat(
      'Iron',
      // So wide that no gap is left between its many small pieces.
      [piecesOf('Frame', 8)],
      [
        output('constant', 'colour', { colour: '#d2d3d5' }),
        output('constant', 'metallic', { amount: 1 }),
        output('constant', 'roughness', { amount: 0.55 }),
      ],
    ),
    coat(
      'Rust on the iron',
      [piecesOf('Frame'), part('noise', { kind: 'fractal', sizeMm: 70, octaves: 4, low: 0.55, high: 0.555 })],
      [
        output('constant', 'colour', { colour: '#7d4a2c' }),
        output('constant', 'metallic', { amount: 0 }),
        output('constant', 'roughness', { amount: 0.88 }),
        output('constant', 'height', { heightMm: 0.2 }),
      ],
    ),
    coat(
      'Brown copper of the roof',
      [piecesOf('Roof')],
      [
        output('constant', 'colour', { colour: '#6d4936' }),
        output('constant', 'metallic', { amount: 0 }),
        output('constant', 'roughness', { amount: 0.55 }),
      ],
    ),
    coat(
      'Verdigris on the copper',
      [piecesOf('Roof'), part('noise', { kind: 'fractal', sizeMm: 60, octaves: 5, low: 0.34, high: 0.56 })],
      [
        output('constant', 'colour', { colour: '#6f9a86' }),
        output('constant', 'roughness', { amount: 0.8 }),
        output('constant', 'height', { heightMm: 0.1 }),
      ],
    ),
    coat(
      'Glass',
      [piecesOf('Glass')],
      [
        output('ramp', 'colour', {
          driver: 'tone',
          stops: stops('#d8a24a'),
        }),
        output('constant', 'roughness', { amount: 0.12 }),
        output('constant', 'metallic', { amount: 0 }),
        output('constant', 'emission', { colour: '#8a4a10' }),
      ],
    ),
    coat(
      'Ripples in the glass',
      [
        piecesOf('Glass'),
        part('noise', { kind: 'fractal', sizeMm: 24, octaves: 2, stretch: 2.5, warp: 0.5 }),
      ],
      [
        output('constant', 'height', { heightMm: 0.3 }),
        output('constant', 'emission', { colour: '#e08a2a' }),
      ],
    ),
    coat(
      'Lemon sprigs by hand',
      [
        part('strokes', {
          strokes: LANTERN.linesOf('Glass').flatMap((pane, k) => sprigOn(pane, k)),
        }),
      ],
      [
        output('painted', 'colour', { part: 1 }),
        output('painted', 'roughness', { part: 1 }),
        output('constant', 'emission', { colour: '#000000' }),
      ],
    ),
  ],
};
