/**
 * Decoded samples as the host hands them out: interleaved RGB or RGBA, alpha straight. Whole numbers are codes
 * as the file has them; floats are linear values, alpha 0..1.
 */
export interface Pixels {
  width: number;
  height: number;
  channels: 3 | 4;
  data: Uint8Array | Uint16Array | Float32Array;
  /** Size of the picture these samples were reduced from. */
  originalWidth: number;
  originalHeight: number;
}

/** A picture a tile is made of: named by the SHA-256 of its file. */
export interface SourceRef {
  sha256: string;
  width: number;
  height: number;
}
