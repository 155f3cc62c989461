import type { Raster } from '../raster/raster.ts';

/** How values are shown: colour through the sRGB curve, data as grey, normals as codes, light in false colour. */
export type ViewKind = 'colour' | 'data' | 'normal' | 'light';

/** A picture that a station can show of its work, beside the maps of the tile. */
export interface View {
  title: string;
  kind: ViewKind;
  /** The view it was made from, for a comparison; null for the photo. */
  before: string | null;
  /** A part of a map rather than a picture of its own: shown where it is asked for, and in no list. */
  isDetail?: true;
  /** Its values from the outputs of the stations so far; null while they are not made. */
  // biome-ignore lint/suspicious/noExplicitAny: outputs of all stations by name
  raster(outputs: any): Raster | null | Promise<Raster | null>;
}
