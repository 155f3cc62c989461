import * as v from 'valibot';
import { essenceOf as masksEssence } from '../../masks/in-use.ts';
import type { Mask } from '../../masks/mask.ts';
import { statistics } from '../../statistics/statistics.ts';
import { type Surface, surfaceOf } from '../../surface/surface.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { PictureRef } from '../../tile/given.ts';
import { runSteps } from '../../work/steps.ts';
import { finish } from '../finish/station.ts';
import { gauge } from '../gauge/station.ts';
import { relief } from '../relief/station.ts';
import { station } from '../station.ts';
import { style } from '../style/station.ts';
import { coated } from './climb.ts';
import { keyOfFrame } from './kept.ts';
import type { Layers } from './layers.ts';
import { PART_KINDS } from './mask/parts.ts';
import type { CoatsOutput } from './output.ts';
import type { CoatsInput } from './scene.ts';
import { type CoatsSettings, settings } from './settings.ts';
import { type Shape, scaledHeight, shapeOf } from './shaping.ts';
import { changes, coatsInUse, coatsOfHeight, essenceOf, opacityPlane } from './stack.ts';
import { VALUE_KINDS } from './value/values.ts';
import { verdict } from './verdict.ts';

/** Between which heights in mm the height of the tile lies; null where coats leave it as Relief made it. */
const decisionSchema = v.strictObject({ rangeMm: v.nullable(v.tuple([v.number(), v.number()])) });
export type CoatsDecision = v.InferOutput<typeof decisionSchema>;

/** Zones that some coat is selected by. */
const usedMasks = (settings: CoatsSettings, masks: readonly Mask[]): readonly Mask[] => {
  const used = coatsInUse(settings).flatMap(({ coat, groups }) =>
    [coat, ...groups].flatMap(({ parts }) =>
      parts.flatMap((part) => (part.by === 'zone' ? [part.zone] : [])),
    ),
  );
  return masks.filter(({ id }) => used.includes(id));
};

/** Every picture that a mask or a value refers to, whether its coat counts or not, so that none is lost. */
function pictures({ stack, groups }: CoatsSettings): Record<string, PictureRef> {
  const found: Record<string, PictureRef> = {};
  const add = (of: string, kind: { pictures?: unknown }, given: unknown) => {
    const all =
      (kind.pictures as undefined | ((given: unknown) => Record<string, PictureRef>))?.(given) ?? {};
    for (const [name, ref] of Object.entries(all)) found[`${of}, ${name}`] = ref;
  };
  for (const { id, parts } of [...stack, ...groups]) {
    for (const [k, part] of parts.entries()) add(`${id}, mask part ${k + 1}`, PART_KINDS[part.by], part);
  }
  for (const { id, outputs } of stack) {
    for (const [k, output] of outputs.entries())
      add(`${id}, output ${k + 1}`, VALUE_KINDS[output.by], output);
  }
  return found;
}

/** What of a surface coats changed: the shape in mm as Relief would make it of this height. */
async function shaped(
  { heightMm }: Layers,
  { relief }: CoatsInput,
  [lowMm, highMm]: [number, number],
  frame: Frame,
  context: WorkContext,
): Promise<Pick<Surface, 'relief' | 'depthMm' | 'normal' | 'cavity' | 'occlusion'>> {
  const of = async <K extends keyof Shape>(what: K): Promise<Shape[K]> => {
    const made = await shapeOf(what, heightMm, relief, frame, context);
    context.collect();
    return made;
  };
  return {
    relief: await runSteps(scaledHeight(heightMm, lowMm, highMm), context.checkpoint),
    depthMm: highMm - lowMm,
    normal: await of('normal'),
    cavity: await of('cavity'),
    occlusion: await of('occlusion'),
  };
}

/** Coats: layers over the tile, each a mask and what it puts into each map; and the closing of all maps. */
export const coats = station({
  name: 'coats',
  line: 'Add layers: moss, wear, patterns, paint.',
  settings,
  reads: [style, gauge, relief, finish],
  usedMasks,
  frameFacts: ({ edgeMetres }) => edgeMetres,
  pictures,
  cacheKey: (chosen, masks) => [coatsInUse(chosen).map(essenceOf), masksEssence(usedMasks(chosen, masks))],
  shows: 'albedo',
  weight: 6,
  of: 'tile',
  measuredLast: true,
  decision: decisionSchema,
  decidesOn: (chosen, frame) =>
    changes(chosen, 'height') ? [coatsInUse(coatsOfHeight(chosen)).map(essenceOf), keyOfFrame(frame)] : null,
  async decide(input: CoatsInput, chosen, frame, context): Promise<CoatsDecision> {
    if (!changes(chosen, 'height')) return { rangeMm: null };
    const { heightMm } = await coated(coatsOfHeight(chosen), input, frame, context, 'height');
    const { min, max } = statistics(heightMm);
    return { rangeMm: [min, max] };
  },
  async run(input, chosen, { rangeMm }, frame, context): Promise<CoatsOutput> {
    const plain = surfaceOf(input);
    if (coatsInUse(chosen).length === 0) return { ...plain, addedMm: [0, 0] };
    const layers = await coated(chosen, input, frame, context);
    const isReflecting = (['colour', 'metallic', 'f0'] as const).some((channel) => changes(chosen, channel));
    const reflecting = isReflecting
      ? { colour: layers.colour, metallic: layers.metallic, f0: layers.f0, isF0Whole: false }
      : {};
    const count = frame.width * frame.height;
    const shape = rangeMm ? await shaped(layers, input, rangeMm, frame, context) : {};
    return {
      ...plain,
      ...reflecting,
      roughness: layers.roughness,
      opacity: changes(chosen, 'opacity') ? opacityPlane(layers.opacity, count) : plain.opacity,
      emission: layers.emission,
      ...shape,
      addedMm: rangeMm ? addedTo(input, layers) : [0, 0],
    };
  },
  verdict,
});

/** How far the height was lowered and raised, mm. */
function addedTo({ relief: { height, depthMm } }: CoatsInput, { heightMm }: Layers): [number, number] {
  let low = 0;
  let high = 0;
  for (let i = 0; i < height.length; i++) {
    const added = heightMm[i] - depthMm * height[i];
    if (added < low) low = added;
    if (added > high) high = added;
  }
  return [low, high];
}
