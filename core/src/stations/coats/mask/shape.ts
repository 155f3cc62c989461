import * as v from 'valibot';
import { filling } from '../../../outline/fill.ts';
import {
  border,
  closedCurve,
  corners,
  ellipse,
  type Outline,
  type Point,
  polygon,
  polyline,
  rectangle,
  turned,
} from '../../../outline/outline.ts';
import { choice, data, flag, number } from '../../../settings/kinds.ts';
import type { Frame } from '../../../tile/frame.ts';
import { runSteps } from '../../../work/steps.ts';
import { MIDDLE, ROTATION } from '../place.ts';
import { partKind } from './part.ts';
import { fieldOf } from './pattern.ts';

export const SHAPE_KINDS = [
  'rectangle',
  'ellipse',
  'polygon',
  'star',
  'line',
  'polyline',
  'curve',
  'frame',
] as const;
export type ShapeKind = (typeof SHAPE_KINDS)[number];

const share = v.pipe(v.number(), v.minValue(-2), v.maxValue(3));
const pointsSchema = v.pipe(
  v.array(v.tuple([share, share])),
  v.minLength(1, 'must have a point'),
  v.maxLength(200),
);

/** A length on the tile. */
const length = (label: string, help: string, value: number) =>
  number({ label, help, default: value, min: 0, max: 20000, step: 0.5, unit: 'mm' });

interface Given {
  kind: ShapeKind;
  x: number;
  y: number;
  widthMm: number;
  heightMm: number;
  roundMm: number;
  sides: number;
  inner: number;
  lineMm: number;
  points: readonly Point[];
}

/** The shape about its middle, in mm. */
function outlineOf(
  { kind, x, y, widthMm, heightMm, roundMm, sides, inner, lineMm, points }: Given,
  frame: Frame,
): Outline {
  const field = fieldOf(frame);
  const inMm = points.map(([u, w]): Point => [(u - x) * field.widthMm, (w - y) * field.heightMm]);
  /** A shape drawn in a circle of its own, brought to width and height. */
  const across = (list: Point[]): Point[] => list.map(([a, b]) => [(a * widthMm) / 2, (b * heightMm) / 2]);
  switch (kind) {
    case 'rectangle':
      return rectangle(widthMm, heightMm, roundMm);
    case 'frame':
      return border(rectangle(widthMm, heightMm, roundMm), lineMm);
    case 'ellipse':
      return ellipse(widthMm, heightMm);
    case 'polygon':
      return polygon(across(corners(Math.max(3, sides), 1)));
    case 'star':
      return polygon(across(corners(Math.max(3, sides), 1, inner)));
    case 'line':
      return polyline([inMm[0], inMm[inMm.length - 1]], lineMm);
    case 'polyline':
      return polyline(inMm, lineMm);
    case 'curve':
      return inMm.length < 3 ? polyline(inMm, lineMm) : polygon(closedCurve(inMm));
  }
}

/** One shape of exact size at an exact place; on joined edges it comes in again from the other side. */
export const shape = partKind({
  title: 'Shape',
  settings: {
    kind: choice({
      label: 'Shape',
      help: 'What is drawn. A closed curve goes smoothly through its points.',
      default: 'rectangle',
      options: SHAPE_KINDS,
      names: ['Rectangle', 'Ellipse', 'Polygon', 'Star', 'Line', 'Polyline', 'Closed curve', 'Frame'],
    }),
    ...MIDDLE,
    widthMm: length('Width', 'From side to side.', 200),
    heightMm: length('Height', 'From top to bottom.', 200),
    degrees: ROTATION,
    roundMm: length('Corners', 'How far the corners of rectangles and frames are rounded.', 0),
    sides: number({
      label: 'Corners of it',
      help: 'Of a polygon; points of a star.',
      default: 6,
      min: 3,
      max: 64,
      step: 1,
      unit: '',
    }),
    inner: number({
      label: 'Inner radius',
      help: 'How far the inner corners of a star are from its middle, as a share of the outer ones.',
      default: 0.45,
      min: 0.05,
      max: 1,
      step: 0.05,
      unit: '',
    }),
    lineMm: length('Line width', 'Of lines, frames, and outlines.', 10),
    isOutlined: flag({
      label: 'Outline only',
      help: 'The border of it is selected, as wide as a line, inside of the shape.',
      default: false,
    }),
    softMm: length('Soft edge', 'Over how much it fades out.', 0),
    points: data<[number, number][]>({
      label: 'Points',
      help: 'Of lines and curves, as shares of the tile’s width and height.',
      default: [
        [0.3, 0.3],
        [0.7, 0.5],
        [0.4, 0.7],
      ],
      schema: pointsSchema,
      example: '[[0.3,0.3],[0.7,0.5],[0.4,0.7]]',
      words: (points) => (points.length === 1 ? '1 point' : `${points.length} points`),
    }),
  },
  reads: () => [],
  values(part, { frame, context }) {
    const whole = outlineOf(part, frame);
    const drawn =
      part.isOutlined && !['line', 'polyline', 'frame'].includes(part.kind)
        ? border(whole, part.lineMm)
        : whole;
    const { widthMm, heightMm } = fieldOf(frame);
    const canvas = { ...frame, unitsAcross: widthMm, unitsDown: heightMm };
    return runSteps(filling(canvas, part, turned(drawn, part.degrees), part.softMm), context.checkpoint);
  },
});
