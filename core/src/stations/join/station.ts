import { Raster } from '../../raster/raster.ts';
import { mapGiven } from '../given.ts';
import { type JoinOutput, type SquareOutput, station } from '../types.ts';
import { assemble, type Laying } from './assemble.ts';
import { attempt, blendOf, takesCrop } from './attempt.ts';
import { decisionSchema, type JoinDecision } from './decision.ts';
import type { JoinInput } from './input.ts';
import { propose } from './propose.ts';
import { following } from './seams.ts';
import { settings } from './settings.ts';
import { spreadJumps } from './spread.ts';
import { turnOf } from './vectors.ts';
import { joinVerdict } from './verdict.ts';

/** A tile without any joining: the crop alone. */
function cropOnly(picture: Raster, square: SquareOutput, size: number): Raster {
  return picture.cut(square.margins.left, square.margins.top, size, size);
}

const unit = (raster: Raster): Raster => raster.mapPlanes((plane) => plane.map((v) => Math.min(1, v)));

/** Join: makes opposite edges meet. From here on the picture is a torus. */
export const join = station({
  name: 'join',
  line: 'Make the edges meet, so that no seam is seen.',
  settings,
  decision: decisionSchema,
  decidesOn: ({ vectors, ...chosen }) => ({ ...chosen, vectors: chosen.from === 'hand' ? vectors : null }),
  async decide(input: JoinInput, chosen, frame, context): Promise<JoinDecision> {
    const { size } = frame;
    const { method } = chosen;
    const made =
      method === 'propose'
        ? (await propose(input, size, chosen, context)).best.made
        : await attempt(input, size, { ...chosen, method }, context);
    const { by, strength, vectors } = made.from;
    const decision: JoinDecision = {
      workingSize: size,
      method: made.method,
      blend: made.blend,
      by,
      strength,
      vectors,
      reach: made.reach,
      ...made.seams,
    };
    // The run at this size has its tile already.
    await context.part('tile', decision, () => made.picture);
    return decision;
  },
  async run(input, chosen, decided, frame, context): Promise<JoinOutput> {
    const { square } = input;
    const { size } = frame;
    const { method, blend, vectors, reach } = decided;
    const seams = following(decided, size / decided.workingSize);
    const layWith = (laying: Laying) => (picture: Raster) =>
      assemble(picture, square.margins, laying, seams, context.breathe);
    let lay: (picture: Raster) => Promise<Raster> | Raster;
    let layData: (picture: Raster) => Promise<Raster> | Raster;
    if (takesCrop(method) || chosen.axes === 'neither') {
      const crop = (picture: Raster) => cropOnly(picture, square, size);
      lay =
        method === 'spread' && chosen.axes !== 'neither'
          ? (picture) => spreadJumps(crop(picture), frame.edges, context.breathe)
          : crop;
      layData = lay;
    } else {
      const laying: Laying = { size, vectors, reach, blend: blendOf(method, blend) };
      lay = layWith(laying);
      // Steps may be shared out between colours; values of a data map may not drift.
      layData = layWith({ ...laying, blend: laying.blend === 'gradient' ? 'multiband' : laying.blend });
    }
    const make = async () => lay(input.even.picture);
    const picture = size === decided.workingSize ? await context.part('tile', decided, make) : await make();
    const given = await mapGiven(square.given, async (raster) => unit(await layData(raster)));
    let alpha = given.opacity?.planes[0] ?? null;
    if (!alpha && square.alpha) {
      const raster = new Raster(square.picture.width, square.picture.height, [square.alpha]);
      alpha = unit(await layData(raster)).planes[0];
    }
    return { picture, alpha, given, turnDegrees: turnOf(vectors), before: async () => lay(square.picture) };
  },
  verdict(output, input, chosen, decided) {
    return joinVerdict(output, input, chosen, decided);
  },
});
