type Vector = [number, number, number];

/** A piece of an object's surface: a grid over 0..1, seen from the side where s × t points, and how long its sides are. */
export interface Piece {
  part: string;
  across: number;
  down: number;
  at(s: number, t: number): Vector;
  width: number;
  height: number;
}

/** A flat piece from a corner, by its two sides. */
export function flat(part: string, corner: Vector, side: Vector, down: Vector): Piece {
  return {
    part,
    across: 1,
    down: 1,
    at: (s, t) => corner.map((value, k) => value + s * side[k] + t * down[k]) as Vector,
    width: Math.hypot(...side),
    height: Math.hypot(...down),
  };
}

/** The six sides of a box about its middle. */
export function box(part: string, [x, y, z]: Vector, [w, h, d]: Vector): Piece[] {
  const [l, r, b, t, n, f] = [x - w / 2, x + w / 2, y - h / 2, y + h / 2, z - d / 2, z + d / 2];
  return [
    flat(part, [l, t, f], [w, 0, 0], [0, -h, 0]),
    flat(part, [r, t, n], [-w, 0, 0], [0, -h, 0]),
    flat(part, [r, t, f], [0, 0, -d], [0, -h, 0]),
    flat(part, [l, t, n], [0, 0, d], [0, -h, 0]),
    flat(part, [l, t, n], [w, 0, 0], [0, 0, d]),
    flat(part, [l, b, f], [w, 0, 0], [0, 0, -d]),
  ];
}

/** Empty room about each piece in the tile, so that no colour of one is seen on another. */
const GAP = 0.006;
/** And about all of them, so that the tile meets itself. */
const BORDER = 0.02;

interface Placed {
  piece: Piece;
  x: number;
  y: number;
}

/** Pieces in rows in a square of side 1 at a scale; null where they do not fit. */
function inRows(pieces: readonly Piece[], scale: number): Placed[] | null {
  const found: Placed[] = [];
  let [x, y, row] = [BORDER, BORDER, 0];
  for (const piece of pieces) {
    const [w, h] = [scale * piece.width, scale * piece.height];
    if (x + w + BORDER > 1) [x, y, row] = [BORDER, y + row + GAP, 0];
    if (x + w + BORDER > 1 || y + h + BORDER > 1) return null;
    found.push({ piece, x, y });
    x += w + GAP;
    row = Math.max(row, h);
  }
  return found;
}

/** An object that is unwrapped at one scale. */
export interface Unwrapped {
  /** As an OBJ file, each of its parts by name. */
  obj: string;
  /** How long the tile's edge is on it. */
  edgeMetres: number;
  /** Closed lines around the pieces of a part, in shares of the tile. */
  linesOf(part: string): number[][];
}

/** Unwraps pieces into one tile, as large as they fit. */
export function objectOf(pieces: readonly Piece[]): Unwrapped {
  const tallest = [...pieces].sort((a, b) => b.height - a.height);
  let scale = 100;
  let found = inRows(tallest, scale);
  while (!found) {
    scale *= 0.995;
    found = inRows(tallest, scale);
  }
  const placed = found;
  const lines: string[] = [];
  let corners = 0;
  for (const part of new Set(pieces.map((piece) => piece.part))) {
    lines.push(`o ${part}`);
    for (const { piece, x, y } of placed.filter((one) => one.piece.part === part)) {
      const { across, down } = piece;
      for (let j = 0; j <= down; j++) {
        for (let i = 0; i <= across; i++) {
          const [s, t] = [i / across, j / down];
          lines.push(
            `v ${piece
              .at(s, t)
              .map((value) => value.toFixed(5))
              .join(' ')}`,
          );
          // Texture coordinates of an OBJ run upwards.
          const [u, v] = [x + s * scale * piece.width, 1 - y - t * scale * piece.height];
          lines.push(`vt ${u.toFixed(6)} ${v.toFixed(6)}`);
        }
      }
      for (let j = 0; j < down; j++) {
        for (let i = 0; i < across; i++) {
          const a = corners + j * (across + 1) + i + 1;
          const [b, c, d] = [a + 1, a + across + 2, a + across + 1];
          lines.push(`f ${[a, d, c, b].map((k) => `${k}/${k}`).join(' ')}`);
        }
      }
      corners += (across + 1) * (down + 1);
    }
  }
  return {
    obj: `${lines.join('\n')}\n`,
    edgeMetres: Number((1 / scale).toFixed(3)),
    linesOf: (part) =>
      placed
        .filter(({ piece }) => piece.part === part)
        .map(({ piece, x, y }) => {
          const [r, b] = [x + scale * piece.width, y + scale * piece.height];
          return [x, y, r, y, r, b, x, b].map((value) => Number(value.toFixed(5)));
        }),
  };
}
