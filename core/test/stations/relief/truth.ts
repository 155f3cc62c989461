import { drawnShare } from '../../../src/lattice/draw.ts';
import { noisePlane } from '../../fields.ts';

/** A surface of known height that meets itself: what its picture shows is tone, not light. */
export interface Truth {
  /** Linear grey 0..1. */
  grey: Float32Array;
  /** mm. */
  heightMm: Float32Array;
  /** From the faces to the bottom of the joints, mm. */
  jointMm: number;
  /** 1 where a face is. */
  face: Float32Array;
  /** Whether its faces are flat in truth. */
  isFlat: boolean;
  areJointsLight: boolean;
  /** How many faces it has. */
  faces: number;
}

const smooth = (from: number, to: number, value: number): number => {
  const t = Math.min(1, Math.max(0, (value - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

/** Softened noise of a size, −1..1 or so, that meets itself. */
function grain(size: number, cells: number, seed: number): (x: number, y: number) => number {
  const plane = noisePlane(cells * cells, seed).map((value) => 2 * value - 1);
  const at = (i: number, j: number) =>
    plane[(((j % cells) + cells) % cells) * cells + (((i % cells) + cells) % cells)];
  return (x, y) => {
    const [u, v] = [(x / size) * cells, (y / size) * cells];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    const [s, t] = [smooth(0, 1, u - i), smooth(0, 1, v - j)];
    const top = at(i, j) + s * (at(i + 1, j) - at(i, j));
    const low = at(i, j + 1) + s * (at(i + 1, j + 1) - at(i, j + 1));
    return top + t * (low - top);
  };
}

interface Brickwork {
  across: number;
  down: number;
  /** Of the rows against each other, in bricks. */
  shift: number;
  /** As a share of the tile. */
  joint: number;
  face: number;
  mortar: number;
  /** How much the tone of faces differs, and stains them. */
  variety: number;
}

/** Rectangles in rows: brickwork, paving, boards. */
export function brickwork(
  size: number,
  { across, down, shift, joint, face, mortar, variety }: Brickwork,
): Truth {
  const [fine, broad, stain] = [grain(size, 128, 3), grain(size, 24, 4), grain(size, 6, 5)];
  const out: Truth = {
    grey: new Float32Array(size * size),
    heightMm: new Float32Array(size * size),
    face: new Float32Array(size * size),
    jointMm: 8,
    isFlat: true,
    areJointsLight: mortar > face,
    faces: across * down,
  };
  for (let y = 0, k = 0; y < size; y++) {
    for (let x = 0; x < size; x++, k++) {
      const row = Math.floor((y / size) * down);
      const u = (x / size) * across + shift * (row % 2);
      const column = Math.floor(u);
      const [dx, dy] = [u - column - 0.5, (y / size) * down - row - 0.5];
      const inside = Math.min((0.5 - Math.abs(dx)) / across, (0.5 - Math.abs(dy)) / down) - joint / 2;
      const rough = 0.25 * joint * (broad(x, y) + 0.5 * fine(x, y));
      const isFace = smooth(-0.0015, 0.0015, inside + rough);
      const cell = row * across + (column % across);
      const own =
        face * (1 + variety * (drawnShare(cell, 7) - 0.5) + 0.35 * variety * stain(x, y) + 0.08 * fine(x, y));
      const lime = mortar * (1 + 0.1 * broad(x, y) + 0.15 * fine(x, y));
      out.grey[k] = Math.max(0.01, isFace * own + (1 - isFace) * lime);
      out.heightMm[k] = 8 * smooth(-0.003, 0.006, inside + rough);
      out.face[k] = isFace;
    }
  }
  return out;
}

/** Round stones set close: the higher ones towards their middles, sand between them. */
export function cobbles(size: number, count: number, stone: number, sand: number): Truth {
  const [fine, broad] = [grain(size, 128, 13), grain(size, 16, 14)];
  const points = Array.from({ length: count * count }, (_, k) => {
    const [i, j] = [k % count, Math.floor(k / count)];
    return [
      (i + 0.5 + 0.5 * (j % 2) + 0.35 * (drawnShare(k, 1) - 0.5)) / count,
      (j + 0.5 + 0.35 * (drawnShare(k, 2) - 0.5)) / count,
    ];
  });
  const out: Truth = {
    grey: new Float32Array(size * size),
    heightMm: new Float32Array(size * size),
    face: new Float32Array(size * size),
    jointMm: 12,
    isFlat: false,
    areJointsLight: sand > stone,
    faces: count * count,
  };
  const near = (d: number) => d - Math.round(d);
  for (let y = 0, k = 0; y < size; y++) {
    for (let x = 0; x < size; x++, k++) {
      let [first, second, which] = [9, 9, 0];
      for (const [n, [px, py]] of points.entries()) {
        const d = Math.hypot(near(x / size - px), near(y / size - py));
        if (d < first) [second, first, which] = [first, d, n];
        else if (d < second) second = d;
      }
      const inside = (second - first) / 2 - 0.006 + 0.002 * broad(x, y);
      const isStone = smooth(-0.002, 0.002, inside);
      const t = Math.min(1, Math.max(0, inside) / 0.05);
      out.heightMm[k] = 12 * Math.sqrt(t * (2 - t)) + 0.3 * fine(x, y);
      const own = stone * (1 + 0.5 * (drawnShare(which, 9) - 0.5) + 0.12 * fine(x, y) + 0.1 * broad(x, y));
      out.grey[k] = Math.max(0.01, isStone * own + (1 - isStone) * sand * (1 + 0.2 * fine(x, y)));
      out.face[k] = isStone;
    }
  }
  return out;
}

/** Surfaces with joints by name. */
export const JOINTED: Record<string, (size: number) => Truth> = {
  'brickwork, dark joints': (size) =>
    brickwork(size, {
      across: 4,
      down: 10,
      shift: 0.5,
      joint: 0.014,
      face: 0.25,
      mortar: 0.07,
      variety: 0.4,
    }),
  'brickwork, light joints': (size) =>
    brickwork(size, {
      across: 4,
      down: 10,
      shift: 0.5,
      joint: 0.014,
      face: 0.16,
      mortar: 0.42,
      variety: 0.4,
    }),
  pamments: (size) =>
    brickwork(size, { across: 4, down: 4, shift: 0, joint: 0.012, face: 0.2, mortar: 0.4, variety: 0.6 }),
  boards: (size) =>
    brickwork(size, {
      across: 1,
      down: 7,
      shift: 0.37,
      joint: 0.008,
      face: 0.3,
      mortar: 0.05,
      variety: 0.35,
    }),
  cobbles: (size) => cobbles(size, 8, 0.25, 0.06),
};
