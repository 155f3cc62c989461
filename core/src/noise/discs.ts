import { drawnShare } from '../lattice/draw.ts';

/** A field in which points are drawn: its sides, and which of its axes meet themselves. */
export interface DiscField {
  width: number;
  height: number;
  wraps: { x: boolean; y: boolean };
}

/** Attempts around a point before it is given up (Bridson 2007). */
const ATTEMPTS = 30;
/** The most points that are drawn: closer ones are not asked for. */
const MOST = 20000;

/** The least distance between points that a field is not overfilled by. */
export const leastSpacing = ({ width, height }: DiscField): number =>
  Math.sqrt((0.7 * width * height) / MOST);

/**
 * Points no two of which are nearer than `spacing`, as dense as they come by random attempts: Poisson discs (Bridson 2007), the
 * distance taken around axes that wrap. The same seed gives the same points. Points are in the field's unit.
 */
export function discs(field: DiscField, spacing: number, seed: number): [x: number, y: number][] {
  const { width, height, wraps } = field;
  const least = Math.max(spacing, leastSpacing(field));
  // Cells so small that each holds one point at most.
  const across = Math.ceil((width * Math.SQRT2) / least);
  const down = Math.ceil((height * Math.SQRT2) / least);
  const isFine = across > 4 && down > 4;
  const cells = new Int32Array(across * down).fill(-1);
  const points: [number, number][] = [];
  let draws = 0;
  const draw = () => drawnShare(draws++, seed);
  const apart = (a: number, b: number, side: number, isWrapped: boolean) => {
    const by = Math.abs(a - b);
    return isWrapped ? Math.min(by, side - by) : by;
  };
  const isFree = (x: number, y: number, [px, py]: [number, number]) =>
    Math.hypot(apart(x, px, width, wraps.x), apart(y, py, height, wraps.y)) >= least;
  const cellAt = (value: number, side: number, count: number) =>
    Math.min(count - 1, Math.floor((value / side) * count));
  const fits = (x: number, y: number): boolean => {
    // A few cells are all neighbours of each other.
    if (!isFine) return points.every((point) => isFree(x, y, point));
    const [cx, cy] = [cellAt(x, width, across), cellAt(y, height, down)];
    for (let j = cy - 3; j <= cy + 3; j++) {
      for (let k = cx - 3; k <= cx + 3; k++) {
        const row = wraps.y ? (j + down) % down : j;
        const column = wraps.x ? (k + across) % across : k;
        if (row < 0 || row >= down || column < 0 || column >= across) continue;
        const at = cells[row * across + column];
        if (at >= 0 && !isFree(x, y, points[at])) return false;
      }
    }
    return true;
  };
  const put = (x: number, y: number) => {
    if (isFine) cells[cellAt(y, height, down) * across + cellAt(x, width, across)] = points.length;
    points.push([x, y]);
    return points.length - 1;
  };
  const active = [put(draw() * width, draw() * height)];
  while (active.length > 0 && points.length < MOST) {
    const k = Math.floor(draw() * active.length);
    const [x, y] = points[active[k]];
    let found = false;
    for (let attempt = 0; attempt < ATTEMPTS && !found; attempt++) {
      const turn = 2 * Math.PI * draw();
      const away = least * Math.sqrt(1 + 3 * draw());
      let [px, py] = [x + away * Math.cos(turn), y + away * Math.sin(turn)];
      if (wraps.x) px -= width * Math.floor(px / width);
      if (wraps.y) py -= height * Math.floor(py / height);
      if (px < 0 || py < 0 || px >= width || py >= height || !fits(px, py)) continue;
      active.push(put(px, py));
      found = true;
    }
    if (!found) active.splice(k, 1);
  }
  return points;
}
