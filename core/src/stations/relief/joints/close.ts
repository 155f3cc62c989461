import { nearestMarked } from '../../../filters/distance.ts';
import { type Connected, connectedParts } from '../../../raster/connected.ts';
import { type Edges, edgeTable } from '../../../raster/edges.ts';
import type { Sides } from '../../../raster/sides.ts';
import type { Steps } from '../../../work/steps.ts';
import { SMALLEST_FACE } from './net.ts';

/** How far from the net the cores of faces begin, as shares of the longer edge: gaps up to twice as wide are closed. */
const REACHES = [0.004, 0.01, 0.018, 0.028, 0.04];
/** So much smaller than the smallest face its core may be. */
const CORE = 0.2;
/** Where so much of the border between two faces is net, the rest of it is joint as well; else both are one face. */
const MOSTLY = 0.4;

/** Gives each pixel of what is cut to the piece that it is nearest to. */
function* assignNearest(
  labels: Int32Array,
  pieceOf: (i: number) => number,
  isCut: ReadonlySet<number>,
  sides: Sides,
  edges: Edges,
): Steps<void> {
  const isPiece = new Uint8Array(labels.length);
  for (let i = 0; i < labels.length; i++) isPiece[i] = pieceOf(i) >= 0 ? 1 : 0;
  const { index } = yield* nearestMarked(isPiece, sides, edges);
  for (let i = 0; i < labels.length; i++) {
    if (isPiece[i] === 1 || isCut.has(labels[i])) labels[i] = pieceOf(index[i]);
  }
}

/** What lies off the net, cut where a wider margin cuts it into pieces of a size; −1 on the net. */
function* coresOf(
  away: Float32Array,
  sides: Sides,
  edges: Edges,
): Steps<{ labels: Int32Array; count: number }> {
  const longer = Math.max(sides.width, sides.height);
  const least = CORE * SMALLEST_FACE * away.length;
  const partsAt = (reach: number) =>
    connectedParts(
      Uint8Array.from(away, (value) => (value > reach * longer ? 1 : 0)),
      1,
      sides,
      edges,
      false,
    );
  const first = partsAt(REACHES[0]);
  const labels = first.labels.map((label) => (label >= 0 && first.sizes[label] >= least ? label : -1));
  let count = first.sizes.length;
  for (const reach of REACHES.slice(1)) {
    yield;
    const parts = partsAt(reach);
    /** The core so far that each part lies in. */
    const within = new Int32Array(parts.sizes.length).fill(-1);
    for (let i = 0; i < labels.length; i++) if (parts.labels[i] >= 0) within[parts.labels[i]] = labels[i];
    const pieces = new Map<number, number>();
    for (const [k, size] of parts.sizes.entries()) {
      if (size >= least) pieces.set(within[k], (pieces.get(within[k]) ?? 0) + 1);
    }
    const isCut = new Set([...pieces].flatMap(([core, n]) => (core >= 0 && n > 1 ? [core] : [])));
    if (isCut.size === 0) continue;
    const own = within.map((core, k) => (isCut.has(core) && parts.sizes[k] >= least ? count++ : -1));
    const pieceOf = (i: number) => (i >= 0 && parts.labels[i] >= 0 ? own[parts.labels[i]] : -1);
    yield* assignNearest(labels, pieceOf, isCut, sides, edges);
  }
  return { labels, count };
}

/** The border between two faces: how many steps over it there are, and how many of them are in the net. */
interface Shared {
  all: number;
  net: number;
}

/** Visits every step from one face to another. */
function eachStep(
  labels: Int32Array,
  { width, height }: Sides,
  edges: Edges,
  visit: (i: number, a: number, b: number) => void,
): void {
  const columns = edgeTable(width, 0, 1, edges.x);
  const rows = edgeTable(height, 0, 1, edges.y);
  for (let y = 0, i = 0; y < height; y++) {
    for (let x = 0; x < width; x++, i++) {
      const [a, right, below] = [
        labels[i],
        labels[y * width + columns[x + 1]],
        labels[rows[y + 1] * width + x],
      ];
      if (a < 0) continue;
      if (right >= 0 && right !== a) visit(i, Math.min(a, right), Math.max(a, right));
      if (below >= 0 && below !== a) visit(i, Math.min(a, below), Math.max(a, below));
    }
  }
}

/** Faces grown from their cores to the middle of the net, and the gaps of the net between them. */
export interface Closed {
  faces: Connected;
  gaps: Uint8Array;
}

/**
 * Closes a net that is broken: faces grow from their cores and meet in the middle of the joints. Where most of the border between
 * two is net the rest of it is a gap of the net; where it is not, both are one face.
 */
export function* closeNet(net: Uint8Array, sides: Sides, edges: Edges): Steps<Closed> {
  const { distance } = yield* nearestMarked(net, sides, edges);
  const cores = yield* coresOf(distance, sides, edges);
  yield;
  const { index } = yield* nearestMarked(
    Uint8Array.from(cores.labels, (label) => (label >= 0 ? 1 : 0)),
    sides,
    edges,
  );
  const labels = Int32Array.from(index, (i) => (i < 0 ? -1 : cores.labels[i]));
  yield;
  const borders = new Map<number, Shared>();
  eachStep(labels, sides, edges, (i, a, b) => {
    const pair = a * cores.count + b;
    const shared = borders.get(pair) ?? { all: 0, net: 0 };
    shared.all++;
    shared.net += net[i];
    borders.set(pair, shared);
  });
  yield;
  const isJoint = ({ all, net: inNet }: Shared) => inNet >= MOSTLY * all;
  const gaps = new Uint8Array(labels.length);
  eachStep(labels, sides, edges, (i, a, b) => {
    if (net[i] === 0 && isJoint(borders.get(a * cores.count + b)!)) gaps[i] = 1;
  });
  const face = Int32Array.from({ length: cores.count }, (_, k) => k);
  const root = (k: number): number => {
    let at = k;
    while (face[at] !== at) at = face[at];
    return at;
  };
  for (const [pair, shared] of borders) {
    if (isJoint(shared)) continue;
    face[root(pair % cores.count)] = root(Math.floor(pair / cores.count));
  }
  const sizes = new Array<number>(cores.count).fill(0);
  for (let i = 0; i < labels.length; i++) {
    if (labels[i] < 0) continue;
    labels[i] = root(labels[i]);
    sizes[labels[i]]++;
  }
  return { faces: { labels, sizes }, gaps };
}
