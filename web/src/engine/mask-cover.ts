import {
  coverShare,
  type Frame,
  type Mask,
  maskCover,
  PLAIN_CONTEXT,
  type StationOutputs,
  stableJson,
  type WorkContext,
} from '@zesty-tile/core';
import type { ShownCover } from './protocol.ts';

/** Parts of zones that are shown, kept for the tile they were made of. */
let kept = { of: null as unknown, parts: new Map<string, unknown>() };

function contextFor(of: unknown): WorkContext {
  if (kept.of !== of) kept = { of, parts: new Map() };
  const { parts } = kept;
  return {
    ...PLAIN_CONTEXT,
    part: async (name, dependsOn, make) => {
      const key = stableJson([name, dependsOn]);
      if (!parts.has(key)) parts.set(key, await make());
      return parts.get(key) as Awaited<ReturnType<typeof make>>;
    },
  };
}

function codesOf(cover: Float32Array): Uint8Array<ArrayBuffer> {
  const codes = new Uint8Array(cover.length);
  for (let i = 0; i < codes.length; i++) codes[i] = 255 * cover[i] + 0.5;
  return codes;
}

/** What a zone covers of a tile, as it is shown over it. */
export async function shownCover(
  zone: Mask,
  { style, relief }: Pick<StationOutputs, 'style' | 'relief'>,
  frame: Frame,
): Promise<ShownCover> {
  const cover = await maskCover(zone, { style, relief }, frame, contextFor(style));
  return { width: frame.width, height: frame.height, values: codesOf(cover), share: coverShare(cover) };
}
