import { KERNELS } from '../../kernels/kernels.ts';
import { stepBetween } from '../../kernels/steps/reference.ts';
import { PLANES } from '../../memory/pool.ts';
import { Raster } from '../../raster/raster.ts';
import { resizingArea } from '../../sampling/resize.ts';
import { percentiles } from '../../statistics/statistics.ts';
import { runToEnd, type Steps } from '../../work/steps.ts';

/** Seam and blotch figures by axis: x across the left–right edge, y across the top–bottom edge. */
export interface SeamFigures {
  seamX: number;
  seamY: number;
  blotchX: number;
  blotchY: number;
}

/**
 * Mean absolute steps from column to column and from row to row of a picture that is told band by band from its top; the last
 * one of each goes across the edge.
 */
export class StepTally {
  #width: number;
  #columns: Float64Array;
  #rows: Float64Array;
  #channels = 1;
  #first: Float32Array[] | null = null;
  #last: Float32Array[] = [];
  #told = 0;

  constructor(width: number, height: number) {
    this.#width = width;
    this.#columns = new Float64Array(width);
    this.#rows = new Float64Array(height);
  }

  /** The next rows, whole, one plane a channel. */
  add(planes: readonly Float32Array[]): void {
    const width = this.#width;
    const columns = this.#columns;
    const rows = this.#rows;
    const count = planes[0].length / width;
    this.#channels = planes.length;
    for (const [c, plane] of planes.entries()) {
      const between = KERNELS.addSteps(plane, width, columns);
      for (let y = 0; y < between.length; y++) rows[this.#told + y] += between[y];
      const before = this.#last[c];
      if (before) rows[this.#told - 1] += stepBetween(before, plane.subarray(0, width));
    }
    const rowOf = (y: number) => planes.map((plane) => plane.slice(y * width, (y + 1) * width));
    this.#first ??= rowOf(0);
    this.#last = rowOf(count - 1);
    this.#told += count;
  }

  #steps(): { columns: Float64Array; rows: Float64Array } {
    const { length } = this.#rows;
    this.#rows[length - 1] = (this.#first ?? []).reduce(
      (sum, first, c) => sum + stepBetween(this.#last[c], first),
      0,
    );
    return {
      columns: this.#columns.map((sum) => sum / (length * this.#channels)),
      rows: this.#rows.map((sum) => sum / (this.#width * this.#channels)),
    };
  }

  /** Whether all that was told is of one value, once all rows are. */
  get isUniform(): boolean {
    return this.#columns.every((sum) => sum === 0) && this.#rows.every((sum) => sum === 0);
  }

  /** The seam figures of what was told, once all rows are. */
  figures(): { seamX: number; seamY: number } {
    const { columns, rows } = this.#steps();
    return { seamX: figure(columns), seamY: figure(rows) };
  }
}

function figuresOf({ width, height, planes }: Raster): { seamX: number; seamY: number } {
  const tally = new StepTally(width, height);
  tally.add(planes);
  return tally.figures();
}

const NOTHING = 1e-6;

function figure(steps: Float64Array): number {
  const edge = steps[steps.length - 1];
  const [usual] = percentiles(steps.subarray(0, steps.length - 1), [95]);
  return edge < NOTHING ? 0 : edge / (usual + NOTHING);
}

const BOX = 8;

/** Seams of values as they are. */
function* seamsOfValues(raster: Raster): Steps<SeamFigures> {
  const small = yield* resizingArea(
    raster,
    Math.max(2, Math.round(raster.width / BOX)),
    Math.max(2, Math.round(raster.height / BOX)),
  );
  const blotch = figuresOf(small);
  return { ...figuresOf(raster), blotchX: blotch.seamX, blotchY: blotch.seamY };
}

/**
 * Seam figure: mean absolute step across the edge ÷ the 95th percentile of the column-mean (row-mean)
 * steps inside; 1 or less is hidden. Blotch figure: the same after an 8 × box reduction.
 * The raster's values are taken as they are: encode colour first (`pictureSeams`).
 */
export const seamFigures = (raster: Raster): SeamFigures => runToEnd(seamsOfValues(raster));

/** Rows that are encoded at once, whole boxes: they stay near the processor, and no plane of their own is needed. */
const ROWS = 16 * BOX;

/** `seamFigures` of a linear colour picture, measured on its sRGB-encoded values, as it is seen. Pauses between bands. */
export function* measuringSeams({ width, height, planes }: Raster): Steps<SeamFigures> {
  if (width % BOX !== 0 || height % BOX !== 0)
    return yield* seamsOfValues(new Raster(width, height, planes.map(KERNELS.encodeSrgbPlane)));
  const tally = new StepTally(width, height);
  const small = Raster.filled(width / BOX, height / BOX, planes.length);
  for (let y = 0; y < height; y += ROWS) {
    const rows = Math.min(ROWS, height - y);
    const band = planes.map((plane) =>
      KERNELS.encodeSrgbPlane(plane.subarray(y * width, (y + rows) * width)),
    );
    tally.add(band);
    const boxes = yield* resizingArea(new Raster(width, rows, band), small.width, rows / BOX);
    PLANES.give(...band);
    for (const [c, plane] of boxes.planes.entries()) small.planes[c].set(plane, (y / BOX) * small.width);
  }
  const blotch = figuresOf(small);
  return { ...tally.figures(), blotchX: blotch.seamX, blotchY: blotch.seamY };
}

/** `measuringSeams` in one go. */
export const pictureSeams = (picture: Raster): SeamFigures => runToEnd(measuringSeams(picture));
