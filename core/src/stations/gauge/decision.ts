import * as v from 'valibot';
import type { Fit } from './fit.ts';
import type { PatchFit } from './patches.ts';

/** The gain that fits the rest of the tile and each zone with a line of its own; and what patches in the photo say. */
export interface GaugeDecision extends Fit {
  patches: PatchFit | null;
  zones: (Fit & { zone: string })[];
}

const fitEntries = { median: v.number(), gain: v.number(), contrast: v.number() };
const triple = v.tuple([v.number(), v.number(), v.number()]);
export const decisionSchema = v.strictObject({
  ...fitEntries,
  patches: v.nullable(
    v.strictObject({
      gain: v.number(),
      balance: triple,
      residual: v.number(),
      errors: v.array(v.number()),
      burnt: v.boolean(),
    }),
  ),
  zones: v.array(v.strictObject({ ...fitEntries, zone: v.string() })),
});
