import { Raster } from '../../raster/raster.ts';
import { mapGiven } from '../../tile/given.ts';
import { even } from '../even/station.ts';
import { square } from '../square/station.ts';
import { station } from '../station.ts';
import { assemble, type Laying } from './assemble.ts';
import { attempt, blendOf, cropOnly, takesCrop } from './attempt.ts';
import { decisionSchema, type JoinDecision } from './decision.ts';
import type { JoinInput } from './input.ts';
import type { JoinOutput } from './output.ts';
import { propose } from './propose.ts';
import { repaired } from './repair/apply.ts';
import type { RepairedKind } from './repair/repaired.ts';
import { following, type Masks } from './seams.ts';
import { settings } from './settings.ts';
import { spreadJumps } from './spread.ts';
import { joins, onSquare, turnOf } from './vectors.ts';
import { joinVerdict } from './verdict.ts';

const unit = (raster: Raster): Raster => raster.mapPlanes((plane) => plane.map((v) => Math.min(1, v)));

/** The tile before any repair, and the cut that its pictures share. */
interface LaidTile {
  picture: Raster;
  masks: Masks;
}

/** In the place of what would hold all that stands before the tile. */
const notAsked = async (): Promise<never> => {
  throw new Error('The picture before Even was let go: it was not to be asked for.');
};

/** Join: makes opposite edges meet. From here on the picture is a torus. */
export const join = station({
  name: 'join',
  line: 'Make the edges meet, so that no seam is seen.',
  settings,
  reads: [square, even],
  optional: { before: { ofPhoto: true } },
  setsFrame: ({ axes }) => {
    const on = joins(axes);
    return { edges: { x: on.x ? 'wrap' : 'mirror', y: on.y ? 'wrap' : 'mirror' } };
  },
  views: {
    joined: {
      title: 'Joined',
      kind: 'colour',
      before: 'evened',
      raster: ({ join }: { join?: JoinOutput }) => join?.picture ?? null,
    },
  },
  shows: 'joined',
  weight: 14,
  of: 'tile',
  decision: decisionSchema,
  decidesOn: ({ vectors, repairs: _later, ...chosen }) => ({
    ...chosen,
    vectors: chosen.from === 'hand' ? vectors : null,
  }),
  async decide(input: JoinInput, chosen, frame, context): Promise<JoinDecision> {
    const { size } = frame;
    const { method } = chosen;
    const made =
      method === 'propose'
        ? (await propose(input, frame, chosen, context)).best.made
        : await attempt(input, frame, { ...chosen, method }, context);
    const { by, strength, vectors } = made.from;
    const decision: JoinDecision = {
      workingSize: size,
      shape: frame.shape,
      method: made.method,
      blend: made.blend,
      by,
      strength,
      vectors,
      reach: made.reach,
      ...made.seams,
    };
    // The run at this size has its tile already.
    await context.part('tile', decision, () => ({ picture: made.picture, masks: {} }) satisfies LaidTile);
    return decision;
  },
  async run(input, chosen, decided, frame, context): Promise<JoinOutput> {
    const { square } = input;
    const { size } = frame;
    const { method, blend, vectors, reach } = decided;
    const { repairs } = chosen;
    // One more stroke lays nothing out again.
    const isKept = size === decided.workingSize || repairs.length > 0;
    const kept = <T>(id: string, make: () => Promise<T>): Promise<T> =>
      isKept ? context.part(id, decided, make) : make();
    const isCrop = takesCrop(method) || chosen.axes === 'neither';
    const layWith = (masks: Masks, isData: boolean) => async (photo: Raster) => {
      if (isCrop) {
        const crop = cropOnly(photo, square, frame);
        const spreads = method === 'spread' && chosen.axes !== 'neither';
        return spreads ? spreadJumps(crop, frame.edges, context.checkpoint) : crop;
      }
      // Steps may be shared out between colours; values of a data map may not drift.
      const whole = blendOf(method, blend);
      const laying: Laying = {
        sides: { width: frame.width, height: frame.height },
        vectors,
        reach,
        blend: isData && whole === 'gradient' ? 'multiband' : whole,
      };
      const seams = following(decided, size / decided.workingSize, masks);
      return assemble(photo, square.margins, laying, seams, context);
    };
    // The cut is followed on the colour; everything else takes the same.
    const first = await kept('tile', async (): Promise<LaidTile> => {
      const masks: Masks = {};
      return { picture: await layWith(masks, false)(input.even.picture), masks };
    });
    const mended = (tile: Raster, photo: Raster, kind: RepairedKind, id: string) => {
      const from = { picture: photo, margins: square.margins };
      return repaired(tile, from, repairs, kind, [id, decided], frame.edges, context);
    };
    const data = async (photo: Raster, id: string) => {
      const tile = await kept(id, () => layWith(first.masks, true)(photo));
      return unit(await mended(tile, photo, 'data', id));
    };
    const before = async () => {
      const tile = await layWith(first.masks, false)(square.picture);
      return mended(tile, square.picture, 'colour', 'before');
    };
    const picture = await mended(first.picture, input.even.picture, 'colour', 'tile');
    const given = await mapGiven(square.given, data);
    let alpha = given.opacity?.planes[0] ?? null;
    if (!alpha && square.alpha) {
      const raster = new Raster(square.picture.width, square.picture.height, [square.alpha]);
      alpha = (await data(raster, 'alpha')).planes[0];
    }
    return {
      picture,
      alpha,
      given,
      turnDegrees: turnOf(onSquare(vectors, frame)),
      before: input.omit?.includes('before') ? notAsked : before,
    };
  },
  verdict(output, input, chosen, decided, _frame, context) {
    return joinVerdict(output, input, chosen, decided, context.checkpoint);
  },
});
