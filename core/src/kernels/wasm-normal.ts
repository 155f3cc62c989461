import { CROSS } from '../filters/gradient.ts';
import { edgeTable } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import type { Kernels } from './kernels.ts';
import type { Call } from './wasm.ts';

/** Entries of the edge tables beyond each end. */
const BEYOND = 2;
/** Which kernel, as the compiled module knows it. */
const SHARP = 0;
const CROSSED = 1;

export const wasmNormalMap =
  (call: Call): Kernels['normalMap'] =>
  (field, { width, height }, depthShare, strength, kernel, normalY, edges) => {
    const columns = edgeTable(width, BEYOND, BEYOND, edges.x);
    const rows = edgeTable(height, BEYOND, BEYOND, edges.y);
    const [side, centre] = kernel === 'sharp' ? [0, 0] : CROSS[kernel];
    const scale = depthShare * Math.max(width, height) * strength;
    return call((exports, arena) => {
      // Vectors at the end of a row look at, and write, a little more than it.
      const bytes = field.byteLength + 32;
      const lines = 3 * (4 * width + 32);
      arena.begin(4 * bytes + columns.byteLength + rows.byteLength + lines + 256);
      const put = () => arena.room(bytes);
      const source = put();
      arena.view(source, field.length).set(field);
      const [gx, gy, nz] = [put(), put(), put()];
      exports.gradient(
        source,
        gx,
        gy,
        width,
        height,
        arena.integers(columns),
        arena.integers(rows),
        arena.room(lines),
        kernel === 'sharp' ? SHARP : CROSSED,
        side,
        centre,
      );
      exports.unitNormals(gx, gy, nz, field.byteLength, scale, normalY === 'up' ? 1 : -1);
      const planes = [gx, gy, nz].map((at) => arena.read(at, field.length));
      return new Raster(width, height, planes);
    });
  };
