import type { SourceRef } from '@zesty-tile/core';

/** The most a task may take once it runs, in seconds. A slow machine needs a tenth of it. */
export const SECONDS = { facts: 30, decode: 120, look: 300 };

/** The most a crate of an edge in pixels may take, in seconds: ten times what two cores need. */
export const crateSeconds = (size: number): number => 900 + 3600 * (size / 8192) ** 2;

/** Memory to make a crate of an edge in pixels, in bytes, as measured at 4096² and 8192². */
export const crateBytes = (size: number): number => 2 ** 29 + 128 * size * size;

/** Bits of a channel where they are not known. */
const USUAL_BITS = 16;

/** Memory to decode a picture, in bytes: its samples, and a second copy on the way. */
export const decodeBytes = ({ width, height, bits = USUAL_BITS }: SourceRef & { bits?: number }): number =>
  width * height * (bits === 32 ? 24 : bits);
