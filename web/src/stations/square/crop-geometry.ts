import { aspectOf, type SettingsOf, type Shape, STATIONS } from '@zesty-tile/core';
import { onStep } from '../../bench/dials/scale.ts';
import type { Size } from '../../bench/floor/geometry.ts';

/** The crop's settings, as Square keeps them. */
export interface CropDials {
  centreX: number;
  centreY: number;
  share: number;
  turnDegrees: number;
  /** Of the tile; it is not set by the crop. */
  shape?: Shape;
}

const { settings } = STATIONS.square;

const stepped = (key: Exclude<keyof CropDials, 'shape'>, value: number) => {
  const setting = (settings as SettingsOf)[key];
  return setting.type === 'number' ? onStep(setting, value) : value;
};

/** Width and height, in photo pixels, of the largest upright crop of this shape: share 1. */
function largest(photo: Size, { shape = '1:1' }: CropDials): [number, number] {
  const aspect = aspectOf(shape);
  const across = Math.min(photo.width, photo.height * aspect);
  return [across, across / aspect];
}

/** Half the sides of the upright rectangle that the largest crop fills once it is turned. */
function reach(photo: Size, crop: CropDials): [number, number] {
  const [across, down] = largest(photo, crop);
  const turn = (crop.turnDegrees * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  return [(across * c + down * s) / 2, (across * s + down * c) / 2];
}

const between = (v: number, low: number, high: number) =>
  low > high ? (low + high) / 2 : Math.min(high, Math.max(low, v));

/** The crop on its settings' steps, kept inside the photo where its size allows that. */
export function keptInside(photo: Size, crop: CropDials): CropDials {
  const [farX, farY] = reach(photo, crop);
  const share = stepped('share', Math.min(crop.share, photo.width / (2 * farX), photo.height / (2 * farY)));
  const [halfX, halfY] = [share * farX, share * farY];
  return {
    ...crop,
    share,
    turnDegrees: stepped('turnDegrees', crop.turnDegrees),
    centreX: stepped('centreX', between(crop.centreX, halfX / photo.width, 1 - halfX / photo.width)),
    centreY: stepped('centreY', between(crop.centreY, halfY / photo.height, 1 - halfY / photo.height)),
  };
}

/** The crop moved by photo pixels. */
export const moved = (photo: Size, crop: CropDials, dx: number, dy: number): CropDials =>
  keptInside(photo, {
    ...crop,
    centreX: crop.centreX + dx / photo.width,
    centreY: crop.centreY + dy / photo.height,
  });

/**
 * The crop with one corner pulled to a point of the photo while the opposite corner stays. `u` and `v`
 * say which corner: 0 left or top, 1 right or bottom.
 */
export function pulled(photo: Size, crop: CropDials, u: 0 | 1, v: 0 | 1, x: number, y: number): CropDials {
  const [across, down] = largest(photo, crop);
  const turn = (crop.turnDegrees * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const side = (k: 0 | 1) => (k === 1 ? 1 : -1);
  const centre = [crop.centreX * photo.width, crop.centreY * photo.height];
  // The opposite corner, and the diagonal that leads from it to this one.
  const fixed = [
    centre[0] - (crop.share / 2) * (across * side(u) * c - down * side(v) * s),
    centre[1] - (crop.share / 2) * (across * side(u) * s + down * side(v) * c),
  ];
  const along = (x - fixed[0]) * c + (y - fixed[1]) * s;
  const aside = -(x - fixed[0]) * s + (y - fixed[1]) * c;
  const wished = Math.max((along * side(u)) / across, (aside * side(v)) / down);
  const { share } = keptInside(photo, { ...crop, share: Math.max(0.05, wished) });
  return keptInside(photo, {
    ...crop,
    share,
    centreX: (fixed[0] + (share / 2) * (across * side(u) * c - down * side(v) * s)) / photo.width,
    centreY: (fixed[1] + (share / 2) * (across * side(u) * s + down * side(v) * c)) / photo.height,
  });
}

/** The turn at which the middle of the crop's upper edge points to a point of the photo. */
export function turnedTo(photo: Size, crop: CropDials, x: number, y: number): CropDials {
  const dx = x - crop.centreX * photo.width;
  const dy = y - crop.centreY * photo.height;
  const degrees = (Math.atan2(dx, -dy) * 180) / Math.PI;
  return keptInside(photo, { ...crop, turnDegrees: between(degrees, -45, 45) });
}
