import { PAUSE_ROWS, type Steps } from '../work/steps.ts';
import type { Sides } from './sides.ts';

/** Writes rows of a plane into their place in it: from one, up to but without another. */
export type DrawRows = (into: Float32Array, from: number, to: number) => void;

/** A plane drawn row by row. */
export function* drawing(draw: DrawRows, { width, height }: Sides): Steps<Float32Array> {
  const out = new Float32Array(width * height);
  for (let from = 0; from < height; from += PAUSE_ROWS) {
    draw(out, from, Math.min(height, from + PAUSE_ROWS));
    yield;
  }
  return out;
}
