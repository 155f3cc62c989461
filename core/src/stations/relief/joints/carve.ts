import type { JointField } from './field.ts';

export const JOINT_PROFILES = ['recessed', 'flush', 'raised'] as const;
export type JointProfile = (typeof JOINT_PROFILES)[number];

/** The shape of joints and faces, in mm. */
export interface Carving {
  profile: JointProfile;
  depthMm: number;
  /** 0: as they are found. */
  widthMm: number;
  bevelMm: number;
  domeMm: number;
  tiltMm: number;
  levelMm: number;
}

/** Below this a bevel would be a step, in pixels. */
const LEAST_BEVEL = 1;

const smooth = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return s * s * (3 - 2 * s);
};
const round = (t: number): number => {
  const s = Math.min(1, Math.max(0, t));
  return Math.sqrt(s * (2 - s));
};

/** The height of a joint against the edge of its faces, −1…1 of its depth; `e` from its border in mm, below 0 inside. */
const PROFILES: Record<JointProfile, (e: number, bevel: number, half: number) => number> = {
  recessed: (e, bevel) => smooth(e / bevel) - 1,
  // A groove of the bevel's width along both borders, level in the middle.
  flush: (e, bevel) => -smooth(1 - Math.abs(e) / bevel),
  raised: (e, _bevel, half) => round(-e / half),
};

/** How much of a place is joint, 0…1, by the distance from the border in mm. */
export const jointShare = (e: number, pixel: number): number => 1 - smooth(0.5 + e / pixel);

/** From shares of the longer edge to mm from the border, with joints as wide as they are asked for. */
export function fromBorder(
  { width }: JointField,
  { widthMm }: Carving,
  edgeMm: number,
): (away: number) => number {
  const wider = widthMm > 0 ? (widthMm - width * edgeMm) / 2 : 0;
  return (away) => away * edgeMm - wider;
}

/**
 * Height in mm that joints and faces have, 0 at the edge of a level face, for values from one place to another into `out`.
 * `pixelMm` is the size of a pixel.
 */
export function carve(
  field: JointField,
  how: Carving,
  edgeMm: number,
  pixelMm: number,
  out: Float32Array,
  from: number,
  to: number,
): void {
  const { away, radius, level, tilt, closed } = field;
  const border = fromBorder(field, how, edgeMm);
  const bevel = Math.max(LEAST_BEVEL * pixelMm, how.bevelMm);
  const half = Math.max(pixelMm, how.widthMm > 0 ? how.widthMm : field.width * edgeMm) / 2;
  const profile = PROFILES[how.profile];
  for (let i = from; i < to; i++) {
    const e = border(away[i]);
    const joint = how.depthMm * profile(e, bevel, half);
    const t = Math.min(1, Math.max(0, e / Math.max(pixelMm, border(radius[i]))));
    const face =
      how.domeMm * t * (2 - t) + smooth(e / bevel) * (how.tiltMm * tilt[i] + how.levelMm * level[i]);
    out[i] = closed[i] * (joint + face);
  }
}
