import * as v from 'valibot';
import type { StyleOutput } from '../style/output.ts';
import { spreadsSchema } from './height.ts';
import type { ReliefSettings } from './settings.ts';

/** What Relief reads: the tile as it left Style. */
export interface ReliefInput {
  style: StyleOutput;
  /** `occlusion`: it is not asked for now. */
  omit?: readonly string[];
}

export const decisionSchema = v.strictObject({
  /** What becomes 0 and 1. */
  low: v.number(),
  high: v.number(),
  /** Deviation of local relief, and of the height itself. */
  cavitySpread: v.number(),
  heightSpread: v.number(),
  spreads: spreadsSchema,
  /** Between which heights in mm the tile lies, where joints give it a depth of their own. */
  rangeMm: v.optional(v.tuple([v.number(), v.number()])),
  /** Where slanting light comes from, clockwise from the top, and how plainly it does. */
  light: v.strictObject({ degrees: v.number(), plain: v.number() }),
  /** For bright (above 0) or dark (below) standing out. */
  evidence: v.strictObject({ shading: v.number(), joints: v.number(), together: v.number() }),
});

/** What is settled at the working size. */
export type ReliefDecision = v.InferOutput<typeof decisionSchema>;

/** Whether slanting light is read at all. */
export const isLit = ({ heightFrom, secondFrom }: ReliefSettings) =>
  heightFrom === 'light' || heightFrom === 'both' || secondFrom === 'light';

export const lightOf = (chosen: ReliefSettings, found: ReliefDecision['light']): number =>
  chosen.lightFrom === 'hand' ? chosen.lightDegrees : found.degrees;

/** Depth of the tile in mm, from its lowest to its highest point. */
export const reliefDepth = (
  { depthMm }: Pick<ReliefSettings, 'depthMm'>,
  { rangeMm }: Pick<ReliefDecision, 'rangeMm'>,
): number => (rangeMm ? rangeMm[1] - rangeMm[0] : depthMm);
