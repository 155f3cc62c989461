/** Where output pixel (0, 0) lies in the input, and the step for one pixel right and one down. */
export interface Affine {
  originX: number;
  originY: number;
  rightX: number;
  rightY: number;
  downX: number;
  downY: number;
}
