import { type StrokeList, type StrokeValues, strokeValues } from '../../kernels/paint-strokes/reference.ts';
import { mapped } from '../../planes/mapped.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { WorkContext } from '../../team/context.ts';
import type { GivenOf } from '../../team/task.ts';
import type { Steps } from '../../work/steps.ts';
import { localContrast } from './contrast.ts';
import type { Layer } from './layers.ts';
import { paintBand, rowsOfBlocks } from './paint-band.ts';
import { drawnTo, type Lab } from './palette.ts';
import { brushPrints } from './prints.ts';
import { type Ground, type Stroke, spineOf, traitsOf } from './strokes.ts';

/** σ of the contrast by which strokes are kept within shapes, as a share of the shorter edge. */
const AROUND = 1 / 30;
/** Bounds of how unlike a pixel may be, in OKLab. */
const [LEAST_UNLIKE, MOST_UNLIKE] = [0.024, 0.12];
/** By how much less unlike a pixel may be where all is drawn in small shapes. */
const FOR_DRAWING = 0.5;
/** Strokes thinner than this many pixels are left out. */
const LEAST_RADIUS = 0.35;
/** A colour with less chroma than this has hardly a hue: it may turn twice as far. */
const GREY = 0.02;

/** How strokes are painted: dials of the station, 0..1. */
export interface Manner {
  marks: number;
  variety: number;
  edges: number;
  colours: number;
}

/** A stroke's paint: its colour drawn to the palette, then varied in hue and richness. */
function paintOf(
  colour: Lab,
  { hue, chroma }: ReturnType<typeof traitsOf>,
  palette: readonly Lab[],
  { variety, colours }: Manner,
): Lab {
  const paint: Lab = [0, 0, 0];
  drawnTo(palette, colours * (0.8 + 0.4 * colours), colour, paint);
  const [L, a, b] = paint;
  const rich = Math.hypot(a, b);
  const turn = Math.atan2(b, a) + hue * 0.32 * variety * (rich < GREY ? 2 : 1);
  const varied = rich * (1 + chroma * 0.24 * variety);
  return [L, Math.cos(turn) * varied, Math.sin(turn) * varied];
}

/** Strokes as the kernel takes them, at a size: what is planned in pixels of the ground is brought to these sides. */
export function strokeList(
  strokes: readonly Stroke[],
  layers: readonly Layer[],
  ground: Ground,
  sides: Sides,
  palette: readonly Lab[],
  manner: Manner,
): StrokeList {
  const edge = Math.min(sides.width, sides.height);
  const scale = edge / Math.min(ground.sides.width, ground.sides.height);
  const points: number[] = [];
  const values: StrokeValues[] = [];
  for (const stroke of strokes) {
    const layer = layers[stroke.layer];
    const traits = traitsOf(ground, stroke);
    const radius = 0.5 * layer.width * traits.width * edge;
    if (radius < LEAST_RADIUS) continue;
    // Pixels lie about their middles.
    const spine = spineOf(ground, layer, stroke);
    for (let k = 0; k < spine.length; k++) spine[k] = (spine[k] + 0.5) * scale - 0.5;
    let length = 0;
    for (let k = 2; k < spine.length; k += 2) {
      length += Math.hypot(spine[k] - spine[k - 2], spine[k + 1] - spine[k - 1]);
    }
    const [L, a, b] = paintOf(stroke.colour, traits, palette, manner);
    values.push({
      first: points.length,
      count: spine.length / 2,
      radius,
      length,
      L: L + traits.tone * 0.09 * manner.variety * (0.3 + manner.marks),
      a,
      b,
      ridge: traits.tone * 0.15 * layer.ridge,
      ownL: stroke.colour[0],
      ownA: stroke.colour[1],
      ownB: stroke.colour[2],
      keep: layer.keep,
      opacity: layer.opacity,
      lightOfRidge: 0.16 * manner.marks,
      ridgeOfRidge: layer.ridge,
      print: traits.print,
      side: traits.side,
    });
    points.push(...spine);
  }
  return { values: strokeValues(values), points: Float64Array.from(points) };
}

/** The contrast about each pixel, by which strokes are kept within shapes. */
export const strokeContrast = (
  guide: readonly Float32Array[],
  sides: Sides,
  edges: Edges,
): Steps<Float32Array> => localContrast(guide, sides, edges, AROUND * Math.min(sides.width, sides.height));

/** What is painted on, and what strokes go by. */
export interface Easel extends Sides {
  /** L, a, b and the ridges of the strokes so far. */
  canvas: Float32Array[];
  /** L, a, b of the picture that strokes must be like, and how unlike a pixel may be. */
  guide: Float32Array[];
}

/**
 * An easel to paint on, in memory that all of a team see. `on` (the simplified picture, OKLab, drawn to its palette) is what
 * strokes lie on, `guide` the one they must be like, by its `contrast`; the planes stay as they are.
 */
export async function newEasel(
  on: readonly Float32Array[],
  guide: readonly Float32Array[],
  contrast: Float32Array,
  { edges: kept, drawn }: Pick<Manner, 'edges'> & { drawn: number },
  { width, height }: Sides,
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
): Promise<Easel> {
  const looseness = (1.9 - 1.7 * kept) * (1 - FOR_DRAWING * drawn);
  const unlike = mapped(contrast, (value) =>
    Math.min(MOST_UNLIKE, Math.max(LEAST_UNLIKE, looseness * value)),
  );
  await checkpoint(0);
  const canvas = on.slice(0, 3).map((plane) => {
    const own = team.empty(width * height);
    own.set(plane);
    return own;
  });
  canvas.push(team.empty(width * height));
  return { canvas, guide: [...guide.slice(0, 3), unlike].map((plane) => team.shared(plane)), width, height };
}

/** Paints strokes on an easel, all of a team together. */
export async function painting(
  easel: Easel,
  strokes: StrokeList,
  seed: number,
  edges: Edges,
  { checkpoint, team }: Pick<WorkContext, 'checkpoint' | 'team'>,
): Promise<void> {
  const prints = brushPrints(seed);
  const how = { ...easel, prints: { ...prints, values: team.shared(prints.values) }, strokes, edges };
  const given = rowsOfBlocks(easel.height).map((rows): GivenOf<typeof paintBand> => [how, rows]);
  await team.each(paintBand, given, () => {}, checkpoint);
}
