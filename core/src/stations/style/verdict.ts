import { blurring } from '../../filters/gaussian.ts';
import { lightnessOf } from '../../filters/lightness.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import { ALONE } from '../../team/team.ts';
import type { Frame } from '../../tile/frame.ts';
import type { Verdict } from '../../verdict.ts';
import { runSteps } from '../../work/steps.ts';
import type { JoinOutput } from '../join/output.ts';
import type { StyleDecision } from './decision.ts';
import { BROAD } from './mix.ts';
import type { StyleOutput } from './output.ts';
import { fineContrast } from './parts.ts';
import { seamRank } from './seam-rank.ts';
import type { StyleSettings } from './settings.ts';

/** Below this change of broad lightness (OKLab) Gauge finds the tile as it was. */
const EVEN = 0.005;
/** A step over the edge this many times as large as the largest inside is a seam. */
const SEAM = 1.25;
const FLAT = 1e-6;

/** How the painting went: what was simplified, what light was painted in, and whether broad lightness stayed. */
export async function verdict(
  output: StyleOutput,
  input: JoinOutput,
  _chosen: StyleSettings,
  decided: StyleDecision | null,
  frame: Frame,
  { checkpoint }: Pick<WorkContext, 'checkpoint'>,
): Promise<Verdict> {
  const { painted } = output;
  if (!decided || !painted) {
    return {
      state: 'fine',
      brief: 'not painted',
      sentence: 'The picture is kept as it is.',
      advice: '',
      figures: [],
    };
  }
  const sharing = { team: ALONE, checkpoint };
  const before = await lightnessOf(input.picture, sharing);
  const after = await lightnessOf(painted, sharing);
  await checkpoint(0.2);
  const edge = Math.min(frame.width, frame.height);
  const change = KERNELS.sumPlanes([after, before], [1, -1]);
  const broad = await runSteps(
    blurring(change, frame.width, frame.height, BROAD * edge, frame.edges),
    checkpoint,
  );
  const { min, max } = statistics(broad);
  const evenness = Math.max(Math.abs(min), Math.abs(max));
  const own = await fineContrast(before, frame, sharing);
  const gone = own > FLAT ? 1 - output.fineLeft / own : 0;
  const [seamBefore, seam] = [before, after].map((plane) => seamRank(plane, frame, frame.edges));
  const didNotMeet = seamBefore.excess > SEAM;
  const isSeamNew = seam.excess > SEAM && !didNotMeet;
  const isFine = evenness < EVEN && !isSeamNew && !didNotMeet;
  const advice = [
    evenness < EVEN ? '' : 'Broad light and dark changed: take less Light, or a smaller Amount.',
    didNotMeet ? 'The edges did not meet before painting, and meet no better after: see Join.' : '',
    isSeamNew ? 'A seam came with the paint: take another Seed, or a smaller Brush size.' : '',
  ];
  const millimetres = decided.shape * (edge / frame.size) * frame.edgeMetres * 1000;
  return {
    state: isFine ? 'fine' : 'look',
    brief: `${decided.palette.length} colours`,
    sentence: `${(100 * gone).toFixed(0)} % of the fine contrast is simplified away, shapes below ${millimetres.toFixed(millimetres < 10 ? 1 : 0)} mm with it; light changes the lightness by ${(100 * output.lightPainted).toFixed(1)} % on average; broad lightness by ${(100 * evenness).toFixed(1)} % at most.`,
    advice: advice.filter(Boolean).join(' '),
    figures: [
      { id: 'shape', label: 'Smallest shape kept', value: millimetres, unit: 'mm' },
      { id: 'light', label: 'Light painted in', value: 100 * output.lightPainted, unit: '%' },
      {
        id: 'broad',
        label: 'Change of broad lightness',
        value: 100 * evenness,
        unit: '%',
        limit: 100 * EVEN,
      },
      { id: 'fine', label: 'Fine contrast simplified away', value: 100 * gone, unit: '%' },
      { id: 'seam', label: 'Rows that step less than the seam', value: 100 * seam.rank, unit: '%' },
      { id: 'colours', label: 'Colours of the palette', value: decided.palette.length, unit: '' },
    ],
  };
}
