import { linearOfHex, linearToSrgb, type Pixels, type SourceRef } from '@zesty-tile/core';

const PREFIX = 'plain ';
const EDGE = 1024;

/** A source that is one colour and no file: only the program's own recipes start from such. */
export const plainSource = (hex: string): SourceRef => ({
  sha256: `${PREFIX}${hex}`,
  width: EDGE,
  height: EDGE,
});

/** The pixels of a source that is one colour, as small as they are asked for; null for every other. */
export function plainPixels(sha256: string, shortEdge: number): Pixels | null {
  if (!sha256.startsWith(PREFIX)) return null;
  const codes = linearOfHex(sha256.slice(PREFIX.length)).map((value) =>
    Math.round(255 * linearToSrgb(value)),
  );
  const edge = Math.min(EDGE, Math.max(1, shortEdge));
  const data = new Uint8Array(3 * edge * edge);
  for (let i = 0; i < data.length; i++) data[i] = codes[i % 3];
  return { width: edge, height: edge, channels: 3, data, originalWidth: EDGE, originalHeight: EDGE };
}
