import { PLANES } from '../../../memory/pool.ts';
import { takingLuminance } from '../../../planes/luminance.ts';
import type { Raster } from '../../../raster/raster.ts';
import type { WorkContext } from '../../../team/context.ts';
import type { Frame } from '../../../tile/frame.ts';
import { inParts, runSteps } from '../../../work/steps.ts';
import type { ReliefSettings } from '../settings.ts';
import { type Carving, carve, fromBorder, jointShare } from './carve.ts';
import { broughtUp, type FoundJoints, findingJoints, type JointField } from './field.ts';

/** Up to this size what is found is kept while dials move. */
const KEPT_SIZE = 2048;

/** What the net follows from, beside the picture; null where no joints are carved. */
export const netKey = ({ joints, jointStrokes }: ReliefSettings) =>
  joints === 'none' ? null : [joints, jointStrokes];

/** What the shape of joints and faces follows from beside the net. */
export const carvingKey = (chosen: ReliefSettings) =>
  chosen.joints === 'none' ? null : [netKey(chosen), carvingOf(chosen), chosen.faceTone];

const carvingOf = (chosen: ReliefSettings): Carving => ({
  profile: chosen.jointProfile,
  depthMm: chosen.jointDepthMm,
  widthMm: chosen.jointWidthMm,
  bevelMm: chosen.bevelMm,
  domeMm: chosen.faceDomeMm,
  tiltMm: chosen.faceTiltMm,
  levelMm: chosen.faceLevelMm,
});

const lengthsOf = ({ edgeMetres, width, height }: Frame) => {
  const edgeMm = 1000 * edgeMetres;
  return { edgeMm, pixelMm: edgeMm / Math.max(width, height) };
};

/** The joints and faces of a tile. */
export interface Joints {
  /** Closed faces. */
  count: number;
  /** At the size of the tile: held up to a size, brought up again each time above it. */
  field(): Promise<JointField>;
}

/** The joints and faces of a tile; null where none are carved. */
export async function jointsOf(
  picture: Raster,
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<Joints | null> {
  const { joints, jointStrokes } = chosen;
  if (joints === 'none') return null;
  const find = async () => {
    const y = await runSteps(takingLuminance(picture), context.checkpoint);
    const found = await runSteps(
      findingJoints(y, joints, jointStrokes, frame, frame.edges),
      context.checkpoint,
    );
    PLANES.give(y);
    return found;
  };
  const bringUp = async (found: FoundJoints) =>
    runSteps(broughtUp(found, frame, frame.edges), context.checkpoint);
  if (frame.size > KEPT_SIZE) {
    const found = await find();
    return { count: found.count, field: () => bringUp(found) };
  }
  const field = await context.part('joints', [frame.edges, netKey(chosen)], async () =>
    bringUp(await find()),
  );
  return { count: field.count, field: async () => field };
}

/** How much of each pixel is joint, 0…1; where the net leaks there is none. */
export async function jointCover(
  joints: Joints,
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<Float32Array> {
  const { edgeMm, pixelMm } = lengthsOf(frame);
  const field = await joints.field();
  const border = fromBorder(field, carvingOf(chosen), edgeMm);
  const { away, closed } = field;
  const out = context.team.take(away.length);
  const cover = (from: number, to: number) => {
    for (let i = from; i < to; i++) out[i] = closed[i] * jointShare(border(away[i]), pixelMm);
  };
  await runSteps(inParts(out.length, cover), context.checkpoint);
  return out;
}

/** Height in mm that joints and faces have. */
export async function carvedJoints(
  field: JointField,
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<Float32Array> {
  const { edgeMm, pixelMm } = lengthsOf(frame);
  const how = carvingOf(chosen);
  const out = context.team.take(field.away.length);
  await runSteps(
    inParts(out.length, (from, to) => carve(field, how, edgeMm, pixelMm, out, from, to)),
    context.checkpoint,
  );
  return out;
}
