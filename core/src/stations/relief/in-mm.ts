import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { inParts, runSteps } from '../../work/steps.ts';
import type { StyleOutput } from '../style/output.ts';
import { carvedJoints, carvingKey, type Joints } from './joints/shaped.ts';
import type { ReliefSettings } from './settings.ts';
import { readZones, zonesKey } from './zones/readings.ts';

/** What a height that is put together in mm follows from; null where it is tone alone, over the depth. */
export function millimetresKey(chosen: ReliefSettings, frame: Pick<Frame, 'masks'>): unknown {
  const keys = [carvingKey(chosen), zonesKey(chosen, frame.masks)];
  return keys.every((key) => key === null) ? null : [...keys, chosen.depthMm];
}

/** What height in mm is put together of beside tone: joints and faces, how much of each pixel is joint, and the tile that zones are selected on. */
export interface Shaping {
  joints: Joints | null;
  cover: Float32Array | null;
  style: StyleOutput;
}

/** Height in mm: joints and faces, what tone (0…1, over the depth) comes to on them, and zones read in their own way. */
export async function inMillimetres(
  tone: Float32Array,
  { joints, cover, style }: Shaping,
  chosen: ReliefSettings,
  frame: Frame,
  context: WorkContext,
): Promise<Float32Array> {
  const field = joints && (await joints.field());
  const base = field
    ? await carvedJoints(field, chosen, frame, context)
    : context.team.take(tone.length).fill(0);
  const ofTone = context.team.take(tone.length);
  const closed = field?.closed;
  const less = 1 - chosen.faceTone;
  await runSteps(
    inParts(tone.length, (from, to) => {
      for (let i = from; i < to; i++) {
        const share = closed ? 1 - closed[i] * less : 1;
        ofTone[i] = share * chosen.depthMm * (tone[i] - 0.5);
      }
    }),
    context.checkpoint,
  );
  await readZones(ofTone, base, { style, joints: cover }, chosen, frame, context);
  await runSteps(
    inParts(tone.length, (from, to) => {
      for (let i = from; i < to; i++) base[i] += ofTone[i];
    }),
    context.checkpoint,
  );
  context.team.give(ofTone);
  return base;
}
