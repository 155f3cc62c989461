import type { MaskStroke } from '../../../src/masks/mask.ts';
import type { Edges } from '../../../src/raster/edges.ts';
import type { Sides } from '../../../src/raster/sides.ts';
import {
  broughtUp,
  findingJoints,
  type JointField,
  type JointLines,
} from '../../../src/stations/relief/joints/field.ts';
import type { Steps } from '../../../src/work/steps.ts';

/** Joints and faces of a luminance, at its own size. */
export function* findJoints(
  luminance: Float32Array,
  lines: JointLines,
  strokes: readonly MaskStroke[],
  sides: Sides,
  edges: Edges,
): Steps<JointField> {
  return yield* broughtUp(yield* findingJoints(luminance, lines, strokes, sides, edges), sides, edges);
}
