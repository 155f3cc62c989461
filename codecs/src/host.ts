import { type EngineHost, type Pixels, reducePixels, reductionFor, type SourceRef } from '@zesty-tile/core';
import { decodePicture } from './decode.ts';

/**
 * An engine host that decodes files on this machine and hands them out brought down by the one stated
 * filter. The last decoded source is kept.
 */
export function sourceHost(read: (source: SourceRef) => Promise<Uint8Array>): EngineHost {
  let kept: { sha256: string; pixels: Promise<Pixels> } | null = null;
  return {
    async pixels(source, shortEdge) {
      if (kept?.sha256 !== source.sha256) {
        const pixels = read(source).then(decodePicture);
        kept = { sha256: source.sha256, pixels };
        pixels.catch(() => {
          kept = null;
        });
      }
      return reducePixels(await kept.pixels, reductionFor(source, shortEdge));
    },
  };
}
