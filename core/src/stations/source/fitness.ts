import { luminance } from '../../colour/luminance.ts';
import { drift } from '../even/drift.ts';
import type { SourceOutput } from '../types.ts';

/** What a photo offers. Shares are 0..1. */
export interface Fitness {
  /** Pixels of the original's shorter side. */
  shortEdge: number;
  /** Largest offered tile size the photo fills. */
  fittingSize: number;
  /** Broad change of light over the photo, see `drift`. */
  unevenness: number;
  /** Share of pixels with a channel at full, or with all channels at zero. */
  clipped: number;
}

const FULL = 0.999;

/** Measures the fitness of a linearised photo. */
export function fitness(source: SourceOutput): Fitness {
  const [r, g, b] = source.picture.planes;
  let clipped = 0;
  for (let i = 0; i < r.length; i++) {
    if (r[i] >= FULL || g[i] >= FULL || b[i] >= FULL || r[i] + g[i] + b[i] <= 0) clipped++;
  }
  const shortEdge = Math.min(source.originalWidth, source.originalHeight);
  return {
    shortEdge,
    fittingSize: Math.max(256, 2 ** Math.floor(Math.log2(shortEdge))),
    unevenness: drift(luminance(source.picture), source.picture.width, source.picture.height).rms,
    clipped: clipped / r.length,
  };
}
