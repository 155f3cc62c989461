import type { Edges } from '../../raster/edges.ts';
import type { Sides } from '../../raster/sides.ts';

/** How the step over an edge compares with all steps inside. */
export interface SeamRank {
  /** Share of the steps that are smaller, 0..1. */
  rank: number;
  /** How many times as large as the largest of them it is. */
  excess: number;
}

/** Mean absolute steps from each row to the next, the last over the edge. */
function rowSteps(plane: Float32Array, { width, height }: Sides): Float64Array {
  const steps = new Float64Array(height);
  for (let y = 0; y < height; y++) {
    const next = ((y + 1) % height) * width;
    for (let x = 0; x < width; x++) steps[y] += Math.abs(plane[next + x] - plane[y * width + x]) / width;
  }
  return steps;
}

/** Mean absolute steps from each column to the next, the last over the edge. */
function columnSteps(plane: Float32Array, { width, height }: Sides): Float64Array {
  const steps = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let x = 0; x < width; x++) {
      const next = x + 1 < width ? x + 1 : 0;
      steps[x] += Math.abs(plane[row + next] - plane[row + x]) / height;
    }
  }
  return steps;
}

function ranked(steps: Float64Array): SeamRank {
  const seam = steps[steps.length - 1];
  const inside = steps.subarray(0, -1);
  const largest = inside.reduce((most, step) => Math.max(most, step), 0);
  const smaller = inside.reduce((count, step) => count + (step < seam ? 1 : 0), 0);
  return { rank: smaller / Math.max(1, inside.length), excess: largest > 0 ? seam / largest : 0 };
}

/** The worse of the edges that wrap, by lightness; no step at all where none does. */
export function seamRank(lightness: Float32Array, sides: Sides, edges: Edges): SeamRank {
  const found: SeamRank[] = [];
  if (edges.y === 'wrap') found.push(ranked(rowSteps(lightness, sides)));
  if (edges.x === 'wrap') found.push(ranked(columnSteps(lightness, sides)));
  return found.reduce((worst, one) => (one.excess > worst.excess ? one : worst), { rank: 0, excess: 0 });
}
