/** Coordinates nearer than this are one corner. */
const WELD = 1e-5;

/** A closed line: its corners one after the other, across and down. */
export type Loop = number[];

/** Numbers of the corners of triangles, equal where corners lie in one place; and the places. */
function welded(triangles: ArrayLike<number>): { corners: Int32Array; places: [number, number][] } {
  const known = new Map<string, number>();
  const places: [number, number][] = [];
  const corners = new Int32Array(triangles.length / 2);
  for (let k = 0; k < corners.length; k++) {
    const [x, y] = [triangles[2 * k], triangles[2 * k + 1]];
    const key = `${Math.round(x / WELD)} ${Math.round(y / WELD)}`;
    let corner = known.get(key);
    if (corner === undefined) {
      corner = places.length;
      places.push([x, y]);
      known.set(key, corner);
    }
    corners[k] = corner;
  }
  return { corners, places };
}

/**
 * Which island each triangle belongs to, numbered from 0 in the order they come: triangles that have a corner in one place are
 * in one island. Six numbers a triangle.
 */
export function islandsOf(triangles: ArrayLike<number>): Int32Array {
  const { corners, places } = welded(triangles);
  const parent = Int32Array.from({ length: places.length }, (_, k) => k);
  const rootOf = (corner: number): number => {
    let at = corner;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]];
      at = parent[at];
    }
    return at;
  };
  for (let k = 0; k < corners.length; k += 3) {
    for (const other of [corners[k + 1], corners[k + 2]]) parent[rootOf(other)] = rootOf(corners[k]);
  }
  const numbers = new Map<number, number>();
  return Int32Array.from({ length: corners.length / 3 }, (_, k) => {
    const root = rootOf(corners[3 * k]);
    if (!numbers.has(root)) numbers.set(root, numbers.size);
    return numbers.get(root)!;
  });
}

/** Twice the area of the triangle of three places, positive where they go clockwise on the screen. */
const areaOf = ([ax, ay]: number[], [bx, by]: number[], [cx, cy]: number[]): number =>
  (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);

/** Whether the middle of three corners lies on the line between the others. */
const isStraight = (a: number[], b: number[], c: number[]): boolean =>
  Math.abs(areaOf(a, b, c)) < 1e-9 && (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]) >= 0;

/** A loop of corners without those that lie on a straight line between their neighbours. */
function loopOf(places: readonly [number, number][]): Loop {
  const n = places.length;
  return places.filter((place, k) => !isStraight(places[(k + n - 1) % n], place, places[(k + 1) % n])).flat();
}

/**
 * The closed lines around triangles, six numbers each, that share edges: an edge that two of them have is inside. Outer lines go
 * clockwise on the screen, those around holes the other way, whichever way the triangles go; one without area is left out.
 */
export function boundaryLoops(triangles: ArrayLike<number>): Loop[] {
  const { corners, places } = welded(triangles);
  const edges = new Map<number, Map<number, number>>();
  const add = (from: number, to: number) => {
    const back = edges.get(to)?.get(from) ?? 0;
    if (back > 0) edges.get(to)!.set(from, back - 1);
    else {
      const out = edges.get(from) ?? new Map<number, number>();
      out.set(to, (out.get(to) ?? 0) + 1);
      edges.set(from, out);
    }
  };
  for (let k = 0; k < corners.length; k += 3) {
    const [a, b, c] = [corners[k], corners[k + 1], corners[k + 2]];
    const area = areaOf(places[a], places[b], places[c]);
    if (area === 0 || Number.isNaN(area)) continue;
    const turned = area > 0 ? [a, b, c] : [a, c, b];
    for (let e = 0; e < 3; e++) add(turned[e], turned[(e + 1) % 3]);
  }
  const take = (from: number): number | undefined => {
    for (const [to, count] of edges.get(from) ?? []) {
      if (count === 0) continue;
      edges.get(from)!.set(to, count - 1);
      return to;
    }
    return undefined;
  };
  const loops: Loop[] = [];
  for (const start of edges.keys()) {
    for (let next = take(start); next !== undefined; next = take(start)) {
      const found = [places[start]];
      while (next !== undefined && next !== start) {
        found.push(places[next]);
        next = take(next);
      }
      const loop = loopOf(found);
      if (loop.length >= 6) loops.push(loop);
    }
  }
  return loops;
}
