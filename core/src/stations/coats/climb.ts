import { keyOf } from '../../hashing/key-of.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { Raster } from '../../raster/raster.ts';
import { albedoOf, metallicChannel } from '../../surface/metalness.ts';
import { type SurfaceChannel, strided } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import { sharedCopy, type Team } from '../../team/team.ts';
import type { Frame } from '../../tile/frame.ts';
import { inParts, runSteps, type Steps } from '../../work/steps.ts';
import { blendingHeight } from './blend/heights.ts';
import { type Above, blendChannel, blendColour } from './blend/over.ts';
import { KEPT_SIZE, keyOfFrame } from './kept.ts';
import { type Channel, isColourChannel, LAYERS, type Layers } from './layers.ts';
import { coatCover, combining, partPlane } from './mask/cover.ts';
import type { CoatsInput, Scene } from './scene.ts';
import type { Coat, CoatOutput, CoatsSettings } from './settings.ts';
import { giveBackShape, type Shape, shapeOf } from './shaping.ts';
import { coatsInUse, colourLine, essenceOf, isInUse, kindOf, type UsedCoat } from './stack.ts';
import type { Value } from './value/kind.ts';

/** What the coats are put over, and what belongs to this climb alone: made on its way and kept by nobody, so that it may be written over. */
interface Climb {
  input: CoatsInput;
  frame: Frame;
  context: WorkContext;
  start: Layers;
  own: Set<unknown>;
}

/** The surface below all coats. A specular map that was supplied is brought to base colour and metallic. */
function* startingLayers({ style, gauge, relief, finish }: CoatsInput): Steps<Layers> {
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
    opacity: style.alpha,
    emission: style.given.emission ?? null,
    heightMm,
  };
}

/** Covers from here on belong to a coat, where its colour is measured. */
const COVERED = 0.9;

/** A scene above some layers. */
function sceneOf(below: Layers, { input, frame, context, start, own }: Climb): Scene {
  const { relief } = input;
  const isLower = below.heightMm !== start.heightMm;
  const of = <K extends keyof Shape>(what: K): Promise<Shape[K]> =>
    isLower
      ? shapeOf(what, below.heightMm, relief, frame, context)
      : Promise.resolve(relief[what] as Shape[K]);
  return {
    input,
    below,
    frame,
    context,
    isLasting: (name) => !own.has(below[name]),
    cover: 1,
    strokes: () => [],
    part: async () => 0,
    normal: () => of('normal'),
    cavity: () => of('cavity'),
    occlusion: () => of('occlusion'),
  };
}

/** A cover times a strength, a plane written over. */
function* weaken(cover: SurfaceChannel, strength: number): Steps<SurfaceChannel> {
  if (strength === 1) return cover;
  const { plane } = strided(cover);
  const by = Float32Array.of(strength);
  yield* inParts(plane.length, (from, to) => KERNELS.combineCovers(plane.subarray(from, to), by, 'and'));
  return typeof cover === 'number' ? plane[0] : plane;
}

const ownCover = (cover: SurfaceChannel, team: Team): SurfaceChannel =>
  typeof cover === 'number' ? cover : sharedCopy(cover, team);

/** Gives back what nobody reads any more. */
const giveBack = (one: SurfaceChannel | Above, team: Team): void => {
  if (one instanceof Raster) team.give(...new Set(one.planes));
  else if (one instanceof Float32Array) team.give(one);
  else if (typeof one === 'object' && 'tables' in one) team.give(one.values);
};

/** The picture that a colour is blended into: what is below, or a copy of it where others still look at it. */
function colourBelow(
  below: Layers,
  channel: 'colour' | 'emission' | 'f0',
  isReadLater: boolean,
  { frame: { width, height }, context: { team }, own }: Climb,
): Raster {
  const known = below[channel];
  if (known instanceof Raster) {
    const isFree = !isReadLater && own.delete(known);
    const copied = (plane: Float32Array) => sharedCopy(plane, team);
    return isFree ? new Raster(width, height, known.planes) : known.mapPlanes(copied);
  }
  const of: readonly number[] = known ?? [0, 0, 0];
  return new Raster(
    width,
    height,
    of.map((value) => team.take(width * height).fill(value)),
  );
}

/** The layers with one output of a coat put in. */
async function withOutput(
  below: Layers,
  output: CoatOutput,
  value: Value,
  share: SurfaceChannel,
  isReadLater: boolean,
  climb: Climb,
): Promise<Layers> {
  const { frame, own, context } = climb;
  const { channel, blend } = output;
  if (isColourChannel(channel) && value.kind === 'colour') {
    const picture = colourBelow(below, channel, isReadLater, climb);
    own.add(picture);
    await blendColour(picture, value.of, share, blend, output.inLight, context);
    return { ...below, [channel]: picture };
  }
  if (isColourChannel(channel) || value.kind === 'colour') return below;
  if (channel === 'height') {
    const heightMm = sharedCopy(below.heightMm, context.team);
    own.add(heightMm);
    await runSteps(blendingHeight(heightMm, value.of, share, output.heightBlend), context.checkpoint);
    return { ...below, heightMm };
  }
  const before = ownCover(below[channel] ?? 1, context.team);
  const count = frame.width * frame.height;
  const blended = await blendChannel(before, value.of, share, blend, count, context);
  if (typeof blended !== 'number') own.add(blended);
  return { ...below, [channel]: blended };
}

/** The layers with one output of a coat put in as strongly as it is set, where the coat and its value are. */
async function withStrength(
  below: Layers,
  output: CoatOutput,
  value: Value,
  cover: SurfaceChannel,
  isReadLater: boolean,
  climb: Climb,
): Promise<Layers> {
  const { frame } = climb;
  const count = frame.width * frame.height;
  const { checkpoint, team } = climb.context;
  const isWhole = output.strength === 1 && !value.cover;
  let share = isWhole ? cover : await runSteps(weaken(ownCover(cover, team), output.strength), checkpoint);
  if (value.cover) share = await runSteps(combining(share, value.cover, 'and', count), checkpoint);
  const layers = share === 0 ? below : await withOutput(below, output, value, share, isReadLater, climb);
  if (!isWhole) giveBack(share, team);
  if (value.isOwn) giveBack(value.of, team);
  return layers;
}

/** Where a coat is, 0..1: its own mask within those of its groups, as strong as all of them. */
async function wholeCover({ coat, groups }: UsedCoat, scene: Scene): Promise<SurfaceChannel> {
  const { checkpoint, team } = scene.context;
  const count = scene.frame.width * scene.frame.height;
  let cover = await runSteps(weaken(await coatCover(coat.parts, scene), coat.strength), checkpoint);
  for (const group of groups) {
    const own = await runSteps(weaken(await coatCover(group.parts, scene), group.strength), checkpoint);
    cover = await runSteps(combining(cover, own, 'and', count), checkpoint);
    if (own !== cover) giveBack(own, team);
  }
  return cover;
}

/** Lets the values of a coat read the parts of its mask. */
function seeMask(scene: Scene, { parts }: Coat): void {
  scene.part = (place, plane) => partPlane(parts, place, plane, scene);
  scene.strokes = (place) => {
    const part = parts[place];
    return part?.by === 'strokes' ? part.strokes : [];
  };
}

/** What of the layers below an output reads. */
const readsOf = (output: CoatOutput): readonly (keyof Layers)[] => kindOf(output).reads(output as never);

/** Where a coat with a chart line covers the tile wholly, kept for the verdict; `key` is that of all coats up to it. */
async function keepFace(cover: SurfaceChannel, key: string, { frame, context }: Climb): Promise<void> {
  await context.part('face of a line', [key, keyOfFrame(frame)], () => faceOf(cover, frame));
}

/** Bytes other than 0 where a cover is whole. */
function faceOf(cover: SurfaceChannel, { width, height }: Frame): Uint8Array {
  const face = new Uint8Array(width * height);
  if (typeof cover === 'number') return face.fill(cover >= COVERED ? 1 : 0);
  // No branch, which the processor would predict wrongly all along a patchy mask.
  for (let i = 0; i < face.length; i++) face[i] = Number(cover[i] >= COVERED);
  return face;
}

/** Where a coat that is in use covers the tile wholly, bytes other than 0 there. */
export async function coatFace(
  id: string,
  settings: CoatsSettings,
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<Uint8Array> {
  const coats = coatsInUse(settings);
  const at = coats.findIndex(({ coat }) => coat.id === id);
  const key = keysOf(coats)[at];
  const known = context.known<Uint8Array>('face of a line', [key, keyOfFrame(frame)]);
  if (known) return known;
  const below = await sceneBelow(id, settings, input, frame, context);
  return faceOf(below ? (await coatAlone(below, null)).cover : 0, frame);
}

/** The layers with one coat over them. All its outputs see the same layers below. `key` is that of all coats up to it. */
async function withCoat(used: UsedCoat, below: Layers, key: string, climb: Climb): Promise<Layers> {
  const scene = sceneOf(below, climb);
  const { coat } = used;
  scene.cover = await wholeCover(used, scene);
  if (climb.frame.size <= KEPT_SIZE && colourLine(coat)) await keepFace(scene.cover, key, climb);
  seeMask(scene, coat);
  let layers = below;
  const outputs = coat.outputs.filter(isInUse);
  for (const [k, output] of outputs.entries()) {
    await climb.context.checkpoint(0.5);
    const value = await kindOf(output).value(output as never, output.channel, scene);
    if (!value) continue;
    const isReadLater = outputs
      .slice(k + 1)
      .some((later) => readsOf(later).includes(output.channel as never));
    layers = await withStrength(layers, output, value, scene.cover, isReadLater, climb);
  }
  giveBack(scene.cover, climb.context.team);
  release(below, layers, climb);
  return layers;
}

/** Gives back what only the layers below a coat had, now that it lies over them. */
function release(below: Layers, above: Layers, { own, context: { team } }: Climb): void {
  for (const name of LAYERS) {
    const layer = below[name];
    if (layer === above[name] || !own.delete(layer)) continue;
    if (name === 'heightMm') giveBackShape(below.heightMm, team);
    if (layer instanceof Raster) team.give(...layer.planes);
    else if (layer instanceof Float32Array) team.give(layer);
  }
}

/** The surface with all coats over it that have an effect. */
export async function coated(
  settings: CoatsSettings,
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
  what: 'whole' | 'height' = 'whole',
): Promise<Layers> {
  const { layers } = await climbed(coatsInUse(settings), what, input, frame, context);
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
  const { layers, climb } = await climbed(coats.slice(0, at), 'below', input, frame, context);
  return { used: coats[at], scene: sceneOf(layers, climb) };
}

/** What a coat covers, 0..1, and what it would put into one channel, before that is blended with what is below. */
export async function coatAlone(
  { used, scene }: { used: UsedCoat; scene: Scene },
  channel: Channel | null,
): Promise<{ cover: SurfaceChannel; value: Value | null }> {
  scene.cover = await wholeCover(used, scene);
  seeMask(scene, used.coat);
  const output = used.coat.outputs.find((one) => isInUse(one) && one.channel === channel);
  const value = output ? await kindOf(output).value(output as never, output.channel, scene) : null;
  return { cover: scene.cover, value };
}

/** For each coat, what it and all below it depend on. */
function keysOf(coats: readonly UsedCoat[]): string[] {
  const keys: string[] = [];
  for (const used of coats) keys.push(keyOf([keys.at(-1) ?? '', essenceOf(used)]));
  return keys;
}

/** How many coats of two stacks are the same, from the lowest up. */
function sameCoats(a: readonly string[], b: readonly string[]): number {
  const other = a.findIndex((key, k) => key !== b[k]);
  return other < 0 ? a.length : other;
}

/**
 * All coats over the surface. What lies below the lowest of those that changed since the last time is kept, so that the next
 * move of the same dial begins there; so are the layers at the end, unless they are the whole surface, which others keep.
 */
async function climbed(
  coats: readonly UsedCoat[],
  what: 'whole' | 'height' | 'below',
  input: CoatsInput,
  frame: Frame,
  context: WorkContext,
): Promise<{ layers: Layers; climb: Climb }> {
  const start = await context.part('below all', frame.edgeMetres, () =>
    runSteps(startingLayers(input), context.checkpoint),
  );
  const climb: Climb = { input, frame, context, start, own: new Set() };
  const isKept = frame.size <= KEPT_SIZE;
  const place = keyOfFrame(frame);
  const keys = keysOf(coats);
  const last = await context.part('last coats', [what, place], () => ({ keys: [] as string[] }));
  const unchanged = sameCoats(keys, last.keys);
  last.keys = keys;
  let at = isKept ? keys.length : 0;
  let layers: Layers | undefined;
  while (at > 0 && !layers) {
    layers = context.known<Layers>('coats so far', [keys[at - 1], place]);
    if (!layers) at--;
  }
  layers ??= start;
  const marks = new Set([unchanged, ...(what === 'whole' ? [] : [keys.length])]);
  for (let k = at; k < coats.length; k++) {
    layers = await withCoat(coats[k], layers, keys[k], climb);
    if (isKept && marks.has(k + 1)) {
      const made = layers;
      await context.part('coats so far', [keys[k], place], () => made);
      climb.own.clear();
    }
    await context.checkpoint((k + 1) / coats.length);
    if (!isKept) context.collect();
  }
  return { layers, climb };
}
