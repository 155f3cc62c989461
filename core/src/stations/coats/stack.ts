import { Raster } from '../../raster/raster.ts';
import { albedoOf, metallicChannel } from '../../surface/metalness.ts';
import { planeOfChannel, type SurfaceChannel } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';
import { blendingHeight } from './blend/heights.ts';
import { BLEND_MODES } from './blend/modes.ts';
import { blendingChannel, blendingColour } from './blend/over.ts';
import { type Channel, isColourChannel, type Layers } from './layers.ts';
import { coatCover } from './mask/cover.ts';
import type { CoatsInput, Scene } from './scene.ts';
import type { Coat, CoatOutput } from './settings.ts';
import { cavityOf, normalOf, occlusionOf, type Shape } from './shaping.ts';
import type { Value, ValueKind } from './value/kind.ts';
import { VALUE_KINDS } from './value/values.ts';

/** Up to this size what is below each coat is kept, so that changing one makes only those above it again. */
const KEPT_SIZE = 1024;

const kindOf = ({ by }: CoatOutput) => VALUE_KINDS[by] as unknown as ValueKind;

/** Whether an output puts something into its channel. */
const isInUse = (output: CoatOutput): boolean =>
  output.on && output.strength > 0 && kindOf(output).channels.includes(output.channel);

/** What a coat's result depends on: not its name. */
export const essenceOf = ({ visible, strength, parts, outputs }: Coat) =>
  visible && strength > 0 && outputs.some(isInUse) ? [strength, parts, outputs.filter(isInUse)] : null;

/** Coats that have an effect. */
export const coatsInUse = (stack: readonly Coat[]): Coat[] =>
  stack.filter((coat) => essenceOf(coat) !== null);

/** Whether some coat that has an effect puts something into a channel. */
export const changes = (stack: readonly Coat[], channel: Channel): boolean =>
  coatsInUse(stack).some(({ outputs }) => outputs.some((one) => isInUse(one) && one.channel === channel));

/** The surface below all coats. A specular map that was supplied is brought to base colour and metallic. */
function* startingLayers({ join, gauge, relief, finish }: CoatsInput): Steps<Layers> {
  const material = {
    colour: gauge.albedo,
    metallic: finish.metallic,
    f0: finish.f0,
    isF0Whole: finish.isTruth,
  };
  const heightMm = new Float32Array(relief.height.length);
  yield* inParts(heightMm.length, (from, to) => {
    for (let i = from; i < to; i++) heightMm[i] = relief.height[i] * relief.depthMm;
  });
  return {
    colour: albedoOf(material),
    roughness: finish.roughness,
    metallic: metallicChannel(material),
    f0: finish.isTruth ? [0.04, 0.04, 0.04] : finish.f0,
    opacity: join.alpha,
    emission: join.given.emission ?? null,
    heightMm,
  };
}

/** A scene above some layers; what follows from their height is made once. */
function sceneOf(
  input: CoatsInput,
  below: Layers,
  frame: Frame,
  context: WorkContext,
  isLower: boolean,
): Scene {
  const made: { [K in keyof Shape]?: Promise<Shape[K]> } = {};
  const { relief } = input;
  return {
    input,
    below,
    frame,
    context,
    cover: 1,
    normal: () =>
      (made.normal ??= isLower
        ? normalOf(below.heightMm, relief, frame, context)
        : Promise.resolve(relief.normal)),
    cavity: () =>
      (made.cavity ??= isLower
        ? cavityOf(below.heightMm, relief, frame, context)
        : Promise.resolve(relief.cavity)),
    occlusion: () =>
      (made.occlusion ??= isLower
        ? occlusionOf(below.heightMm, relief, frame, context)
        : Promise.resolve(relief.occlusion)),
  };
}

/** A cover times a strength. */
function* weaker(cover: SurfaceChannel, strength: number): Steps<SurfaceChannel> {
  if (strength === 1) return cover;
  if (typeof cover === 'number') return cover * strength;
  const out = new Float32Array(cover.length);
  yield* inParts(out.length, (from, to) => {
    for (let i = from; i < to; i++) out[i] = cover[i] * strength;
  });
  return out;
}

const copied = (raster: Raster): Raster => raster.mapPlanes((plane) => plane.slice());

/** The picture that a colour is blended into: a copy of what is below. */
function colourBelow(below: Layers, channel: 'colour' | 'emission' | 'f0', { width, height }: Frame): Raster {
  const known = below[channel];
  if (known instanceof Raster) return copied(known);
  const of: readonly number[] = known ?? [0, 0, 0];
  return new Raster(
    width,
    height,
    of.map((value) => new Float32Array(width * height).fill(value)),
  );
}

/** The layers with one output of a coat put in. */
async function withOutput(
  below: Layers,
  output: CoatOutput,
  value: Value,
  cover: SurfaceChannel,
  frame: Frame,
  { checkpoint }: WorkContext,
): Promise<Layers> {
  const { channel } = output;
  const share = await runSteps(weaker(cover, output.strength), checkpoint);
  if (share === 0) return below;
  const mode = BLEND_MODES[output.blend];
  if (isColourChannel(channel) && value.kind === 'colour') {
    const picture = colourBelow(below, channel, frame);
    await runSteps(blendingColour(picture, value.of, share, mode, output.inLight), checkpoint);
    return { ...below, [channel]: picture };
  }
  if (isColourChannel(channel) || value.kind === 'colour') return below;
  if (channel === 'height') {
    const heightMm = below.heightMm.slice();
    await runSteps(blendingHeight(heightMm, value.of, share, output.heightBlend), checkpoint);
    return { ...below, heightMm };
  }
  const known = below[channel] ?? 1;
  const own = typeof known === 'number' ? known : known.slice();
  const count = frame.width * frame.height;
  return {
    ...below,
    [channel]: await runSteps(blendingChannel(own, value.of, share, mode, count), checkpoint),
  };
}

/** The layers with one coat over them. All its outputs see the same layers below. */
async function withCoat(coat: Coat, scene: Scene): Promise<Layers> {
  const { frame, context } = scene;
  scene.cover = await runSteps(weaker(await coatCover(coat.parts, scene), coat.strength), context.checkpoint);
  let layers = scene.below;
  for (const output of coat.outputs.filter(isInUse)) {
    await context.checkpoint(0.5);
    const value = await kindOf(output).value(output as never, output.channel, scene);
    if (value) layers = await withOutput(layers, output, value, scene.cover, frame, context);
  }
  return layers;
}

/** The surface with all coats over it that have an effect. */
export async function coated(
  stack: readonly Coat[],
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<Layers> {
  const coats = coatsInUse(stack);
  const start = await context.part('below all', frame.edgeMetres, () =>
    runSteps(startingLayers(input), context.checkpoint),
  );
  let layers = start;
  for (const [k, coat] of coats.entries()) {
    const under = layers;
    const make = () => {
      const isLower = under.heightMm !== start.heightMm;
      return withCoat(coat, sceneOf(input, under, frame, context, isLower));
    };
    const isKept = frame.size <= KEPT_SIZE;
    const before = coats.slice(0, k + 1).map(essenceOf);
    layers = isKept ? await context.part('coat', [before, keyOfFrame(frame)], make) : await make();
    await context.checkpoint((k + 1) / coats.length);
  }
  return layers;
}

/** What coats depend on of the frame, beside the size. */
export const keyOfFrame = ({ edgeMetres, seed, masks }: Frame) => [
  edgeMetres,
  seed,
  masks.map(({ id, parts }) => [id, parts]),
];

/** Opacity as a plane, or null where the tile is opaque. */
export function opacityPlane(opacity: SurfaceChannel | null, count: number): Float32Array | null {
  if (opacity === null || opacity === 1) return null;
  return planeOfChannel(opacity, count);
}
