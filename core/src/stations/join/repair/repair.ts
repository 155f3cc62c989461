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

/** A round spot that stands out, toned down; `was` is how far it stood out when it was. */
const calmSchema = v.strictObject({
  kind: v.literal('calm'),
  x: spot,
  y: spot,
  radius: v.pipe(v.number(), v.minValue(0.002), v.maxValue(0.4)),
  strength: v.pipe(v.number(), v.minValue(0), v.maxValue(1)),
  was: v.pipe(v.number(), v.minValue(0)),
});

/** The order counts: each repair works on what those before it left. */
export const repairsSchema = v.pipe(
  v.array(v.variant('kind', [brushSchema, graftSchema, calmSchema])),
  v.maxLength(2000),
);

export type Graft = v.InferOutput<typeof graftSchema>;
export type BrushRepair = v.InferOutput<typeof brushSchema>;
export type Calm = v.InferOutput<typeof calmSchema>;
export type Repair = BrushRepair | Graft | Calm;

const NAMES = {
  clone: 'clone stroke',
  heal: 'heal stroke',
  graft: 'graft',
  calm: 'spot toned down',
} as const;

/** A repair's kind in words. */
export const repairWords = (repair: Repair): string => NAMES[repair.kind];

/** Where a repair lies, or begins, in shares of the tile. */
export function repairPlace(repair: Repair): [number, number] {
  switch (repair.kind) {
    case 'graft':
      return repair.outline[0];
    case 'calm':
      return [repair.x, repair.y];
    default:
      return [repair.points[0][0], repair.points[0][1]];
  }
}
