import { drawnShare } from '../lattice/draw.ts';
import type { Sides } from '../raster/sides.ts';
import { radiusShare } from '../strokes/pressure.ts';
import type { PaintStroke, Prints } from './stroke.ts';

/** One print of a brush, in pixels of the tile. */
export interface Print {
  x: number;
  y: number;
  radius: number;
  /** Clockwise. */
  degrees: number;
  /** By how much its lightness strays, −1..1. */
  tint: number;
}

/** What is drawn for each print, by which draw of it. */
const DRAWS = { size: 1, degrees: 2, strayX: 3, strayY: 4, tint: 5 };
/** Most prints of one stroke. */
const MOST_PRINTS = 20_000;

/**
 * Where the prints of a stroke lie: evenly along its way, one spacing apart whatever its points are, the first at its beginning.
 * All that is random is drawn by the seed and the number of the print, so that it is the same at any size.
 *
 * @param along How far along its whole way this part of a stroke begins, in pixels.
 */
export function printsOf(stroke: PaintStroke, prints: Prints, { width, height }: Sides, along = 0): Print[] {
  const longer = Math.max(width, height);
  const widthOfBrush = 2 * stroke.radius * longer;
  const step = Math.max(prints.spacing * widthOfBrush, 1e-6 * longer);
  const found: Print[] = [];
  const before = Math.ceil(along / step - 1e-6);
  const drawn = (what: keyof typeof DRAWS) =>
    drawnShare(before + found.length, prints.seed + 101 * DRAWS[what]);
  const at = stroke.points.map(([u, v, pressure = 1, lean = 0]) => ({
    x: u * width,
    y: v * height,
    pressure,
    lean,
  }));
  const directionOf = (k: number): number => {
    const [a, b] = k > 0 ? [at[k - 1], at[k]] : [at[0], at[1] ?? at[0]];
    // Along a stroke that goes up a stamp stands as it was made.
    return a === b ? 0 : (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI + 90;
  };
  const put = (x: number, y: number, pressure: number, k: number) => {
    const radius = stroke.radius * longer * radiusShare(pressure);
    const turned = {
      fixed: 0,
      along: directionOf(k),
      random: 360 * drawn('degrees'),
      pen: at[k].lean,
    }[prints.turning];
    found.push({
      x: x + prints.stray * radius * (2 * drawn('strayX') - 1),
      y: y + prints.stray * radius * (2 * drawn('strayY') - 1),
      radius: radius * (1 - prints.size * drawn('size')),
      degrees: prints.degrees + turned,
      tint: prints.tint * (2 * drawn('tint') - 1),
    });
  };
  let left = before * step - along;
  if (left <= 1e-6 * step) {
    put(at[0].x, at[0].y, at[0].pressure, 0);
    left += step;
  }
  for (let k = 1; k < at.length; k++) {
    const [a, b] = [at[k - 1], at[k]];
    const way = Math.hypot(b.x - a.x, b.y - a.y);
    let gone = left;
    for (; gone <= way && found.length < MOST_PRINTS; gone += step) {
      const t = gone / way;
      put(a.x + t * (b.x - a.x), a.y + t * (b.y - a.y), a.pressure + t * (b.pressure - a.pressure), k);
    }
    left = gone - way;
  }
  return found;
}
