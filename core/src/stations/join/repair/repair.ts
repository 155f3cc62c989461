import * as v from 'valibot';
import { strokeEntries } from '../../../strokes/stroke.ts';

const far = v.pipe(v.number(), v.finite(), v.minValue(-128), v.maxValue(128));
const way = v.tuple([far, far]);
const spot = v.pipe(v.number(), v.minValue(-2), v.maxValue(3));

/**
 * A stroke that lays another part of the tile over a place: as it is (clone), or with its detail alone, so that
 * it takes on the colours around (heal). `offset` is the way from the place to where it is taken from, in
 * tile edges.
 */
const brushSchema = v.strictObject({
  kind: v.picklist(['clone', 'heal']),
  ...strokeEntries,
  opacity: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
  offset: way,
});

/** A patch from elsewhere in the tile, or in the photo, laid over a place within its outline. */
const graftSchema = v.strictObject({
  kind: v.literal('graft'),
  outline: v.pipe(v.array(v.tuple([spot, spot])), v.minLength(3), v.maxLength(1000)),
  offset: way,
  /** From the tile, or from the photo's crop, which lies under the tile edge to edge. */
  of: v.picklist(['tile', 'photo']),
});

/** The order counts: each repair works on what those before it left. */
export const repairsSchema = v.pipe(
  v.array(v.variant('kind', [brushSchema, graftSchema])),
  v.maxLength(2000),
);

export type Graft = v.InferOutput<typeof graftSchema>;
export type BrushRepair = v.InferOutput<typeof brushSchema>;
export type Repair = BrushRepair | Graft;

const NAMES = { clone: 'clone stroke', heal: 'heal stroke', graft: 'graft' } as const;

/** A repair's kind in words. */
export const repairWords = (repair: Repair): string => NAMES[repair.kind];
