import { copyOf } from '../../memory/copy.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../sampling/resize.ts';
import { runSteps } from '../../work/steps.ts';
import type { JoinOutput } from '../join/output.ts';
import { join } from '../join/station.ts';
import { station } from '../station.ts';
import { toLinear } from './colours.ts';
import { decisionSchema, type StyleDecision } from './decision.ts';
import { slantDegrees } from './guide.ts';
import { layersOf } from './layers.ts';
import { lightScale, lightStrength, paintingLight } from './light.ts';
import { mixed } from './mix.ts';
import type { StyleOutput } from './output.ts';
import { keptShape } from './own-size.ts';
import { paletteCount, paletteOf } from './palette.ts';
import {
  fineContrast,
  groundOf,
  groundOn,
  labOf,
  lightReliefOf,
  measuredOf,
  painterFor,
  reliefOf,
  simplifiedOf,
  spreadOf,
  strokedOf,
} from './parts.ts';
import { planStrokes, wishFor } from './plan.ts';
import { paints, settings } from './settings.ts';
import { packed } from './strokes.ts';
import { verdict } from './verdict.ts';
import { views } from './views.ts';

/** The spread of colour is given back by this much at most. */
const MOST_GAIN = 1.25;
const LEAST_SPREAD = 1e-4;
const LEAN = 0.7;

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
    const painter = painterFor(frame, context);
    const on = await groundOn(input, frame, painter);
    const lab = await labOf(on, frame, painter);
    const { own, drawn, narrow, deviation } = await measuredOf(lab, frame, painter);
    const degrees = await slantDegrees(on, frame, context);
    const shape = keptShape(own, drawn, chosen.shape);
    const simple = await simplifiedOf(on, { shape, degrees }, frame, painter);
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
      painter,
    );
    const relief = await lightReliefOf(on, simple, { shape, degrees }, frame, painter);
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
    const photo = input.picture;
    if (!decided)
      return { ...input, photo, relief: null, painted: null, simplified: null, fineLeft: 0, lightPainted: 0 };
    const painter = painterFor(frame, context);
    const on = await groundOn(input, frame, painter);
    const simple = await simplifiedOf(on, decided, frame, painter);
    await context.checkpoint(0.4);
    const stroked = await strokedOf(simple, decided, null, chosen, frame, painter);
    await context.checkpoint(0.8);
    const fineLeft = await painter.part('fine contrast', [decided.shape, decided.degrees], () =>
      fineContrast(simple[0], frame, painter),
    );
    painter.done(...simple.slice(0, 3));
    const relief = await lightReliefOf(on, simple, decided, frame, painter);
    const { light, ink, marks, lightDegrees } = chosen;
    const dials = { light, ink, marks, degrees: lightDegrees };
    const lighting = { stroked, spread: decided.spread, relief, scale: decided.light, dials };
    const lit = await paintingLight(lighting, frame, painter);
    painter.done(...stroked.slice(0, 3), relief.thin, relief.wide, relief.gx, relief.gy);
    const lab = await labOf(on, frame, painter);
    await mixed(lab, lit.lab, chosen.amount, frame, painter);
    painter.done(...lab);
    const picture = await toLinear(lit.lab, frame, painter);
    painter.team.give(...lit.lab);
    const own: StyleOutput = {
      ...{ ...input, photo, painted: painter.isSparing ? picture.mapPlanes(copyOf) : picture, relief: null },
      simplified: painter.isSparing ? null : simple.slice(0, 3),
      ...{ fineLeft, lightPainted: lit.changed },
    };
    if (chosen.place === 'coats') return own;
    return {
      ...own,
      picture: own.painted!,
      relief: await reliefOf(on, simple, stroked[3], chosen, frame, painter),
    };
  },
  verdict,
});
