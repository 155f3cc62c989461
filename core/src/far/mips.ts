import type { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';

/**
 * A tile and its halves, each the area mean of the one before, down to one pixel (Williams 1983). Values are averaged as they
 * stand: colour must be linear. A game that averages so neither darkens nor greys with distance by itself.
 */
export function mipChain(raster: Raster): Raster[] {
  const chain = [raster];
  let now = raster;
  while (now.width > 1 || now.height > 1) {
    now = resizeArea(now, Math.max(1, now.width >> 1), Math.max(1, now.height >> 1));
    chain.push(now);
  }
  return chain;
}
