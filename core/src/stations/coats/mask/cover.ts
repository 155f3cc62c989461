import { blurring } from '../../../filters/gaussian.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import { identityOf } from '../../../memory/identity.ts';
import { partOf, type SurfaceChannel, strided } from '../../../surface/surface.ts';
import { sharedCopy } from '../../../team/team.ts';
import { inParts, runSteps, type Steps } from '../../../work/steps.ts';
import { sigmaOf } from '../../relief/scale.ts';
import { KEPT_SIZE, keyOfFrame } from '../kept.ts';
import type { Layers } from '../layers.ts';
import type { Scene } from '../scene.ts';
import { drawnValues } from './draw-band.ts';
import type { Common, PartKind } from './part.ts';
import { PART_KINDS, type Part } from './parts.ts';

/** Below this a step would be a division by nothing. */
const STEEPEST = 1e-4;
const LEAST_SIGMA = 0.3;

/** Values through the levels of their part, a plane written over: a ramp from low to high, steeper where it is less soft. */
function* levelled(values: SurfaceChannel, { low, high, softness, invert }: Common): Steps<SurfaceChannel> {
  // As they are when nothing was set; values are 0..1 already.
  if (low === 0 && high === 1 && softness === 1 && !invert) return values;
  const middle = (low + high) / 2;
  const range = high - low;
  const width = Math.max(STEEPEST, softness * Math.abs(range)) * (range < 0 ? -1 : 1);
  const scale = (invert ? -1 : 1) / width;
  const { plane } = strided(values);
  yield* inParts(plane.length, (from, to) => KERNELS.levelPlane(plane.subarray(from, to), middle, scale));
  return typeof values === 'number' ? plane[0] : plane;
}

const kindOf = ({ by }: Part) => PART_KINDS[by] as unknown as PartKind;

/**
 * What is kept, or made and kept where the tile is small enough and what it is made from stays for a while; as a plane of
 * whoever asks.
 */
async function kept(
  name: string,
  key: unknown,
  reads: readonly (keyof Layers)[],
  scene: Scene,
  make: () => Promise<SurfaceChannel>,
): Promise<SurfaceChannel> {
  const { frame, below } = scene;
  if (frame.size > KEPT_SIZE || !reads.every((layer) => scene.isLasting(layer))) return make();
  const from = reads.map((layer) => [layer, identityOf(below[layer])]);
  const found = await scene.context.part(name, [key, from, keyOfFrame(frame)], make);
  return typeof found === 'number' ? found : sharedCopy(found, scene.context.team);
}

/** What parts read of the layers below. */
const readBelow = (parts: readonly Part[]): (keyof Layers)[] => [
  ...new Set(parts.flatMap((part) => kindOf(part).reads(part as never))),
];

/** The values 0..1 of a part before its levels, as a plane of whoever asks. */
export const partValues = async (part: Part, scene: Scene, before: SurfaceChannel): Promise<SurfaceChannel> =>
  (await drawnValues(part, scene)) ?? (await kindOf(part).values?.(part as never, scene, before)) ?? 0;

/** The values of a part before its levels, kept while what they are made from stays. */
async function rawValues(part: Part, scene: Scene, before: SurfaceChannel): Promise<SurfaceChannel> {
  const kind = kindOf(part);
  const make = () => partValues(part, scene, before);
  // What the parts before it select is another plane each time.
  if (kind.replacesBefore?.(part as never)) return make();
  const {
    how: _how,
    low: _low,
    high: _high,
    softness: _softness,
    invert: _invert,
    blurMm: _blur,
    ...own
  } = part;
  return kept('mask part', own, readBelow([part]), scene, make);
}

/** What one part selects, 0..1. */
async function partCover(part: Part, scene: Scene, before: SurfaceChannel): Promise<SurfaceChannel> {
  const { frame, context } = scene;
  const raw = await rawValues(part, scene, before);
  const values = await runSteps(levelled(raw, part), context.checkpoint);
  const sigma = sigmaOf(part.blurMm, frame);
  if (typeof values === 'number' || sigma <= LEAST_SIGMA) return values;
  return runSteps(
    blurring(values, frame.width, frame.height, Math.min(sigma, frame.size / 4), frame.edges),
    context.checkpoint,
  );
}

/** Two covers combined; a plane of the first is written over. */
export function* combining(
  cover: SurfaceChannel,
  own: SurfaceChannel,
  how: Part['how'],
  count: number,
): Steps<SurfaceChannel> {
  const [a, b] = [cover, own].map(strided);
  const isOne = a.step + b.step === 0;
  const out = isOne ? new Float32Array(1) : typeof cover === 'number' ? new Float32Array(count) : cover;
  if (a.step === 0) out.fill(a.plane[0]);
  yield* inParts(out.length, (from, to) => {
    KERNELS.combineCovers(out.subarray(from, to), partOf(b, from, to), how);
  });
  return isOne ? out[0] : out;
}

/**
 * How much of each pixel a mask selects, 0..1: its parts one after the other, `and` by the product, `or` by the larger,
 * `without` by the product with what is not selected. A mask without parts selects the whole tile.
 */
export function coatCover(parts: readonly Part[], scene: Scene): Promise<SurfaceChannel> {
  return kept('mask', parts, readBelow(parts), scene, () => combined(parts, scene));
}

async function combined(parts: readonly Part[], scene: Scene): Promise<SurfaceChannel> {
  const { width, height } = scene.frame;
  let cover: SurfaceChannel | null = null;
  for (const part of parts) {
    const own = await partCover(part, scene, cover ?? 1);
    await scene.context.checkpoint(0);
    if (cover === null || kindOf(part).replacesBefore?.(part as never)) {
      cover = own;
      continue;
    }
    cover = await runSteps(combining(cover, own, part.how, width * height), scene.context.checkpoint);
    if (typeof own !== 'number') scene.context.team.give(own);
  }
  return cover ?? 1;
}

/** Values 0..1 of one part, by its place from 0: what it selects, or another plane that it has; 0 where there is none. */
export async function partPlane(
  parts: readonly Part[],
  place: number,
  plane: string,
  scene: Scene,
): Promise<SurfaceChannel> {
  const part = parts[place];
  if (!part) return 0;
  const before = kindOf(part).replacesBefore?.(part as never)
    ? await coatCover(parts.slice(0, place), scene)
    : 1;
  if (plane === 'cover') return partCover(part, scene, before);
  return (await kindOf(part).planes?.[plane]?.(part as never, scene, before)) ?? 0;
}
