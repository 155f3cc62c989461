import type { PaintStroke } from '@zesty-tile/core';
import { hash2 } from '../random.ts';

/** Middles of the four tiles, in shares. */
const MIDDLES = [0.25, 0.75].flatMap((x) => [0.25, 0.75].map((y): [number, number] => [x, y]));

type Way = readonly [x: number, y: number, pressure: number][];

/** A hand that is never quite even: the way strays by a fifth of a millimetre, each time another. */
function byHand(way: Way, seed: number): PaintStroke['points'] {
  return way.map(([x, y, pressure], k) => {
    const stray = (axis: number) => 0.0006 * (2 * hash2(k, axis, seed) - 1);
    return [x + stray(0), y + stray(1), Math.min(1, Math.max(0, pressure))];
  });
}

/** Places along a line from one radius to another in a direction, clockwise from the top, bent to one side. */
const ray = (
  [x, y]: readonly [number, number],
  degrees: number,
  [from, to]: readonly [number, number],
  bend: number,
): Way =>
  Array.from({ length: 9 }, (_, k) => {
    const t = k / 8;
    const turn = ((degrees + bend * Math.sin(Math.PI * t)) * Math.PI) / 180;
    const r = from + t * (to - from);
    // The pen is pressed in the middle and lifted at the end.
    return [
      x + r * Math.sin(turn),
      y - r * Math.cos(turn),
      0.25 + 0.75 * Math.sin(Math.PI * (0.15 + 0.8 * t)),
    ];
  });

const stroke = (way: Way, seed: number, more: Partial<PaintStroke>): PaintStroke => ({
  points: byHand(way, seed),
  radius: 0.004,
  softness: 0.3,
  erase: false,
  ...more,
});

/** A short line off the axis of a leaf, to its border. */
function offAxis([x, y]: readonly [number, number], degrees: number, from: number, side: number): Way {
  const [sin, cos] = [Math.sin((degrees * Math.PI) / 180), Math.cos((degrees * Math.PI) / 180)];
  return [0, 0.5, 1].map((t) => {
    const [along, across] = [from + 0.019 * t, side * 0.015 * t ** 1.3];
    return [x + along * sin + across * cos, y - along * cos + across * sin, 1 - 0.7 * t];
  });
}

/** The ribs of the four leaves about each blossom: one along the middle, and short ones off it. */
const ribs = (middle: readonly [number, number], tile: number): PaintStroke[] =>
  [45, 135, 225, 315].flatMap((degrees, leaf) => {
    const seed = 1000 * tile + 100 * leaf;
    const paint = { colour: '#2c4a35' };
    const along = stroke(ray(middle, degrees, [0.148, 0.214], 1.5), seed, { radius: 0.003, paint });
    const sides = [0.15, 0.162, 0.174].flatMap((r, k) =>
      [-1, 1].map((side) =>
        stroke(offAxis(middle, degrees + 0.8, r, side), seed + 10 * k + side + 2, { radius: 0.0022, paint }),
      ),
    );
    return [along, ...sides];
  });

/** A wash of colour at the foot of each petal, put down lightly and twice. */
const washes = (middle: readonly [number, number], tile: number): PaintStroke[] =>
  Array.from({ length: 10 }, (_, k) =>
    stroke(ray(middle, 36 * k + 6 * hash2(k, 1, tile), [0.03, 0.07], 4), 5000 + 100 * tile + k, {
      radius: 0.012,
      softness: 0.9,
      flow: 0.3,
      paint: { colour: k % 2 === 0 ? '#d9b8a0' : '#c8c3a4' },
    }),
  );

/** Stamens: dots of one stroke around the heart, which stand a little proud. */
const stamens = ([x, y]: readonly [number, number], tile: number): PaintStroke =>
  stroke(
    Array.from({ length: 25 }, (_, k) => {
      const turn = (2 * Math.PI * k) / 24;
      return [x + 0.034 * Math.sin(turn), y - 0.034 * Math.cos(turn), 1];
    }),
    9000 + tile,
    {
      radius: 0.0046,
      softness: 0.2,
      paint: { colour: '#b9791f', heightMm: 0.2 },
      prints: {
        spacing: 1.5,
        turning: 'fixed',
        degrees: 0,
        size: 0.45,
        stray: 0.5,
        tint: 0.6,
        seed: 7 + tile,
      },
    },
  );

/** What is painted by hand on each of the four tiles, no two of them alike. */
export const HAND_STROKES: PaintStroke[] = MIDDLES.flatMap((middle, tile) => [
  ...washes(middle, tile),
  ...ribs(middle, tile),
  stamens(middle, tile),
]);
