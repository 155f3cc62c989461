import type { Band } from '../../raster/band.ts';
import { type Edges, edgeIndex, edgeTable } from '../../raster/edges.ts';

/** Half of the kernel from its middle, cut at 4 σ and normalised. */
export function firKernel(sigma: number): Float64Array {
  const radius = Math.max(1, Math.ceil(4 * sigma));
  const kernel = new Float64Array(radius + 1);
  let sum = 0;
  for (let k = 0; k <= radius; k++) {
    kernel[k] = Math.exp(-(k * k) / (2 * sigma * sigma));
    sum += k === 0 ? kernel[k] : 2 * kernel[k];
  }
  for (let k = 0; k <= radius; k++) kernel[k] /= sum;
  return kernel;
}

/**
 * Rows of a Gaussian by direct convolution with half a kernel from its middle, from one plane into the same rows of another.
 * Exact, and cheapest for small σ.
 */
export function gaussianFirBand(
  plane: Float32Array,
  out: Float32Array,
  { width, height, edges }: { width: number; height: number; edges: Edges },
  kernel: Float64Array,
  { from, to }: Band,
): void {
  const radius = kernel.length - 1;
  const columns = edgeTable(width, radius, radius, edges.x);
  const line = new Float64Array(width + 2 * radius);
  const middle = new Float32Array((to - from + 2 * radius) * width);
  for (let row = 0; row < middle.length; row += width) {
    const at = edgeIndex(from - radius + row / width, height, edges.y) * width;
    for (let k = 0; k < line.length; k++) line[k] = plane[at + columns[k]];
    for (let x = 0; x < width; x++) {
      const here = x + radius;
      let value = line[here] * kernel[0];
      for (let k = 1; k <= radius; k++) value += (line[here - k] + line[here + k]) * kernel[k];
      middle[row + x] = value;
    }
  }
  const total = new Float64Array(width);
  for (let y = from; y < to; y++) {
    const centre = (y - from + radius) * width;
    for (let x = 0; x < width; x++) total[x] = middle[centre + x] * kernel[0];
    for (let k = 1; k <= radius; k++) {
      const above = centre - k * width;
      const below = centre + k * width;
      const weight = kernel[k];
      for (let x = 0; x < width; x++) total[x] += (middle[above + x] + middle[below + x]) * weight;
    }
    out.set(total, y * width);
  }
}

export const reference = { gaussianFirBand };
