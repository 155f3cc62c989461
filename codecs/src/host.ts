import { type EngineHost, type Pixels, reducePixels, reductionFor, type SourceRef } from '@zesty-tile/core';
import { decodePicture } from './decode.ts';

/** Decoded pictures kept at hand: a source and all maps that may be given with it. */
const KEPT = 9;

/**
 * An engine host that decodes files on this machine and hands them out brought down by the one stated
 * filter. The pictures decoded last are kept.
 */
export function sourceHost(read: (source: SourceRef) => Promise<Uint8Array>): EngineHost {
  const kept = new Map<string, Promise<Pixels>>();
  const decoded = (source: SourceRef): Promise<Pixels> => {
    const known = kept.get(source.sha256);
    if (known) return known;
    const pixels = read(source).then(decodePicture);
    kept.set(source.sha256, pixels);
    pixels.catch(() => kept.delete(source.sha256));
    if (kept.size > KEPT) kept.delete(kept.keys().next().value ?? '');
    return pixels;
  };
  return {
    async pixels(source, shortEdge, kind) {
      return reducePixels(await decoded(source), reductionFor(source, shortEdge), kind);
    },
  };
}
