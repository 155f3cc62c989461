import { PAUSE_ROWS, type Steps } from '../work/steps.ts';
import type { Sides } from './sides.ts';

/** Writes rows of a plane, from one up to but without another, from the start of `into` on. */
export type DrawRows = (into: Float32Array, from: number, to: number) => void;

/** A plane drawn row by row. */
export function* drawing(draw: DrawRows, { width, height }: Sides): Steps<Float32Array> {
  const out = new Float32Array(width * height);
  for (let from = 0; from < height; from += PAUSE_ROWS) {
    draw(out.subarray(from * width), from, Math.min(height, from + PAUSE_ROWS));
    yield;
  }
  return out;
}
