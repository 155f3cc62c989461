import { drawnShare } from '../../lattice/draw.ts';
import { PLANES } from '../../memory/pool.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';
import { smoothStep } from '../../sampling/smooth-step.ts';
import { percentiles } from '../../statistics/statistics.ts';
import type { Steps } from '../../work/steps.ts';
import { localContrast } from './contrast.ts';
import { averaged, type Flow, flowOf, structureTensor, type Wish } from './flow.ts';
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
function wishFor({ sides: { width, height }, origin, seed }: Ground): Flow {
  const [x, y] = [PLANES.take(width * height), PLANES.take(width * height)];
  const value = (i: number, j: number) =>
    drawnShare((j % WISH_CELLS) * WISH_CELLS + (i % WISH_CELLS) + 1, seed * 3 + 1);
  for (let row = 0; row < height; row++) {
    const v = (((((row - origin[1]) % height) + height) % height) / height) * WISH_CELLS;
    const j = Math.floor(v);
    const fv = smoothStep(0, 1, v - j);
    for (let column = 0; column < width; column++) {
      const u = (((((column - origin[0]) % width) + width) % width) / width) * WISH_CELLS;
      const i = Math.floor(u);
      const fu = smoothStep(0, 1, u - i);
      const top = value(i, j) + fu * (value(i + 1, j) - value(i, j));
      const bottom = value(i, j + 1) + fu * (value(i + 1, j + 1) - value(i, j + 1));
      const turn = (top + fv * (bottom - top) - 0.5) * WISH_TURN + WISH_MIDDLE;
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

  at(plane: Float32Array, x: number, y: number): number {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    const [u, v] = [x - i, y - j];
    const top = plane[this.index(i, j)] * (1 - u) + plane[this.index(i + 1, j)] * u;
    const bottom = plane[this.index(i, j + 1)] * (1 - u) + plane[this.index(i + 1, j + 1)] * u;
    return top * (1 - v) + bottom * v;
  }

  colour(lab: readonly Float32Array[], x: number, y: number): Lab {
    return [this.at(lab[0], x, y), this.at(lab[1], x, y), this.at(lab[2], x, y)];
  }
}

/** What one layer's strokes are grown by. */
interface Growing {
  reader: Reader;
  lab: readonly Float32Array[];
  flow: Flow;
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
    let [dx, dy] = [flow.x[at], flow.y[at]];
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
  /** How far strokes may lean away from the flow, in radians from one end to the other. */
  lean: number;
}

/**
 * Plans strokes (after Hertzmann 1998): each layer has a jittered grid of them, finer layers only where the picture has
 * contrast; spines follow the structure both ways from the middle. In the order in which they are painted.
 */
export function* planStrokes({ lab, alpha, layers, ground, edges, lean }: Planning): Steps<Stroke[]> {
  const { sides, seed } = ground;
  const edge = Math.min(sides.width, sides.height);
  const tensor = yield* structureTensor(lab, sides, edges, INNER * edge, OUTER * edge);
  const wish = wishFor(ground);
  const reader = new Reader(sides, edges);
  const strokes: Stroke[] = [];
  for (const [n, layer] of layers.entries()) {
    const smooth = yield* averaged(tensor, sides, edges, OF_WIDTH * layer.width * edge);
    let sum = 0;
    for (let i = 0; i < smooth.xx.length; i++) sum += smooth.xx[i] + smooth.yy[i];
    const weight = (WISH_WEIGHT * sum) / smooth.xx.length;
    const flow = yield* flowOf(smooth, { ...wish, weight } satisfies Wish);
    const contrast = layer.share < 1 ? yield* localContrast(lab, sides, edges, layer.contrast * edge) : null;
    const least = contrast
      ? Math.max(LEAST_CONTRAST, percentiles(contrast, [100 * (1 - layer.share)])[0])
      : 0;
    const growing: Growing = { reader, lab, flow, layer, edge, step: stepOf(ground, layer) };
    const cells = cellsOf(ground, layer);
    const own: { stroke: Stroke; order: number }[] = [];
    for (let cell = 0; cell < cells[0] * cells[1]; cell++) {
      if (cell % 256 === 255) yield;
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
    strokes.push(...own.map(({ stroke }) => stroke));
  }
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
