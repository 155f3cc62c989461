import { seen } from '../../../kernels/cut-costs/reference.ts';
import { type Edges, MIRROR } from '../../../raster/edges.ts';
import { Raster } from '../../../raster/raster.ts';
import { wrapped } from '../../../raster/wrapped.ts';
import { resizeArea } from '../../../sampling/resize.ts';
import { sampleBilinear } from '../../../sampling/sample.ts';
import { statistics } from '../../../statistics/statistics.ts';
import { outlineOf, type Place } from './outline.ts';
import { type PhotoPicture, patchOf, putPatch } from './patch.ts';
import type { Graft } from './repair.ts';

/** A place to be covered: its middle in shares of the tile, its radius as a share of the longer edge. */
export interface RepairSpot {
  x: number;
  y: number;
  radius: number;
}

export interface GraftOffer {
  graft: Graft;
  /** How unlike what meets along the outline is, over the usual step between neighbours in the tile. */
  unlike: number;
  /** The place and its surroundings with the graft laid, square. */
  picture: Raster;
}

export const GRAFT_OFFERS = 6;

/** The tile is searched at this size. */
const SEARCHED = 256;
/** Rings, in radii, along which a patch is compared with what is there, and points on each. */
const RINGS = [0.8, 1, 1.2] as const;
const AROUND = 40;
/** How much a difference of mean light counts, which blending removes, beside one of structure. */
const LIGHT_COUNTS = 0.15;
/** Patches nearer to the place than so many radii would bring it along. */
const CLEAR = 2;
/** Half the edge of an offer's picture, in radii. */
const SHOWN = 2.2;

interface Candidate {
  of: Graft['of'];
  /** Middle of the patch in pixels of the searched tile, or of the crop. */
  x: number;
  y: number;
  cost: number;
}

interface Searched {
  of: Graft['of'];
  picture: Raster;
  /** Pixels of the picture before the tile's own corner. */
  left: number;
  top: number;
  edges: Edges;
}

const visible = (raster: Raster) => raster.mapPlanes(seen);

function ringOf(radius: number): [number, number][] {
  return RINGS.flatMap((share) =>
    Array.from({ length: AROUND }, (_, k): [number, number] => {
      const angle = (2 * Math.PI * k) / AROUND;
      return [Math.round(share * radius * Math.cos(angle)), Math.round(share * radius * Math.sin(angle))];
    }),
  );
}

/** Distance between places of the tile, the short way round where it wraps. */
function apart(a: Candidate, b: { x: number; y: number }, width: number, height: number): number {
  const away = (d: number, n: number) => Math.min(wrapped(d, n), n - wrapped(d, n));
  return Math.hypot(away(a.x - b.x, width), away(a.y - b.y, height));
}

/** How unlike the rings about every place of a picture are to the wanted ones. */
function searchIn(
  { of, picture, left, top, edges }: Searched,
  ring: [number, number][],
  wanted: Float32Array[],
  reach: number,
): Candidate[] {
  const { width, height, planes } = picture;
  const found: Candidate[] = [];
  const [marginX, marginY] = [edges.x === 'wrap' ? 0 : reach, edges.y === 'wrap' ? 0 : reach];
  const columns = new Int32Array(ring.length);
  for (let y = marginY; y < height - marginY; y++) {
    const rows = ring.map(([, dy]) => wrapped(y + dy, height) * width);
    for (let x = marginX; x < width - marginX; x++) {
      for (let k = 0; k < ring.length; k++) columns[k] = wrapped(x + ring[k][0], width);
      let cost = 0;
      for (let c = 0; c < planes.length; c++) {
        let sum = 0;
        let square = 0;
        for (let k = 0; k < ring.length; k++) {
          const d = planes[c][rows[k] + columns[k]] - wanted[c][k];
          sum += d;
          square += d * d;
        }
        const mean = sum / ring.length;
        cost += square / ring.length - (1 - LIGHT_COUNTS) * mean * mean;
      }
      found.push({ of, x: x - left, y: y - top, cost });
    }
  }
  return found;
}

/** The mean step of colour between neighbouring pixels. */
function usualStep({ width, height, planes }: Raster): number {
  let sum = 0;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [i, right] = [y * width + x, y * width + ((x + 1) % width)];
      sum += Math.sqrt(planes.reduce((s, plane) => s + (plane[i] - plane[right]) ** 2, 0));
    }
  }
  return sum / (width * height);
}

/**
 * How unlike the tile and the patch are along an outline, once their mean difference of light is removed: RMS
 * of the colour distance in square roots of light.
 */
function unlikeAlong(tile: Place, patch: Place, outline: [number, number][]): number {
  const channels = tile.picture.planes.map((_, c) => {
    const apart: number[] = [];
    const at = ({ picture, x, y, edges }: Place, dx: number, dy: number) =>
      sampleBilinear(picture.planes[c], picture.width, picture.height, x + dx, y + dy, edges);
    outline.forEach(([ax, ay], k) => {
      const [bx, by] = outline[(k + 1) % outline.length];
      const steps = Math.max(1, Math.round(Math.hypot(bx - ax, by - ay)));
      for (let n = 0; n < steps; n++) {
        const [dx, dy] = [ax + (n / steps) * (bx - ax), ay + (n / steps) * (by - ay)];
        apart.push(Math.sqrt(Math.max(0, at(tile, dx, dy))) - Math.sqrt(Math.max(0, at(patch, dx, dy))));
      }
    });
    const { deviation } = statistics(Float32Array.from(apart));
    return deviation ** 2;
  });
  return Math.sqrt(channels.reduce((sum, v) => sum + v, 0));
}

const rounded = (value: number) => Math.round(1e5 * value) / 1e5;

/**
 * Up to six patches from elsewhere in the tile or in the photo to lie over a place, the best fitting first. All
 * places are ranked by how their surroundings fit (sum of squares on three rings, at 256 px), the best that are
 * not alike are cut out along their own closed minimum cut and laid on; `checkpoint` is awaited in between.
 */
export async function graftOffers(
  tile: Raster,
  photo: PhotoPicture,
  spot: RepairSpot,
  edges: Edges,
  checkpoint: (done: number) => Promise<void>,
): Promise<GraftOffer[]> {
  const longer = Math.max(tile.width, tile.height);
  const scale = Math.min(1, SEARCHED / longer);
  const smaller = (raster: Raster) =>
    visible(
      resizeArea(
        raster,
        Math.max(1, Math.round(raster.width * scale)),
        Math.max(1, Math.round(raster.height * scale)),
      ),
    );
  const small = smaller(tile);
  const radius = spot.radius * longer * scale;
  const ring = ringOf(radius);
  const middle = { x: Math.round(spot.x * small.width), y: Math.round(spot.y * small.height) };
  const wanted = small.planes.map((plane) =>
    Float32Array.from(
      ring,
      ([dx, dy]) =>
        plane[wrapped(middle.y + dy, small.height) * small.width + wrapped(middle.x + dx, small.width)],
    ),
  );
  const reach = Math.ceil(RINGS[RINGS.length - 1] * radius) + 1;
  const searched: Searched[] = [
    { of: 'tile', picture: small, left: 0, top: 0, edges },
    {
      of: 'photo',
      picture: smaller(photo.picture),
      left: photo.margins.left * scale,
      top: photo.margins.top * scale,
      edges: MIRROR,
    },
  ];
  let candidates: Candidate[] = [];
  for (const [k, one] of searched.entries()) {
    await checkpoint(k / 4);
    candidates = candidates.concat(searchIn(one, ring, wanted, reach));
  }
  candidates.sort((a, b) => a.cost - b.cost);
  const chosen: Candidate[] = [];
  for (const one of candidates) {
    if (chosen.length === 2 * GRAFT_OFFERS) break;
    if (apart(one, middle, small.width, small.height) < CLEAR * radius) continue;
    // The photo and the tile show the same in most places.
    if (chosen.some((other) => apart(one, other, small.width, small.height) < radius)) continue;
    chosen.push(one);
  }
  const usual = usualStep(visible(tile));
  const offers: GraftOffer[] = [];
  for (const [k, one] of chosen.entries()) {
    await checkpoint(0.5 + k / chosen.length / 2);
    const offset: [number, number] = [
      rounded((one.x - middle.x) / small.width),
      rounded((one.y - middle.y) / small.height),
    ];
    const [x, y] = [spot.x * tile.width - 0.5, spot.y * tile.height - 0.5];
    const isTile = one.of === 'tile';
    const there: Place = { picture: tile, x, y, edges };
    const from: Place = {
      picture: isTile ? tile : photo.picture,
      x: x + offset[0] * tile.width + (isTile ? 0 : photo.margins.left),
      y: y + offset[1] * tile.height + (isTile ? 0 : photo.margins.top),
      edges: isTile ? edges : MIRROR,
    };
    const about = outlineOf(there, from, spot.radius * longer);
    const outline = about.map(([dx, dy]): [number, number] => [
      rounded(spot.x + dx / tile.width),
      rounded(spot.y + dy / tile.height),
    ]);
    const graft: Graft = { kind: 'graft', outline, offset, of: one.of };
    const laid = new Raster(
      tile.width,
      tile.height,
      tile.planes.map((plane) => plane.slice()),
    );
    const patch = patchOf(laid, photo, graft, 'colour', edges);
    if (!patch) continue;
    putPatch(laid, patch, edges);
    const half = Math.min(longer >> 1, Math.ceil(SHOWN * spot.radius * longer));
    offers.push({
      graft,
      unlike: unlikeAlong(there, from, about) / Math.max(1e-6, usual),
      picture: window(laid, Math.round(x), Math.round(y), half),
    });
  }
  return offers.sort((a, b) => a.unlike - b.unlike).slice(0, GRAFT_OFFERS);
}

/** The square about a place, over the edges. */
function window(tile: Raster, x: number, y: number, half: number): Raster {
  const edge = 2 * half;
  return new Raster(
    edge,
    edge,
    tile.planes.map((plane) =>
      Float32Array.from(
        { length: edge * edge },
        (_, i) =>
          plane[
            wrapped(y - half + Math.floor(i / edge), tile.height) * tile.width +
              wrapped(x - half + (i % edge), tile.width)
          ],
      ),
    ),
  );
}
