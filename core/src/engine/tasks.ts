import { blurColumns, blurRows } from '../filters/blur-planes.ts';
import { lightnessBand } from '../filters/lightness.ts';
import { resampleGrid } from '../sampling/resample-grid.ts';
import { blendBand } from '../stations/coats/blend/over.ts';
import { drawBand } from '../stations/coats/mask/draw-band.ts';
import { divideBand } from '../stations/even/divide-band.ts';
import { toneBand } from '../stations/gauge/tone-band.ts';
import { blendTask } from '../stations/join/blend.ts';
import { bandStrengths } from '../stations/proof/band-strengths.ts';
import { normalsBand } from '../stations/relief/normals-band.ts';
import { sweepTask } from '../stations/relief/occlusion.ts';
import { solveBand } from '../stations/source/shots/solve-band.ts';
import { resampleBand } from '../stations/square/resample-band.ts';
import { colourBand } from '../stations/style/colours.ts';
import { deviationBand, squaresBand } from '../stations/style/contrast.ts';
import { flowBand, tensorBand } from '../stations/style/flow.ts';
import { channelBand, planesBand } from '../stations/style/interleaved.ts';
import { lightBand, lightReliefBand } from '../stations/style/light.ts';
import { mixTask } from '../stations/style/mix.ts';
import { guideBand } from '../stations/style/paint.ts';
import { paintPiece } from '../stations/style/paint-band.ts';
import { drawTableBand, drawToBand } from '../stations/style/palette.ts';
import { planLayer } from '../stations/style/plan.ts';
import { signsBand } from '../stations/style/simplify.ts';
import { shockBand, smoothBand } from '../stations/style/simplify-band.ts';
import { type Answer, type Asked, answerFrom } from '../team/helper.ts';
import type { AnyTask } from '../team/task.ts';

/** Every task that members of a team share. */
export const TASKS: readonly AnyTask[] = [
  bandStrengths,
  blendBand,
  blendTask,
  blurColumns,
  blurRows,
  deviationBand,
  divideBand,
  drawBand,
  drawTableBand,
  drawToBand,
  flowBand,
  channelBand,
  lightBand,
  lightnessBand,
  lightReliefBand,
  colourBand,
  mixTask,
  normalsBand,
  guideBand,
  paintPiece,
  planLayer,
  planesBand,
  resampleBand,
  resampleGrid,
  shockBand,
  signsBand,
  smoothBand,
  solveBand,
  squaresBand,
  sweepTask,
  tensorBand,
  toneBand,
];

/** A helper's side: does what it is asked and answers. */
export const answered = (
  asked: Asked,
  answer: (answer: Answer, transferred: ArrayBuffer[]) => void,
): Promise<void> => answerFrom(TASKS, asked, answer);
