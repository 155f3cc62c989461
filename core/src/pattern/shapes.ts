import { drawnShare } from '../lattice/draw.ts';
import { even } from './bonds.ts';
import { type Counts, type Field, type Layout, modulo } from './cell.ts';

/** Where a place lies among cells of rows and columns: the cell, and how far from its middle, mm. */
function grid(field: Field, { across, down }: Pick<Counts, 'across' | 'down'>) {
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  return {
    width,
    height,
    at(x: number, y: number) {
      const column = Math.min(across - 1, Math.floor(modulo(x, field.widthMm) / width));
      const row = Math.min(down - 1, Math.floor(modulo(y, field.heightMm) / height));
      return {
        column,
        row,
        cell: row * across + column,
        dx: modulo(x, field.widthMm) - (column + 0.5) * width,
        dy: modulo(y, field.heightMm) - (row + 0.5) * height,
      };
    },
  };
}

/** One shape in the middle of every cell; `inside` is the distance inwards from its border, mm. */
const oneEach =
  (inside: (dx: number, dy: number, radius: number) => number) =>
  (field: Field, counts: Counts): Layout => {
    const cells = grid(field, counts);
    const half = Math.min(cells.width, cells.height) / 2;
    const radius = Math.max(0, half - counts.jointMm / 2);
    return (x, y, out) => {
      const { cell, dx, dy } = cells.at(x, y);
      const stray = counts.jitter * (half - 0.5 * radius);
      out.cell = cell;
      out.edge =
        counts.jointMm / 2 +
        inside(
          dx - stray * (drawnShare(cell, counts.seed) - 0.5),
          dy - stray * (drawnShare(cell, counts.seed + 1) - 0.5),
          radius,
        );
    };
  };

/** Round dots, one in each cell. */
export const dots = oneEach((dx, dy, radius) => radius - Math.hypot(dx, dy));

const POINTS = 5;
const INNER = 0.45;

/** Stars of five points, one in each cell. */
export const stars = oneEach((dx, dy, radius) => {
  const wedge = Math.PI / POINTS;
  const away = Math.hypot(dx, dy);
  const turn = Math.abs(modulo(Math.atan2(dx, -dy) + wedge, 2 * wedge) - wedge);
  const [px, py] = [away * Math.cos(turn), away * Math.sin(turn)];
  // From the outer point to the inner one; what is on the middle's side of that line is inside.
  const [ix, iy] = [INNER * radius * Math.cos(wedge), INNER * radius * Math.sin(wedge)];
  const [ex, ey] = [ix - radius, iy];
  const length = Math.hypot(ex, ey) || 1;
  return (ex * py - ey * (px - radius)) / length;
});

const PETALS = 8;

/** Rosettes of eight petals, one in each cell. */
export const rosettes = oneEach((dx, dy, radius) => {
  const away = Math.hypot(dx, dy);
  const reach = radius * (0.62 + 0.38 * Math.abs(Math.cos((PETALS / 2) * Math.atan2(dy, dx))));
  return Math.min(reach - away, Math.max(0.18 * radius - away, away - 0.24 * radius));
});

/** Squares of two tones by turns: the edge is that of the squares, and cells of odd places count as joints. */
export function checks(field: Field, counts: Counts): Layout {
  const cells = grid(field, { across: even(counts.across), down: even(counts.down) });
  return (x, y, out) => {
    const { cell, column, row, dx, dy } = cells.at(x, y);
    const edge = Math.min(cells.width / 2 - Math.abs(dx), cells.height / 2 - Math.abs(dy));
    out.cell = cell;
    out.edge = (column + row) % 2 === 0 ? edge : -edge;
  };
}

/** Hexagons with points up, in rows shifted by half of one; rows are brought to an even count. */
export function hexagons(field: Field, counts: Counts): Layout {
  const { across } = counts;
  const down = even(counts.down);
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  // Middles of a row lie half a hexagon aside of those above.
  const inside = (dx: number, dy: number) => {
    const [ax, ay] = [Math.abs(dx), Math.abs(dy)];
    // The slanted side lies half-way between two middles, square to the line between them.
    const [nx, ny] = [width / 2, height];
    const length = Math.hypot(nx, ny);
    return Math.min(width / 2 - ax, length / 2 - (ax * nx + ay * ny) / length);
  };
  return (x, y, out) => {
    const top = modulo(y, field.heightMm);
    let best = Number.NEGATIVE_INFINITY;
    const near = Math.round(top / height - 0.5);
    for (let row = near - 1; row <= near + 1; row++) {
      const shift = modulo(row, 2) * 0.5;
      const along = x / width - shift;
      const column = Math.floor(along);
      const edge = inside((along - column - 0.5) * width, top - (row + 0.5) * height);
      if (edge > best) {
        best = edge;
        out.cell = modulo(row, down) * across + modulo(column, across);
      }
    }
    out.edge = best;
  };
}

/** Triangles, point up and point down by turns in rows; rows are brought to an even count. */
export function triangles(field: Field, counts: Counts): Layout {
  const { across } = counts;
  const down = even(counts.down);
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  const slant = Math.hypot(width / 2, height);
  return (x, y, out) => {
    const top = modulo(y, field.heightMm);
    const row = Math.min(down - 1, Math.floor(top / height));
    const low = 1 - (top / height - row);
    // Coordinates along both slants: whole numbers at the sides.
    const along = modulo(x / width + (row % 2) / 2, across);
    const a = along - low / 2;
    const b = along + low / 2;
    const [fa, fb] = [Math.floor(a), Math.floor(b)];
    const isDown = fa !== fb;
    const reachA = (a - fa) * ((width * height) / slant);
    const reachB = (b - fb) * ((width * height) / slant);
    const full = (width * height) / slant;
    out.cell = 2 * (row * across + modulo(fa, across)) + (isDown ? 1 : 0);
    out.edge = isDown
      ? Math.min(full - reachA, reachB, (1 - low) * height)
      : Math.min(reachA, full - reachB, low * height);
  };
}

/**
 * Scales: round ends that hang over the row below, rows shifted by half of one; rows are brought to an even count. Each end is
 * half an ellipse, as wide as its cell and a row high, so that they touch beside each other and the next row fills what is open.
 */
export function scales(field: Field, counts: Counts): Layout {
  const { across } = counts;
  const down = even(counts.down);
  const width = field.widthMm / across;
  const height = field.heightMm / down;
  const radius = width / 2;
  const squeeze = radius / height;
  return (x, y, out) => {
    const top = modulo(y, field.heightMm);
    const near = Math.floor(top / height);
    // The upper row lies on top of the lower one.
    for (let row = near; row <= near + 1; row++) {
      const along = x / width - modulo(row, 2) * 0.5;
      const column = Math.floor(along);
      const dx = (along - column - 0.5) * width;
      const edge = radius - Math.hypot(dx, squeeze * (top - row * height));
      if (edge > 0 || row > near) {
        out.cell = modulo(row, down) * across + modulo(column, across);
        out.edge = Math.max(0, edge) * Math.min(1, 1 / squeeze);
        return;
      }
    }
  };
}
