import type { ShapePoint, ShapeTriangle } from '@zesty-tile/core';
import { create } from 'zustand';
import type { ShownMaps } from '../../engine/protocol.ts';

export type Vector = ShapePoint['at'];

/** A place of the surface that is seen under the pointer. */
export interface SurfaceHit {
  at: Vector;
  /** Which way the surface faces there. */
  normal: Vector;
  /** Which way is up in the tile. */
  up: Vector;
  /** In shares of the tile, not wrapped. */
  place: [number, number];
}

/** What shows the open tile in the light, as the pointer finds it. Places of the view are CSS pixels from its upper left corner. */
export interface LitSurface {
  /** Length of the tile's longer edge, in the unit of places. */
  edge: number;
  /** Whether the tile goes on beyond the edges of the shape. */
  goesOn: boolean;
  hitAt(x: number, y: number): SurfaceHit | null;
  /** Where a place lies in the view. */
  viewOf(at: Vector): [number, number];
  /** Triangles within a distance of places, the nearest to the first of them first; those that are seen, or hidden ones as well. */
  near(places: readonly Vector[], distance: number, hiddenToo: boolean): ShapeTriangle[];
}

/** The maps that the open tile is drawn with in the light: without a graphics card it follows the newest after a rest. */
export const useDrawn = create<{ maps: ShownMaps | null }>(() => ({ maps: null }));

type Surface = () => LitSurface | null;

let current: Surface = () => null;

/** What is in the light now; null where nothing is that could be painted on. */
export const litSurface: Surface = () => current();

/** The view that is drawn answers from now on; what is given back ends that. */
export function offerSurface(surface: Surface): () => void {
  current = surface;
  return () => {
    if (current === surface) current = () => null;
  };
}
