import { percentiles } from '../../../statistics/statistics.ts';
import { thinned } from '../../../statistics/thinned.ts';
import type { Frame } from '../../../tile/frame.ts';
import type { Figure, Remedy, Verdict, VerdictState } from '../../../verdict.ts';
import type { SourceOutput } from '../output.ts';
import type { ShotsDecision } from './decision.ts';
import { directionOf } from './light.ts';
import type { LightsFrom } from './settings.ts';

/** What is left over above this share of the albedo is more than noise, shadows and some shine. */
const MUCH_LEFT = 0.12;
/** Above this share of pixels that three shots do not show, parts are missing. */
const MUCH_UNSOLVED = 0.02;
/** Above this, what lights that were found leave unexplained makes them doubtful. */
const DOUBTFUL = 0.2;
/** Lights lower or higher than this are unlikely to have been found right, in degrees. */
const LIKELY = { low: 12, high: 78 };

const percent = (share: number) => `${(100 * share).toFixed(1)} %`;

/** What several shots came to, or why they could not be solved. */
export function shotsVerdict(
  output: SourceOutput,
  decided: ShotsDecision,
  { lightsFrom, isInverted }: { lightsFrom: LightsFrom; isInverted: boolean },
  { wantedSize }: Frame,
): Verdict {
  const { refused, shots, beyond, ambient } = decided;
  const shortEdge = Math.min(output.originalWidth, output.originalHeight);
  const short: Figure = {
    id: 'shortEdge',
    label: 'Shorter side',
    value: shortEdge,
    unit: 'px',
    limit: wantedSize,
  };
  if (refused || !output.shots) {
    return {
      state: 'wrong',
      brief: 'shots not solved',
      sentence: `${refused?.message ?? ''} The tile is made from the first shot alone.`,
      advice: refused?.hint ?? '',
      figures: [short],
    };
  }
  const longer = Math.max(output.originalWidth, output.originalHeight);
  const { residual, unsolved } = output.shots;
  const [middle, high] = percentiles(thinned(residual), [50, 95]);
  const moved = Math.max(...shots.map((shot) => shot.moved)) * longer;
  const left = Math.max(...shots.map((shot) => shot.left)) * longer;
  const heights = shots.map(({ light }) => directionOf(light).height);
  const isFew = shortEdge < wantedSize;
  const isUnlikely =
    lightsFrom === 'found' &&
    ((beyond ?? 0) > DOUBTFUL || Math.min(...heights) < LIKELY.low || Math.max(...heights) > LIKELY.high);
  const state: VerdictState =
    isFew || isUnlikely || middle > MUCH_LEFT || unsolved > MUCH_UNSOLVED ? 'look' : 'fine';
  const isRedundant = shots.length > 3;
  const sentence = [
    `${shots.length} shots solved: normals and an albedo without light are measured.`,
    isRedundant
      ? `They differ from the solution by ${percent(middle)} of the albedo in half of the picture.`
      : 'Three shots fit exactly, so nothing checks them.',
    unsolved > 0.0005 ? `In ${percent(unsolved)} of the picture fewer than three shots can be used.` : '',
    lightsFrom === 'found' ? 'The directions of the light were found.' : '',
  ];
  const advice = [
    middle > MUCH_LEFT
      ? 'Look at what is left over: check the directions, or leave out a shot that moved.'
      : '',
    unsolved > MUCH_UNSOLVED ? 'Crop around those parts in Square, or add a shot with less exposure.' : '',
    isUnlikely ? 'The directions are doubtful: set them on the discs, or mark a ball.' : '',
    isFew ? 'Choose a smaller size or larger shots: anything larger is only upsampling.' : '',
  ];
  const remedies: Remedy[] =
    lightsFrom === 'found'
      ? [
          {
            advice: 'If hollows stand out, take the other reading.',
            words: isInverted ? 'Swap back' : 'Swap raised and recessed',
            settings: [{ station: 'source', key: 'isInverted', value: !isInverted }],
          },
        ]
      : [];
  return {
    state,
    brief: isFew ? 'few pixels' : isUnlikely ? 'lights doubtful' : `${shots.length} shots`,
    sentence: sentence.filter(Boolean).join(' '),
    advice: advice.filter(Boolean).join(' '),
    remedies,
    figures: [
      short,
      { id: 'shots', label: 'Shots', value: shots.length, unit: '' },
      { id: 'moved', label: 'Farthest moved', value: moved, unit: 'px' },
      ...(isRedundant ? [{ id: 'registration', label: 'Still off', value: left, unit: 'px', limit: 1 }] : []),
      ...(isRedundant
        ? [
            {
              id: 'residual',
              label: 'Left over, half',
              value: 100 * middle,
              unit: '%',
              limit: 100 * MUCH_LEFT,
            },
            { id: 'residualHigh', label: 'Left over, 95 of 100', value: 100 * high, unit: '%' },
          ]
        : []),
      { id: 'unsolved', label: 'Not solved', value: 100 * unsolved, unit: '%', limit: 100 * MUCH_UNSOLVED },
      { id: 'ambient', label: 'Light from everywhere', value: 100 * ambient, unit: '%' },
      ...(beyond === null
        ? []
        : [{ id: 'beyond', label: 'Unexplained by three lights', value: 100 * beyond, unit: '%' }]),
    ],
  };
}
