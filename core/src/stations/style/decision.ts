import * as v from 'valibot';

const triple = v.tuple([v.number(), v.number(), v.number()]);

/** What Style settles at the working size; null where it does not paint. */
export const decisionSchema = v.nullable(
  v.strictObject({
    /** Energy-weighted mean octave of the tile's own detail: 3 for a common one. */
    own: v.number(),
    /** How much of it is drawn in small shapes, 0..1. */
    drawn: v.number(),
    /** Size of the smallest shape kept, as a share of the shorter edge. */
    shape: v.number(),
    /** Colours of the palette, OKLab. */
    palette: v.array(triple),
    /** Where slanting light comes from, clockwise from the top, where the height is read by it. */
    degrees: v.nullable(v.number()),
    /** Usual size of what light is painted by: thin and wide relief, and slopes; and how strongly it is painted. */
    light: v.strictObject({ thin: v.number(), wide: v.number(), slope: v.number(), strength: v.number() }),
    /** By how much the spread of colour is given back, and about which a and b. */
    spread: v.strictObject({ gain: v.number(), a: v.number(), b: v.number() }),
    /** Sides of the picture in whose pixels strokes are planned. */
    sides: v.tuple([v.number(), v.number()]),
    /** The strokes, packed. */
    strokes: v.string(),
  }),
);

export type StyleDecision = NonNullable<v.InferOutput<typeof decisionSchema>>;
