import { gaussian } from '../../../filters/gaussian.ts';
import { type Edges, edgeIndex, MIRROR } from '../../../raster/edges.ts';
import type { Raster } from '../../../raster/raster.ts';
import { coverOf } from '../../../strokes/cover.ts';
import { membrane } from './membrane.ts';
import type { Calm } from './repair.ts';
import type { Patch, RepairedKind } from './repaired.ts';

/** The box reaches so many radii beyond the spot, so that a blur within it knows what lies around. */
const AROUND = 1.6;
/** What is broader than this share of the radius is calmed, what is finer stays. */
const BROAD = 0.3;
const LOG_FLOOR = 0.01;

/**
 * What toning down puts on a tile: within the spot, the broad part of each plane (in logarithms for colour) is drawn
 * towards a membrane stretched from its rim, by `strength`; detail stays. So it is the spot's own offset that goes, not its
 * grain (gradient-domain, after Pérez et al. 2003). Null where the spot lies wholly outside.
 */
export function calmed(tile: Raster, repair: Calm, kind: RepairedKind, edges: Edges): Patch | null {
  const { width, height } = tile;
  const radius = repair.radius * Math.max(width, height);
  const reach = AROUND * radius;
  const [cx, cy] = [repair.x * width, repair.y * height];
  const span = (centre: number, n: number, wraps: boolean) => {
    const first = Math.floor(centre - reach);
    const last = Math.ceil(centre + reach);
    if (wraps) return last - first >= n ? { start: 0, length: n } : { start: first, length: last - first };
    const start = Math.min(n, Math.max(0, first));
    return { start, length: Math.max(0, Math.min(n, last) - start) };
  };
  const across = span(cx, width, edges.x === 'wrap');
  const down = span(cy, height, edges.y === 'wrap');
  const box = { x: across.start, y: down.start, width: across.length, height: down.length };
  if (box.width < 2 || box.height < 2) return null;
  const spot = coverOf(
    { points: [[repair.x, repair.y]], radius: repair.radius, softness: 0.7 },
    width,
    height,
    edges,
  );
  const cover = new Float32Array(box.width * box.height);
  const inBox = (i: number, start: number, length: number, n: number) => {
    const at = (((i - start) % n) + n) % n;
    return at < length ? at : -1;
  };
  for (let y = 0, k = 0; y < spot.height; y++) {
    const row = inBox(spot.y + y, box.y, box.height, height);
    for (let x = 0; x < spot.width; x++, k++) {
      const column = inBox(spot.x + x, box.x, box.width, width);
      if (row >= 0 && column >= 0) cover[row * box.width + column] = spot.values[k];
    }
  }
  const inside = Uint8Array.from(cover, (value) => Number(value > 0));
  const columns = Int32Array.from({ length: box.width }, (_v, x) => edgeIndex(box.x + x, width, edges.x));
  // A box that goes all the way round meets itself.
  const own: Edges = {
    x: box.width === width ? edges.x : MIRROR.x,
    y: box.height === height ? edges.y : MIRROR.y,
  };
  const isColour = kind === 'colour';
  const planes = tile.planes.map((plane) => {
    const values = new Float32Array(cover.length);
    for (let y = 0, i = 0; y < box.height; y++) {
      const row = edgeIndex(box.y + y, height, edges.y) * width;
      for (let x = 0; x < box.width; x++, i++) values[i] = plane[row + columns[x]];
    }
    const seen = isColour ? values.map((v) => Math.log(Math.max(0, v) + LOG_FLOOR)) : values;
    const broad = gaussian(seen, box.width, box.height, Math.max(0.6, BROAD * radius), own);
    const even = membrane(broad, inside, box.width, box.height, own);
    return values.map((value, i) => {
      if (cover[i] === 0) return value;
      const changed = seen[i] - repair.strength * cover[i] * (broad[i] - even[i]);
      return isColour ? Math.max(0, Math.exp(changed) - LOG_FLOOR) : Math.min(1, Math.max(0, changed));
    });
  });
  return { ...box, planes };
}
