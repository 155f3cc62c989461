import { seen } from '../../../kernels/cut-costs/reference.ts';
import { type Edges, edgeIndex, MIRROR } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import { sampleBilinear } from '../../../sampling/sample.ts';
import { type Box, coverOf, coverOfOutline } from '../../../strokes/cover.ts';
import type { Margins } from '../../square/output.ts';
import { calmed } from './calm.ts';
import { membrane } from './membrane.ts';
import type { Repair } from './repair.ts';
import type { Patch, RepairedKind } from './repaired.ts';

/** The photo's crop with its margins, of the same kind as the tile that is repaired. */
export interface PhotoPicture {
  picture: Raster;
  margins: Margins;
}

const WHOLE = 1e-4;

/** Index tables of a box on a plane. */
function tablesOf(box: Box, raster: Raster, edges: Edges, moveX = 0, moveY = 0) {
  const table = (start: number, length: number, n: number, axis: 'x' | 'y') =>
    Int32Array.from({ length }, (_, k) => edgeIndex(start + k, n, edges[axis]));
  return {
    columns: table(box.x + moveX, box.width, raster.width, 'x'),
    rows: table(box.y + moveY, box.height, raster.height, 'y'),
  };
}

function cutBox(raster: Raster, box: Box, edges: Edges, moveX = 0, moveY = 0): Float32Array[] {
  const { columns, rows } = tablesOf(box, raster, edges, moveX, moveY);
  return raster.planes.map((plane) => {
    const out = new Float32Array(box.width * box.height);
    for (let y = 0, i = 0; y < box.height; y++) {
      const row = rows[y] * raster.width;
      for (let x = 0; x < box.width; x++, i++) out[i] = plane[row + columns[x]];
    }
    return out;
  });
}

/** The box moved by a way that need not be whole pixels. */
function cutBetween(raster: Raster, box: Box, edges: Edges, moveX: number, moveY: number): Float32Array[] {
  const [nearX, nearY] = [Math.round(moveX), Math.round(moveY)];
  if (Math.abs(moveX - nearX) < WHOLE && Math.abs(moveY - nearY) < WHOLE) {
    return cutBox(raster, box, edges, nearX, nearY);
  }
  return raster.planes.map((plane) => {
    const out = new Float32Array(box.width * box.height);
    for (let y = 0, i = 0; y < box.height; y++) {
      for (let x = 0; x < box.width; x++, i++) {
        out[i] = sampleBilinear(
          plane,
          raster.width,
          raster.height,
          box.x + x + moveX,
          box.y + y + moveY,
          edges,
        );
      }
    }
    return out;
  });
}

/** Brings the detail of `from` to the light around: a membrane between both, fixed where nothing is covered. */
function healed(
  to: Float32Array,
  from: Float32Array,
  inside: Uint8Array,
  box: Box,
  kind: RepairedKind,
  edges: Edges,
): Float32Array {
  const isColour = kind === 'colour';
  const [there, laid] = isColour ? [seen(to), seen(from)] : [to, from];
  const apart = there.map((value, i) => value - laid[i]);
  const between = membrane(apart, inside, box.width, box.height, edges);
  return laid.map((value, i) => {
    if (!inside[i]) return to[i];
    const mended = Math.max(0, value + between[i]);
    return isColour ? mended * mended : Math.min(1, mended);
  });
}

/** The box one pixel wider on each side, so that all around what is covered is given. */
function widened({ values, ...box }: Box & { values: Float32Array }, raster: Raster, edges: Edges) {
  const wide = (start: number, length: number, n: number, axis: 'x' | 'y') => {
    const before = edges[axis] === 'wrap' ? Number(length + 2 <= n) : Number(start > 0);
    const after = edges[axis] === 'wrap' ? before : Number(start + length < n);
    return { before, start: start - before, length: length + before + after };
  };
  const across = wide(box.x, box.width, raster.width, 'x');
  const down = wide(box.y, box.height, raster.height, 'y');
  const out = { x: across.start, y: down.start, width: across.length, height: down.length };
  const wider = new Float32Array(out.width * out.height);
  for (let y = 0; y < box.height; y++) {
    wider.set(
      values.subarray(y * box.width, (y + 1) * box.width),
      (y + down.before) * out.width + across.before,
    );
  }
  return { ...out, values: wider };
}

/**
 * What one repair puts on a tile: 1 or 3 planes, linear. It reads the tile as it is before the repair, so a
 * stroke never smears what it has just laid. `photo` is the crop the tile was made from, in the same values.
 * Clone: a plain copy. Heal and graft: gradient-domain (Pérez et al. 2003, seamless cloning), solved as a membrane
 * (Georgiev 2004). Null where the repair lies wholly outside.
 */
export function patchOf(
  tile: Raster,
  photo: PhotoPicture,
  repair: Repair,
  kind: RepairedKind,
  edges: Edges,
): Patch | null {
  if (repair.kind === 'calm') return calmed(tile, repair, kind, edges);
  const { width, height } = tile;
  const isGraft = repair.kind === 'graft';
  const tight = isGraft
    ? coverOfOutline(repair.outline, width, height, edges)
    : coverOf(repair, width, height, edges);
  if (tight.width === 0 || tight.height === 0) return null;
  const cover = widened(tight, tile, edges);
  const [moveX, moveY] = [repair.offset[0] * width, repair.offset[1] * height];
  const from =
    isGraft && repair.of === 'photo'
      ? cutBetween(photo.picture, cover, MIRROR, moveX + photo.margins.left, moveY + photo.margins.top)
      : cutBetween(tile, cover, edges, moveX, moveY);
  const to = cutBox(tile, cover, edges);
  const inside = Uint8Array.from(cover.values, (value) => Number(value > 0));
  const opacity = isGraft ? 1 : repair.opacity;
  // A box that goes all the way round meets itself.
  const around: Edges = {
    x: cover.width === width ? edges.x : 'mirror',
    y: cover.height === height ? edges.y : 'mirror',
  };
  const planes = to.map((values, c) => {
    const laid = repair.kind === 'clone' ? from[c] : healed(values, from[c], inside, cover, kind, around);
    return values.map((value, i) => value + opacity * cover.values[i] * (laid[i] - value));
  });
  const { x, y, width: across, height: down } = cover;
  return { x, y, width: across, height: down, planes };
}

/** Puts a patch on a tile, in place. */
export function putPatch(tile: Raster, patch: Patch, edges: Edges): void {
  const { columns, rows } = tablesOf(patch, tile, edges);
  tile.planes.forEach((plane, c) => {
    for (let y = 0, i = 0; y < patch.height; y++) {
      const row = rows[y] * tile.width;
      for (let x = 0; x < patch.width; x++, i++) plane[row + columns[x]] = patch.planes[c][i];
    }
  });
}
