import { OPPONENTS } from '../../../colour/opponents.ts';
import { KERNELS, type Kernels } from '../../../kernels/kernels.ts';
import { FEATURES, type Patches } from '../../../kernels/nearest/reference.ts';
import { Raster } from '../../../raster/raster.ts';
import { resizingArea } from '../../../sampling/resize.ts';
import type { Checkpoint } from '../../../work/checkpoint.ts';
import { runSteps } from '../../../work/steps.ts';
import type { Crossing } from './path.ts';

const PATCH = 8;
const STRIDES = [1, 2, 4];
/** Patches of the source that others are compared with. */
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
/** The terms' waves over a patch, one after the other. */
const WAVES = new Float32Array(
  TERMS.flatMap(([u, v]) =>
    Array.from({ length: PATCH * PATCH }, (_, i) => {
      const [x, y] = [i % PATCH, Math.floor(i / PATCH)];
      const scale = (u === 0 ? 1 : Math.SQRT2) * (v === 0 ? 1 : Math.SQRT2);
      return (
        (scale * Math.cos(((x + 0.5) * u * Math.PI) / PATCH) * Math.cos(((y + 0.5) * v * Math.PI) / PATCH)) /
        PATCH
      );
    }),
  ),
);

/** Lightness and two colour differences of an encoded picture. */
function opponents({ width, height, planes }: Raster): Raster {
  const [r, g, b] = planes.length === 3 ? planes : [planes[0], planes[0], planes[0]];
  return new Raster(
    width,
    height,
    OPPONENTS.map((weights) => KERNELS.sumPlanes([r, g, b], weights)),
  );
}

/** Features of the patch whose corner is (x, y); wraps. `lightness` has room for a patch. */
function describe(
  { width, height, planes }: Raster,
  x: number,
  y: number,
  lightness: Float32Array,
  into: Float32Array,
): void {
  const [light, red, yellow] = planes;
  let first = 0;
  let second = 0;
  for (let j = 0; j < PATCH; j++) {
    const row = ((y + j) % height) * width;
    for (let i = 0; i < PATCH; i++) {
      const p = row + ((x + i) % width);
      lightness[j * PATCH + i] = light[p];
      first += red[p];
      second += yellow[p];
    }
  }
  for (let k = 0; k < TERMS.length; k++) {
    let sum = 0;
    for (let i = 0; i < PATCH * PATCH; i++) sum += WAVES[k * PATCH * PATCH + i] * lightness[i];
    into[k] = sum;
  }
  into[TERMS.length] = (COLOUR_WEIGHT * first) / PATCH;
  into[TERMS.length + 1] = (COLOUR_WEIGHT * second) / PATCH;
}

/** Patches that are told or compared with a bank before other work can run. */
const AT_ONCE = 128;

/** The patches of a picture whose corners are given; wraps. */
async function patchesAt(
  picture: Raster,
  places: readonly [number, number][],
  checkpoint: Checkpoint,
): Promise<Patches> {
  const features = new Float32Array(places.length * FEATURES);
  const lightness = new Float32Array(PATCH * PATCH);
  for (const [k, [x, y]] of places.entries()) {
    if (k % AT_ONCE === 0) await checkpoint(1);
    describe(picture, x, y, lightness, features.subarray(k * FEATURES, (k + 1) * FEATURES));
  }
  return { features, corners: Int32Array.from(places.flat()) };
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
interface Bank extends Patches {
  own: Map<number, number>;
  /** What the source's own patches come to by the same measure. */
  usual: Unlikeness;
}

/** How far patches are from their nearest over how far those are from their own: of all, and the worst fifth. */
interface Unlikeness {
  mean: number;
  worst: number;
}

async function shrunk(raster: Raster, stride: number, checkpoint: Checkpoint): Promise<Raster> {
  const [width, height] = [raster.width, raster.height].map((side) => Math.round(side / stride));
  const small = await runSteps(resizingArea(raster, width, height), checkpoint);
  await checkpoint(1);
  return opponents(small);
}

/** The patches that others are compared with, one set for each size; made once for a source. */
export async function banksOf(source: Raster, checkpoint: Checkpoint): Promise<Bank[]> {
  const banks: Bank[] = [];
  for (const stride of STRIDES) {
    await checkpoint(1);
    const from = await shrunk(source, stride, checkpoint);
    await checkpoint(1);
    const [wide, high] = [from.width - PATCH + 1, from.height - PATCH + 1];
    const known = await patchesAt(from, places(wide, high, BANK, 0), checkpoint);
    const bank: Bank = { ...known, own: new Map(), usual: { mean: 1, worst: 1 } };
    const asked = await patchesAt(from, places(wide, high, USUAL, 0.37), checkpoint);
    bank.usual = unlikeness(await compared(bank, asked, APART, checkpoint));
    banks.push(bank);
  }
  return banks;
}

/** Patches whose corners are nearer than this on both axes are all but the same. */
const APART = PATCH / 2;

interface Compared {
  /** The nearest patch of the bank. */
  k: number;
  distance: number;
  usual: number;
}

/** `nearestPatches`, some at a time. */
async function nearest(
  { features, corners }: Patches,
  bank: Bank,
  apart: number,
  checkpoint: Checkpoint,
): Promise<ReturnType<Kernels['nearestPatches']>> {
  const count = corners.length / 2;
  const which = new Int32Array(count);
  const distance = new Float32Array(count);
  for (let from = 0; from < count; from += AT_ONCE) {
    await checkpoint(1);
    const some = {
      features: features.subarray(from * FEATURES, (from + AT_ONCE) * FEATURES),
      corners: corners.subarray(2 * from, 2 * (from + AT_ONCE)),
    };
    const found = KERNELS.nearestPatches(some, bank, apart);
    which.set(found.which, from);
    distance.set(found.distance, from);
  }
  return { which, distance };
}

/** Patches compared with a bank, leaving out of it what lies nearer than `apart`. */
async function compared(
  bank: Bank,
  asked: Patches,
  apart: number,
  checkpoint: Checkpoint,
): Promise<Compared[]> {
  const { which, distance } = await nearest(asked, bank, apart, checkpoint);
  const missing = [...new Set(which)].filter((k) => !bank.own.has(k));
  const theirs = await nearest(
    {
      features: Float32Array.from(
        missing.flatMap((k) => [...bank.features.subarray(k * FEATURES, (k + 1) * FEATURES)]),
      ),
      corners: Int32Array.from(missing.flatMap((k) => [bank.corners[2 * k], bank.corners[2 * k + 1]])),
    },
    bank,
    APART,
    checkpoint,
  );
  for (const [n, k] of missing.entries()) bank.own.set(k, theirs.distance[n]);
  return Array.from(which, (k, n) => ({
    k,
    distance: distance[n] + FLAT,
    usual: bank.own.get(k)! + FLAT,
  }));
}

function unlikeness(found: Compared[]): Unlikeness {
  const ratio = (some: Compared[]) =>
    sumOf(some.map((one) => one.distance)) / Math.max(1e-9, sumOf(some.map((one) => one.usual)));
  const worst = [...found]
    .sort((a, b) => b.distance / b.usual - a.distance / a.usual)
    .slice(0, Math.max(1, Math.round(found.length / 5)));
  return { mean: ratio(found), worst: ratio(worst) };
}

/**
 * Holds patches over the seams against patches of the source: 8 × 8 pixels at three sizes, identified by low
 * cosine terms of lightness and by colour. How far the nearest is, is compared with how far that one is from
 * its own nearest, so that a joint is compared with joints (as local outliers are, Breunig et al. 2000).
 * Encoded pictures at one scale; `seams` lie on the tile.
 */
export async function patchScore(
  tile: Raster,
  banks: Bank[],
  seams: Crossing[][],
  checkpoint: Checkpoint,
): Promise<PatchScore> {
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
  for (const [level, bank] of banks.entries()) {
    await checkpoint(1);
    const small = await shrunk(tile, STRIDES[level], checkpoint);
    await checkpoint(1);
    const corner = (share: number, size: number) => (Math.round(share * size) - PATCH / 2 + size) % size;
    const corners = spots.map((spot): [number, number] => [
      corner(spot.x, small.width),
      corner(spot.y, small.height),
    ]);
    const found = await compared(bank, await patchesAt(small, corners, checkpoint), 0, checkpoint);
    if (level === 0) {
      for (const [n, { k }] of found.entries()) {
        const { toX, toY } = chosen[n];
        const [x, y] = [bank.corners[2 * k], bank.corners[2 * k + 1]];
        twins.push({ crossing: chosen[n], x: x + PATCH / 2 - toX, y: y + PATCH / 2 - toY });
      }
    }
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
