import * as v from 'valibot';
import { mapping } from '../../../planes/mapped.ts';
import { choice, data, number } from '../../../settings/kinds.ts';
import type { Frame } from '../../../tile/frame.ts';
import { runSteps } from '../../../work/steps.ts';
import { partKind } from './part.ts';
import { fieldOf } from './pattern.ts';

export const GRADIENT_KINDS = ['linear', 'mirrored', 'radial', 'angular', 'height'] as const;

/** Two places on the tile, x and y as shares of its sides; they may lie outside of it. */
const place = v.tuple([
  v.pipe(v.number(), v.minValue(-4), v.maxValue(4)),
  v.pipe(v.number(), v.minValue(-4), v.maxValue(4)),
]);
export const endsSchema = v.tuple([place, place]);
export type GradientEnds = v.InferOutput<typeof endsSchema>;

type Of = (u: number, v: number) => number;

const wrapped = (value: number) => value - Math.floor(value);
const clamp = (value: number) => Math.min(1, Math.max(0, value));
/** The shortest way on an axis that may wrap. */
const shortest = (by: number, wraps: boolean) => (wraps ? by - Math.round(by) : by);

/** Most waves that a slanted gradient may have along one side. */
const MOST_WAVES = 8;
/** What one more wave weighs against a radian of the wrong direction. */
const WAVE_COST = 0.06;

/**
 * The number of waves along both sides that a gradient has which runs between two places: whole on axes that wrap, so that it
 * meets itself, and in the direction nearest to the wanted one with few waves.
 */
export function wavesOf(
  [[x0, y0], [x1, y1]]: GradientEnds,
  { widthMm, heightMm, wraps }: Ground,
): [number, number] {
  const [dx, dy] = [(x1 - x0) * widthMm, (y1 - y0) * heightMm];
  const square = Math.max(1e-9, dx * dx + dy * dy);
  // What makes the value grow from 0 to 1 between both places.
  const exact: [number, number] = [(dx / square) * widthMm, (dy / square) * heightMm];
  if (!wraps.x && !wraps.y) return exact;
  if (wraps.x !== wraps.y) {
    // Along the edge that is joined in one wave, across it as it is drawn.
    const isAcross = Math.abs(dx) > Math.abs(dy);
    if (wraps.x) return isAcross ? [Math.sign(dx), 0] : [0, 1 / (y1 - y0 || 1e-6)];
    return isAcross ? [1 / (x1 - x0 || 1e-6), 0] : [0, Math.sign(dy) || 1];
  }
  let best: [number, number] = [1, 0];
  let least = Number.POSITIVE_INFINITY;
  const wanted = Math.atan2(dy, dx);
  for (let p = -MOST_WAVES; p <= MOST_WAVES; p++) {
    for (let q = -MOST_WAVES; q <= MOST_WAVES; q++) {
      if (p === 0 && q === 0) continue;
      const turn = Math.atan2(q / heightMm, p / widthMm) - wanted;
      const cost =
        Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) + WAVE_COST * (Math.abs(p) + Math.abs(q));
      if (cost < least - 1e-12) [best, least] = [[p, q], cost];
    }
  }
  return best;
}

interface Ground {
  widthMm: number;
  heightMm: number;
  wraps: { x: boolean; y: boolean };
}

const groundOf = (frame: Frame): Ground => ({
  ...fieldOf(frame),
  wraps: { x: frame.edges.x === 'wrap', y: frame.edges.y === 'wrap' },
});

/** Shares of a wave in which a linear gradient rises, so that there is room for its way back. */
const RISE = [0.02, 0.98] as const;

/** From 0 at the first place to 1 at the second; where it must meet itself it falls again over the rest of its wave. */
function alongLine(ends: GradientEnds, ground: Ground, isMirrored: boolean): Of {
  const [[x0, y0], [x1, y1]] = ends;
  const [p, q] = wavesOf(ends, ground);
  const isPeriodic = (ground.wraps.x && p !== 0) || (ground.wraps.y && q !== 0);
  const rise = p * (x1 - x0) + q * (y1 - y0);
  const phase = (u: number, v: number) => p * (u - x0) + q * (v - y0);
  if (!isPeriodic) {
    const scale = 1 / (rise || 1e-9);
    return (u, v) => clamp(isMirrored ? Math.abs(phase(u, v) * scale) : phase(u, v) * scale);
  }
  const share = Math.min(RISE[1], Math.max(RISE[0], Math.abs(rise)));
  if (isMirrored) {
    const half = Math.min(0.5, share);
    return (u, v) => Math.min(1, Math.abs(shortest(phase(u, v), true)) / half);
  }
  return (u, v) => {
    const t = wrapped(phase(u, v));
    return t < share ? t / share : (1 - t) / (1 - share);
  };
}

/** 0 at the first place, 1 as far from it as the second; round it again from every tile beside. */
function about([[x0, y0], [x1, y1]]: GradientEnds, { widthMm, heightMm, wraps }: Ground): Of {
  const radius = Math.max(1e-6, Math.hypot((x1 - x0) * widthMm, (y1 - y0) * heightMm));
  return (u, v) =>
    clamp(Math.hypot(shortest(u - x0, wraps.x) * widthMm, shortest(v - y0, wraps.y) * heightMm) / radius);
}

/**
 * 0 in the direction from the first place to the second, 1 opposite to it. On an axis that wraps places are measured by the
 * sine of their distance, as no angle about one point meets itself around a tile.
 */
function angular([[x0, y0], [x1, y1]]: GradientEnds, { widthMm, heightMm, wraps }: Ground): Of {
  const onAxis = (by: number, side: number, isWrapped: boolean) =>
    (isWrapped ? Math.sin(2 * Math.PI * by) / (2 * Math.PI) : by) * side;
  const [ax, ay] = [(x1 - x0) * widthMm, (y1 - y0) * heightMm];
  const from = Math.atan2(ay, ax);
  return (u, v) => {
    const turn = Math.atan2(onAxis(v - y0, heightMm, wraps.y), onAxis(u - x0, widthMm, wraps.x)) - from;
    return Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) / Math.PI;
  };
}

/** Values that grow between two places, or with the height. They meet themselves on joined edges. */
export const gradient = partKind({
  title: 'Gradient',
  settings: {
    kind: choice({
      label: 'Kind',
      help: 'Along a line; to both sides of it; around a place; by the angle about it; or by the height below. On joined edges it falls again, so that it meets itself.',
      default: 'linear',
      options: GRADIENT_KINDS,
      names: ['Linear', 'Mirrored', 'Radial', 'Angular', 'By height'],
    }),
    ends: data<GradientEnds>({
      label: 'Ends',
      help: 'Where it is 0 and where it is 1, as shares of the tile’s width and height.',
      default: [
        [0.5, 0.25],
        [0.5, 0.75],
      ],
      schema: endsSchema,
      example: '[[0.5,0.25],[0.5,0.75]]',
      words: (ends) => ends.map((end) => end.map((value) => value.toFixed(2)).join(', ')).join(' to '),
    }),
    lowMm: number({
      label: 'Height at 0',
      help: 'The height at which it is 0.',
      default: 0,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
    highMm: number({
      label: 'Height at 1',
      help: 'The height at which it is 1; below the other, what is low is selected.',
      default: 5,
      min: -500,
      max: 500,
      step: 0.1,
      unit: 'mm',
    }),
  },
  reads: ({ kind }) => (kind === 'height' ? ['heightMm'] : []),
  async values({ lowMm, highMm }, { below, context }) {
    const range = highMm - lowMm || 1e-6;
    return runSteps(
      mapping(below.heightMm, (value) => clamp((value - lowMm) / range)),
      context.checkpoint,
    );
  },
  rows({ kind, ends }, frame) {
    if (kind === 'height') return null;
    const { width, height } = frame;
    const ground = groundOf(frame);
    const of = {
      linear: () => alongLine(ends, ground, false),
      mirrored: () => alongLine(ends, ground, true),
      radial: () => about(ends, ground),
      angular: () => angular(ends, ground),
    }[kind]();
    return (into, from, to) => {
      for (let y = from, i = 0; y < to; y++) {
        for (let x = 0; x < width; x++, i++) into[i] = of((x + 0.5) / width, (y + 0.5) / height);
      }
    };
  },
});
