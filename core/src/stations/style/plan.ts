import type { Field } from '../../filters/gaussian.ts';
import { drawnShare } from '../../lattice/draw.ts';
import { smoothStep } from '../../lattice/smooth-step.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { percentiles } from '../../statistics/statistics.ts';
import { PLAIN_CONTEXT, type Sharing } from '../../team/context.ts';
import { task } from '../../team/task.ts';
import { localContrast } from './contrast.ts';
import { averaged, type Flow, flowOf, structureTensor, type Tensor } from './flow.ts';
import type { Layer } from './layers.ts';
import type { Lab } from './palette.ts';
import {
  cellsOf,
  directionOf,
  drawFor,
  type Ground,
  middleOf,
  type Stroke,
  stepOf,
  stepped,
  storedColour,
  vectorOf,
} from './strokes.ts';

/** σ of the structure tensor that strokes follow, as shares of the shorter edge, and of a stroke's width. */
const INNER = 1 / 700;
const OUTER = 1 / 256;
const OF_WIDTH = 0.3;
/** Cells of the field of directions that flat areas follow, and how far it turns, about a steep slant. */
const WISH_CELLS = 5;
const WISH_TURN = 1.6;
const WISH_MIDDLE = 0.42 * Math.PI;
/** Its weight, of the tensor's mean. */
const WISH_WEIGHT = 0.12;
/** The least contrast that a finer layer is painted for. */
const LEAST_CONTRAST = 0.012;
/** A stroke turns by no more than this in all. */
const MOST_TURN = 1.1;
/** How much of the flow's direction each step takes over from the one before. */
const TAKEN = 0.45;
/** Share of strokes that go the other way. */
const AGAINST = 0.2;
/** Opacity below which no stroke begins. */
const LEAST_OPACITY = 0.02;

/** A field of directions without structure of its own that repeats with the tile. */
export function wishFor({ sides: { width, height }, origin, seed }: Ground): Flow {
  const [x, y] = [new Float32Array(width * height), new Float32Array(width * height)];
  const values = Array.from({ length: WISH_CELLS ** 2 }, (_, k) => drawnShare(k + 1, seed * 3 + 1));
  /** Of each place of an axis: its cell, the next one, and how far it lies between them. */
  const along = (length: number, start: number) => {
    const places = Array.from({ length }, (_, k) => {
      return (((((k - start) % length) + length) % length) / length) * WISH_CELLS;
    });
    const cells = places.map((place) => Math.floor(place) % WISH_CELLS);
    const next = places.map((place) => (Math.floor(place) + 1) % WISH_CELLS);
    return { cells, next, shares: places.map((place) => smoothStep(0, 1, place % 1)) };
  };
  const columns = along(width, origin[0]);
  const rows = along(height, origin[1]);
  for (let row = 0; row < height; row++) {
    const upper = rows.cells[row] * WISH_CELLS;
    const lower = rows.next[row] * WISH_CELLS;
    for (let column = 0; column < width; column++) {
      const i = columns.cells[column];
      const j = columns.next[column];
      const top = values[upper + i] + columns.shares[column] * (values[upper + j] - values[upper + i]);
      const bottom = values[lower + i] + columns.shares[column] * (values[lower + j] - values[lower + i]);
      const turn = (top + rows.shares[row] * (bottom - top) - 0.5) * WISH_TURN + WISH_MIDDLE;
      x[row * width + column] = Math.cos(turn);
      y[row * width + column] = Math.sin(turn);
    }
  }
  return { x, y };
}

/** Reads planes between their pixels. */
class Reader {
  readonly #sides: Sides;
  readonly #edges: Edges;

  constructor(sides: Sides, edges: Edges) {
    this.#sides = sides;
    this.#edges = edges;
  }

  index(x: number, y: number): number {
    const { width, height } = this.#sides;
    return edgeIndex(y, height, this.#edges.y) * width + edgeIndex(x, width, this.#edges.x);
  }

  /** Values of planes at a place, into `out`. */
  read(planes: readonly Float32Array[], x: number, y: number, out: number[]): void {
    const { width, height } = this.#sides;
    const i = Math.floor(x);
    const j = Math.floor(y);
    const u = x - i;
    const v = y - j;
    const left = edgeIndex(i, width, this.#edges.x);
    const right = edgeIndex(i + 1, width, this.#edges.x);
    const upper = edgeIndex(j, height, this.#edges.y) * width;
    const lower = edgeIndex(j + 1, height, this.#edges.y) * width;
    for (let c = 0; c < planes.length; c++) {
      const plane = planes[c];
      const top = plane[upper + left] * (1 - u) + plane[upper + right] * u;
      const bottom = plane[lower + left] * (1 - u) + plane[lower + right] * u;
      out[c] = top * (1 - v) + bottom * v;
    }
  }

  at(plane: Float32Array, x: number, y: number): number {
    const out = [0];
    this.read([plane], x, y, out);
    return out[0];
  }

  colour(lab: readonly Float32Array[], x: number, y: number): Lab {
    const out: Lab = [0, 0, 0];
    this.read(lab, x, y, out);
    return out;
  }
}

/** What one layer's strokes are grown by. */
interface Growing {
  reader: Reader;
  lab: readonly Float32Array[];
  /** Unit vectors along the shapes, x and y one after the other. */
  flow: Float32Array;
  layer: Layer;
  edge: number;
  step: number;
}

const distance = (p: Lab, q: Lab) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);

/** Steps of one arm of a stroke from its middle: along the flow, until the colour is another or it has turned too far. */
function armFrom(
  { reader, lab, flow, layer, edge, step }: Growing,
  middle: [number, number],
  sense: number,
  bias: number,
  length: number,
): number[] {
  const arm: number[] = [];
  const own = reader.colour(lab, ...middle);
  let [x, y] = middle;
  let before: [number, number] | null = null;
  let turned = 0;
  for (let gone = 0; gone < length; gone += step) {
    const at = reader.index(Math.round(x), Math.round(y));
    let dx = flow[2 * at];
    let dy = flow[2 * at + 1];
    if (!before) {
      const way = (0.3 * dx + dy >= 0 ? 1 : -1) * sense;
      const [c, s] = [Math.cos(bias), Math.sin(bias)];
      [dx, dy] = [way * (dx * c - dy * s), way * (dx * s + dy * c)];
    } else {
      const way = dx * before[0] + dy * before[1] < 0 ? -1 : 1;
      dx = way * dx * TAKEN + before[0] * (1 - TAKEN);
      dy = way * dy * TAKEN + before[1] * (1 - TAKEN);
    }
    const direction = directionOf(dx, dy);
    const now = vectorOf(direction);
    if (before) turned += Math.acos(Math.min(1, Math.max(-1, now[0] * before[0] + now[1] * before[1])));
    if (turned > MOST_TURN) break;
    before = now;
    [x, y] = stepped(x, y, direction, step);
    const isFar = gone + step > 0.5 * layer.width * edge;
    if (isFar && distance(reader.colour(lab, x, y), own) > layer.stop) break;
    arm.push(direction);
  }
  return arm;
}

/** What strokes are planned by. */
export interface Planning {
  /** OKLab planes of the simplified picture, of the ground's sides. */
  lab: readonly Float32Array[];
  /** Opacity; strokes begin only where there is any. */
  alpha: Float32Array | null;
  layers: readonly Layer[];
  ground: Ground;
  edges: Edges;
  /** What flat areas follow: see `wishFor`. */
  wish: Flow;
  /** How far strokes may lean away from the flow, in radians from one end to the other. */
  lean: number;
}

/** What the layers are planned by together. */
interface Shared extends Planning {
  tensor: Tensor;
}

/** Plans the strokes of one layer. */
export const planLayer = task(
  'planLayer',
  async (checkpoint, { lab, alpha, layers, ground, edges, lean, tensor, wish }: Shared, n: number) => {
    // A layer is planned by one member alone.
    const context = { ...PLAIN_CONTEXT, checkpoint };
    const { sides, seed } = ground;
    const field = { ...sides, edges };
    const edge = Math.min(sides.width, sides.height);
    const layer = layers[n];
    const reader = new Reader(sides, edges);
    const smooth = await averaged(tensor, field, OF_WIDTH * layer.width * edge, context);
    let sum = 0;
    for (let i = 0; i < smooth.xx.length; i++) sum += smooth.xx[i] + smooth.yy[i];
    const weight = (WISH_WEIGHT * sum) / smooth.xx.length;
    const flow = flowOf(smooth, { ...wish, weight }, 0, smooth.xx.length);
    const contrast = layer.share < 1 ? await localContrast(lab, field, layer.contrast * edge, context) : null;
    const least = contrast
      ? Math.max(LEAST_CONTRAST, percentiles(contrast, [100 * (1 - layer.share)])[0])
      : 0;
    const growing: Growing = { reader, lab, flow, layer, edge, step: stepOf(ground, layer) };
    const cells = cellsOf(ground, layer);
    const own: { stroke: Stroke; order: number }[] = [];
    for (let cell = 0; cell < cells[0] * cells[1]; cell++) {
      if (cell % 256 === 255) await checkpoint(cell / (cells[0] * cells[1]));
      const draw = (what: Parameters<typeof drawFor>[0]) => drawFor(what, cell, n, seed);
      const middle = middleOf(ground, cells, cell, n);
      if (alpha && reader.at(alpha, ...middle) < LEAST_OPACITY) continue;
      if (contrast && reader.at(contrast, ...middle) < least * (0.75 + 0.5 * draw('need'))) continue;
      const sense = draw('back') < AGAINST ? -1 : 1;
      const bias = (draw('turn') - 0.5) * lean;
      const length = 0.5 * layer.long * layer.width * edge * (0.75 + 0.5 * draw('long'));
      const arms: [number[], number[]] = [
        armFrom(growing, middle, sense, bias, length),
        armFrom(growing, middle, -sense, bias, length),
      ];
      if (arms[0].length + arms[1].length === 0) continue;
      const stroke: Stroke = { layer: n, cell, arms, colour: reader.colour(lab, ...middle) };
      own.push({ stroke: { ...stroke, colour: meanAlong(stroke, growing, middle) }, order: draw('order') });
    }
    own.sort((a, b) => a.order - b.order);
    return own.map(({ stroke }) => stroke);
  },
);

/**
 * Plans strokes (after Hertzmann 1998): each layer has a jittered grid of them, finer layers only where the picture has
 * contrast; spines follow the structure both ways from the middle. In the order in which they are painted.
 */
export async function planStrokes(planning: Planning, context: Sharing): Promise<Stroke[]> {
  const { ground, edges, layers } = planning;
  const { team } = context;
  const edge = Math.min(ground.sides.width, ground.sides.height);
  const lab = planning.lab.map((plane) => team.shared(plane));
  const field: Field = { ...ground.sides, edges };
  const tensor = await structureTensor(lab, field, INNER * edge, OUTER * edge, context);
  const { x, y } = planning.wish;
  const wish = { x: team.shared(x), y: team.shared(y) };
  const shared: Shared = { ...planning, lab, tensor, wish };
  const strokes: Stroke[] = [];
  const given = layers.map((_, n): [Shared, number] => [shared, n]);
  await team.each(planLayer, given, (made) => strokes.push(...made), context.checkpoint);
  team.give(tensor.xx, tensor.xy, tensor.yy);
  return strokes;
}

/** Mean colour along a stroke's spine, as it is stored. */
function meanAlong(stroke: Stroke, { reader, lab, step }: Growing, middle: [number, number]): Lab {
  const sum: Lab = [...stroke.colour];
  let count = 1;
  for (const arm of stroke.arms) {
    let at = middle;
    for (const direction of arm) {
      at = stepped(at[0], at[1], direction, step);
      const colour = reader.colour(lab, ...at);
      for (let c = 0; c < 3; c++) sum[c] += colour[c];
      count++;
    }
  }
  return storedColour([sum[0] / count, sum[1] / count, sum[2] / count]);
}
