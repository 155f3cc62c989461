import type { Strip } from '../../kernels/cut-costs/strip.ts';
import { KERNELS } from '../../kernels/kernels.ts';
import { PLANES } from '../../memory/pool.ts';
import { transpose } from '../../planes/transpose.ts';
import { MIRROR } from '../../raster/edges.ts';
import { Raster } from '../../raster/raster.ts';
import { rollInPlace } from '../../raster/roll.ts';
import type { Sides } from '../../raster/sides.ts';
import { resampleField } from '../../sampling/sample.ts';
import type { WorkContext } from '../../team/context.ts';
import { runSteps, type Steps } from '../../work/steps.ts';
import type { Margins } from '../square/output.ts';
import { type Bend, bendAt } from './bend.ts';
import { blendBands } from './blend.ts';
import { joinGradients } from './gradient.ts';
import { layOut } from './layout.ts';
import { mixStrip } from './mix.ts';
import type { TileVectors, Vector } from './vectors.ts';

/** How the two copies become one inside the strip. */
export type Blend = 'multiband' | 'narrow' | 'gradient' | 'mix';

export type Axis = 'x' | 'y';

/** What is settled about each seam: found on the first picture, followed by all others. */
export interface Seams {
  /** How the sides are bent towards each other; the strip is laid out only when it is asked for. */
  bend(axis: Axis, strip: () => Promise<Strip>, cyclic: boolean): Promise<Bend | null>;
  /** 1 where the far copy is taken. */
  mask(axis: Axis, strip: Strip, cyclic: boolean): Steps<Float32Array>;
}

/** Lays a picture out along the tile's vectors; where the same is laid out again and again, from what is kept. */
export type LayOut = (bend: Bend | null) => Promise<Raster>;

export interface Laying {
  /** Sides of the tile in pixels. */
  sides: Sides;
  vectors: TileVectors;
  /** Half the overlap on each axis, as a share of the tile; 0 where it is not joined. */
  reach: Vector;
  blend: Blend;
}

const pixels = (reach: number, size: number) => 2 * Math.round(reach * size);

/** Some rows of a raster, turned over the diagonal. */
const turnedRows = ({ width, planes }: Raster, from: number, count: number): Float32Array[] =>
  planes.map((plane) =>
    KERNELS.transposePlane(plane.subarray(from * width, (from + count) * width), width, count),
  );

/** The strip at the left of `raster` (at its top, its columns as rows) and its copy one tile further on. */
async function stripOf(
  raster: Raster,
  axis: Axis,
  size: number,
  overlap: number,
  checkpoint: Checkpoint,
): Promise<Strip> {
  await checkpoint(0);
  if (axis === 'y') {
    const a = turnedRows(raster, size, overlap);
    await checkpoint(0);
    const b = turnedRows(raster, 0, overlap);
    return { width: overlap, length: raster.width, a, b };
  }
  return {
    width: overlap,
    length: raster.height,
    a: raster.cut(size, 0, overlap, raster.height).planes,
    b: raster.cut(0, 0, overlap, raster.height).planes,
  };
}

/** A few bands at 512 px, and one more for each doubling. */
const narrowBands = ({ width, height }: Sides) =>
  Math.max(1, Math.round(Math.log2(Math.max(width, height) / 128)));

/** What long work asks of the engine. */
type Working = Pick<WorkContext, 'checkpoint' | 'team'>;
type Checkpoint = Working['checkpoint'];

/** The left part of a plane, so wide, where it lies. */
function narrowed(plane: Float32Array, { width, height }: Sides, size: number): Float32Array {
  for (let y = 1; y < height; y++) plane.copyWithin(y * size, y * width, y * width + size);
  return plane.subarray(0, size * height);
}

/** Writes a joined strip where it belongs: at the left of a plane, or turned back at its top. */
function putStrip(
  plane: Float32Array,
  { width, height }: Sides,
  axis: Axis,
  strip: Float32Array,
  overlap: number,
): void {
  if (axis === 'y') {
    const turned = KERNELS.transposePlane(strip, overlap, width);
    plane.set(turned);
    PLANES.give(turned);
  } else {
    for (let y = 0; y < height; y++) plane.set(strip.subarray(y * overlap, (y + 1) * overlap), y * width);
  }
}

/**
 * Joins the left edge to the right one, or the top to the bottom. The raster's planes are written over where it is nobody
 * else's.
 */
async function joinAlong(
  axis: Axis,
  raster: Raster,
  { sides, blend }: Laying,
  overlap: number,
  cyclic: boolean,
  seams: Seams,
  isOwn: boolean,
  { checkpoint, team }: Working,
): Promise<Raster> {
  const size = axis === 'x' ? sides.width : sides.height;
  const empty = (length: number) => team.empty(length);
  const strip = await stripOf(raster, axis, size, overlap, checkpoint);
  await checkpoint(0);
  const withStrip = async (strips: Float32Array[]) => {
    const out = axis === 'x' ? { width: size, height: raster.height } : { width: raster.width, height: size };
    const planes: Float32Array[] = [];
    for (const [c, plane] of raster.planes.entries()) {
      await checkpoint(1);
      const [whole] = isOwn
        ? [narrowed(plane, raster, size)]
        : new Raster(raster.width, raster.height, [plane]).cut(0, 0, out.width, out.height, empty).planes;
      putStrip(whole, out, axis, strips[c], overlap);
      planes.push(whole);
    }
    await checkpoint(1);
    return new Raster(out.width, out.height, planes);
  };
  if (blend === 'mix') return withStrip(mixStrip(strip, raster.planes));
  const mask = await runSteps(seams.mask(axis, strip, cyclic), checkpoint);
  await checkpoint(0);
  if (blend === 'gradient') {
    const cut = await withStrip(strip.a.map((a, c) => a.map((v, i) => (mask[i] ? v : strip.b[c][i]))));
    const out = axis === 'x' ? cut : transpose(cut);
    await joinGradients(out, strip, mask, cyclic, checkpoint);
    return axis === 'x' ? out : transpose(out);
  }
  const most = blend === 'narrow' ? narrowBands(sides) : undefined;
  return withStrip(await blendBands(strip, mask, cyclic, checkpoint, most, team));
}

/** The picture, whose rows run across the seam, with both sides of the seam bent towards each other. */
function bent(
  raster: Raster,
  bend: Bend,
  size: number,
  reach: number,
  cyclic: boolean,
  checkpoint: (done: number) => Promise<void>,
): Promise<Raster> {
  const before = Math.round(reach * size);
  const place = (y: number, xs: Float64Array, ys: Float64Array) => {
    for (let x = 0; x < raster.width; x++) {
      const [dx, dy] = bendAt(bend, (x + 0.5 - before) / size, (y + 0.5) / raster.height, reach);
      xs[x] = x + dx * size;
      ys[x] = y + dy * size;
    }
  };
  const edges = { x: MIRROR.x, y: cyclic ? ('wrap' as const) : MIRROR.y };
  return resampleField(raster, raster.width, raster.height, place, edges, checkpoint);
}

/** Lays out one picture. */
export const layingOut =
  (picture: Raster, margins: Margins, { sides, vectors, reach }: Laying, working: Working): LayOut =>
  (bend) =>
    layOut(picture, margins, sides, vectors, reach, bend, working);

/**
 * Makes the tile from the crop with its margins: across first, then down on the already cyclic picture.
 * The strip in which an edge is joined lies about that edge. Nothing falls below zero.
 */
export async function assemble(
  picture: Raster,
  margins: Margins,
  laying: Laying,
  seams: Seams,
  { checkpoint, team }: Working,
  kept?: LayOut,
): Promise<Raster> {
  const { reach } = laying;
  const { width, height } = laying.sides;
  const [overlapX, overlapY] = [pixels(reach[0], width), pixels(reach[1], height)];
  const lay =
    kept ?? layingOut(picture, margins, laying, { checkpoint: (done) => checkpoint(done / 4), team });
  let tile: Raster;
  if (overlapX === 0) tile = await lay(null);
  else {
    const bend = await seams.bend(
      'x',
      async () => stripOf(await lay(null), 'x', width, overlapX, checkpoint),
      false,
    );
    // What is laid out may be kept for the next time.
    tile = await joinAlong('x', await lay(bend), laying, overlapX, false, seams, !kept && overlapY > 0, {
      checkpoint: (done) => checkpoint(0.25 + done / 4),
      team,
    });
  }
  if (overlapY > 0) {
    const cyclic = overlapX > 0;
    const bend = await seams.bend('y', () => stripOf(tile, 'y', height, overlapY, checkpoint), cyclic);
    if (bend) {
      const across = (done: number) => checkpoint(0.5 + done / 4);
      tile = transpose(await bent(transpose(tile), bend, height, reach[1], cyclic, across));
    }
    tile = await joinAlong('y', tile, laying, overlapY, cyclic, seams, false, {
      checkpoint: (done) => checkpoint(0.75 + done / 4),
      team,
    });
  }
  // What is laid out may be kept; what was joined is nobody else's.
  if (overlapX === 0 && overlapY === 0) tile = tile.mapPlanes((plane) => plane.slice());
  else {
    for (const plane of tile.planes) {
      rollInPlace(new Raster(tile.width, tile.height, [plane]), -overlapX / 2, -overlapY / 2);
      await checkpoint(1);
    }
  }
  for (const plane of tile.planes) {
    KERNELS.sumPlanes([plane], [1], { low: 0 }, plane);
    await checkpoint(1);
  }
  return tile;
}
