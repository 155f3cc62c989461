import { blurPlanes } from '../../../filters/blur-planes.ts';
import type { Sharing } from '../../../team/context.ts';
import type { Frame } from '../../../tile/frame.ts';
import { inParts, runSteps } from '../../../work/steps.ts';
import { AROUND, LEAST_WEIGHT } from './border.ts';

/** Values of one range: joints take those of the faces about them. */
function fillPart(
  values: Float32Array,
  joint: Float32Array,
  sum: Float32Array,
  total: Float32Array,
  from: number,
  to: number,
): void {
  for (let i = from; i < to; i++) {
    if (joint[i] <= 0) continue;
    values[i] += joint[i] * (sum[i] / Math.max(LEAST_WEIGHT, total[i]) - values[i]);
  }
}

/** A plane whose joints (0…1) have the tone of the faces about them, so that no rim is read as relief; in its place. */
export async function fillJoints(
  values: Float32Array,
  joint: Float32Array,
  frame: Frame,
  context: Sharing,
): Promise<void> {
  const { team, checkpoint } = context;
  const product = team.take(values.length);
  const weights = team.take(values.length);
  await runSteps(
    inParts(values.length, (from, to) => {
      for (let i = from; i < to; i++) {
        weights[i] = 1 - joint[i];
        product[i] = weights[i] * values[i];
      }
    }),
    checkpoint,
  );
  const sigma = AROUND * Math.max(frame.width, frame.height);
  const [sum, total] = await blurPlanes(
    [
      { plane: product, sigma },
      { plane: weights, sigma },
    ],
    frame,
    context,
  );
  await runSteps(
    inParts(values.length, (from, to) => fillPart(values, joint, sum, total, from, to)),
    checkpoint,
  );
  team.give(product, weights, sum, total);
}
