import { resampleGrid } from '../sampling/resample-grid.ts';
import { drawBand } from '../stations/coats/mask/draw-band.ts';
import { divideBand } from '../stations/even/divide-band.ts';
import { toneBand } from '../stations/gauge/tone-band.ts';
import { blendTask } from '../stations/join/blend.ts';
import { bandStrengths } from '../stations/proof/band-strengths.ts';
import { sweepTask } from '../stations/relief/occlusion.ts';
import { resampleBand } from '../stations/square/resample-band.ts';
import { paintBand } from '../stations/style/paint-band.ts';
import { shockBand, smoothBand } from '../stations/style/simplify-band.ts';
import { type Answer, type Asked, answerFrom } from '../team/helper.ts';
import type { AnyTask } from '../team/task.ts';

/** Every task that members of a team share. */
export const TASKS: readonly AnyTask[] = [
  bandStrengths,
  blendTask,
  divideBand,
  drawBand,
  paintBand,
  resampleBand,
  resampleGrid,
  shockBand,
  smoothBand,
  sweepTask,
  toneBand,
];

/** A helper's side: does what it is asked and answers. */
export const answered = (
  asked: Asked,
  answer: (answer: Answer, transferred: ArrayBuffer[]) => void,
): Promise<void> => answerFrom(TASKS, asked, answer);
