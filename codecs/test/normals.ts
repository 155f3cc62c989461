import { normalMap, TORUS } from '@zesty-tile/core';
import sharp from 'sharp';

/** A normal map as a PNG, from a height 0..1 of a square tile. */
export function normalsOf(height: Float32Array, edge: number, normalY: 'up' | 'down'): Promise<Buffer> {
  const { planes } = normalMap(height, { width: edge, height: edge }, 0.05, 1, 'sharp', normalY, TORUS);
  const codes = Uint8Array.from({ length: 3 * edge * edge }, (_, i) =>
    Math.round(127.5 * (planes[i % 3][Math.floor(i / 3)] + 1)),
  );
  return sharp(codes, { raw: { width: edge, height: edge, channels: 3 } })
    .png()
    .toBuffer();
}

const EDGE = 128;

/** The normals of waves that are no sum of one across and one down: they tell where their green points. */
export function waveNormals(normalY: 'up' | 'down'): Promise<Buffer> {
  const height = Float32Array.from({ length: EDGE * EDGE }, (_, i) => {
    const [x, y] = [(2 * Math.PI * (i % EDGE)) / EDGE, (2 * Math.PI * Math.floor(i / EDGE)) / EDGE];
    return 0.5 + 0.25 * Math.sin(3 * x + 4 * y) + 0.2 * Math.cos(5 * x - 2 * y);
  });
  return normalsOf(height, EDGE, normalY);
}
