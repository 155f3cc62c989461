import { drawnShare } from '../../lattice/draw.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Layer } from './layers.ts';
import type { Lab } from './palette.ts';
import { PRINT_COUNT } from './prints.ts';

/** Directions that a step of a spine may have. */
export const DIRECTIONS = 256;
const TURN = Array.from({ length: DIRECTIONS }, (_, k) => (2 * Math.PI * k) / DIRECTIONS);
const COS = TURN.map(Math.cos);
const SIN = TURN.map(Math.sin);

/** A step along a spine, in widths of its stroke; at least this many pixels of the ground. */
const STEP = 0.35;
const LEAST_STEP = 1;
/** Places are whole multiples of this many pixels, so that sums of them are exact. */
const GRAIN = 2 ** 20;
const snapped = (value: number) => Math.round(value * GRAIN) / GRAIN;

/** Where strokes are planned: the sides of the ground, from where their grid begins (in pixels), and a seed. */
export interface Ground {
  sides: Sides;
  origin: readonly [number, number];
  seed: number;
}

/** A stroke as it is planned: everything else about it is drawn from its cell. */
export interface Stroke {
  layer: number;
  cell: number;
  /** Directions of its steps from the middle, one way and the other. */
  arms: [number[], number[]];
  /** The picture's own colour along it. */
  colour: Lab;
}

/** What is drawn for a stroke, each for itself. */
const DRAWS = {
  ...{ x: 0, y: 1, need: 2, long: 3, turn: 4, width: 5, tone: 6, hue: 7, back: 8, chroma: 9 },
  ...{ print: 10, side: 11, order: 12 },
};

/** A value 0 ≤ v < 1 of a kind for a cell of a layer. */
export const drawFor = (what: keyof typeof DRAWS, cell: number, layer: number, seed: number): number =>
  drawnShare(cell + 1, seed * 131 + layer * 17 + DRAWS[what] * 1009);

/** Cells of a layer across and down. */
export function cellsOf({ sides: { width, height } }: Ground, { width: wide, gap }: Layer): [number, number] {
  const step = wide * gap * Math.min(width, height);
  return [Math.max(1, Math.round(width / step)), Math.max(1, Math.round(height / step))];
}

/** Middle of a stroke, in pixels of the ground. */
export function middleOf(
  ground: Ground,
  [across, down]: [number, number],
  cell: number,
  layer: number,
): [number, number] {
  const { width, height } = ground.sides;
  const share = (what: 'x' | 'y') => drawFor(what, cell, layer, ground.seed);
  const [i, j] = [cell % across, Math.floor(cell / across)];
  return [
    snapped(((i + share('x')) / across) * width) + ground.origin[0],
    snapped(((j + share('y')) / down) * height) + ground.origin[1],
  ];
}

/** Length of one step, in pixels of the ground. */
export const stepOf = ({ sides }: Ground, { width }: Layer): number =>
  Math.max(LEAST_STEP, STEP * width * Math.min(sides.width, sides.height));

/** The next point of a spine. */
export const stepped = (x: number, y: number, direction: number, step: number): [number, number] => [
  snapped(x + COS[direction] * step),
  snapped(y + SIN[direction] * step),
];

/** The nearest of the directions to a vector. */
export const directionOf = (dx: number, dy: number): number => {
  const turn = Math.round((Math.atan2(dy, dx) / (2 * Math.PI)) * DIRECTIONS);
  return (turn + DIRECTIONS) % DIRECTIONS;
};

export const vectorOf = (direction: number): [number, number] => [COS[direction], SIN[direction]];

/** Points of a stroke's spine in pixels of the ground, x and y one after another. */
export function spineOf(ground: Ground, layer: Layer, stroke: Stroke): number[] {
  const cells = cellsOf(ground, layer);
  const middle = middleOf(ground, cells, stroke.cell, stroke.layer);
  const step = stepOf(ground, layer);
  const [ahead, back] = stroke.arms;
  const points = new Array<number>(2 * (back.length + 1 + ahead.length));
  const start = 2 * back.length;
  points[start] = middle[0];
  points[start + 1] = middle[1];
  // From the middle one way to the front of the list, the other way to its end.
  for (const [arm, way] of [
    [back, -2],
    [ahead, 2],
  ] as const) {
    let at = start;
    for (const direction of arm) {
      const [x, y] = stepped(points[at], points[at + 1], direction, step);
      at += way;
      points[at] = x;
      points[at + 1] = y;
    }
  }
  return points;
}

/** What a stroke differs by from others of its layer. */
export function traitsOf({ seed }: Ground, { cell, layer }: Pick<Stroke, 'cell' | 'layer'>) {
  const draw = (what: keyof typeof DRAWS) => drawFor(what, cell, layer, seed);
  return {
    /** Its width, of the layer's. */
    width: 0.8 + 0.4 * draw('width'),
    tone: 2 * draw('tone') - 1,
    hue: 2 * draw('hue') - 1,
    chroma: 2 * draw('chroma') - 1,
    print: Math.floor(draw('print') * PRINT_COUNT),
    side: draw('side') < 0.5 ? -1 : 1,
  };
}

/** Bytes of a stroke before its steps: cell and layer, lengths of its arms, colour. */
const HEAD = 7;
/** Bits of a layer beside its cell, and of the length of one arm beside the other's. */
const LAYER_BITS = 2;
const ARM_BITS = 4;
const CODES = 255;
const [AB_LEAST, AB_RANGE] = [-0.4, 0.8];
/** Characters that are made of bytes at once. */
const PIECE = 8192;

const codeOf = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * CODES);
const abCode = (value: number) => codeOf((value - AB_LEAST) / AB_RANGE);
const abOf = (code: number) => (code / CODES) * AB_RANGE + AB_LEAST;

/** A colour as it is stored: a code of 8 bits for each of L, a and b. */
export const storedColour = ([L, a, b]: Lab): Lab => [codeOf(L) / CODES, abOf(abCode(a)), abOf(abCode(b))];

/** Strokes as text (base64), their colours as `storedColour` has them. */
export function packed(strokes: readonly Stroke[]): string {
  const bytes: number[] = [];
  for (const { layer, cell, arms, colour } of strokes) {
    const place = (cell << LAYER_BITS) | layer;
    bytes.push((place >> 16) & 0xff, (place >> 8) & 0xff, place & 0xff);
    bytes.push((arms[0].length << ARM_BITS) | arms[1].length);
    bytes.push(codeOf(colour[0]), abCode(colour[1]), abCode(colour[2]));
    bytes.push(...arms[0], ...arms[1]);
  }
  let text = '';
  for (let k = 0; k < bytes.length; k += PIECE) {
    text += String.fromCharCode(...bytes.slice(k, k + PIECE));
  }
  return btoa(text);
}

/** The strokes that `packed` made a text of. @throws RangeError where the text is cut off. */
export function unpacked(text: string): Stroke[] {
  const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
  const strokes: Stroke[] = [];
  let at = 0;
  while (at < bytes.length) {
    const place = (bytes[at] << 16) | (bytes[at + 1] << 8) | bytes[at + 2];
    const [ahead, back] = [bytes[at + 3] >> ARM_BITS, bytes[at + 3] & ((1 << ARM_BITS) - 1)];
    const end = at + HEAD + ahead + back;
    if (!(end <= bytes.length)) throw new RangeError('The stored strokes are cut off.');
    const steps = [...bytes.subarray(at + HEAD, end)];
    strokes.push({
      layer: place & ((1 << LAYER_BITS) - 1),
      cell: place >> LAYER_BITS,
      arms: [steps.slice(0, ahead), steps.slice(ahead)],
      colour: [bytes[at + 4] / CODES, abOf(bytes[at + 5]), abOf(bytes[at + 6])],
    });
    at = end;
  }
  return strokes;
}
