/** Two overlapping copies of the picture in one strip: `width` across the seam, `length` along it. */
export interface Strip {
  width: number;
  length: number;
  /** The copy that continues from the tile's far side; pure at the strip's left end. */
  a: Float32Array[];
  /** The copy that continues into the tile; pure at the strip's right end. */
  b: Float32Array[];
}
