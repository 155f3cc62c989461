import { seen } from '../../kernels/cut-costs/reference.ts';
import { luminance } from '../../planes/luminance.ts';
import { transpose } from '../../planes/transpose.ts';
import { Problem } from '../../problem.ts';
import type { Raster } from '../../raster/raster.ts';
import type { Sides } from '../../raster/sides.ts';
import type { WorkContext } from '../../team/context.ts';
import type { Frame } from '../../tile/frame.ts';
import type { MarginShares } from '../square/geometry.ts';
import type { Margins } from '../square/output.ts';
import { cellVectors, oneWayVectors } from './cells.ts';
import { findLattice, type Lattice } from './lattice.ts';
import { searchOffset } from './offset.ts';
import type { JoinSettings, Origin } from './settings.ts';
import {
  joins,
  onSquare,
  placeVectors,
  reachOf,
  straightVectors,
  type TileVectors,
  type Vector,
} from './vectors.ts';

/** From where the tile is taken, and by what it was found. */
export interface FoundVectors {
  vectors: TileVectors;
  by: Exclude<Origin, 'found'>;
  /** How strongly the pattern repeats, 0…1, where it does. */
  strength: number | null;
}

const shares = ({ left, right, top, bottom }: Margins, { width, height }: Sides): MarginShares => ({
  left: left / width,
  right: right / width,
  top: top / height,
  bottom: bottom / height,
});

const turned = ({ left, right, top, bottom }: Margins): Margins => ({
  left: top,
  right: bottom,
  top: left,
  bottom: right,
});

/** The lattice of the working picture, in its pixels; sought once for a picture. */
export const latticeOf = (picture: Raster, context: WorkContext): Promise<Lattice | null> =>
  context.part('lattice', null, async () => {
    await context.checkpoint(0);
    const plane = seen(luminance(picture));
    return findLattice(plane, picture.width, picture.height, context.checkpoint);
  });

/** What of the frame Join's search needs. */
export type TileFrame = Pick<Frame, 'size' | 'width' | 'height' | 'shape'>;

type Search = Pick<JoinSettings, 'axes' | 'overlap' | 'from' | 'vectors'>;

/**
 * The tile's vectors by the chosen way, on the evened working picture.
 * @throws Problem `bad_vectors` where those drawn by hand do not fit the photo.
 */
export async function findVectors(
  picture: Raster,
  margins: Margins,
  frame: TileFrame,
  chosen: Search,
  context: WorkContext,
): Promise<FoundVectors> {
  const reach = reachOf(chosen.overlap, chosen.axes, frame.shape);
  const { width, height } = frame;
  const room = shares(margins, frame);
  const straight = straightVectors(reach, room);
  if (chosen.from === 'straight') return { vectors: straight, by: 'straight', strength: null };
  if (chosen.from === 'hand')
    return { vectors: byHand(chosen, reach, room, straight, frame), by: 'hand', strength: null };
  const lattice = chosen.from === 'offset' ? null : await latticeOf(picture, context);
  const on = joins(chosen.axes);
  if (lattice?.b && on.x && on.y) {
    const [best] = cellVectors(lattice, frame, reach, room);
    if (best) return { vectors: best, by: 'lattice', strength: lattice.strength };
  }
  const period = straight.u[0];
  const shift = (axis: 0 | 1): Promise<Vector> =>
    context.part(`offset ${axis}`, [chosen.overlap, chosen.axes, period], async () => {
      const overlap = 2 * reach[axis];
      if (axis === 0) {
        const [along, aside] = await searchOffset(
          picture,
          margins,
          width,
          period,
          overlap,
          context.checkpoint,
        );
        return [along, (aside * width) / height];
      }
      const [down, across] = await searchOffset(
        transpose(picture),
        turned(margins),
        height,
        period,
        overlap,
        context.checkpoint,
      );
      return [(across * height) / width, down];
    });
  let u: Vector = straight.u;
  let v: Vector = straight.v;
  const oneWay = lattice ? oneWayVectors(lattice, frame) : null;
  const place = (p: Vector, q: Vector) => placeVectors(p, q, reach, room);
  if (oneWay) {
    // Whole periods one way, the cheapest shift the other.
    const other = oneWay.axis === 0 ? (on.y ? await shift(1) : v) : on.x ? await shift(0) : u;
    for (const vector of oneWay.vectors) {
      const placed = oneWay.axis === 0 ? place(vector, other) : place(other, vector);
      if (placed) return { vectors: placed, by: 'lattice', strength: lattice!.strength };
    }
  }
  if (chosen.from === 'lattice') return { vectors: straight, by: 'straight', strength: null };
  if (on.x) u = await shift(0);
  if (on.y) v = await shift(1);
  // Where both together leave no room, the tile is taken a little smaller.
  const placed = place(u, v) ?? place(u, straight.v) ?? place(straight.u, v);
  return placed
    ? { vectors: placed, by: 'offset', strength: null }
    : { vectors: straight, by: 'straight', strength: null };
}

function byHand(
  chosen: Search,
  reach: Vector,
  room: MarginShares,
  straight: TileVectors,
  sides: Sides,
): TileVectors {
  if (!chosen.vectors) return straight;
  const { u, v } = chosen.vectors;
  const placed = placeVectors(u, v, reach, room);
  const square = onSquare({ corner: [0, 0], u, v }, sides);
  const area = square.u[0] * square.v[1] - square.u[1] * square.v[0];
  const isOpen = area > 0.3 * Math.hypot(...square.u) * Math.hypot(...square.v);
  if (placed && isOpen) return placed;
  throw new Problem(
    'bad_vectors',
    isOpen
      ? 'The vectors drawn by hand, with the overlap, reach outside the photo.'
      : 'The vectors drawn by hand lie almost on one line, so they span no tile.',
    'Draw them shorter or more at right angles, or choose another way to take the copy.',
  );
}
