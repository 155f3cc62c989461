/** Sides of a picture in pixels. */
export interface Sides {
  width: number;
  height: number;
}
