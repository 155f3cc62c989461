import { type SettingsOf, STATIONS } from '@zesty-tile/core';
import { onStep } from '../../bench/dials/scale.ts';
import type { Size } from '../../bench/floor/geometry.ts';

/** The crop's settings, as Square keeps them. */
export interface CropDials {
  centreX: number;
  centreY: number;
  share: number;
  turnDegrees: number;
}

const { settings } = STATIONS.square;

const stepped = (key: keyof CropDials, value: number) => {
  const setting = (settings as SettingsOf)[key];
  return setting.type === 'number' ? onStep(setting, value) : value;
};

/** Half the side of the upright square that a turned crop of edge 1 fills. */
const reach = (turnDegrees: number): number => {
  const turn = (turnDegrees * Math.PI) / 180;
  return (Math.abs(Math.cos(turn)) + Math.abs(Math.sin(turn))) / 2;
};

const between = (v: number, low: number, high: number) =>
  low > high ? (low + high) / 2 : Math.min(high, Math.max(low, v));

/** The crop on its settings' steps, kept inside the photo where its size allows that. */
export function keptInside(photo: Size, crop: CropDials): CropDials {
  const shorter = Math.min(photo.width, photo.height);
  const far = reach(crop.turnDegrees);
  const share = stepped('share', Math.min(crop.share, 1 / (2 * far)));
  const half = share * shorter * far;
  return {
    share,
    turnDegrees: stepped('turnDegrees', crop.turnDegrees),
    centreX: stepped('centreX', between(crop.centreX, half / photo.width, 1 - half / photo.width)),
    centreY: stepped('centreY', between(crop.centreY, half / photo.height, 1 - half / photo.height)),
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
  const shorter = Math.min(photo.width, photo.height);
  const turn = (crop.turnDegrees * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const edge = crop.share * shorter;
  const side = (k: 0 | 1) => (k === 1 ? 1 : -1);
  const centre = [crop.centreX * photo.width, crop.centreY * photo.height];
  // The opposite corner, and the diagonal that leads from it to this one.
  const fixed = [
    centre[0] - (edge / 2) * (side(u) * c - side(v) * s),
    centre[1] - (edge / 2) * (side(u) * s + side(v) * c),
  ];
  const along = (x - fixed[0]) * c + (y - fixed[1]) * s;
  const aside = -(x - fixed[0]) * s + (y - fixed[1]) * c;
  const wished = Math.max(along * side(u), aside * side(v));
  const share = keptInside(photo, { ...crop, share: Math.max(0.05, wished / shorter) }).share;
  const half = (share * shorter) / 2;
  return keptInside(photo, {
    ...crop,
    share,
    centreX: (fixed[0] + half * (side(u) * c - side(v) * s)) / photo.width,
    centreY: (fixed[1] + half * (side(u) * s + side(v) * c)) / photo.height,
  });
}

/** The turn at which the middle of the crop's upper edge points to a point of the photo. */
export function turnedTo(photo: Size, crop: CropDials, x: number, y: number): CropDials {
  const dx = x - crop.centreX * photo.width;
  const dy = y - crop.centreY * photo.height;
  const degrees = (Math.atan2(dx, -dy) * 180) / Math.PI;
  return keptInside(photo, { ...crop, turnDegrees: between(degrees, -45, 45) });
}
