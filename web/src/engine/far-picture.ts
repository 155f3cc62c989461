import { type FarLook, farField, mipChain, Raster } from '@zesty-tile/core';
import type { Thumbnail } from './protocol.ts';
import { rgbaOf } from './view-pictures.ts';
import type { ViewName } from './views.ts';

/** Mips of the raster that was looked at last. */
let known: { raster: Raster; chain: Raster[] } | null = null;

/** A view's raster laid far away; clear above the horizon. */
export function farPicture(raster: Raster, view: ViewName, look: FarLook): Thumbnail {
  if (known?.raster !== raster) known = { raster, chain: mipChain(raster) };
  const { width, height, planes } = farField(known.chain, look);
  const ground = planes[planes.length - 1];
  const rgba = rgbaOf(new Raster(width, height, planes.slice(0, -1)), view);
  for (let i = 0; i < ground.length; i++) if (ground[i] === 0) rgba[4 * i + 3] = 0;
  return { width, height, rgba };
}
