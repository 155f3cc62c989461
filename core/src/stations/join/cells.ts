import type { Sides } from '../../raster/sides.ts';
import type { MarginShares } from '../square/geometry.ts';
import type { Lattice } from './lattice.ts';
import { onSquare, placeVectors, shearOf, stretchOf, type TileVectors, type Vector } from './vectors.ts';

/** A tile's edge may lie this far off the picture's axes, be this much longer than the other, this far off square. */
const MOST_TURN = (11 * Math.PI) / 180;
const MOST_STRETCH = 1.16;
const MOST_SHEAR = 9;
/** Edges shorter than this share of the crop show too little of the picture. */
const SHORTEST = 0.4;

const COST_SIZE = 1;
const COST_STRETCH = 5;
const COST_TURN = 8;
const COST_SHEAR = 0.08;

const turnFrom = (vector: Vector, axis: 0 | 1): number =>
  axis === 0 ? Math.atan2(vector[1], vector[0]) : Math.atan2(-vector[0], vector[1]);

/** Whole combinations of the lattice that run along an axis and are long enough. */
function alongAxis({ a, b }: Lattice, { width, height }: Sides, axis: 0 | 1): Vector[] {
  const found: Vector[] = [];
  const second = b ?? [0, 0];
  const size = Math.max(width, height);
  const reach = (vector: Vector) => Math.min(160, Math.ceil((2 * size) / Math.max(2, Math.hypot(...vector))));
  const rowsOf = b ? reach(b) : 0;
  for (let j = -rowsOf; j <= rowsOf; j++) {
    for (let i = -reach(a); i <= reach(a); i++) {
      const way: Vector = [i * a[0] + j * second[0], i * a[1] + j * second[1]];
      const vector: Vector = [way[0] / width, way[1] / height];
      const length = vector[axis];
      if (length < SHORTEST || length > 1.5 || Math.abs(turnFrom(way, axis)) > MOST_TURN) continue;
      found.push(vector);
    }
  }
  return found;
}

/** Of a pattern that repeats one way: the axis it runs along and the vectors of whole periods, best first. */
export function oneWayVectors(lattice: Lattice, sides: Sides): { axis: 0 | 1; vectors: Vector[] } | null {
  const axis = Math.abs(lattice.a[0]) >= Math.abs(lattice.a[1]) ? 0 : 1;
  const vectors = alongAxis(lattice, sides, axis).sort(
    (p, q) => Math.abs(1 - p[axis]) - Math.abs(1 - q[axis]),
  );
  return vectors.length > 0 ? { axis, vectors } : null;
}

/**
 * Tile vectors of whole cells of a lattice (in pixels of a crop of these sides), best first: nearly as large as
 * the crop, along its axes, as square as the cells allow, and inside the photo with the overlap.
 */
export function cellVectors(
  lattice: Lattice,
  sides: Sides,
  reach: Vector,
  margins: MarginShares,
): TileVectors[] {
  const right = alongAxis(lattice, sides, 0);
  const down = alongAxis(lattice, sides, 1);
  const found: { vectors: TileVectors; cost: number }[] = [];
  for (const u of right) {
    for (const v of down) {
      const placed = placeVectors(u, v, reach, margins);
      if (!placed) continue;
      const square = onSquare(placed, sides);
      const stretch = stretchOf(square);
      const shear = shearOf(square);
      if (stretch > MOST_STRETCH || shear > MOST_SHEAR) continue;
      const edge = Math.sqrt(u[0] * v[1]);
      const cost =
        COST_SIZE * Math.abs(Math.log(edge)) +
        COST_STRETCH * Math.log(stretch) +
        COST_TURN * (Math.abs(turnFrom(square.u, 0)) + Math.abs(turnFrom(square.v, 1))) +
        COST_SHEAR * shear;
      found.push({ vectors: placed, cost });
    }
  }
  return found.sort((p, q) => p.cost - q.cost).map(({ vectors }) => vectors);
}
