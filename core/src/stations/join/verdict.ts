import { sidesOf } from '../../tile/shape.ts';
import type { Remedy, Verdict } from '../../verdict.ts';
import type { Checkpoint } from '../../work/checkpoint.ts';
import { runSteps } from '../../work/steps.ts';
import { cropOnly, takesCrop } from './attempt.ts';
import type { JoinDecision } from './decision.ts';
import type { JoinInput } from './input.ts';
import type { JoinOutput } from './output.ts';
import { DOUBTFUL, FINE } from './propose.ts';
import { seamScore } from './score/score.ts';
import { measuringSeams } from './seam.ts';
import type { JoinSettings } from './settings.ts';
import { joins, onSquare, shearOf, stretchOf, turnOf } from './vectors.ts';

const LOOK = 1.3;
const DETAIL = 0.9;
/** A tile that is stretched by more, in percent, is seen to be. */
const STRETCHED = 5;

const stretchPercent = (decided: JoinDecision): number =>
  100 * (stretchOf(onSquare(decided.vectors, sidesOf(decided.shape, 1))) - 1);

/** What is said of the tile's vectors where they are not the crop's own edges. */
function vectorWords(decided: JoinDecision): string {
  const vectors = onSquare(decided.vectors, sidesOf(decided.shape, 1));
  const { u, v } = vectors;
  const edge = Math.sqrt(Math.hypot(...u) * Math.hypot(...v));
  const told: string[] = [];
  if (Math.abs(edge - 1) > 0.015) told.push(`the tile shows ${Math.round(100 * edge)} % of the crop’s edge`);
  const stretch = stretchPercent(decided);
  if (stretch > 0.5) told.push(`stretched by ${stretch.toFixed(1)} %`);
  const turn = turnOf(vectors);
  if (Math.abs(turn) > 0.1) told.push(`turned by ${turn.toFixed(1)}°`.replace('-', '−'));
  const shear = shearOf(vectors);
  if (shear > 0.2) told.push(`sheared by ${shear.toFixed(1)}°`);
  if (told.length === 0) return '';
  const why =
    decided.by === 'lattice' ? 'Adjusted so whole periods line up: ' : 'Adjusted so both copies agree: ';
  return `${why}${told.join(', ')}.`;
}

const BY_A_CUT: Remedy = {
  advice: 'Join the edges by a cut.',
  words: 'Join by a cut',
  settings: [{ station: 'join', key: 'method', value: 'cut' }],
};

/** What may help, beside what a button does. */
function retryWords(method: JoinDecision['method'], mismatch: number): string {
  if (!takesCrop(method))
    return 'Compare methods, move the crop so that both sides look alike, or widen the overlap.';
  return method === 'spread' && mismatch > DOUBTFUL
    ? 'Spreading suits edges that differ in tone alone; here the texture of each edge shows on the other side.'
    : '';
}

/** Measured on the joined tile: its edge, its cut and its source compared with each other. */
export async function joinVerdict(
  output: JoinOutput,
  input: JoinInput,
  chosen: JoinSettings,
  decided: JoinDecision,
  checkpoint: Checkpoint,
): Promise<Verdict> {
  const on = joins(chosen.axes);
  if (!on.x && !on.y) {
    return {
      state: 'look',
      brief: 'does not tile',
      sentence: 'No edges are joined: the image passes through unchanged and will not tile.',
      advice: 'Choose axes to make it a tile.',
      figures: [],
    };
  }
  await checkpoint(0.8);
  const f = await runSteps(measuringSeams(output.picture), checkpoint);
  await checkpoint(0.9);
  const edges = [
    ...(on.x
      ? [
          { id: 'seamX', label: 'Seam, left to right', value: f.seamX, unit: '', limit: 1 },
          { id: 'blotchX', label: 'Blotch, left to right', value: f.blotchX, unit: '', limit: 1 },
        ]
      : []),
    ...(on.y
      ? [
          { id: 'seamY', label: 'Seam, top to bottom', value: f.seamY, unit: '', limit: 1 },
          { id: 'blotchY', label: 'Blotch, top to bottom', value: f.blotchY, unit: '', limit: 1 },
        ]
      : []),
  ];
  const source = input.even.picture;
  const spread = decided.method === 'spread' ? cropOnly(source, input.square, output.picture) : null;
  const along = await seamScore(output.picture, source, decided.reach, on, decided, spread, checkpoint);
  const worst = edges.reduce((a, b) => (b.value > a.value ? b : a));
  const stretch = stretchPercent(decided);
  const state =
    worst.value > LOOK || along.score > 2 * DOUBTFUL
      ? 'wrong'
      : worst.value > 1 || along.score > DOUBTFUL || along.detail < DETAIL || stretch > STRETCHED
        ? 'look'
        : 'fine';
  const kind = worst.id.startsWith('seam') ? 'seam' : 'blotch';
  // The figure that fails is named, and the edge's own where none does.
  const brief =
    worst.value > 1
      ? `${kind} ${worst.value.toFixed(2)}`
      : along.score > DOUBTFUL
        ? `mismatch ${along.score.toFixed(2)}`
        : along.detail < DETAIL
          ? `detail ${along.detail.toFixed(2)}`
          : stretch > STRETCHED
            ? `stretched ${stretch.toFixed(0)} %`
            : `${kind} ${worst.value.toFixed(2)}`;
  const hidden =
    along.score < FINE
      ? 'what lies along the cut looks like the photo'
      : along.score < DOUBTFUL
        ? 'what lies along the cut is nearly like the photo'
        : 'texture along the cut does not match the photo';
  return {
    state,
    brief,
    sentence: `${worst.value <= 1 ? 'Nothing shows at the tile’s edge' : 'The edge shows'}: the strongest ${kind} is ${worst.value.toFixed(2)} times the usual step inside the tile (${worst.label.split(', ')[1]}); ${hidden} (${along.score.toFixed(2)}).`,
    advice: [state === 'fine' ? '' : retryWords(decided.method, along.score), vectorWords(decided)]
      .filter(Boolean)
      .join(' '),
    remedies: state !== 'fine' && takesCrop(decided.method) ? [BY_A_CUT] : [],
    figures: [
      ...edges,
      {
        id: 'unlike',
        label: 'Mismatch along the cut',
        value: along.score,
        unit: '',
        limit: DOUBTFUL,
      },
      { id: 'stretch', label: 'Stretched by', value: stretch, unit: '%', limit: STRETCHED },
      { id: 'step', label: 'Step over the cut', value: along.step, unit: '', limit: 1 },
      { id: 'detail', label: 'Fine detail at the cut', value: along.detail, unit: '×' },
      ...(decided.strength === null
        ? []
        : [{ id: 'strength', label: 'Strength of the repeat found', value: decided.strength, unit: '' }]),
    ],
  };
}
