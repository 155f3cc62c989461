import * as v from 'valibot';
import { SHAPES } from '../../tile/shape.ts';
import { BLENDS, METHODS, ORIGINS } from './settings.ts';

const pair = v.tuple([v.number(), v.number()]);
const bend = v.nullable(
  v.strictObject({ across: v.array(v.number()), along: v.array(v.number()), cyclic: v.boolean() }),
);

/** What Join settles once: the method, the tile's vectors, the seams. */
export const decisionSchema = v.strictObject({
  workingSize: v.number(),
  shape: v.picklist(SHAPES),
  method: v.picklist(METHODS.filter((method) => method !== 'propose')),
  blend: v.picklist(BLENDS),
  /** By what the vectors were found, and how strongly the pattern repeats, if it does. */
  by: v.picklist(ORIGINS.filter((origin) => origin !== 'found')),
  strength: v.nullable(v.number()),
  vectors: v.strictObject({ corner: pair, u: pair, v: pair }),
  /** Half the overlap on each axis, as a share of the tile. */
  reach: pair,
  cutX: v.nullable(v.string()),
  cutY: v.nullable(v.string()),
  bendX: bend,
  bendY: bend,
});

export type JoinDecision = v.InferOutput<typeof decisionSchema>;
