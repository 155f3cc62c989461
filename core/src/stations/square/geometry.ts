import type { Affine } from '../../raster/affine.ts';
import type { Sides } from '../../raster/sides.ts';
import type { Place } from '../../sampling/sample.ts';
import { aspectOf, type Shape, sidesOf } from '../../tile/shape.ts';
import { homography } from './homography.ts';
import { type BendMesh, meshMove, meshRow, splineWeights } from './mesh.ts';
import type { Corners, Point } from './points.ts';

/** Margins are kept on this grid (fractions of the tile's longer edge), so that they are whole pixels at every size. */
export const GRID = 256;

/** The grid on each axis, in steps over the tile. */
export const gridOf = (shape: Shape): { x: number; y: number } => {
  const { width, height } = sidesOf(shape, GRID);
  return { x: width, y: height };
};

/** Widest overlap Join may ask for, as a share of the tile; the margin kept on an axis is no wider. */
export const WIDEST_OVERLAP = 0.25;

/** The crop in fractions: centre by the photo's width and height, edge by its shorter side. */
export interface Crop {
  centreX: number;
  centreY: number;
  share: number;
  turnDegrees: number;
  shape?: Shape;
  /** Four corners in place of the square, for a photo taken at a slant. */
  corners?: Corners | null;
  /** A smooth bend of it, for rows that bow. */
  bend?: BendMesh | null;
}

/** Margins beyond the crop as fractions of its edge. */
export interface MarginShares {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

interface Mapper {
  /** Width and height of the crop in photo pixels. */
  across: number;
  down: number;
  /** Whether it keeps straight lines straight. */
  isStraight: boolean;
  /** From crop coordinates (0..1 inside) to photo pixels, 0 at the photo's left or top border. */
  at(u: number, v: number): [number, number];
}

/** Area of a four-cornered figure (the shoelace formula); negative where it runs the other way round. */
function areaOf(corners: Corners): number {
  return corners.reduce((sum, [x, y], k) => {
    const [nextX, nextY] = corners[(k + 1) % 4];
    return sum + (x * nextY - nextX * y) / 2;
  }, 0);
}

/** Whether four corners make a proper frame: clockwise from the upper left, bent the same way at each. */
export function isFrame(corners: Corners): boolean {
  return corners.every(([x, y], k) => {
    const [ax, ay] = corners[(k + 3) % 4];
    const [bx, by] = corners[(k + 1) % 4];
    return (x - ax) * (by - y) - (y - ay) * (bx - x) > 1e-4;
  });
}

/** Rotation of the crop in a photo of this shape, degrees clockwise; of four corners that of the upper and lower edge. */
export function cropTurn(width: number, height: number, crop: Crop): number {
  if (!crop.corners) return crop.turnDegrees;
  const [a, b, c, d] = crop.corners;
  const across = (b[0] - a[0] + c[0] - d[0]) * width;
  const down = (b[1] - a[1] + c[1] - d[1]) * height;
  return (Math.atan2(down, across) * 180) / Math.PI;
}

/** How crop coordinates lie in a photo of `width` × `height`. A positive turn rotates the crop clockwise. */
export function cropMapper(width: number, height: number, crop: Crop): Mapper {
  const { bend } = crop;
  const plain = unbentMapper(width, height, crop);
  if (!bend) return plain;
  return {
    ...plain,
    isStraight: false,
    at(u, v) {
      const [dx, dy] = meshMove(bend, u, v);
      return plain.at(u + dx, v + dy);
    },
  };
}

function unbentMapper(width: number, height: number, crop: Crop): Mapper {
  const aspect = aspectOf(crop.shape ?? '1:1');
  if (crop.corners) {
    const pixels = crop.corners.map(([x, y]): Point => [x * width, y * height]) as Corners;
    const at = homography(pixels);
    const across = Math.sqrt(areaOf(pixels) * aspect);
    return { across, down: across / aspect, isStraight: true, at };
  }
  const across = crop.share * Math.min(width, height * aspect);
  const down = across / aspect;
  const angle = (crop.turnDegrees * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const cx = crop.centreX * width;
  const cy = crop.centreY * height;
  return {
    across,
    down,
    isStraight: true,
    at: (u, v) => {
      const [x, y] = [(u - 0.5) * across, (v - 0.5) * down];
      return [cx + x * c - y * s, cy + x * s + y * c];
    },
  };
}

const SLACK = 0.51;
/** Places looked at along each side of a bent crop, which can leave the photo between its corners. */
const SIDE = 12;

function inside(width: number, height: number, mapper: Mapper, m: MarginShares): boolean {
  for (let k = 0; k < (mapper.isStraight ? 1 : SIDE); k++) {
    const t = k / SIDE;
    const across = -m.left + t * (1 + m.left + m.right);
    const down = -m.top + t * (1 + m.top + m.bottom);
    const sides: [number, number][] = [
      [across, -m.top],
      [1 + m.right - (across + m.left), 1 + m.bottom],
      [-m.left, 1 + m.bottom - (down + m.top)],
      [1 + m.right, down],
    ];
    for (const [u, v] of sides) {
      const [x, y] = mapper.at(u, v);
      const isIn = x >= -SLACK && y >= -SLACK && x <= width + SLACK && y <= height + SLACK;
      if (!isIn) return false;
    }
  }
  return true;
}

const NONE: MarginShares = { left: 0, right: 0, top: 0, bottom: 0 };

/** How much of the photo around the crop can be kept for Join: up to the widest overlap on each axis. */
export function marginsIn(width: number, height: number, crop: Crop): MarginShares {
  const mapper = cropMapper(width, height, crop);
  if (!inside(width, height, mapper, NONE)) return NONE;
  const grid = gridOf(crop.shape ?? '1:1');
  const reach = (side: keyof MarginShares) => {
    const n = side === 'left' || side === 'right' ? grid.x : grid.y;
    let steps = 0;
    const most = WIDEST_OVERLAP * n;
    while (steps < most && inside(width, height, mapper, { ...NONE, [side]: (steps + 1) / n })) steps++;
    return steps / n;
  };
  const share = (a: number, b: number): [number, number] => {
    const half = WIDEST_OVERLAP / 2;
    let first = Math.min(a, half);
    const second = Math.min(b, WIDEST_OVERLAP - first);
    first = Math.min(a, WIDEST_OVERLAP - second);
    return [first, second];
  };
  const [left, right] = share(reach('left'), reach('right'));
  const [top, bottom] = share(reach('top'), reach('bottom'));
  const whole = (factor: number): MarginShares => ({
    left: Math.floor(left * factor * grid.x + 1e-6) / grid.x,
    right: Math.floor(right * factor * grid.x + 1e-6) / grid.x,
    top: Math.floor(top * factor * grid.y + 1e-6) / grid.y,
    bottom: Math.floor(bottom * factor * grid.y + 1e-6) / grid.y,
  });
  // When turned, the corners of a frame can leave the photo although each side alone fits.
  for (let factor = 1; factor > 0; factor -= 1 / 32) {
    const m = whole(factor);
    if (inside(width, height, mapper, m)) return m;
  }
  return NONE;
}

/** The sampling grid for the crop with margins at this many pixels, in samples of a picture. */
export function samplingGrid(
  pictureWidth: number,
  pictureHeight: number,
  crop: Crop,
  size: Sides,
  margins: MarginShares,
): { grid: Affine; stretch: number } {
  const mapper = cropMapper(pictureWidth, pictureHeight, crop);
  const at = (x: number, y: number) => {
    const [px, py] = mapper.at((x + 0.5) / size.width - margins.left, (y + 0.5) / size.height - margins.top);
    return [px - 0.5, py - 0.5];
  };
  const [originX, originY] = at(0, 0);
  const stretch = mapper.across / size.width;
  const angle = (crop.turnDegrees * Math.PI) / 180;
  const along = Math.cos(angle) * stretch;
  const aside = crop.turnDegrees === 0 ? 0 : Math.sin(angle) * stretch;
  return {
    grid: { originX, originY, rightX: along, rightY: aside, downX: -aside, downY: along },
    stretch,
  };
}

/** Where each pixel of the crop with margins lies in a picture, for a crop of four corners or a bent one. */
export function framePlace(
  pictureWidth: number,
  pictureHeight: number,
  crop: Crop,
  size: Sides,
  margins: MarginShares,
): Place {
  const { at } = unbentMapper(pictureWidth, pictureHeight, crop);
  const { bend } = crop;
  const across = (x: number) => (x + 0.5) / size.width - margins.left;
  let weights: number[][] = [];
  return (y, xs, ys) => {
    const v = (y + 0.5) / size.height - margins.top;
    const move = bend ? meshRow(bend, v) : null;
    if (bend && weights.length !== xs.length) {
      weights = Array.from(xs, (_, x) => splineWeights(bend.across, across(x)));
    }
    for (let x = 0; x < xs.length; x++) {
      const [dx, dy] = move ? move(weights[x]) : STILL;
      const [px, py] = at(across(x) + dx, v + dy);
      xs[x] = px - 0.5;
      ys[x] = py - 0.5;
    }
  };
}

const STILL: Point = [0, 0];

/** Share of the crop (not of its margins) that lies outside the photo, from a 64 × 64 grid. */
export function shareOutside(width: number, height: number, crop: Crop): number {
  const mapper = cropMapper(width, height, crop);
  let out = 0;
  const n = 64;
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) {
      const [x, y] = mapper.at((i + 0.5) / n, (j + 0.5) / n);
      if (x < 0 || y < 0 || x > width || y > height) out++;
    }
  }
  return out / (n * n);
}
