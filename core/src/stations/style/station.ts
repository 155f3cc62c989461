import { blurring } from '../../filters/gaussian.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
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
import { layersOf } from './layers.ts';
import { type LightRelief, lightRelief, lightScale, lightStrength, paintingLight } from './light.ts';
import { BROAD, mixed } from './mix.ts';
import type { PaintedRelief, StyleOutput } from './output.ts';
import { drawnShareOf, keptShape, ownSize } from './own-size.ts';
import { newEasel, painting, strokeContrast, strokeList } from './paint.ts';
import { drawingTo, paletteCount, paletteOf } from './palette.ts';
import { planStrokes } from './plan.ts';
import { paints, type StyleSettings, settings } from './settings.ts';
import { simplified } from './simplify.ts';
import { type Ground, packed, unpacked } from './strokes.ts';
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
  context.part('lab', frame.edges, () => KERNELS.oklabPlanes(picture.planes));

/** OKLab planes as a picture, linear RGB. */
const seen = async (
  planes: readonly Float32Array[],
  { width, height }: Frame,
  { checkpoint }: Pick<WorkContext, 'checkpoint'>,
): Promise<Raster> => new Raster(width, height, await runSteps(toLinear(planes), checkpoint));

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
    const made = await simplified([...lab, guide], shape, frame, frame.edges, context);
    await context.onTheWay(() => seen(made, frame, context));
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

/** The picture under strokes, and its ridges: L, a, b, ridge. */
const strokedOf = (
  simple: readonly Float32Array[],
  decided: Stroked,
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
      runSteps(drawingTo(simple, palette, share), context.checkpoint),
    );
    const contrast = await context.part('contrast', looks, () =>
      runSteps(strokeContrast(simple, frame, frame.edges), context.checkpoint),
    );
    await context.checkpoint(0.4);
    const ground = groundOf({ width: sides[0], height: sides[1] }, frame, chosen);
    const layers = layersOf(brush, own, drawn);
    const planned = unpacked(strokes);
    const easel = await newEasel(on, simple, contrast, { edges, drawn }, frame, context);
    // Layer by layer, so that the picture is painted before one's eyes.
    for (const n of layers.keys()) {
      const ofLayer = planned.filter(({ layer }) => layer === n);
      const list = strokeList(ofLayer, layers, ground, frame, palette, chosen);
      await painting(easel, list, seedOf(frame, chosen), frame.edges, context);
      if (n + 1 < layers.length) await context.onTheWay(() => seen(easel.canvas, frame, context));
    }
    return easel.canvas;
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
    return runSteps(lightRelief(height, frame, frame.edges), context.checkpoint);
  });

const spreadOf = (planes: readonly Float32Array[]) => {
  const [a, b] = [statistics(planes[1]), statistics(planes[2])];
  return { a: a.mean, b: b.mean, deviation: Math.hypot(a.deviation, b.deviation) };
};

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
    ridges: ridges.map((value) => value * scale),
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
    const own = await runSteps(ownSize(lab[0], frame, frame.edges), context.checkpoint);
    const drawn = await runSteps(drawnShareOf(lab[0], frame, frame.edges), context.checkpoint);
    const degrees = await slantDegrees(on, frame, context);
    const shape = keptShape(own, drawn, chosen.shape);
    const simple = await simplifiedOf(on, { shape, degrees }, frame, context);
    const palette = paletteOf(simple, paletteCount(chosen.colours));
    // Strokes are several pixels wide at half the working size, too.
    const sides: [number, number] = [frame.width / 2, frame.height / 2];
    const halved = (planes: Float32Array[]) =>
      resizeArea(new Raster(frame.width, frame.height, planes), ...sides).planes;
    const planned = await runSteps(
      planStrokes({
        lab: halved(simple.slice(0, 3)),
        alpha: input.alpha && halved([input.alpha])[0],
        layers: layersOf(chosen.brush, own, drawn),
        ground: groundOf({ width: sides[0], height: sides[1] }, frame, chosen),
        edges: frame.edges,
        lean: LEAN * chosen.variety,
      }),
      context.checkpoint,
    );
    const strokes = packed(planned);
    const stroked = await strokedOf(
      simple,
      { own, drawn, palette, strokes, shape, degrees, sides },
      chosen,
      frame,
      context,
    );
    const relief = await lightReliefOf(on, simple, { shape, degrees }, frame, context);
    const edge = Math.min(frame.width, frame.height);
    const broad = await runSteps(
      blurring(lab[0], frame.width, frame.height, BROAD * edge, frame.edges),
      context.checkpoint,
    );
    const narrow = statistics(KERNELS.sumPlanes([lab[0], broad], [1, -1])).deviation;
    const light = {
      ...(await runSteps(lightScale(relief), context.checkpoint)),
      strength: lightStrength(narrow),
    };
    const [before, after] = [spreadOf(lab), spreadOf(stroked)];
    const gain =
      after.deviation > LEAST_SPREAD
        ? Math.min(MOST_GAIN, Math.max(1, before.deviation / after.deviation))
        : 1;
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
    const stroked = await strokedOf(simple, decided, chosen, frame, context);
    await context.checkpoint(0.8);
    const { gain, a, b } = decided.spread;
    const middles = [0, a, b];
    const paint = stroked.slice(0, 3).map((plane, c) => {
      const own = PLANES.take(plane.length);
      if (c === 0) own.set(plane);
      else for (let i = 0; i < own.length; i++) own[i] = middles[c] + (plane[i] - middles[c]) * gain;
      return own;
    });
    const relief = await lightReliefOf(on, simple, decided, frame, context);
    const { light, ink, marks, lightDegrees } = chosen;
    const lightPainted = await runSteps(
      paintingLight(paint, stroked[3], relief, decided.light, { light, ink, marks, degrees: lightDegrees }),
      context.checkpoint,
    );
    const out: Float32Array[] = [];
    for (const [c, plane] of paint.entries()) {
      out.push(await runSteps(mixed(lab[c], plane, chosen.amount, frame, frame.edges), context.checkpoint));
      PLANES.give(plane);
    }
    const picture = await seen(out, frame, context);
    PLANES.give(...out);
    const own: StyleOutput = {
      ...input,
      photo: input.picture,
      painted: picture,
      simplified: await context.part('simplified picture', [decided.shape, decided.degrees], () =>
        seen(simple, frame, context),
      ),
      relief: null,
      lightPainted,
    };
    if (chosen.place === 'coats') return own;
    return { ...own, picture, relief: await reliefOf(on, simple, stroked[3], chosen, frame, context) };
  },
  verdict,
});
