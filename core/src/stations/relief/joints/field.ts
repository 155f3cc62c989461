import { nearestMarked } from '../../../filters/distance.ts';
import { blurring } from '../../../filters/gaussian.ts';
import { KERNELS } from '../../../kernels/kernels.ts';
import type { MaskStroke } from '../../../masks/mask.ts';
import type { Edges } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import { heldSides, type Sides } from '../../../raster/sides.ts';
import { resizingArea, resizingLanczos } from '../../../sampling/resize.ts';
import type { Steps } from '../../../work/steps.ts';
import { findBorder } from './border.ts';
import { closeNet } from './close.ts';
import { facesOf } from './faces.ts';
import { findNets } from './net.ts';
import { repaired } from './repair.ts';

/** Edge at which joints are found, whatever the size of the tile, so that every size has the same. */
const FOUND_AT = 512;
/** Half the width of a joint over a gap of the net, in pixels at the size at which joints are found. */
const BRIDGE = 1.5;
/** How softly the net gives way where it leaks, σ as a share of the longer edge. */
const LEAK = 1 / 64;

/** Which lines are joints. */
export type JointLines = 'dark' | 'light';

/** Joints and faces of a tile; one value a pixel, lengths as shares of the longer edge. */
export interface JointField {
  /** From the border of the joints: above 0 on faces, below 0 in joints. */
  away: Float32Array;
  /** How far the middle of the face is from its border. */
  radius: Float32Array;
  /** Brightness of the face against the others, and of the place against its face, −1…1. */
  level: Float32Array;
  tilt: Float32Array;
  /** 1 where faces are closed, fading to 0 where the net leaks. */
  closed: Float32Array;
  /** Width of the joints as they are found. */
  width: number;
  /** Closed faces. */
  count: number;
}

/** Puts what lies within some pixels of the gaps of a net into it, as what was added. */
function* bridged(
  { mask, isAdded }: { mask: Uint8Array; isAdded: Uint8Array },
  gaps: Uint8Array,
  sides: Sides,
  edges: Edges,
): Steps<void> {
  const { distance } = yield* nearestMarked(gaps, sides, edges);
  for (let i = 0; i < mask.length; i++) {
    if (mask[i] === 1 || distance[i] > BRIDGE) continue;
    mask[i] = 1;
    isAdded[i] = 1;
  }
}

/** Joints and faces at the size at which they are found. */
export interface FoundJoints {
  /** `away`, `radius`, `level`, `tilt` and `closed`. */
  raster: Raster;
  width: number;
  count: number;
}

/**
 * Finds joints and faces of a tile in its luminance, at 512 px at most: the net of dark or of light lines as it is found and repaired by hand, where its
 * joints end, and the faces between them.
 */
export function* findingJoints(
  luminance: Float32Array,
  lines: JointLines,
  strokes: readonly MaskStroke[],
  sides: Sides,
  edges: Edges,
): Steps<FoundJoints> {
  const at = heldSides(sides, FOUND_AT);
  const whole = new Raster(sides.width, sides.height, [luminance]);
  const small = at.width < sides.width ? yield* resizingArea(whole, at.width, at.height) : whole;
  const grey = KERNELS.encodeSrgbPlane(small.planes[0]);
  const nets = yield* findNets(grey, at, edges);
  const net = yield* repaired(nets[lines].mask, strokes, at, edges);
  yield;
  const { faces: parts, gaps } = yield* closeNet(net.mask, at, edges);
  yield* bridged(net, gaps, at, edges);
  const border = yield* findBorder(grey, net.mask, net.isAdded, at, edges);
  const faces = yield* facesOf(parts, border.away, grey, at, edges);
  const longer = Math.max(at.width, at.height);
  const closed = yield* blurring(faces.closed, at.width, at.height, LEAK * longer, edges);
  const share = (plane: Float32Array) => plane.map((value) => value / longer);
  const planes = [share(border.away), share(faces.radius), faces.level, faces.tilt, closed];
  return {
    raster: new Raster(at.width, at.height, planes),
    width: border.width / longer,
    count: faces.count,
  };
}

/** What was found, at the size of the tile. */
export function* broughtUp(
  { raster, width, count }: FoundJoints,
  sides: Sides,
  edges: Edges,
): Steps<JointField> {
  const { planes } =
    raster.width < sides.width ? yield* resizingLanczos(raster, sides.width, sides.height, edges) : raster;
  const [away, radius, level, tilt, isClosed] = planes;
  const closed = isClosed.map((value) => Math.min(1, Math.max(0, value)));
  return { away, radius, level, tilt, closed, width, count };
}
