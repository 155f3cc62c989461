import { encodeSrgbPlane } from '../../colour/srgb.ts';
import { Raster } from '../../raster/raster.ts';
import { resizeArea } from '../../raster/resize.ts';
import { percentiles } from '../../raster/statistics.ts';

/** Seam and blotch figures by axis: x across the left–right edge, y across the top–bottom edge. */
export interface SeamFigures {
  seamX: number;
  seamY: number;
  blotchX: number;
  blotchY: number;
}

/** Column-mean absolute steps: entry x is the step from column x to x + 1, the last one across the edge. */
function columnSteps(raster: Raster): Float64Array {
  const { width, height, planes } = raster;
  const steps = new Float64Array(width);
  for (const plane of planes) {
    for (let y = 0; y < height; y++) {
      const row = y * width;
      for (let x = 0; x < width - 1; x++) steps[x] += Math.abs(plane[row + x + 1] - plane[row + x]);
      steps[width - 1] += Math.abs(plane[row] - plane[row + width - 1]);
    }
  }
  return steps.map((sum) => sum / (height * planes.length));
}

function rowSteps(raster: Raster): Float64Array {
  const { width, height, planes } = raster;
  const steps = new Float64Array(height);
  for (const plane of planes) {
    for (let y = 0; y < height; y++) {
      const here = y * width;
      const next = y === height - 1 ? 0 : here + width;
      let sum = 0;
      for (let x = 0; x < width; x++) sum += Math.abs(plane[next + x] - plane[here + x]);
      steps[y] += sum;
    }
  }
  return steps.map((sum) => sum / (width * planes.length));
}

const NOTHING = 1e-6;

function figure(steps: Float64Array): number {
  const edge = steps[steps.length - 1];
  const [usual] = percentiles(steps.subarray(0, steps.length - 1), [95]);
  return edge < NOTHING ? 0 : edge / (usual + NOTHING);
}

const BOX = 8;

/**
 * Seam figure: mean absolute step across the edge ÷ the 95th percentile of the column-mean (row-mean)
 * steps inside; 1 or less is hidden. Blotch figure: the same after an 8 × box reduction.
 * The raster's values are taken as they are: encode colour first (`pictureSeams`).
 */
export function seamFigures(raster: Raster): SeamFigures {
  const small = resizeArea(
    raster,
    Math.max(2, Math.round(raster.width / BOX)),
    Math.max(2, Math.round(raster.height / BOX)),
  );
  return {
    seamX: figure(columnSteps(raster)),
    seamY: figure(rowSteps(raster)),
    blotchX: figure(columnSteps(small)),
    blotchY: figure(rowSteps(small)),
  };
}

/** `seamFigures` of a linear colour picture, measured on its sRGB-encoded values, as it is seen. */
export function pictureSeams(picture: Raster): SeamFigures {
  return seamFigures(new Raster(picture.width, picture.height, picture.planes.map(encodeSrgbPlane)));
}
