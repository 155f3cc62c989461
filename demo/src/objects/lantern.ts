import { box, flat, objectOf, type Piece } from './unwrapped.ts';

/** Half of the width of the lantern's body, its height, and how thick its iron is, in metres. */
const HALF = 0.075;
const TALL = 0.2;
const IRON = 0.014;

/** Four sides turned about the upright axis. */
const about = (piece: Piece): Piece[] =>
  [0, 1, 2, 3].map((quarter) => {
    const [c, s] = [Math.cos((quarter * Math.PI) / 2), Math.sin((quarter * Math.PI) / 2)];
    return {
      ...piece,
      at: (u, v) => {
        const [x, y, z] = piece.at(u, v);
        return [c * x + s * z, y, c * z - s * x];
      },
    };
  });

/** A ring of round iron, upright. */
function ring(part: string, y: number, radius: number, thick: number): Piece {
  return {
    part,
    across: 32,
    down: 10,
    at: (s, t) => {
      const [a, b] = [2 * Math.PI * s, -2 * Math.PI * t];
      const out = radius + thick * Math.cos(b);
      return [out * Math.cos(a), y + out * Math.sin(a), thick * Math.sin(b)];
    },
    width: 2 * Math.PI * radius,
    height: 2 * Math.PI * thick,
  };
}

const EAVES = HALF + 0.022;
const PEAK = 0.075;

/** A side of the roof, as a strip that narrows to the peak. */
const slope: Piece = {
  part: 'Roof',
  across: 6,
  down: 6,
  at: (s, t) => {
    const wide = EAVES * (0.18 + 0.82 * t);
    return [(2 * s - 1) * wide, TALL + IRON + PEAK * (1 - t), wide];
  },
  width: 2 * EAVES,
  height: Math.hypot(PEAK, 0.82 * EAVES),
};

const corner = HALF - IRON / 2;
const FRAME: Piece[] = [
  ...box('Frame', [0, 0, 0], [2 * HALF + 0.02, IRON, 2 * HALF + 0.02]),
  ...box('Frame', [0, TALL + IRON / 2, 0], [2 * HALF, IRON, 2 * HALF]),
  ...[-1, 1].flatMap((x) =>
    [-1, 1].flatMap((z) => box('Frame', [x * corner, TALL / 2, z * corner], [IRON, TALL, IRON])),
  ),
];
const PANES = about(
  flat('Glass', [-HALF + IRON, TALL, HALF - IRON / 2], [2 * (HALF - IRON), 0, 0], [0, -TALL, 0]),
);
const ROOF: Piece[] = [
  ...about(slope),
  flat('Roof', [-EAVES, TALL + IRON, -EAVES], [0, 0, 2 * EAVES], [2 * EAVES, 0, 0]),
  ...box('Roof', [0, TALL + IRON + PEAK + 0.004, 0], [0.03, 0.02, 0.03]),
  ring('Roof', TALL + IRON + PEAK + 0.035, 0.024, 0.005),
];

/** A garden lantern of three named parts, Frame, Glass and Roof, as an OBJ file in metres; and how long its tile's edge is. */
export const LANTERN = objectOf([...FRAME, ...PANES, ...ROOF]);
