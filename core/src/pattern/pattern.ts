import { drawnShare } from '../lattice/draw.ts';
import type { DrawRows } from '../raster/rows.ts';
import type { Sides } from '../raster/sides.ts';
import { basket, headers, herringbone, rows, stripes } from './bonds.ts';
import type { Counts, Field, Layout, Place } from './cell.ts';
import { checks, dots, hexagons, rosettes, scales, stars, triangles } from './shapes.ts';
import { basketWeave, plainWeave, twill } from './weaves.ts';

/** Rows of cells whose counts and shift are those of a kind. */
const rowsAs =
  (change: (counts: Counts) => Partial<Counts>) =>
  (field: Field, counts: Counts): Layout =>
    rows(field, { ...counts, ...change(counts) });

/** Every pattern by the name it has in recipes, and its layout for counts across and down a field. */
export const PATTERNS = {
  stripes,
  checks,
  dots,
  grid: rowsAs(() => ({ shift: 0 })),
  planks: rowsAs((counts) => ({ jitter: Math.max(counts.jitter, 0.5) })),
  running: rowsAs(() => ({ shift: 0.5 })),
  header: headers,
  herringbone,
  basket,
  hexagons,
  triangles,
  scales,
  'plain-weave': plainWeave,
  twill,
  'basket-weave': basketWeave,
  stars,
  rosettes,
} satisfies Record<string, (field: Field, counts: Counts) => Layout>;

export type PatternName = keyof typeof PATTERNS;
export const PATTERN_NAMES = Object.keys(PATTERNS) as PatternName[];

export interface PatternShape extends Counts {
  kind: PatternName;
  /** From the joint to where the face is full, mm. */
  bevelMm: number;
}

/** What a pattern gives at each pixel. */
export interface PatternPlanes {
  /** 1 on faces, 0 in joints, with a soft edge of one pixel. */
  face: Float32Array;
  /** Height profile 0..1: 0 in joints, rising over the bevel. */
  profile: Float32Array;
  /** 0..1, drawn for each cell. */
  value: Float32Array;
  /** Distance to the joint, mm, 0 in it. */
  edgeMm: Float32Array;
}

export type PatternPlane = keyof PatternPlanes;

/**
 * Rows of one plane of a pattern on a tile of so many pixels. Exact to a part of a pixel: the edge of a face is where half of a
 * pixel is covered.
 */
export function patternRows(
  shape: PatternShape,
  field: Field,
  { width, height }: Sides,
  plane: PatternPlane,
): DrawRows {
  const layout = PATTERNS[shape.kind](field, shape);
  const [mmX, mmY] = [field.widthMm / width, field.heightMm / height];
  const pixel = Math.sqrt(mmX * mmY);
  const bevel = Math.max(pixel, shape.bevelMm);
  const joint = shape.jointMm / 2;
  const place: Place = { edge: 0, cell: 0 };
  const of = (): number => {
    const face = place.edge - joint;
    if (plane === 'value') return drawnShare(place.cell, shape.seed + 2);
    if (plane === 'edgeMm') return Math.max(0, face);
    // Without joints cells meet, and nothing is left between them.
    if (plane === 'face')
      return Math.min(1, Math.max(0, joint > 0 ? face / pixel + 0.5 : (2 * face) / pixel + 1));
    return Math.min(1, Math.max(0, face / bevel));
  };
  return (into, from, to) => {
    for (let y = from, i = 0; y < to; y++) {
      for (let x = 0; x < width; x++, i++) {
        layout((x + 0.5) * mmX, (y + 0.5) * mmY, place);
        into[i] = of();
      }
    }
  };
}
