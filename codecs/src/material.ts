import { holds, type MapName, type PlannedPicture } from '@zesty-tile/core';

/** A picture that was encoded, as a document holds or names it. */
export interface MaterialPicture {
  picture: PlannedPicture;
  name: string;
  bytes: Uint8Array;
}

/** What a document says of a tile. */
export interface Material {
  name: string;
  pictures: MaterialPicture[];
  widthMetres: number;
  heightMetres: number;
  depthMetres: number;
  /** Brightest F0 of what is not metal, linear. */
  dielectric: readonly [number, number, number];
  /** +1 where the recipe's green points up. */
  green: 1 | -1;
}

/** The first picture that holds a map as it is, and the channel where that begins. */
export function pictureOf(
  pictures: readonly MaterialPicture[],
  map: MapName,
): (MaterialPicture & { channel: number }) | null {
  for (const one of pictures) {
    const channel = one.picture.file.channels.findIndex((value) => holds(value, map));
    if (channel >= 0) return { ...one, channel };
  }
  return null;
}
