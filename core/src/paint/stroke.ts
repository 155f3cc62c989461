import * as v from 'valibot';
import { MIRRORS } from '../masks/mask.ts';
import { loopSchema } from '../outline/loop-schema.ts';
import { STAMP_NAMES } from '../stamps/stamps.ts';
import { MOST_POINTS, strokeEntries } from '../strokes/stroke.ts';
import { refSchema } from '../tile/given.ts';

const share = v.pipe(v.number(), v.minValue(0), v.maxValue(1));

/** Most strokes of one painted part. */
export const MOST_STROKES = 10_000;

/** How stamps of a stroke are turned: as set, further along the way of the stroke, at random, or further as the pen leans. */
export const TURNINGS = ['fixed', 'along', 'random', 'pen'] as const;

/** What a stroke carries into the channels of its coat; a channel that is left out is not painted by it. */
export const paintSchema = v.strictObject({
  /** sRGB. */
  colour: v.optional(v.pipe(v.string(), v.regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as #8a7f70'))),
  roughness: v.optional(share),
  metallic: v.optional(share),
  heightMm: v.optional(v.pipe(v.number(), v.minValue(-500), v.maxValue(500))),
});
export type Paint = v.InferOutput<typeof paintSchema>;

/** Single prints along the way of a stroke instead of one band. */
const printsSchema = v.strictObject({
  /** A stamp of ours, or a picture as one; round where there is neither. */
  stamp: v.optional(v.picklist(STAMP_NAMES)),
  picture: v.optional(refSchema),
  /** A picture carries its own colours in place of the stroke's. */
  ownColours: v.optional(v.boolean()),
  /** From one print to the next, in widths of the brush. */
  spacing: v.pipe(v.number(), v.minValue(0.02), v.maxValue(10)),
  turning: v.picklist(TURNINGS),
  /** Clockwise. */
  degrees: v.pipe(v.number(), v.minValue(-180), v.maxValue(180)),
  /** How much smaller prints are at random, how far they stray in radii, and how far their lightness strays. */
  size: share,
  stray: v.pipe(v.number(), v.minValue(0), v.maxValue(4)),
  tint: share,
  seed: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(2 ** 31)),
});
export type Prints = v.InferOutput<typeof printsSchema>;

/** The same stroke again, turned about a place (shares of the tile) by equal parts of a whole turn. */
const turnsSchema = v.strictObject({
  count: v.pipe(v.number(), v.integer(), v.minValue(2), v.maxValue(16)),
  x: share,
  y: share,
});

/** The region of like colour about the first point, instead of a stroke. */
const fillSchema = v.strictObject({
  /** How far a colour may be from that at the point, in OKLab. */
  tolerance: v.pipe(v.number(), v.minValue(0.001), v.maxValue(1)),
  /** Gaps up to this width are closed, as a share of the tile's longer edge. */
  gap: v.pipe(v.number(), v.minValue(0), v.maxValue(0.1)),
});

const place = v.pipe(v.number(), v.minValue(-64), v.maxValue(64));
const length = v.pipe(v.number(), v.minValue(1e-4), v.maxValue(1e4));
const degrees = v.pipe(v.number(), v.minValue(-180), v.maxValue(180));

/**
 * A stroke over a shape, as one patch of the shape's surface takes it: where lengths on the surface have nearly the same lengths
 * in the tile all over.
 */
export const patchSchema = v.strictObject({
  /**
   * Its way in shares of the tile, how much of the radius lies on this patch, 0..1, and the direction the pen leans in where it
   * leans, in degrees clockwise from up on the surface.
   */
  points: v.pipe(
    v.array(v.union([v.tuple([place, place, share]), v.tuple([place, place, share, degrees])])),
    v.minLength(1),
    v.maxLength(MOST_POINTS),
  ),
  /** How far along the stroke its way begins, as a share of the tile's longer edge: prints go on from the patch before. */
  along: v.pipe(v.number(), v.minValue(0), v.maxValue(1e5)),
  /**
   * a, b, d: x and y on the surface, as shares of the tile's longer edge, are a·x + b·y and d·y in shares of its width and height.
   */
  frame: v.tuple([length, v.pipe(v.number(), v.minValue(-1e4), v.maxValue(1e4)), length]),
  /** Closed lines around what of the tile belongs to the patch; left out where nothing else is near. */
  within: v.optional(v.pipe(v.array(loopSchema), v.minLength(1), v.maxLength(500))),
});
export type Patch = v.InferOutput<typeof patchSchema>;

const paintStrokeSchema = v.strictObject({
  ...strokeEntries,
  erase: v.boolean(),
  mirror: v.optional(v.picklist(MIRRORS)),
  turns: v.optional(turnsSchema),
  /** How much of it is put down at once, over what is there; left out, it covers at most as much as it does itself. */
  flow: v.optional(v.pipe(v.number(), v.minValue(0.01), v.maxValue(1))),
  prints: v.optional(printsSchema),
  fill: v.optional(fillSchema),
  /** Where it was led over a shape: it lies on these patches, and its points are the way on the first. */
  patches: v.optional(v.pipe(v.array(patchSchema), v.minLength(1), v.maxLength(2000))),
  paint: v.optional(paintSchema),
});

/** Strokes by hand of a coat: each paints over what was painted before it, or erases it. */
export const paintStrokesSchema = v.pipe(v.array(paintStrokeSchema), v.maxLength(MOST_STROKES));
/** A stroke of a coat: a band or prints, once or with images of itself, and what it carries. */
export type PaintStroke = v.InferOutput<typeof paintStrokeSchema>;
