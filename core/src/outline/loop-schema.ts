import * as v from 'valibot';

/** A closed line of at least three corners, across and down by turns, in shares of the tile. */
export const loopSchema = v.pipe(
  v.array(v.pipe(v.number(), v.minValue(-64), v.maxValue(64))),
  v.minLength(6, 'must have at least three corners'),
  v.check((loop) => loop.length % 2 === 0, 'must have two numbers for each corner'),
);
