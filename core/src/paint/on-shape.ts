import { boundaryLoops, type Loop } from '../outline/boundary.ts';
import { radiusShare } from '../strokes/pressure.ts';
import { thinned } from '../strokes/stroke.ts';
import type { Patch } from './stroke.ts';

type Vector = readonly [number, number, number];
type Place = readonly [number, number];

/** A triangle of a shape: its corners in the shape's units, and where they lie in shares of the tile, v downwards. */
export interface ShapeTriangle {
  corners: readonly [Vector, Vector, Vector];
  places: readonly [Place, Place, Place];
}

/** A place on a shape that the pointer was over, the weight of the pen 0..1, and the direction on the shape in which it leans. */
export interface ShapePoint {
  at: Vector;
  pressure: number;
  lean?: Vector;
}

export interface ShapeBrush {
  /** In the shape's units. */
  radius: number;
  /** Length of the tile's longer edge on the shape, in its units. */
  edge: number;
  /**
   * Whether the tile goes on beyond the shape's own edges, as it does on a shape that only shows it; else nothing is painted
   * beyond them, as other parts of an unwrapped shape may lie there.
   */
  goesOn: boolean;
}

const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const lengthOf = (a: Vector): number => Math.hypot(...a);
const scaled = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
const plus = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** A triangle, how places in the tile go on about it, and the lengths of a patch that it could be in. */
interface Facet extends ShapeTriangle {
  normal: Vector;
  /** A ball about it. */
  middle: Vector;
  reach: number;
  /** How u and v grow for each unit along the shape. */
  growU: Vector;
  growV: Vector;
  frame: Patch['frame'];
}

/** How the tile lies on a triangle; null where it has no area, there or on the shape. */
function facetOf(triangle: ShapeTriangle, edge: number): Facet | null {
  const { corners, places } = triangle;
  const [q1, q2] = [minus(corners[1], corners[0]), minus(corners[2], corners[0])];
  const across = cross(q1, q2);
  const square = dot(across, across);
  if (square < 1e-24) return null;
  const [m1, m2] = [scaled(cross(q2, across), 1 / square), scaled(cross(across, q1), 1 / square)];
  const grow = (k: 0 | 1): Vector =>
    plus(scaled(m1, places[1][k] - places[0][k]), scaled(m2, places[2][k] - places[0][k]));
  const [growU, growV] = [grow(0), grow(1)];
  const down = lengthOf(growV);
  if (!(down > 1e-9)) return null;
  const normal = scaled(across, 1 / Math.sqrt(square));
  const y = scaled(growV, 1 / down);
  const a = Math.abs(dot(growU, cross(y, normal)));
  const frame: Patch['frame'] = [a * edge, dot(growU, y) * edge, down * edge];
  if (frame[0] < 1e-4 || frame[2] < 1e-4) return null;
  const middle = scaled(plus(corners[0], plus(corners[1], corners[2])), 1 / 3);
  const reach = Math.max(...corners.map((corner) => lengthOf(minus(corner, middle))));
  return { ...triangle, normal, middle, reach, growU, growV, frame };
}

/** The direction on a triangle that is up in the tile; null where it has no area, there or on the shape. */
export function upOn(triangle: ShapeTriangle): Vector | null {
  const facet = facetOf(triangle, 1);
  return facet && scaled(facet.growV, -1 / lengthOf(facet.growV));
}

/** How far lengths of a patch may differ from those of its first triangle. */
const ALIKE = 0.12;

const areAlike = ([a, b, d]: Patch['frame'], [a2, b2, d2]: Patch['frame']): boolean =>
  Math.abs(a2 / a - 1) < ALIKE && Math.abs(d2 / d - 1) < ALIKE && Math.abs(b2 - b) < ALIKE * a;

/** Corners nearer than this, in the shape's units, are one. */
const WELD = 1e-5;
const keyOf = (corner: Vector): string => corner.map((value) => Math.round(value / WELD)).join(' ');

/** A side of a facet, by the number of its first corner. */
interface Side {
  facet: number;
  first: number;
}

/** For every side of every facet the sides of others that lie on it. */
function sidesOf(facets: readonly Facet[]): { of(facet: number, first: number): readonly Side[] } {
  const keys = facets.map(({ corners }) => corners.map(keyOf));
  const nameOf = (facet: number, first: number) =>
    [keys[facet][first], keys[facet][(first + 1) % 3]].sort().join('|');
  const all = new Map<string, Side[]>();
  for (let facet = 0; facet < facets.length; facet++) {
    for (let first = 0; first < 3; first++) {
      const name = nameOf(facet, first);
      const known = all.get(name);
      if (known) known.push({ facet, first });
      else all.set(name, [{ facet, first }]);
    }
  }
  return {
    of: (facet, first) => all.get(nameOf(facet, first))!.filter((one) => one.facet !== facet),
  };
}

/** Whole tiles by which one facet's places are shifted from those of a neighbour along a side; null where the tile breaks off there. */
function shiftAcross(facets: readonly Facet[], from: Side, to: Side): Place | null {
  const [a, b] = [facets[from.facet], facets[to.facet]];
  const isTurned = keyOf(a.corners[from.first]) !== keyOf(b.corners[to.first]);
  const ends = [0, 1].map((k) => {
    const own = a.places[(from.first + k) % 3];
    const other = b.places[(to.first + (isTurned ? 1 - k : k)) % 3];
    return [own[0] - other[0], own[1] - other[1]] as const;
  });
  const shift: Place = [Math.round(ends[0][0]), Math.round(ends[0][1])];
  const fits = ends.every(([u, v]) => Math.abs(u - shift[0]) < 1e-4 && Math.abs(v - shift[1]) < 1e-4);
  return fits ? shift : null;
}

/** Triangles on which the tile goes on alike, with the whole tiles by which the places of each are shifted. */
interface Cluster {
  members: Map<number, Place>;
  frame: Patch['frame'];
}

function clusterFrom(
  start: number,
  facets: readonly Facet[],
  sides: ReturnType<typeof sidesOf>,
  isFree: (facet: number) => boolean,
): Cluster {
  const { frame } = facets[start];
  const members = new Map<number, Place>([[start, [0, 0]]]);
  const open = [start];
  for (let at = open.pop(); at !== undefined; at = open.pop()) {
    const [u, v] = members.get(at)!;
    for (let first = 0; first < 3; first++) {
      for (const other of sides.of(at, first)) {
        if (members.has(other.facet) || !isFree(other.facet)) continue;
        const shift = shiftAcross(facets, { facet: at, first }, other);
        if (!shift || !areAlike(frame, facets[other.facet].frame)) continue;
        members.set(other.facet, [u + shift[0], v + shift[1]]);
        open.push(other.facet);
      }
    }
  }
  return { members, frame };
}

/** The place of a triangle nearest to a point (Ericson, Real-Time Collision Detection, 2005, 5.1.5). */
export function nearestOn([a, b, c]: ShapeTriangle['corners'], point: Vector): Vector {
  const [ab, ac, ap] = [minus(b, a), minus(c, a), minus(point, a)];
  const [d1, d2] = [dot(ab, ap), dot(ac, ap)];
  if (d1 <= 0 && d2 <= 0) return a;
  const bp = minus(point, b);
  const [d3, d4] = [dot(ab, bp), dot(ac, bp)];
  if (d3 >= 0 && d4 <= d3) return b;
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return plus(a, scaled(ab, d1 / (d1 - d3)));
  const cp = minus(point, c);
  const [d5, d6] = [dot(ab, cp), dot(ac, cp)];
  if (d6 >= 0 && d5 <= d6) return c;
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return plus(a, scaled(ac, d2 / (d2 - d6)));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    return plus(b, scaled(minus(c, b), (d4 - d3) / (d4 - d3 + (d5 - d6))));
  }
  const whole = va + vb + vc;
  return plus(a, plus(scaled(ab, vb / whole), scaled(ac, vc / whole)));
}

const rounded = (value: number): number => Math.round(1e5 * value) / 1e5;

/** A direction on a facet in degrees clockwise from up, as places of a patch have it. */
function degreesOf(direction: Vector, { growU, growV }: Facet, [a, b, d]: Patch['frame']): number {
  const y = dot(growV, direction) / d;
  const x = (dot(growU, direction) - b * y) / a;
  return Math.round((Math.atan2(x, -y) * 180) / Math.PI);
}

/** Where a point of the way lies for a cluster, how much of the radius reaches it, and how far the point is from it; null out of reach. */
function pointOn(
  { members, frame }: Cluster,
  facets: readonly Facet[],
  { at, pressure, lean }: ShapePoint,
  radius: number,
): { point: Patch['points'][number]; away: number } | null {
  const own = radius * radiusShare(pressure);
  let nearest = own;
  let found = -1;
  for (const facet of members.keys()) {
    const { corners, middle, reach } = facets[facet];
    if (lengthOf(minus(middle, at)) - reach >= nearest) continue;
    const away = lengthOf(minus(nearestOn(corners, at), at));
    if (away >= nearest) continue;
    nearest = away;
    found = facet;
  }
  if (found < 0) return null;
  const { corners, places, normal, growU, growV } = facets[found];
  const from = minus(at, corners[0]);
  const above = Math.abs(dot(from, normal));
  const [shiftU, shiftV] = members.get(found)!;
  const u = places[0][0] + dot(growU, from) + shiftU;
  const v = places[0][1] + dot(growV, from) + shiftV;
  const share = Math.sqrt(Math.max(0, own * own - above * above)) / radius;
  const point: Patch['points'][number] = lean
    ? [u, v, share, degreesOf(lean, facets[found], frame)]
    : [u, v, share];
  return { point, away: nearest };
}

/** The parts of a way that reach a cluster, and how far along the way each begins. */
function partsOn(
  cluster: Cluster,
  facets: readonly Facet[],
  way: readonly ShapePoint[],
  { radius, edge }: ShapeBrush,
): Pick<Patch, 'points' | 'along'>[] {
  const { frame } = cluster;
  const parts: { points: Patch['points']; along: number; isSet: boolean }[] = [];
  let isOn = false;
  let gone = 0;
  for (const [k, point] of way.entries()) {
    if (k > 0) gone += lengthOf(minus(point.at, way[k - 1].at)) / edge;
    const found = pointOn(cluster, facets, point, radius);
    if (found && !isOn) parts.push({ points: [], along: gone, isSet: false });
    isOn = found !== null;
    const part = parts.at(-1);
    if (!found || !part) continue;
    part.points.push(found.point);
    // Beside a fold lengths are shorter than along the way: it is measured from where the way itself is on the cluster.
    if (!part.isSet && found.away < 1e-3 * radius) {
      part.along = Math.max(0, gone - wayLength(part.points, frame));
      part.isSet = true;
    }
  }
  return parts.map(({ points, along }) => ({ points, along }));
}

/** Length on the surface of a way in shares of the tile, as a share of its longer edge. */
const wayLength = (points: Patch['points'], [a, b, d]: Patch['frame']): number =>
  points.slice(1).reduce((sum, [u, v], k) => {
    const y = (v - points[k][1]) / d;
    return sum + Math.hypot((u - points[k][0] - b * y) / a, y);
  }, 0);

/** Whether an edge of a cluster, where the tile goes on otherwise or breaks off, is within reach of the way. */
function isBounded(
  { members }: Cluster,
  facets: readonly Facet[],
  sides: ReturnType<typeof sidesOf>,
  way: readonly ShapePoint[],
  { radius, goesOn }: ShapeBrush,
): boolean {
  for (const facet of members.keys()) {
    for (let first = 0; first < 3; first++) {
      const others = sides.of(facet, first);
      if (others.some((other) => members.has(other.facet))) continue;
      const isBreak = !others.some((other) => shiftAcross(facets, { facet, first }, other));
      if (isBreak && goesOn) continue;
      const { corners } = facets[facet];
      const side = [corners[first], corners[(first + 1) % 3], corners[first]] as const;
      if (way.some(({ at }) => lengthOf(minus(nearestOn(side, at), at)) < radius)) return true;
    }
  }
  return false;
}

/** The closed lines around a cluster in shares of the tile. */
function linesAround({ members }: Cluster, facets: readonly Facet[]): Loop[] {
  const triangles = [...members].flatMap(([facet, [du, dv]]) =>
    facets[facet].places.flatMap(([u, v]) => [u + du, v + dv]),
  );
  return boundaryLoops(triangles);
}

/** A patch moved by whole tiles, so that its way begins in the first. */
function atHome({ points, along, frame, within }: Patch): Patch {
  const [left, top] = [Math.floor(points[0][0]), Math.floor(points[0][1])];
  const moved = (loop: Loop) => loop.map((value, k) => rounded(value - (k % 2 === 0 ? left : top)));
  return {
    points: thinned(points).map(([u, v, share, ...lean]) => [
      rounded(u - left),
      rounded(v - top),
      rounded(share),
      ...lean,
    ]) as Patch['points'],
    along: rounded(along),
    frame: frame.map(rounded) as Patch['frame'],
    ...(within ? { within: within.map(moved) } : {}),
  };
}

/**
 * A stroke over a shape as patches of the tile. Triangles on which the tile goes on with nearly the same lengths are one patch;
 * each takes what of a ball about the pointer lies on it, so that the brush has its true size everywhere and goes on over folds
 * and over edges of the texture coordinates.
 *
 * @param triangles Those within the radius of the way that are to be painted; the first should be one that the way lies on.
 * @param way Places on the shape, no further apart than the radius.
 * @returns None where nothing can be painted.
 */
export function patchesOf(
  triangles: readonly ShapeTriangle[],
  way: readonly ShapePoint[],
  brush: ShapeBrush,
): Patch[] {
  const facets = triangles.flatMap((one) => facetOf(one, brush.edge) ?? []);
  const sides = sidesOf(facets);
  const free = new Set(facets.keys());
  const patches: Patch[] = [];
  for (const start of facets.keys()) {
    if (!free.has(start)) continue;
    const cluster = clusterFrom(start, facets, sides, (facet) => free.has(facet));
    for (const facet of cluster.members.keys()) free.delete(facet);
    const bounds = isBounded(cluster, facets, sides, way, brush) ? linesAround(cluster, facets) : [];
    const within = bounds.length > 0 ? { within: bounds } : {};
    for (const part of partsOn(cluster, facets, way, brush)) {
      patches.push(atHome({ ...part, frame: cluster.frame, ...within }));
    }
  }
  return patches;
}
