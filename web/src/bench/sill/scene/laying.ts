import * as v from 'valibot';
import { SCENE_PARTS, type ScenePart } from './parts.ts';

/** The open tile, in place of the id of another. */
export const THIS_TILE = 'this';

const layingSchema = v.object({
  /** A tile's id, the open one, or null for what the part is usually made of. */
  tile: v.nullable(v.string()),
  /** Length of the tile's longer edge on the part, in metres; null for its own. */
  metres: v.nullable(v.number()),
  /** Quarter turns, clockwise. */
  turns: v.number(),
});
/** What is on a part of the terrace, how large and which way round. */
export type Laying = v.InferOutput<typeof layingSchema>;
export type Laid = Partial<Record<ScenePart, Laying>>;

export const UNLAID: Laying = { tile: null, metres: null, turns: 0 };

// Earlier versions kept the tile's id alone.
export const laidSchema = v.record(
  v.picklist(SCENE_PARTS),
  v.union([
    layingSchema,
    v.pipe(
      v.string(),
      v.transform((tile): Laying => ({ ...UNLAID, tile })),
    ),
  ]),
);
