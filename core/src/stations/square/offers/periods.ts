import { seen } from '../../../kernels/cut-costs/reference.ts';
import { luminance } from '../../../planes/luminance.ts';
import type { Raster } from '../../../raster/raster.ts';
import type { Sides } from '../../../raster/sides.ts';
import { aspectOf, type Shape } from '../../../tile/shape.ts';
import type { Checkpoint } from '../../../work/checkpoint.ts';
import { cellVectors } from '../../join/cells.ts';
import { findLattice } from '../../join/lattice.ts';
import { onSquare, shearOf, stretchOf, turnOf } from '../../join/vectors.ts';
import type { Corners } from '../points.ts';
import type { CropOffer, Framing } from './offer.ts';

/** Room left around for the overlap of Join, as a share of the piece on each side. */
const ROOM = 1 / 12;
/** So many are measured. */
const MOST = 12;

const rounded = (value: number) => Math.round(1e5 * value) / 1e5;

/**
 * Pieces of whole periods of a regular pattern, as four corners, those nearest to the whole photo first; none where nothing repeats in two
 * directions. `picture` is the evened photo, small.
 */
export async function periodPieces(
  picture: Raster,
  shape: Shape,
  checkpoint: Checkpoint,
): Promise<Pick<CropOffer, 'framing' | 'periods'>[]> {
  const { width, height } = picture;
  const lattice = await findLattice(seen(luminance(picture)), width, height, checkpoint);
  if (!lattice?.b) return [];
  const { a, b } = lattice;
  const aspect = aspectOf(shape);
  const across = Math.min(width, height * aspect);
  const whole: Sides = { width: across, height: across / aspect };
  const room = { left: 0, top: 0, right: width / whole.width - 1, bottom: height / whole.height - 1 };
  const found: Pick<CropOffer, 'framing' | 'periods'>[] = [];
  // With room for Join's overlap where that leaves anything, else up to the photo's edge.
  const vectors = [[ROOM, ROOM] as const, [0, 0] as const]
    .map((reach) => cellVectors(lattice, whole, [...reach], room))
    .find((one) => one.length > 0);
  for (const one of (vectors ?? []).slice(0, MOST)) {
    const { corner, u, v } = one;
    const area = u[0] * v[1] - u[1] * v[0];
    const at = (i: number, j: number): [number, number] => [
      rounded(((corner[0] + i * u[0] + j * v[0]) * whole.width) / width),
      rounded(((corner[1] + i * u[1] + j * v[1]) * whole.height) / height),
    ];
    const corners: Corners = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
    const framing: Framing = { centreX: 0.5, centreY: 0.5, share: 0.84, turnDegrees: 0, corners, bend: null };
    const square = onSquare(one, whole);
    const cell = Math.abs(a[0] * b[1] - a[1] * b[0]);
    found.push({
      framing,
      periods: {
        cells: Math.round((area * whole.width * whole.height) / cell),
        stretch: stretchOf(square),
        shear: shearOf(square),
        turn: turnOf(square),
      },
    });
  }
  return found;
}
