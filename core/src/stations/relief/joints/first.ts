import type { ReliefSettings } from '../settings.ts';

/** As deep as joints can be carved, mm. */
const DEEPEST = 200;
/** The bevel of joints of a depth: their steepest slope is then about 50°. */
const BEVEL = 1.2;

/** What joints are carved with first: as deep as tone would be, with the sign that joints that lie low have. */
export function firstJoints(
  lines: 'dark' | 'light',
  { depthMm }: Pick<ReliefSettings, 'depthMm'>,
): Pick<ReliefSettings, 'polarity' | 'joints' | 'jointDepthMm' | 'bevelMm'> {
  const jointDepthMm = Math.min(DEEPEST, depthMm);
  const bevelMm = Math.min(DEEPEST, Math.round(10 * BEVEL * jointDepthMm) / 10);
  return { polarity: lines === 'light' ? 'dark' : 'bright', joints: lines, jointDepthMm, bevelMm };
}
