import { luminance } from '../../colour/luminance.ts';
import type { WorkContext } from '../../engine/context.ts';
import { Problem } from '../../problem.ts';
import type { Raster } from '../../raster/raster.ts';
import { transpose } from '../../raster/transpose.ts';
import type { MarginShares } from '../square/geometry.ts';
import type { Margins } from '../types.ts';
import { cellVectors, oneWayVectors } from './cells.ts';
import { seen } from './cut.ts';
import { findLattice, type Lattice } from './lattice.ts';
import { searchOffset } from './offset.ts';
import type { JoinSettings, Origin } from './settings.ts';
import {
  joins,
  overlapOnGrid,
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

const shares = ({ left, right, top, bottom }: Margins, size: number): MarginShares => ({
  left: left / size,
  right: right / size,
  top: top / size,
  bottom: bottom / size,
});

const turned = ({ left, right, top, bottom }: Margins): Margins => ({
  left: top,
  right: bottom,
  top: left,
  bottom: right,
});

/** The lattice of the working picture, in its pixels; sought once for a picture. */
export const latticeOf = (picture: Raster, context: WorkContext): Promise<Lattice | null> =>
  context.part('lattice', null, () => findLattice(seen(luminance(picture)), picture.width, picture.height));

type Search = Pick<JoinSettings, 'axes' | 'overlap' | 'from' | 'vectors'>;

/**
 * The tile's vectors by the chosen way, on the evened working picture of `size` pixels an edge.
 * @throws Problem `bad_vectors` where those drawn by hand do not fit the photo.
 */
export async function findVectors(
  picture: Raster,
  margins: Margins,
  size: number,
  chosen: Search,
  context: WorkContext,
): Promise<FoundVectors> {
  const reach = reachOf(overlapOnGrid(chosen.overlap), chosen.axes);
  const room = shares(margins, size);
  const straight = straightVectors(reach, room);
  if (chosen.from === 'straight') return { vectors: straight, by: 'straight', strength: null };
  if (chosen.from === 'hand')
    return { vectors: byHand(chosen, reach, room, straight), by: 'hand', strength: null };
  const lattice = chosen.from === 'offset' ? null : await latticeOf(picture, context);
  const on = joins(chosen.axes);
  if (lattice?.b && on.x && on.y) {
    const [best] = cellVectors(lattice, size, reach, room);
    if (best) return { vectors: best, by: 'lattice', strength: lattice.strength };
  }
  const period = straight.u[0];
  const shift = (axis: 0 | 1): Promise<Vector> =>
    context.part(`offset ${axis}`, [chosen.overlap, chosen.axes, period], async () => {
      const overlap = 2 * reach[axis];
      if (axis === 0) return searchOffset(picture, margins, size, period, overlap, context.breathe);
      const [down, across] = await searchOffset(
        transpose(picture),
        turned(margins),
        size,
        period,
        overlap,
        context.breathe,
      );
      return [across, down];
    });
  let u: Vector = straight.u;
  let v: Vector = straight.v;
  const oneWay = lattice ? oneWayVectors(lattice, size) : null;
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

function byHand(chosen: Search, reach: Vector, room: MarginShares, straight: TileVectors): TileVectors {
  if (!chosen.vectors) return straight;
  const { u, v } = chosen.vectors;
  const placed = placeVectors(u, v, reach, room);
  const area = u[0] * v[1] - u[1] * v[0];
  if (placed && area > 0.3 * Math.hypot(...u) * Math.hypot(...v)) return placed;
  throw new Problem(
    'bad_vectors',
    area > 0.3 * Math.hypot(...u) * Math.hypot(...v)
      ? 'The vectors drawn by hand, with the overlap, reach outside the photo.'
      : 'The vectors drawn by hand lie almost on one line, so they span no tile.',
    'Draw them shorter or more at right angles, or choose another way to take the copy.',
  );
}
