import * as v from 'valibot';
import { luminance } from '../../planes/luminance.ts';
import { MIRROR } from '../../raster/edges.ts';
import type { Raster } from '../../raster/raster.ts';
import { coverOf } from '../../strokes/cover.ts';
import { strokeEntries } from '../../strokes/stroke.ts';
import type { CropBox } from './fit.ts';

/** Strokes over what is to be left alone, in shares of the crop; one that erases takes earlier ones away. */
export const leaveSchema = v.pipe(
  v.array(v.strictObject({ ...strokeEntries, erase: v.boolean() })),
  v.maxLength(2000),
);
export type LeaveStroke = v.InferOutput<typeof leaveSchema>[number];

export interface Leave {
  leave: LeaveStroke[];
  /** Luminance between which all is left alone; nothing where they are the wrong way round or equal. */
  leaveFrom: number;
  leaveTo: number;
}

/** Over this share of the range, at least, its ends are soft. */
const SOFT = 0.15;

const smooth = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return s * s * (3 - 2 * s);
};

/**
 * How much of each pixel of a picture with margins is left alone, 0..1; null where nothing is. By strokes and by a
 * range of luminance, whichever is more.
 */
export function leaveMask(picture: Raster, box: CropBox, chosen: Leave): Float32Array | null {
  const { leave, leaveFrom, leaveTo } = chosen;
  const hasRange = leaveTo > leaveFrom;
  if (leave.length === 0 && !hasRange) return null;
  const { width, height } = picture;
  const mask = new Float32Array(width * height);
  const longer = Math.max(width, height);
  for (const stroke of leave) {
    const points = stroke.points.map(([x, y, ...pressure]) => [
      (box.left + x * box.width) / width,
      (box.top + y * box.height) / height,
      ...pressure,
    ]) as LeaveStroke['points'];
    const cover = coverOf(
      {
        points,
        radius: (stroke.radius * Math.max(box.width, box.height)) / longer,
        softness: stroke.softness,
      },
      width,
      height,
      MIRROR,
    );
    for (let y = 0, k = 0; y < cover.height; y++) {
      for (let x = 0; x < cover.width; x++, k++) {
        const i = (cover.y + y) * width + cover.x + x;
        const covered = cover.values[k];
        mask[i] = stroke.erase ? mask[i] * (1 - covered) : Math.max(mask[i], covered);
      }
    }
  }
  if (hasRange) {
    const soft = SOFT * (leaveTo - leaveFrom) + 1e-3;
    luminance(picture).forEach((value, i) => {
      const inside = Math.min(value - leaveFrom, leaveTo - value);
      mask[i] = Math.max(mask[i], smooth(inside / soft + 0.5));
    });
  }
  return mask;
}

/** The evened picture, with what is to be left alone as it was. */
export const leftAlone = (before: Raster, after: Raster, mask: Float32Array | null): Raster =>
  mask
    ? after.mapPlanes((plane, c) => plane.map((value, i) => value + mask[i] * (before.planes[c][i] - value)))
    : after;
