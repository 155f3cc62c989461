import type { Raster } from '../../raster/raster.ts';
import type { Belonging } from './marks.ts';

export interface GaugeOutput {
  /** Base colour as it is exported, linear RGB. Where F0 was supplied as a map it is the diffuse colour instead. */
  albedo: Raster;
  /** The same before wet zones were darkened: what is compared with the chart. */
  dry: Raster;
  /** The picture that Style painted for coats alone, calibrated as the tile is; null where there is none. */
  painted: Raster | null;
  /** Which pixels belong to zones with chart lines of their own; null where there are none. */
  zones: Belonging | null;
  /** Names of zones that select nothing. */
  empty: string[];
}
