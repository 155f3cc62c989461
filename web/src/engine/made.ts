import {
  Engine,
  type Frame,
  type Raster,
  type Recipe,
  type StationName,
  type StationOutputs,
  type Surface,
} from '@zesty-tile/core';
import * as Comlink from 'comlink';
import { buffersOf, toHandOut } from './handed-out.ts';
import { serverHost } from './pixels.ts';
import type { ShownView, Thumbnail } from './protocol.ts';
import { smallMip } from './small-mip.ts';
import { teamHere } from './team.ts';
import { rgbaOf, viewRaster } from './view-pictures.ts';
import { VIEW_OF, type ViewName } from './views.ts';

/** Until the page says what was chosen. */
const CACHE_BYTES = 600e6;

export const team = teamHere();
export const engine = new Engine({ ...serverHost, team }, CACHE_BYTES);

/** Outputs of a pass, as far as it is. */
export interface Made {
  outputs: Partial<StationOutputs>;
  size: number;
  repairs: number;
  hasCoats: boolean;
}
export interface Whole extends Made {
  frame: Frame;
  surface: Surface;
}

/** What this worker has made, and what the page looks at. */
export const made = {
  /** What the current pass has made so far, and what the last whole pass made. */
  latest: null as Made | null,
  whole: null as Whole | null,
  /** The last whole pass at the working size, from which zones are shown while they are drawn. */
  quick: null as Whole | null,
  wantedView: 'photo' as ViewName,
  /** The recipe of the last whole pass, with its decisions. */
  recipe: null as Recipe | null,
};

/** A picture as it is sent to the Floor. */
export const shownRaster = (raster: Raster, view: ViewName, repairs: number): ShownView => ({
  view,
  width: raster.width,
  height: raster.height,
  rgba: rgbaOf(raster, view),
  planes: raster.planes.map(toHandOut),
  repairs,
});

/** A view of what was made, for the Floor; null while it is not made. */
export async function viewOf(
  { outputs, repairs, hasCoats }: Omit<Made, 'size'>,
  view: ViewName,
): Promise<ShownView | null> {
  const raster = await viewRaster(outputs, view, hasCoats);
  return raster && shownRaster(raster, view, repairs);
}

/** A small picture of what a station made, for the Course. */
export function thumbnailOf(outputs: Made['outputs'], station: StationName): Thumbnail | null {
  const view = VIEW_OF[station];
  const raster = viewRaster(outputs, view);
  if (!raster || raster instanceof Promise) return null;
  const small = smallMip(raster);
  return { width: small.width, height: small.height, rgba: rgbaOf(small, view) };
}

/** A view of what was made last, or of the last whole pass; null where neither has it. */
export const cachedView = async (view: ViewName): Promise<ShownView | null> =>
  (made.latest && (await viewOf(made.latest, view))) ?? (made.whole && (await viewOf(made.whole, view)));

/** A view with its memory transferred to the page. */
export const transferred = (shown: ShownView | null): ShownView | null =>
  shown && Comlink.transfer(shown, buffersOf(shown));
