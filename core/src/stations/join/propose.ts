import { gaussian } from '../../filters/gaussian.ts';
import { seen } from '../../kernels/cut-costs/reference.ts';
import { luminance } from '../../planes/luminance.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import { type Attempt, attempt, scoreOf } from './attempt.ts';
import { latticeOf, type TileFrame } from './found-vectors.ts';
import type { JoinInput } from './input.ts';
import type { SeamScore } from './score/score.ts';
import { pictureSeams, type SeamFigures } from './seam.ts';
import type { JoinSettings, Method } from './settings.ts';
import { joins } from './vectors.ts';

/** One way of joining, tried and measured. */
export interface Proposal {
  method: Exclude<Method, 'propose'>;
  blend: JoinSettings['blend'];
  made: Attempt;
  score: SeamScore;
  seams: SeamFigures;
}

/** Below this a seam is hidden; above the second no method is trusted. */
export const FINE = 0.1;
export const DOUBTFUL = 0.3;
const UNHIDDEN = 0.6;
/** By how much a stronger hand must be better than a lighter one. */
const CLEARLY = 0.05;
const MIX_ONLY_ABOVE = 0.2;
const HIDDEN = 1;
/** Spreading is for sources with less detail than this. */
const SMOOTH = 0.25;

/** The ways of joining that are tried, in this order. */
export const WAYS: readonly Pick<Proposal, 'method' | 'blend'>[] = [
  { method: 'none', blend: 'multiband' },
  { method: 'cut', blend: 'multiband' },
  { method: 'cut', blend: 'narrow' },
  { method: 'cut', blend: 'gradient' },
  { method: 'meet', blend: 'multiband' },
  { method: 'mix', blend: 'multiband' },
  { method: 'spread', blend: 'multiband' },
];

const worstSeam = (f: SeamFigures, axes: JoinSettings['axes']): number => {
  const on = joins(axes);
  return Math.max(on.x ? Math.max(f.seamX, f.blotchX) : 0, on.y ? Math.max(f.seamY, f.blotchY) : 0);
};

/** Figures that show at the edge count against a way, whatever its score along the cut. */
const rank = ({ score, seams }: Proposal, axes: JoinSettings['axes']): number =>
  score.score + Math.max(0, worstSeam(seams, axes) - HIDDEN);

/**
 * Tries every way of joining at the working size and measures each; `onProposal` is told of each one as it is
 * made. Stops where the context says so.
 */
export async function tryAll(
  input: JoinInput,
  frame: TileFrame,
  chosen: JoinSettings,
  context: WorkContext,
  onProposal?: (proposal: Proposal) => void,
): Promise<Proposal[]> {
  const found: Proposal[] = [];
  for (const [k, way] of WAYS.entries()) {
    await context.checkpoint(k / WAYS.length);
    const made = await attempt(input, frame, { ...chosen, ...way }, context);
    const score = await scoreOf(made, input, frame, chosen.axes, context.checkpoint);
    const proposal = { ...way, made, score, seams: pictureSeams(made.picture) };
    found.push(proposal);
    onProposal?.(proposal);
  }
  return found;
}

/** How much of a picture's contrast is finer than a fortieth of the tile: spreading leaves that cut through. */
function shareOfDetail(picture: Raster, size: number): number {
  const { width, height } = picture;
  const plane = seen(luminance(picture));
  const broad = gaussian(plane, width, height, size / 40, MIRROR);
  const detail = statistics(plane.map((v, i) => v - broad[i])).deviation;
  return detail / Math.max(1e-6, statistics(plane).deviation);
}

/** The best of what was tried, and why, in words. */
export function bestOf(
  proposals: Proposal[],
  axes: JoinSettings['axes'],
  { repeats, isSmooth }: { repeats: boolean; isSmooth: boolean },
): { best: Proposal; reason: string } {
  const by = (method: Method) => proposals.filter((one) => one.method === method);
  const points = (one: Proposal) => rank(one, axes);
  const least = (ones: Proposal[]) => ones.reduce((a, b) => (points(b) < points(a) ? b : a));
  const [none] = by('none');
  if (none && points(none) < FINE / 2) {
    return { best: none, reason: 'The crop already meets itself on its own edges.' };
  }
  let best = least(by('cut'));
  let reason = repeats
    ? 'The pattern repeats, so whole periods are taken and the cut runs between alike parts.'
    : 'A cut between two shifted copies leaves the least that is unlike the photo.';
  const [meet] = by('meet');
  if (meet && points(meet) < points(best) - CLEARLY) {
    best = meet;
    reason =
      'Rows or ridges come together when both sides are bent a little, and that is clearly better than the cut alone.';
  }
  const [mix] = by('mix');
  if (mix && !repeats && points(best) > MIX_ONLY_ABOVE && points(mix) < points(best) - CLEARLY) {
    best = mix;
    reason = 'The grain is fine and without structure, so the copies can be mixed over the whole strip.';
  }
  const [spread] = by('spread');
  if (spread && isSmooth && points(spread) < points(best) - CLEARLY) {
    best = spread;
    reason = 'Nothing but smooth tone differs at the edges, so the difference is spread over the picture.';
  }
  if (points(best) > UNHIDDEN) {
    reason =
      'No way hides this well by its figures; this one is the least unlike. Look along the cut, crop to one kind of surface without a single thing that stands out, or square what is seen at a slant.';
  }
  return { best, reason };
}

/** All that was tried, which is best, and why. */
export interface Proposed {
  proposals: Proposal[];
  best: Proposal;
  reason: string;
}

/** Every way of joining this picture, tried and measured, and the best of them. */
export async function propose(
  input: JoinInput,
  frame: TileFrame,
  chosen: JoinSettings,
  context: WorkContext,
  onProposal?: (proposal: Proposal) => void,
): Promise<Proposed> {
  const proposals = await tryAll(input, frame, chosen, context, onProposal);
  const repeats = (await latticeOf(input.even.picture, context)) !== null;
  const isSmooth = shareOfDetail(input.even.picture, frame.size) < SMOOTH;
  return { proposals, ...bestOf(proposals, chosen.axes, { repeats, isSmooth }) };
}
