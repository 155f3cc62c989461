import { type EngineHost, type Pixels, reducePixels, reductionFor, type SourceRef } from '@zesty-tile/core';
import { LRUCache } from 'lru-cache';
import { collectNow } from './collect.ts';
import { decodePicture } from './decode.ts';

/** Memory for decoded pictures where nothing else is asked for: a large photo and the maps supplied with it. */
const USUAL_BYTES = 2 ** 30;

export interface SourceHostOptions {
  /** The most memory that decoded pictures may take between requests, in bytes. */
  cacheBytes?: number;
}

/** An engine host over files, with control over the decoded pictures it keeps. */
export interface SourceHost extends EngineHost {
  /** As `pixels`, but the samples belong to the caller: none of them are kept, so their memory may be transferred. */
  take: EngineHost['pixels'];
  /** Forgets every decoded picture. */
  clear(): void;
}

/**
 * An engine host that decodes files on this machine and reduces them by the one filter that all share. The pictures used last
 * are kept, by their size in bytes; one at a time is decoded, so that a set of large maps is never unpacked at once.
 */
export function sourceHost(
  read: (source: SourceRef) => Promise<Uint8Array>,
  { cacheBytes = USUAL_BYTES }: SourceHostOptions = {},
): SourceHost {
  const kept = new LRUCache<string, Pixels>({
    maxSize: cacheBytes,
    sizeCalculation: ({ data }) => data.buffer.byteLength,
  });
  const underWay = new Map<string, Promise<Pixels>>();
  let last: Promise<void> = Promise.resolve();

  const decode = (source: SourceRef): Promise<Pixels> => {
    const decoding = last
      .catch(() => {})
      .then(async () => {
        const pixels = await decodePicture(await read(source));
        kept.set(source.sha256, pixels);
        return pixels;
      });
    underWay.set(source.sha256, decoding);
    const end = () => {
      underWay.delete(source.sha256);
    };
    // Without its pixels, which would be kept by it.
    last = decoding.then(end, end);
    return decoding;
  };
  const decoded = async (source: SourceRef): Promise<Pixels> =>
    kept.get(source.sha256) ?? underWay.get(source.sha256) ?? decode(source);

  return {
    collect: collectNow,
    async pixels(source, shortEdge, kind) {
      return reducePixels(await decoded(source), reductionFor(source, shortEdge), kind);
    },
    async take(source, shortEdge, kind) {
      const whole = await decoded(source);
      const factor = reductionFor(source, shortEdge);
      if (factor <= 1) kept.delete(source.sha256);
      return reducePixels(whole, factor, kind);
    },
    clear: () => kept.clear(),
  };
}
