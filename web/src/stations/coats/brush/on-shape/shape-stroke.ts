import { type PaintStroke, patchesOf, type ShapePoint, steadier } from '@zesty-tile/core';
import type { LitSurface, SurfaceHit, Vector } from '../../../../bench/sill/under-pointer.ts';
import { type CarriedChannel, strokeOf, type Tip } from '../tip.ts';

/** From one place of the way to the next, in radii: closer where the pointer is looked for, wider where it is kept. */
const LOOK = 1 / 3;
const STEP = 0.12;
/** Places further apart than this, in radii, do not belong to one way: the pointer went from one face to another behind it. */
const BREAK = 2;
/** Corners of the ring of a brush. */
const CORNERS = 24;
/** Least CSS pixels between two looks. */
const LEAST_LOOK = 1.5;

const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const apart = (a: Vector, b: Vector): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
const unit = (a: Vector): Vector => {
  const length = Math.hypot(...a) || 1;
  return [a[0] / length, a[1] / length, a[2] / length];
};

/** Two directions on the surface, square to each other. */
function tangentsOf({ normal }: SurfaceHit): [Vector, Vector] {
  const [x, y, z] = normal.map(Math.abs);
  const side: Vector = x <= y && x <= z ? [1, 0, 0] : y <= z ? [0, 1, 0] : [0, 0, 1];
  const first = unit(cross(normal, side));
  return [first, cross(normal, first)];
}

const mixed = (a: Vector, of: Vector, c: number, other: Vector, s: number): Vector =>
  a.map((value, i) => value + c * of[i] + s * other[i]) as unknown as Vector;

/** The ring of a brush on the surface, in places of the view. */
export function ringOf(surface: LitSurface, hit: SurfaceHit, radius: number): [number, number][] {
  const [first, second] = tangentsOf(hit);
  return Array.from({ length: CORNERS }, (_, k) => {
    const angle = (2 * Math.PI * k) / CORNERS;
    const [c, s] = [radius * Math.cos(angle), radius * Math.sin(angle)];
    return surface.viewOf(mixed(hit.at, first, c, second, s));
  });
}

/** How a square about a place that stands in a direction of the surface is seen, for a canvas: from radii to CSS pixels. */
export function seenSquare(
  surface: LitSurface,
  { at, normal }: SurfaceHit,
  direction: Vector,
  { radius, degrees }: { radius: number; degrees: number },
): [number, number, number, number, number, number] {
  const side = unit(cross(direction, normal));
  const ahead = cross(normal, side);
  const angle = (degrees * Math.PI) / 180;
  const [c, s] = [radius * Math.cos(angle), radius * Math.sin(angle)];
  const [x, y] = surface.viewOf(at);
  const up = surface.viewOf(mixed(at, ahead, c, side, s));
  const right = surface.viewOf(mixed(at, side, c, ahead, -s));
  return [right[0] - x, right[1] - y, x - up[0], y - up[1], x, y];
}

/** The direction on the surface that is seen in a direction of the view, in degrees clockwise from up; by a step of a length. */
function alongView(surface: LitSurface, hit: SurfaceHit, degrees: number, step: number): Vector | undefined {
  const [first, second] = tangentsOf(hit);
  const [from, a, b] = [
    hit.at,
    mixed(hit.at, first, step, second, 0),
    mixed(hit.at, first, 0, second, step),
  ].map(surface.viewOf);
  const [ax, ay, bx, by] = [a[0] - from[0], a[1] - from[1], b[0] - from[0], b[1] - from[1]];
  const area = ax * by - ay * bx;
  if (Math.abs(area) < 1e-9) return undefined;
  const angle = (degrees * Math.PI) / 180;
  const [x, y] = [Math.sin(angle), -Math.cos(angle)];
  return unit(mixed([0, 0, 0], first, (x * by - y * bx) / area, second, (ax * y - ay * x) / area));
}

/** Half of the largest extent of a ring, in CSS pixels. */
function extentOf(ring: readonly [number, number][]): number {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) / 2;
}

export interface PointerPlace {
  x: number;
  y: number;
  /** Of a pen, 0..1; 1 of anything else. */
  pressure: number;
  /** Where a pen leans, in degrees clockwise from up; null where it leans nowhere. */
  lean: number | null;
  ms: number;
}

/** A place that a stroke reached, how heavily the pen lay on it, and which way on the surface it leant. */
export interface FollowedHit {
  hit: SurfaceHit;
  pressure: number;
  lean?: Vector;
}

/** A stroke over the lit shape while it is drawn. */
export interface ShapeStroke {
  /** Follows the pointer; gives the hits that are new, with how heavily the pen lay on them. */
  follow(place: PointerPlace): FollowedHit[];
  /** Where the pointer was last. */
  end(): PointerPlace;
  /** The whole stroke as it is kept; null where none of it lies on the shape. */
  whole(erase: boolean, seed: number, tip: Tip, carries: readonly CarriedChannel[]): PaintStroke | null;
}

/** Begins a stroke where the surface was hit; `from` where a straight line leads there from. */
export function shapeStroke(
  surface: LitSurface,
  first: { hit: SurfaceHit; place: PointerPlace; from: PointerPlace | null },
  tip: Tip,
  viewHeight: number,
): ShapeStroke {
  const radius = tip.radius * surface.edge;
  const seen = Math.max(1, extentOf(ringOf(surface, first.hit, radius)));
  const lead = steadier({ string: (tip.string * seen) / viewHeight, smooth: tip.smooth });
  const runs: ShapePoint[][] = [];
  let last: PointerPlace = first.from ?? first.place;
  let isOn = false;

  const put = (place: PointerPlace): FollowedHit[] => {
    const hit = surface.hitAt(place.x, place.y);
    if (!hit) {
      isOn = false;
      return [];
    }
    const run = runs.at(-1);
    const before = run?.at(-1);
    const away = before ? apart(before.at, hit.at) : Number.POSITIVE_INFINITY;
    if (isOn && away < STEP * radius) return [];
    const { pressure, lean } = place;
    const leaning = lean === null ? undefined : alongView(surface, hit, lean, STEP * radius);
    const point: ShapePoint = { at: hit.at, pressure, ...(leaning ? { lean: leaning } : {}) };
    if (isOn && run && away < BREAK * radius) run.push(point);
    else runs.push([point]);
    isOn = true;
    return [{ ...point, hit }];
  };
  /** Looks at places evenly on the way from the last, so that none of the surface between is missed. */
  const lookAlong = (to: PointerPlace) => {
    const from = last;
    const way = Math.hypot(to.x - from.x, to.y - from.y);
    const count = Math.max(1, Math.ceil(way / Math.max(LEAST_LOOK, LOOK * seen)));
    last = to;
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 1) / count;
      const mix = (a: number, b: number) => a + t * (b - a);
      return put({
        x: mix(from.x, to.x),
        y: mix(from.y, to.y),
        pressure: mix(from.pressure, to.pressure),
        lean: to.lean,
        ms: to.ms,
      });
    }).flat();
  };

  lead([first.place.x / viewHeight, first.place.y / viewHeight], first.place.ms);
  const begun = [...put(last), ...(first.from ? lookAlong(first.place) : [])];
  return {
    follow(place) {
      const [x, y] = lead([place.x / viewHeight, place.y / viewHeight], place.ms);
      return [...begun.splice(0), ...lookAlong({ ...place, x: x * viewHeight, y: y * viewHeight })];
    },
    end: () => last,
    whole(erase, seed, tip, carries) {
      const patches = runs.flatMap((way) => {
        const places = way.map(({ at }) => at);
        const triangles = surface.near(places, radius, tip.hidden);
        return patchesOf(triangles, way, { radius, edge: surface.edge, goesOn: surface.goesOn });
      });
      if (patches.length === 0) return null;
      const points = patches[0].points.map(([u, v]) => [u, v] as [number, number]);
      const { turns: _turns, ...stroke } = strokeOf(points, erase, seed, tip, carries);
      return { ...stroke, patches };
    },
  };
}
