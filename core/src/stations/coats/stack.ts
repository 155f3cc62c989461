import { PLANES } from '../../memory/pool.ts';
import { Raster } from '../../raster/raster.ts';
import { albedoOf, metallicChannel } from '../../surface/metalness.ts';
import { planeOfChannel, type SurfaceChannel, strided } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';
import { blendingHeight } from './blend/heights.ts';
import { BLEND_MODES } from './blend/modes.ts';
import { blendingChannel, blendingColour } from './blend/over.ts';
import { groupsOf } from './groups.ts';
import { type Channel, isColourChannel, type Layers } from './layers.ts';
import { coatCover, combining, partPlane } from './mask/cover.ts';
import { type CoatsInput, KEPT_SIZE, type Scene } from './scene.ts';
import type { Coat, CoatGroup, CoatOutput, CoatsSettings } from './settings.ts';
import { cavityOf, normalOf, occlusionOf, type Shape } from './shaping.ts';
import type { Value, ValueKind } from './value/kind.ts';
import { VALUE_KINDS } from './value/values.ts';

const kindOf = ({ by }: CoatOutput) => VALUE_KINDS[by] as unknown as ValueKind;

/** Whether an output puts something into its channel. */
const isInUse = (output: CoatOutput): boolean =>
  output.on && output.strength > 0 && kindOf(output).channels.includes(output.channel);

/** A coat that has an effect, with the groups that it is in. */
export interface UsedCoat {
  coat: Coat;
  groups: readonly CoatGroup[];
}

/** Coats that have an effect, the lowest first. */
export const coatsInUse = ({ stack, groups }: CoatsSettings): UsedCoat[] =>
  stack.flatMap((coat) => {
    const own = groupsOf(coat, groups);
    const counts = [coat, ...own].every(({ visible, strength }) => visible && strength > 0);
    return counts && coat.outputs.some(isInUse) ? [{ coat, groups: own }] : [];
  });

/** What a coat's result depends on: no names. */
export const essenceOf = ({ coat: { strength, parts, outputs }, groups }: UsedCoat) => [
  strength,
  parts,
  outputs.filter(isInUse),
  groups.map((group) => [group.strength, group.parts]),
];

/** Coats as far as the topmost that changes the height: what the height depends on. */
export function coatsOfHeight(settings: CoatsSettings): CoatsSettings {
  const last = coatsInUse(settings).findLast(({ coat }) =>
    coat.outputs.some((one) => isInUse(one) && one.channel === 'height'),
  );
  const count = last ? settings.stack.indexOf(last.coat) + 1 : 0;
  return { ...settings, stack: settings.stack.slice(0, count) };
}

/** Whether some coat that has an effect puts something into a channel. */
export const changes = (settings: CoatsSettings, channel: Channel): boolean =>
  coatsInUse(settings).some(({ coat }) =>
    coat.outputs.some((one) => isInUse(one) && one.channel === channel),
  );

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

/** What follows from a height, made once however many coats see it. */
type Shapes = WeakMap<Float32Array, { [K in keyof Shape]?: Promise<Shape[K]> }>;

/** A scene above some layers. */
function sceneOf(
  input: CoatsInput,
  below: Layers,
  frame: Frame,
  context: WorkContext,
  { shapes, isLower }: { shapes: Shapes; isLower: boolean },
): Scene {
  const made = shapes.get(below.heightMm) ?? {};
  shapes.set(below.heightMm, made);
  const { relief } = input;
  const of = <K extends keyof Shape>(
    what: K,
    make: (heightMm: Float32Array, from: typeof relief, on: Frame, work: WorkContext) => Promise<Shape[K]>,
  ): Promise<Shape[K]> => {
    if (!isLower) return Promise.resolve(relief[what] as Shape[K]);
    made[what] ??= make(below.heightMm, relief, frame, context) as (typeof made)[K];
    return made[what] as Promise<Shape[K]>;
  };
  return {
    input,
    below,
    frame,
    context,
    cover: 1,
    part: async () => 0,
    normal: () => of('normal', normalOf),
    cavity: () => of('cavity', cavityOf),
    occlusion: () => of('occlusion', occlusionOf),
  };
}

/** A cover times a strength, a plane written over. */
function* weaken(cover: SurfaceChannel, strength: number): Steps<SurfaceChannel> {
  if (strength === 1) return cover;
  const { plane } = strided(cover);
  yield* inParts(plane.length, (from, to) => {
    for (let i = from; i < to; i++) plane[i] *= strength;
  });
  return typeof cover === 'number' ? plane[0] : plane;
}

/** A copy of a plane, in one that was given back where there is such. */
function copyOf(plane: Float32Array): Float32Array {
  const out = PLANES.take(plane.length);
  out.set(plane);
  return out;
}

const ownCover = (cover: SurfaceChannel): SurfaceChannel =>
  typeof cover === 'number' ? cover : copyOf(cover);

/** Gives back what nobody reads any more. */
const giveBack = (...all: (SurfaceChannel | Raster | readonly number[] | undefined)[]): void => {
  for (const one of all) {
    if (one instanceof Raster) PLANES.give(...new Set(one.planes));
    else if (one instanceof Float32Array) PLANES.give(one);
  }
};

const copied = (raster: Raster): Raster => raster.mapPlanes(copyOf);

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
  share: SurfaceChannel,
  frame: Frame,
  { checkpoint }: WorkContext,
): Promise<Layers> {
  const { channel } = output;
  const mode = BLEND_MODES[output.blend];
  if (isColourChannel(channel) && value.kind === 'colour') {
    const picture = colourBelow(below, channel, frame);
    await runSteps(blendingColour(picture, value.of, share, mode, output.inLight), checkpoint);
    return { ...below, [channel]: picture };
  }
  if (isColourChannel(channel) || value.kind === 'colour') return below;
  if (channel === 'height') {
    const heightMm = copyOf(below.heightMm);
    await runSteps(blendingHeight(heightMm, value.of, share, output.heightBlend), checkpoint);
    return { ...below, heightMm };
  }
  const own = ownCover(below[channel] ?? 1);
  const count = frame.width * frame.height;
  return {
    ...below,
    [channel]: await runSteps(blendingChannel(own, value.of, share, mode, count), checkpoint),
  };
}

/** The layers with one output of a coat put in as strongly as it is set, where the coat and its value are. */
async function withStrength(
  below: Layers,
  output: CoatOutput,
  value: Value,
  cover: SurfaceChannel,
  frame: Frame,
  context: WorkContext,
): Promise<Layers> {
  const count = frame.width * frame.height;
  const { checkpoint } = context;
  const isWhole = output.strength === 1 && !value.cover;
  let share = isWhole ? cover : await runSteps(weaken(ownCover(cover), output.strength), checkpoint);
  if (value.cover) share = await runSteps(combining(share, value.cover, 'and', count), checkpoint);
  const layers = share === 0 ? below : await withOutput(below, output, value, share, frame, context);
  if (!isWhole) giveBack(share);
  if (value.isOwn) giveBack(value.of);
  return layers;
}

/** Where a coat is, 0..1: its own mask within those of its groups, as strong as all of them. */
async function wholeCover({ coat, groups }: UsedCoat, scene: Scene): Promise<SurfaceChannel> {
  const { checkpoint } = scene.context;
  const count = scene.frame.width * scene.frame.height;
  let cover = await runSteps(weaken(await coatCover(coat.parts, scene), coat.strength), checkpoint);
  for (const group of groups) {
    const own = await runSteps(weaken(await coatCover(group.parts, scene), group.strength), checkpoint);
    cover = await runSteps(combining(cover, own, 'and', count), checkpoint);
    if (own !== cover) giveBack(own);
  }
  return cover;
}

/** The layers with one coat over them. All its outputs see the same layers below. */
async function withCoat(used: UsedCoat, scene: Scene): Promise<Layers> {
  const { frame, context } = scene;
  const { coat } = used;
  scene.cover = await wholeCover(used, scene);
  scene.part = (place, plane) => partPlane(coat.parts, place, plane, scene);
  let layers = scene.below;
  for (const output of coat.outputs.filter(isInUse)) {
    await context.checkpoint(0.5);
    const value = await kindOf(output).value(output as never, output.channel, scene);
    if (value) layers = await withStrength(layers, output, value, scene.cover, frame, context);
  }
  giveBack(scene.cover);
  return layers;
}

/** The surface with all coats over it that have an effect. */
export async function coated(
  settings: CoatsSettings,
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<Layers> {
  const { layers } = await climbed(coatsInUse(settings), input, frame, context);
  return layers;
}

/** What is below a coat that has an effect, as its mask and its values see it; null where it has none. */
export async function sceneBelow(
  id: string,
  settings: CoatsSettings,
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<{ used: UsedCoat; scene: Scene } | null> {
  const shown = {
    ...settings,
    stack: settings.stack.map((coat) => (coat.id === id ? { ...coat, visible: true } : coat)),
  };
  const coats = coatsInUse(shown);
  const at = coats.findIndex(({ coat }) => coat.id === id);
  if (at < 0) return null;
  const { layers, start } = await climbed(coats.slice(0, at), input, frame, context);
  const isLower = layers.heightMm !== start.heightMm;
  const scene = sceneOf(input, layers, frame, context, { shapes: new WeakMap(), isLower });
  return { used: coats[at], scene };
}

/** What a coat covers, 0..1, and what it would put into one channel, before that is blended with what is below. */
export async function coatAlone(
  { used, scene }: { used: UsedCoat; scene: Scene },
  channel: Channel | null,
): Promise<{ cover: SurfaceChannel; value: Value | null }> {
  scene.cover = await wholeCover(used, scene);
  scene.part = (place, plane) => partPlane(used.coat.parts, place, plane, scene);
  const output = used.coat.outputs.find((one) => isInUse(one) && one.channel === channel);
  const value = output ? await kindOf(output).value(output as never, output.channel, scene) : null;
  return { cover: scene.cover, value };
}

async function climbed(
  coats: readonly UsedCoat[],
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<{ layers: Layers; start: Layers }> {
  const start = await context.part('below all', frame.edgeMetres, () =>
    runSteps(startingLayers(input), context.checkpoint),
  );
  const shapes: Shapes = new WeakMap();
  let layers = start;
  for (const [k, used] of coats.entries()) {
    const under = layers;
    const make = () => {
      const isLower = under.heightMm !== start.heightMm;
      return withCoat(used, sceneOf(input, under, frame, context, { shapes, isLower }));
    };
    const before = coats.slice(0, k + 1).map(essenceOf);
    const isKept = frame.size <= KEPT_SIZE;
    layers = isKept ? await context.part('coat', [before, keyOfFrame(frame)], make) : await make();
    await context.checkpoint((k + 1) / coats.length);
  }
  return { layers, start };
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
