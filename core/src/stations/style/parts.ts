import { blurPlanes } from '../../filters/blur-planes.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { Slabs } from '../../memory/slabs.ts';
import { Raster } from '../../raster/raster.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { Sharing, WorkContext } from '../../team/context.ts';
import { ALONE, sharedCopy } from '../../team/team.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps } from '../../work/steps.ts';
import type { JoinOutput } from '../join/output.ts';
import { detailBands } from '../relief/bands.ts';
import { toLab, toLinear } from './colours.ts';
import type { StyleDecision } from './decision.ts';
import { filled } from './fill.ts';
import { carved, guideFrom, guideHeight, ofBands, standing } from './guide.ts';
import { planesOf } from './interleaved.ts';
import { layersOf } from './layers.ts';
import { type LightRelief, lightRelief } from './light.ts';
import { BROAD } from './mix.ts';
import type { PaintedRelief } from './output.ts';
import { drawnShareOf, ownSize } from './own-size.ts';
import { guideOf, painting, strokeContrast, strokeList } from './paint.ts';
import { drawingTo } from './palette.ts';
import type { StyleSettings } from './settings.ts';
import { simplified } from './simplify.ts';
import { type Ground, type Stroke, unpacked } from './strokes.ts';

/** Depth of the strokes' ridges, as a share of the height's range, at a dial of 1. */
const RIDGE_DEPTH = 0.35;
/** Up to this size what is made on the way is kept, so that a dial makes again only what depends on it. */
const LARGEST_KEPT = 2048;

/** What a picture is painted with: `done` gives back planes that are not needed any more, where nothing is kept. */
export interface Painter extends WorkContext {
  /** Whether nothing is kept. */
  isSparing: boolean;
  done(...planes: Float32Array[]): void;
}

/**
 * What works on a tile of this size. Above the largest that is kept memory is spared: planes are used again as soon as they have been
 * read for the last time, by one thread alone, as memory that threads share is not released at once.
 */
export function painterFor({ size, width, height }: Frame, context: WorkContext): Painter {
  if (size <= LARGEST_KEPT) return { ...context, isSparing: false, done: () => {} };
  const slabs = new Slabs(width * height);
  const take = (length: number) => slabs.take(length);
  const give = (...all: Float32Array[]) => slabs.give(...all);
  const team = { ...ALONE, take, give, empty: (length: number) => take(length).fill(0) };
  return { ...context, team, part: async (_name, _on, make) => make(), isSparing: true, done: give };
}

/** What is repainted: the tile as Join left it, filled in under what is transparent. */
export async function groundOn(join: JoinOutput, frame: Frame, context: Painter): Promise<JoinOutput> {
  const { picture, alpha } = join;
  if (!alpha) return join;
  const planes = await context.part('filled', frame.edges, () =>
    runSteps(filled(picture.planes, alpha, frame, frame.edges), context.checkpoint),
  );
  return { ...join, picture: new Raster(frame.width, frame.height, planes) };
}

/** The tile's colours in OKLab. */
export const labOf = ({ picture }: JoinOutput, frame: Frame, context: Painter): Promise<Float32Array[]> =>
  context.part('lab', frame.edges, () => toLab(picture, context));

/** The picture and its height, simplified: L, a, b, height. */
export const simplifiedOf = (
  join: JoinOutput,
  { shape, degrees }: Pick<StyleDecision, 'shape' | 'degrees'>,
  frame: Frame,
  context: Painter,
): Promise<Float32Array[]> =>
  context.part('simplified', [shape, degrees, frame.reading], async () => {
    const lab = await labOf(join, frame, context);
    const guide = await guideHeight(join, degrees, frame, context);
    const made = await simplified([...lab, guide], shape, frame, context, () => context.done(...lab, guide));
    await context.onTheWay(() => toLinear(made, frame, context));
    return made;
  });

const seedOf = (frame: Frame, { seed }: StyleSettings) => frame.seed * 9973 + seed;

/** Where strokes are planned. */
export const groundOf = (sides: Ground['sides'], frame: Frame, chosen: StyleSettings): Ground => ({
  sides,
  origin: [0, 0],
  seed: seedOf(frame, chosen),
});

type Stroked = Pick<StyleDecision, 'own' | 'drawn' | 'palette' | 'strokes' | 'shape' | 'degrees' | 'sides'>;

/** The picture under strokes, and its ridges: L, a, b, ridge. `known` are the strokes where they have just been planned. */
export const strokedOf = (
  simple: readonly Float32Array[],
  decided: Stroked,
  known: readonly Stroke[] | null,
  chosen: StyleSettings,
  frame: Frame,
  context: Painter,
): Promise<Float32Array[]> => {
  const { brush, marks, variety, edges, colours, seed } = chosen;
  const { shape, degrees, palette, strokes, own, drawn, sides } = decided;
  const key = [
    shape,
    degrees,
    frame.reading,
    strokes,
    brush,
    marks,
    variety,
    edges,
    colours,
    seed,
    frame.seed,
  ];
  return context.part('stroked', key, async () => {
    const share = colours * (0.6 + 0.4 * colours);
    // Both outlive a change of the brush.
    const looks = [shape, degrees, frame.reading];
    const contrast = await context.part('contrast', looks, () => strokeContrast(simple, frame, context));
    const guide = await guideOf(simple, contrast, { edges, drawn }, frame, context);
    context.done(contrast);
    const on = await context.part('drawn to the palette', [looks, palette, share], () =>
      drawingTo(simple, palette, share, frame, context),
    );
    const canvas = context.isSparing ? on : sharedCopy(on, context.team);
    await context.checkpoint(0.4);
    const easel = { canvas, guide, width: frame.width, height: frame.height };
    const ground = groundOf({ width: sides[0], height: sides[1] }, frame, chosen);
    const layers = layersOf(brush, own, drawn);
    const planned = known ?? unpacked(strokes);
    // Layer by layer, so that the picture is painted before one's eyes.
    for (const n of layers.keys()) {
      const ofLayer = planned.filter(({ layer }) => layer === n);
      const list = strokeList(ofLayer, layers, ground, frame, palette, chosen);
      await painting(easel, list, seedOf(frame, chosen), frame.edges, context);
      if (n + 1 < layers.length) {
        await context.onTheWay(async () =>
          toLinear(await planesOf(easel.canvas, frame, context), frame, context),
        );
      }
    }
    context.team.give(easel.guide);
    const stroked = await planesOf(easel.canvas, frame, context);
    context.team.give(easel.canvas);
    return stroked;
  });
};

/** What light is painted by: the relief of the simplified height. */
export const lightReliefOf = (
  join: JoinOutput,
  simple: readonly Float32Array[],
  { shape, degrees }: Pick<StyleDecision, 'shape' | 'degrees'>,
  frame: Frame,
  context: Painter,
): Promise<LightRelief> =>
  context.part('light relief', [shape, degrees, frame.reading], async () => {
    const height = await standing(simple[3], guideFrom(join, frame), frame, context);
    const relief = await lightRelief(height, frame, context);
    if (height !== simple[3]) context.team.give(height);
    return relief;
  });

export const spreadOf = (planes: readonly Float32Array[]) => {
  const [a, b] = [statistics(planes[1]), statistics(planes[2])];
  return { a: a.mean, b: b.mean, deviation: Math.hypot(a.deviation, b.deviation) };
};

/** What is measured of the tile as it was, whatever the dials: its own size, its small drawing, its contrast, its colours' spread. */
export const measuredOf = (lab: readonly Float32Array[], frame: Frame, context: Painter) =>
  context.part('measured', frame.edges, async () => {
    const own = await ownSize(lab[0], frame, context);
    const drawn = await drawnShareOf(lab[0], frame, context);
    const sigma = BROAD * Math.min(frame.width, frame.height);
    const [broad] = await blurPlanes([{ plane: lab[0], sigma }], frame, context);
    const narrow = statistics(KERNELS.sumPlanes([lab[0], broad], [1, -1])).deviation;
    context.team.give(broad);
    return { own, drawn, narrow, deviation: spreadOf(lab).deviation };
  });

/** What counts as fine: finer than this share of the shorter edge. */
const FINE = 0.004;

/** Deviation of what is fine in a plane of lightness. */
export async function fineContrast(lightness: Float32Array, frame: Frame, context: Sharing): Promise<number> {
  const sigma = FINE * Math.min(frame.width, frame.height);
  const [soft] = await blurPlanes([{ plane: lightness, sigma }], frame, context);
  const fine = KERNELS.sumPlanes([lightness, soft], [1, -1]);
  const { deviation } = statistics(fine);
  context.team.give(soft, fine);
  return deviation;
}

/** The height that Relief is to read, and the ridges on it. */
export async function reliefOf(
  join: JoinOutput,
  simple: readonly Float32Array[],
  ridges: Float32Array,
  chosen: StyleSettings,
  frame: Frame,
  context: Painter,
): Promise<PaintedRelief> {
  const { heightBands, occlusionBands, depth, amount } = chosen;
  const soft = await carved(simple[3], frame, context);
  const height = await ofBands(soft, heightBands, frame, context);
  const isSame = heightBands.every((isUsed, k) => isUsed === occlusionBands[k]);
  const ofOcclusion = isSame ? null : await ofBands(soft, occlusionBands, frame, context);
  const scale = RIDGE_DEPTH * depth * Math.min(1, 2 * amount);
  return {
    from: guideFrom(join, frame),
    height,
    ofOcclusion,
    // Asked for later, when nobody waits for this evaluation any more: it may have been stopped.
    bands: () => detailBands(soft.slice(), frame, frame.edges, async () => {}),
    ridges: KERNELS.sumPlanes([ridges], [scale]),
  };
}
