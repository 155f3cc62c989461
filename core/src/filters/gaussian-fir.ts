import { type Edges, edgeTable } from '../raster/edges.ts';

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
 * Gaussian by direct convolution, kernel cut at 4 σ and normalised. One plane, σ in pixels > 0.
 * Exact, and cheapest for small σ.
 */
export function gaussianFir(
  plane: Float32Array,
  width: number,
  height: number,
  sigma: number,
  edges: Edges,
): Float32Array {
  const kernel = firKernel(sigma);
  const radius = kernel.length - 1;

  const middle = new Float32Array(plane.length);
  const columns = edgeTable(width, radius, radius, edges.x);
  const line = new Float64Array(width + 2 * radius);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let k = 0; k < line.length; k++) line[k] = plane[row + columns[k]];
    for (let x = 0; x < width; x++) {
      const at = x + radius;
      let value = line[at] * kernel[0];
      for (let k = 1; k <= radius; k++) value += (line[at - k] + line[at + k]) * kernel[k];
      middle[row + x] = value;
    }
  }
  const out = new Float32Array(plane.length);
  const rows = edgeTable(height, radius, radius, edges.y);
  const total = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const centre = y * width;
    for (let x = 0; x < width; x++) total[x] = middle[centre + x] * kernel[0];
    for (let k = 1; k <= radius; k++) {
      const above = rows[y + radius - k] * width;
      const below = rows[y + radius + k] * width;
      const weight = kernel[k];
      for (let x = 0; x < width; x++) total[x] += (middle[above + x] + middle[below + x]) * weight;
    }
    out.set(total, centre);
  }
  return out;
}
