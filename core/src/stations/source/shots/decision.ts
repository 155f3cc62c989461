import * as v from 'valibot';

const vector = v.tuple([v.number(), v.number(), v.number()]);

/** What was settled of several shots: how each lies on the first, and what lit it. */
export const shotsDecision = v.strictObject({
  shots: v.array(
    v.strictObject({
      /** Null where it lies on the first as it is. */
      homography: v.nullable(v.array(v.number())),
      /** How far it moved, and by how much it is still off, in shares of the longer edge. */
      moved: v.number(),
      left: v.number(),
      /** The light; its length is its strength. */
      light: vector,
    }),
  ),
  /** Light from everywhere, where the first lamp has strength 1. */
  ambient: v.number(),
  /** What three lights leave unexplained; null where the directions were known. */
  beyond: v.nullable(v.number()),
  /** Why nothing could be solved; null where it could. */
  refused: v.nullable(v.strictObject({ code: v.string(), message: v.string(), hint: v.string() })),
});
export type ShotsDecision = v.InferOutput<typeof shotsDecision>;
