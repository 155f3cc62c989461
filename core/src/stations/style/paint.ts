import type { Field } from '../../filters/gaussian.ts';
import { type StrokeList, type StrokeValues, strokeValues } from '../../kernels/paint-strokes/reference.ts';
import type { Band } from '../../raster/band.ts';
import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Sharing } from '../../team/context.ts';
import { eachBand } from '../../team/in-bands.ts';
import { type GivenOf, task } from '../../team/task.ts';
import type { Team } from '../../team/team.ts';
import { localContrast } from './contrast.ts';
import type { Layer } from './layers.ts';
import { boxesOf, paintPiece, piecesOf } from './paint-band.ts';
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
  field: Field,
  context: Sharing,
): Promise<Float32Array> =>
  localContrast(guide, field, AROUND * Math.min(field.width, field.height), context);

/** What is painted on, and what strokes go by: pixels of four values each, in memory that all of a team see. */
export interface Easel extends Sides {
  /** L, a, b and the ridges of the strokes so far. */
  canvas: Float32Array;
  /** L, a, b of the picture that strokes must be like, and how unlike a pixel may be. */
  guide: Float32Array;
}

/** Pixels of rows that strokes must be like: three planes, and a contrast that `looseness` makes of how unlike they may be. */
export const guideBand = task(
  'guideBand',
  (
    _checkpoint,
    [L, a, b, contrast]: Float32Array[],
    width: number,
    looseness: number,
    out: Float32Array,
    band: Band,
  ): void => {
    for (let i = band.from * width, at = 4 * i; i < band.to * width; i++, at += 4) {
      out[at] = L[i];
      out[at + 1] = a[i];
      out[at + 2] = b[i];
      out[at + 3] = Math.min(MOST_UNLIKE, Math.max(LEAST_UNLIKE, looseness * contrast[i]));
    }
  },
);

/** Pixels that strokes must be like: those of three planes, and by their contrast how unlike they may be. In memory that all of a team see. */
export async function guideOf(
  planes: readonly Float32Array[],
  contrast: Float32Array,
  { edges: kept, drawn }: Pick<Manner, 'edges'> & { drawn: number },
  { width, height }: Sides,
  context: Sharing,
): Promise<Float32Array> {
  const { team } = context;
  const looseness = (1.9 - 1.7 * kept) * (1 - FOR_DRAWING * drawn);
  const shared = [...planes.slice(0, 3), contrast].map((plane) => team.shared(plane));
  const pixels = team.take(4 * width * height);
  await eachBand(guideBand, [shared, width, looseness, pixels], height, context);
  return pixels;
}

/** Numbers of 64 bits in memory that all of a team see. */
function doubles(values: Float64Array, team: Team): Float64Array {
  const { buffer } = team.empty(2 * values.length);
  const out = new Float64Array(buffer, 0, values.length);
  out.set(values);
  return out;
}

/** Paints strokes on an easel, all of a team together. */
export async function painting(
  easel: Easel,
  strokes: StrokeList,
  seed: number,
  edges: Edges,
  { checkpoint, team }: Sharing,
): Promise<void> {
  const { values, count } = brushPrints(seed);
  const prints = { values: team.shared(values), count };
  const shared = { values: doubles(strokes.values, team), points: doubles(strokes.points, team) };
  const how = { ...easel, prints, strokes: shared, boxes: doubles(boxesOf(strokes), team), edges };
  const given = piecesOf(easel).map((piece): GivenOf<typeof paintPiece> => [how, piece]);
  await team.each(paintPiece, given, () => {}, checkpoint);
}
