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
/** Fine detail at the cut, relative to elsewhere, below which it is seen to be soft. */
const LEAST_DETAIL = 0.9;
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

/** Whether no figure of a way is beyond its limit. */
const passes = ({ score, seams }: Proposal, axes: JoinSettings['axes']): boolean =>
  worstSeam(seams, axes) <= HIDDEN && score.score <= DOUBTFUL && score.detail >= LEAST_DETAIL;

/** A method that is taken in place of a cut where it is clearly better, and when. */
interface Stronger {
  method: Method;
  reason: string;
  /** Whether it may be taken at all, by the points of the best so far. */
  suits(points: number): boolean;
}

/**
 * The best of what was tried, and why, in words. A way that is beyond a limit is never the best while another is not; no joining
 * is never beaten by a way that matches the photo less well.
 */
export function bestOf(
  proposals: Proposal[],
  axes: JoinSettings['axes'],
  { repeats, isSmooth }: { repeats: boolean; isSmooth: boolean },
): { best: Proposal; reason: string } {
  const passing = proposals.filter((one) => passes(one, axes));
  const able = passing.length > 0 ? passing : proposals;
  const by = (method: Method) => able.filter((one) => one.method === method);
  const points = (one: Proposal) => rank(one, axes);
  const least = (ones: Proposal[]) => ones.reduce((a, b) => (points(b) < points(a) ? b : a));
  const cuts = by('cut');
  let best = least(cuts.length > 0 ? cuts : able);
  const stronger: Stronger[] = [
    {
      method: 'meet',
      reason:
        'Rows or ridges come together when both sides are bent a little, and that is clearly better than the cut alone.',
      suits: () => true,
    },
    {
      method: 'mix',
      reason: 'The grain is fine and without structure, so the copies can be mixed over the whole strip.',
      suits: (so) => !repeats && so > MIX_ONLY_ABOVE,
    },
    {
      method: 'spread',
      reason: 'Nothing but smooth tone differs at the edges, so the difference is spread over the picture.',
      suits: () => isSmooth,
    },
  ];
  for (const { method, suits } of stronger) {
    const [one] = by(method);
    if (one && one !== best && suits(points(best)) && points(one) < points(best) - CLEARLY) {
      best = one;
    }
  }
  const reason =
    stronger.find(({ method }) => method === best.method)?.reason ??
    (repeats
      ? 'The pattern repeats, so whole periods are taken and the cut runs between alike parts.'
      : 'A cut between two shifted copies matches the photo best.');
  const [none] = by('none');
  if (none && worstSeam(none.seams, axes) <= HIDDEN && none.score.score <= best.score.score) {
    return { best: none, reason: 'The crop already tiles.' };
  }
  if (points(best) > UNHIDDEN) {
    return {
      best,
      reason:
        'No method scores well; this is the best of them. Check along the cut, crop to a uniform area, or correct the perspective.',
    };
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
