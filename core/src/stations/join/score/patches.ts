import { Raster } from '../../../raster/raster.ts';
import { resizeArea } from '../../../raster/resize.ts';
import type { Crossing } from './path.ts';

const PATCH = 8;
const STRIDES = [1, 2, 4];
/** Patches of the source that others are held against. */
const BANK = 2600;
/** Patches of the source that say what is usual. */
const USUAL = 320;
/** Patches over each seam. */
const OVER = 160;
const COLOUR_WEIGHT = 1.5;

/** Low DCT-II terms of 8 samples, by which a patch is told. */
const TERMS: [number, number][] = [
  [0, 0],
  [1, 0],
  [0, 1],
  [2, 0],
  [1, 1],
  [0, 2],
  [3, 0],
  [2, 1],
  [1, 2],
  [0, 3],
  [4, 0],
  [0, 4],
];
const FEATURES = TERMS.length + 2;

const WAVES = TERMS.map(([u, v]) => {
  const wave = new Float32Array(PATCH * PATCH);
  for (let y = 0; y < PATCH; y++) {
    for (let x = 0; x < PATCH; x++) {
      const scale = (u === 0 ? 1 : Math.SQRT2) * (v === 0 ? 1 : Math.SQRT2);
      wave[y * PATCH + x] =
        (scale * Math.cos(((x + 0.5) * u * Math.PI) / PATCH) * Math.cos(((y + 0.5) * v * Math.PI) / PATCH)) /
        PATCH;
    }
  }
  return wave;
});

/** Lightness and two colour differences of an encoded picture. */
function opponents({ width, height, planes }: Raster): Raster {
  const [r, g, b] = planes.length === 3 ? planes : [planes[0], planes[0], planes[0]];
  return new Raster(width, height, [
    r.map((v, i) => (v + g[i] + b[i]) / 3),
    r.map((v, i) => v - g[i]),
    r.map((v, i) => (v + g[i]) / 2 - b[i]),
  ]);
}

/** Features of the patch whose corner is (x, y); wraps. */
function describe(picture: Raster, x: number, y: number, into: Float32Array, at: number): void {
  const { width, height, planes } = picture;
  const patch = new Float32Array(PATCH * PATCH);
  let [first, second] = [0, 0];
  for (let j = 0; j < PATCH; j++) {
    const row = ((y + j) % height) * width;
    for (let i = 0; i < PATCH; i++) {
      const p = row + ((x + i) % width);
      patch[j * PATCH + i] = planes[0][p];
      first += planes[1][p];
      second += planes[2][p];
    }
  }
  WAVES.forEach((wave, k) => {
    let sum = 0;
    for (let i = 0; i < patch.length; i++) sum += wave[i] * patch[i];
    into[at + k] = sum;
  });
  into[at + TERMS.length] = (COLOUR_WEIGHT * first) / PATCH;
  into[at + TERMS.length + 1] = (COLOUR_WEIGHT * second) / PATCH;
}

/** The nearest patch of a bank by its features, and its distance. */
function nearest(
  features: Float32Array,
  bank: Float32Array,
  skip: (k: number) => boolean,
): { k: number; distance: number } {
  let best = Number.POSITIVE_INFINITY;
  let which = 0;
  const count = bank.length / FEATURES;
  for (let k = 0, from = 0; k < count; k++, from += FEATURES) {
    let sum = 0;
    for (let f = 0; f < FEATURES; f++) {
      const d = features[f] - bank[from + f];
      sum += d * d;
      // Most are out after the first few terms.
      if ((f & 3) === 3 && sum >= best) break;
    }
    if (sum < best && !skip(k)) {
      best = sum;
      which = k;
    }
  }
  return { k: which, distance: Math.sqrt(best) };
}

/** Even places over a rectangle, about `count` of them, the same every time. */
function places(width: number, height: number, count: number, shift: number): [number, number][] {
  const step = Math.max(1, Math.sqrt((width * height) / count));
  const found: [number, number][] = [];
  let row = 0;
  for (let y = shift * step; y < height; y += step, row++) {
    for (let x = ((row * 0.618 + shift) % 1) * step; x < width; x += step) {
      found.push([Math.floor(x), Math.floor(y)]);
    }
  }
  return found;
}

const sumOf = (values: number[]) => values.reduce((sum, v) => sum + v, 0);

/** A place on the seam, in shares of the tile, and how unlike anything in the source it looks (1 is usual). */
export interface Spot {
  x: number;
  y: number;
  unlike: number;
}

/** A place on the tile's seam and the place in the source that is most like it, in pixels of each. */
export interface Twin {
  crossing: Crossing;
  x: number;
  y: number;
}

export interface PatchScore {
  /** How unlike the source patches on the seams are, over how unlike it its own are. */
  mean: number;
  /** The same of the worst fifth. */
  worst: number;
  spots: Spot[];
  /** Each spot's crossing with its nearest in the source. */
  twins: Twin[];
}

/** Differences below about one code of 255 in a whole patch are not seen. */
const FLAT = 0.04;

/** The patches of a source at one size, and for each that was asked the distance to its own nearest. */
interface Bank {
  places: [number, number][];
  features: Float32Array;
  own: Map<number, number>;
  /** What the source's own patches come to by the same measure. */
  usual: Unlikeness;
}

/** How far patches are from their nearest over how far those are from their own: of all, and the worst fifth. */
interface Unlikeness {
  mean: number;
  worst: number;
}

const shrunk = (raster: Raster, stride: number) =>
  opponents(resizeArea(raster, Math.round(raster.width / stride), Math.round(raster.height / stride)));

/** The patches that others are held against, one set for each size; made once for a source. */
export function banksOf(source: Raster): Bank[] {
  return STRIDES.map((stride) => {
    const from = shrunk(source, stride);
    const known = places(from.width - PATCH + 1, from.height - PATCH + 1, BANK, 0);
    const features = new Float32Array(known.length * FEATURES);
    for (const [k, [x, y]] of known.entries()) describe(from, x, y, features, k * FEATURES);
    const bank: Bank = { places: known, features, own: new Map(), usual: { mean: 1, worst: 1 } };
    const one = new Float32Array(FEATURES);
    const asked = places(from.width - PATCH + 1, from.height - PATCH + 1, USUAL, 0.37);
    bank.usual = unlikeness(
      asked.map(([x, y]) => {
        describe(from, x, y, one, 0);
        return compared(bank, one, (k) => isNear(known[k], x, y));
      }),
    );
    return bank;
  });
}

const isNear = ([px, py]: [number, number], x: number, y: number) =>
  Math.abs(px - x) < PATCH / 2 && Math.abs(py - y) < PATCH / 2;

interface Compared {
  /** The nearest patch of the bank. */
  k: number;
  distance: number;
  usual: number;
}

/** A patch held against a bank. */
function compared(bank: Bank, features: Float32Array, skip: (k: number) => boolean): Compared {
  const { k, distance } = nearest(features, bank.features, skip);
  return { k, distance: distance + FLAT, usual: ownDistance(bank, k) + FLAT };
}

function unlikeness(found: Compared[]): Unlikeness {
  const ratio = (some: Compared[]) =>
    sumOf(some.map((one) => one.distance)) / Math.max(1e-9, sumOf(some.map((one) => one.usual)));
  const worst = [...found]
    .sort((a, b) => b.distance / b.usual - a.distance / a.usual)
    .slice(0, Math.max(1, Math.round(found.length / 5)));
  return { mean: ratio(found), worst: ratio(worst) };
}

function ownDistance({ places: known, features, own }: Bank, k: number): number {
  const kept = own.get(k);
  if (kept !== undefined) return kept;
  const [x, y] = known[k];
  const { distance } = nearest(features.subarray(k * FEATURES, (k + 1) * FEATURES), features, (m) =>
    isNear(known[m], x, y),
  );
  own.set(k, distance);
  return distance;
}

/**
 * Holds patches over the seams against patches of the source: 8 × 8 pixels at three sizes, told by low
 * cosine terms of lightness and by colour. How far the nearest is, is held against how far that one is from
 * its own nearest, so that a joint is compared with joints (as local outliers are, Breunig et al. 2000).
 * Encoded pictures at one scale; `seams` lie on the tile.
 */
export function patchScore(tile: Raster, banks: Bank[], seams: Crossing[][]): PatchScore {
  const chosen = seams.flatMap((seam) => {
    const step = Math.max(1, Math.floor(seam.length / OVER));
    return seam.filter((_, k) => k % step === 0);
  });
  // The step over the seam lies in the middle of a patch.
  const spots: Spot[] = chosen.map(({ x, y, toX, toY }) => ({
    x: (x + toX) / tile.width,
    y: (y + toY) / tile.height,
    unlike: 0,
  }));
  const twins: Twin[] = [];
  const ratios: Unlikeness[] = [];
  const one = new Float32Array(FEATURES);
  for (const [level, bank] of banks.entries()) {
    const small = shrunk(tile, STRIDES[level]);
    const corner = (share: number, size: number) => (Math.round(share * size) - PATCH / 2 + size) % size;
    const found = spots.map((spot, n) => {
      describe(small, corner(spot.x, small.width), corner(spot.y, small.height), one, 0);
      const each = compared(bank, one, () => false);
      if (level === 0) {
        const [x, y] = bank.places[each.k];
        const { toX, toY } = chosen[n];
        twins.push({ crossing: chosen[n], x: x + PATCH / 2 - toX, y: y + PATCH / 2 - toY });
      }
      return each;
    });
    for (const [n, { distance, usual }] of found.entries()) {
      spots[n].unlike += distance / usual / bank.usual.mean / banks.length;
    }
    const { mean, worst } = unlikeness(found);
    ratios.push({ mean: mean / bank.usual.mean, worst: worst / bank.usual.worst });
  }
  return {
    mean: sumOf(ratios.map((r) => r.mean)) / ratios.length,
    worst: sumOf(ratios.map((r) => r.worst)) / ratios.length,
    spots,
    twins,
  };
}
