import { drawnShare } from '../lattice/draw.ts';
import { type Counts, type Field, inRectangle, type Layout, modulo } from './cell.ts';

/** The nearest even count: what goes by turns meets itself only so. */
export const even = (count: number): number => Math.max(2, 2 * Math.round(count / 2));

/** Stripes across the field, with joints between them alone. */
export function stripes(field: Field, { down }: Counts): Layout {
  const height = field.heightMm / down;
  return (_x, y, out) => {
    const top = modulo(y, field.heightMm);
    const row = Math.min(down - 1, Math.floor(top / height));
    out.cell = row;
    out.edge = height / 2 - Math.abs(top - (row + 0.5) * height);
  };
}

/** Rows of rectangles, each row shifted against the one above: stack, running and other bonds, planks and grids. */
export function rows(field: Field, counts: Counts): Layout {
  const { across, down, shift, jitter, seed } = counts;
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  // So that the last row meets the first, the shift of all rows comes to whole cells.
  const step = Math.round(shift * down) / down;
  const shifts = Array.from({ length: down }, (_, row) => {
    const strayed = jitter * (drawnShare(row, seed) - 0.5);
    return width * (row * step + strayed);
  });
  return (x, y, out) => {
    const row = Math.min(down - 1, Math.floor(modulo(y, field.heightMm) / height));
    const along = modulo(x - shifts[row], field.widthMm);
    const column = Math.min(across - 1, Math.floor(along / width));
    out.cell = row * across + column;
    out.edge = inRectangle(
      along - (column + 0.5) * width,
      modulo(y, field.heightMm) - (row + 0.5) * height,
      width / 2,
      height / 2,
      counts,
    );
  };
}

/** Stretchers and headers in every row by turns: cells twice as long and as long as high (Flemish order). */
export function headers(field: Field, counts: Counts): Layout {
  const { across } = counts;
  const down = even(counts.down);
  const pair = field.widthMm / across;
  const height = field.heightMm / down;
  const long = (2 / 3) * pair;
  return (x, y, out) => {
    const top = modulo(y, field.heightMm);
    const row = Math.min(down - 1, Math.floor(top / height));
    const along = modulo(x + (row % 2) * (pair / 2), field.widthMm);
    const at = Math.min(across - 1, Math.floor(along / pair));
    const within = along - at * pair;
    const isLong = within < long;
    const half = isLong ? long / 2 : (pair - long) / 2;
    const middle = isLong ? long / 2 : long + half;
    out.cell = 2 * (row * across + at) + (isLong ? 0 : 1);
    out.edge = inRectangle(within - middle, top - (row + 0.5) * height, half, height / 2, counts);
  };
}

/** Groups of `each` bricks side by side, every second group upright: a basket. Counts are groups. */
export function basket(field: Field, counts: Counts): Layout {
  const [across, down] = [even(counts.across), even(counts.down)];
  const EACH = 2;
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  return (x, y, out) => {
    const left = modulo(x, field.widthMm);
    const top = modulo(y, field.heightMm);
    const column = Math.min(across - 1, Math.floor(left / width));
    const row = Math.min(down - 1, Math.floor(top / height));
    const isUpright = (column + row) % 2 === 1;
    const dx = left - column * width;
    const dy = top - row * height;
    const at = Math.min(EACH - 1, Math.floor(isUpright ? (EACH * dx) / width : (EACH * dy) / height));
    out.cell = EACH * (row * across + column) + at;
    const [halfWidth, halfHeight] = isUpright
      ? [width / EACH / 2, height / 2]
      : [width / 2, height / EACH / 2];
    const [mx, my] = isUpright
      ? [(2 * at + 1) * halfWidth, halfHeight]
      : [halfWidth, (2 * at + 1) * halfHeight];
    out.edge = inRectangle(dx - mx, dy - my, halfWidth, halfHeight, counts);
  };
}

/**
 * Herringbone: bricks two cells long, by turns along and upright, each against the side of the next. Counts are cells of half a
 * brick; the pattern repeats every four of them, so that counts are brought to multiples of four.
 */
export function herringbone(field: Field, counts: Counts): Layout {
  const across = Math.max(4, 4 * Math.round(counts.across / 4));
  const down = Math.max(4, 4 * Math.round(counts.down / 4));
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  return (x, y, out) => {
    const left = modulo(x, field.widthMm);
    const top = modulo(y, field.heightMm);
    const i = Math.min(across - 1, Math.floor(left / width));
    const j = Math.min(down - 1, Math.floor(top / height));
    // Along a diagonal: 0 and 1 are the halves of a lying brick, 2 and 3 those of an upright one.
    const k = modulo(i - j, 4);
    const isUpright = k >= 2;
    // The first half of its brick, from the left or from the top.
    const [ci, cj] = isUpright ? [i, k === 2 ? j - 1 : j] : [k === 0 ? i : i - 1, j];
    out.cell = modulo(cj, down) * across + modulo(ci, across);
    const dx = left - (ci + (isUpright ? 0.5 : 1)) * width;
    const dy = top - (cj + (isUpright ? 1 : 0.5)) * height;
    const [halfWidth, halfHeight] = isUpright ? [width / 2, height] : [width, height / 2];
    out.edge = inRectangle(dx, dy, halfWidth, halfHeight, counts);
  };
}
