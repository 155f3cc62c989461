import { blurPlanes } from '../../filters/blur-planes.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import { statistics } from '../../statistics/statistics.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import { runSteps } from '../../work/steps.ts';
import type { JoinOutput } from '../join/output.ts';
import { join } from '../join/station.ts';
import { detailBands } from '../relief/bands.ts';
import { station } from '../station.ts';
import { decisionSchema, type StyleDecision } from './decision.ts';
import { filled } from './fill.ts';
import { carved, guideFrom, guideHeight, ofBands, slantDegrees, standing } from './guide.ts';
import { planesOf } from './interleaved.ts';
import { layersOf } from './layers.ts';
import { type LightRelief, lightRelief, lightScale, lightStrength, paintingLight } from './light.ts';
import { BROAD, mixed } from './mix.ts';
import type { PaintedRelief, StyleOutput } from './output.ts';
import { drawnShareOf, keptShape, ownSize } from './own-size.ts';
import { newEasel, painting, strokeContrast, strokeList } from './paint.ts';
import { drawingTo, paletteCount, paletteOf } from './palette.ts';
import { planStrokes, wishFor } from './plan.ts';
import { paints, type StyleSettings, settings } from './settings.ts';
import { simplified } from './simplify.ts';
import { type Ground, packed, type Stroke, unpacked } from './strokes.ts';
import { toLab } from './to-lab.ts';
import { toLinear } from './to-linear.ts';
import { verdict } from './verdict.ts';
import { views } from './views.ts';

/** The spread of colour is given back by this much at most. */
const MOST_GAIN = 1.25;
const LEAST_SPREAD = 1e-4;
/** Depth of the strokes' ridges, as a share of the height's range, at a dial of 1. */
const RIDGE_DEPTH = 0.35;
const LEAN = 0.7;

/** What is repainted: the tile as Join left it, filled in under what is transparent. */
async function groundOn(join: JoinOutput, frame: Frame, context: WorkContext): Promise<JoinOutput> {
  const { picture, alpha } = join;
  if (!alpha) return join;
  const planes = await context.part('filled', frame.edges, () =>
    runSteps(filled(picture.planes, alpha, frame, frame.edges), context.checkpoint),
  );
  return { ...join, picture: new Raster(frame.width, frame.height, planes) };
}

/** The tile's colours in OKLab. */
const labOf = ({ picture }: JoinOutput, frame: Frame, context: WorkContext): Promise<Float32Array[]> =>
  context.part('lab', frame.edges, () => toLab(picture, context));

/** The picture and its height, simplified: L, a, b, height. */
const simplifiedOf = (
  join: JoinOutput,
  { shape, degrees }: Pick<StyleDecision, 'shape' | 'degrees'>,
  frame: Frame,
  context: WorkContext,
): Promise<Float32Array[]> =>
  context.part('simplified', [shape, degrees, frame.reading], async () => {
    const lab = await labOf(join, frame, context);
    const guide = await guideHeight(join, degrees, frame, context);
    const made = await simplified([...lab, guide], shape, frame, context);
    await context.onTheWay(() => toLinear(made, frame, context));
    return made;
  });

const seedOf = (frame: Frame, { seed }: StyleSettings) => frame.seed * 9973 + seed;

/** Where strokes are planned. */
const groundOf = (sides: Ground['sides'], frame: Frame, chosen: StyleSettings): Ground => ({
  sides,
  origin: [0, 0],
  seed: seedOf(frame, chosen),
});

type Stroked = Pick<StyleDecision, 'own' | 'drawn' | 'palette' | 'strokes' | 'shape' | 'degrees' | 'sides'>;

/** The picture under strokes, and its ridges: L, a, b, ridge. `known` are the strokes where they have just been planned. */
const strokedOf = (
  simple: readonly Float32Array[],
  decided: Stroked,
  known: readonly Stroke[] | null,
  chosen: StyleSettings,
  frame: Frame,
  context: WorkContext,
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
    const on = await context.part('drawn to the palette', [looks, palette, share], () =>
      drawingTo(simple, palette, share, frame, context),
    );
    const contrast = await context.part('contrast', looks, () => strokeContrast(simple, frame, context));
    await context.checkpoint(0.4);
    const ground = groundOf({ width: sides[0], height: sides[1] }, frame, chosen);
    const layers = layersOf(brush, own, drawn);
    const planned = known ?? unpacked(strokes);
    const easel = await newEasel(on, simple, contrast, { edges, drawn }, frame, context);
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
    const stroked = await planesOf(easel.canvas, frame, context);
    context.team.give(easel.canvas, easel.guide);
    return stroked;
  });
};

/** What light is painted by: the relief of the simplified height. */
const lightReliefOf = (
  join: JoinOutput,
  simple: readonly Float32Array[],
  { shape, degrees }: Pick<StyleDecision, 'shape' | 'degrees'>,
  frame: Frame,
  context: WorkContext,
): Promise<LightRelief> =>
  context.part('light relief', [shape, degrees, frame.reading], async () => {
    const height = await standing(simple[3], guideFrom(join, frame), frame, context);
    return lightRelief(height, frame, context);
  });

const spreadOf = (planes: readonly Float32Array[]) => {
  const [a, b] = [statistics(planes[1]), statistics(planes[2])];
  return { a: a.mean, b: b.mean, deviation: Math.hypot(a.deviation, b.deviation) };
};

/** What is measured of the tile as it was, whatever the dials: its own size, its small drawing, its contrast, its colours' spread. */
const measuredOf = (lab: readonly Float32Array[], frame: Frame, context: WorkContext) =>
  context.part('measured', frame.edges, async () => {
    const own = await ownSize(lab[0], frame, context);
    const drawn = await drawnShareOf(lab[0], frame, context);
    const sigma = BROAD * Math.min(frame.width, frame.height);
    const [broad] = await blurPlanes([{ plane: lab[0], sigma }], frame, context);
    const narrow = statistics(KERNELS.sumPlanes([lab[0], broad], [1, -1])).deviation;
    context.team.give(broad);
    return { own, drawn, narrow, deviation: spreadOf(lab).deviation };
  });

/** The height that Relief is to read, and the ridges on it. */
async function reliefOf(
  join: JoinOutput,
  simple: readonly Float32Array[],
  ridges: Float32Array,
  chosen: StyleSettings,
  frame: Frame,
  context: WorkContext,
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

/** Style: repaints the tile as a texture painter would, as far as wanted. */
export const style = station({
  name: 'style',
  line: 'Repaint the photo by hand, as much as wanted.',
  settings,
  reads: [join],
  handsOn: (chosen) => !paints(chosen),
  frameFacts: ({ reading, seed, edges }) => [reading, seed, edges],
  views,
  shows: 'styled',
  weight: 20,
  of: 'tile',
  decision: decisionSchema,
  decidesOn: (chosen, frame) =>
    paints(chosen)
      ? [
          [chosen.shape, chosen.brush, chosen.colours, chosen.variety, chosen.marks, chosen.edges],
          [chosen.seed, frame.seed, frame.reading],
        ]
      : null,
  async decide(input: JoinOutput, chosen, frame, context): Promise<StyleDecision | null> {
    if (!paints(chosen)) return null;
    const on = await groundOn(input, frame, context);
    const lab = await labOf(on, frame, context);
    const { own, drawn, narrow, deviation } = await measuredOf(lab, frame, context);
    const degrees = await slantDegrees(on, frame, context);
    const shape = keptShape(own, drawn, chosen.shape);
    const simple = await simplifiedOf(on, { shape, degrees }, frame, context);
    const palette = paletteOf(simple, paletteCount(chosen.colours));
    // Strokes are several pixels wide at half the working size, too.
    const sides: [number, number] = [frame.width / 2, frame.height / 2];
    const halved = (planes: Float32Array[]) =>
      resizeArea(new Raster(frame.width, frame.height, planes), ...sides).planes;
    const ground = groundOf({ width: sides[0], height: sides[1] }, frame, chosen);
    const planned = await planStrokes(
      {
        lab: halved(simple.slice(0, 3)),
        alpha: input.alpha && halved([input.alpha])[0],
        layers: layersOf(chosen.brush, own, drawn),
        ground,
        wish: await context.part('wish', ground, () => wishFor(ground)),
        edges: frame.edges,
        lean: LEAN * chosen.variety,
      },
      context,
    );
    const strokes = packed(planned);
    const stroked = await strokedOf(
      simple,
      { own, drawn, palette, strokes, shape, degrees, sides },
      planned,
      chosen,
      frame,
      context,
    );
    const relief = await lightReliefOf(on, simple, { shape, degrees }, frame, context);
    const light = {
      ...(await runSteps(lightScale(relief), context.checkpoint)),
      strength: lightStrength(narrow),
    };
    const after = spreadOf(stroked);
    const gain =
      after.deviation > LEAST_SPREAD ? Math.min(MOST_GAIN, Math.max(1, deviation / after.deviation)) : 1;
    return {
      own,
      drawn,
      shape,
      palette,
      degrees,
      sides,
      light,
      spread: { gain, a: after.a, b: after.b },
      strokes,
    };
  },
  async run(input, chosen, decided, frame, context): Promise<StyleOutput> {
    if (!decided)
      return {
        ...input,
        photo: input.picture,
        relief: null,
        painted: null,
        simplified: null,
        lightPainted: 0,
      };
    const on = await groundOn(input, frame, context);
    const lab = await labOf(on, frame, context);
    const simple = await simplifiedOf(on, decided, frame, context);
    await context.checkpoint(0.4);
    const stroked = await strokedOf(simple, decided, null, chosen, frame, context);
    await context.checkpoint(0.8);
    const relief = await lightReliefOf(on, simple, decided, frame, context);
    const { light, ink, marks, lightDegrees } = chosen;
    const dials = { light, ink, marks, degrees: lightDegrees };
    const lighting = { stroked, spread: decided.spread, relief, scale: decided.light, dials };
    const painted = await paintingLight(lighting, frame, context);
    const out = await mixed(lab, painted.lab, chosen.amount, frame, context);
    context.team.give(...painted.lab);
    const picture = await toLinear(out, frame, context);
    context.team.give(...out);
    const own: StyleOutput = {
      ...input,
      photo: input.picture,
      painted: picture,
      simplified: await context.part('simplified picture', [decided.shape, decided.degrees], () =>
        toLinear(simple, frame, context),
      ),
      relief: null,
      lightPainted: painted.changed,
    };
    if (chosen.place === 'coats') return own;
    return { ...own, picture, relief: await reliefOf(on, simple, stroked[3], chosen, frame, context) };
  },
  verdict,
});
