import { expect } from 'chai';
import { emptyCanvas } from '../../src/paint/canvas.ts';
import { patchesOf, type ShapePoint, type ShapeTriangle } from '../../src/paint/on-shape.ts';
import { painting } from '../../src/paint/painting.ts';
import type { PaintStroke } from '../../src/paint/stroke.ts';
import { TORUS } from '../../src/raster/edges.ts';
import { runToEnd } from '../../src/work/steps.ts';

type Vector = readonly [number, number, number];
type Corner = { p: Vector; uv: readonly [number, number] };

const triangle = (...corners: [Corner, Corner, Corner]): ShapeTriangle => ({
  corners: corners.map(({ p }) => p) as never,
  places: corners.map(({ uv }) => uv) as never,
});
const quad = (a: Corner, b: Corner, c: Corner, d: Corner): ShapeTriangle[] => [
  triangle(a, b, c),
  triangle(a, c, d),
];

/** A sheet of n × n squares that lies where `place` says and shows the tile where `uv` says. */
function sheet(
  n: number,
  place: (s: number, t: number) => Vector,
  uv: (s: number, t: number) => readonly [number, number],
): ShapeTriangle[] {
  const corner = (i: number, j: number): Corner => ({ p: place(i / n, j / n), uv: uv(i / n, j / n) });
  return Array.from({ length: n * n }, (_, k) => {
    const [i, j] = [k % n, Math.floor(k / n)];
    return quad(corner(i, j), corner(i + 1, j), corner(i + 1, j + 1), corner(i, j + 1));
  }).flat();
}

const line = (from: Vector, to: Vector, count = 20): ShapePoint[] =>
  Array.from({ length: count + 1 }, (_, k) => ({
    at: from.map((value, c) => value + ((to[c] - value) * k) / count) as unknown as Vector,
    pressure: 1,
  }));

const SIZE = 256;

function painted(stroke: PaintStroke, size = SIZE, height = size): Float32Array {
  const canvas = emptyCanvas(size * height, []);
  runToEnd(painting([stroke], canvas, { width: size, height, edges: TORUS }));
  return canvas.cover;
}

const strokeOn = (
  triangles: ShapeTriangle[],
  way: ShapePoint[],
  { radius = 0.08, edge = 1, goesOn = false, softness = 0, more = {} } = {},
): PaintStroke => {
  const patches = patchesOf(triangles, way, { radius, edge, goesOn });
  return {
    points: patches[0].points,
    radius: radius / edge,
    softness,
    erase: false,
    patches,
    ...more,
  } as PaintStroke;
};

const at = (cover: Float32Array, u: number, v: number, size = SIZE) =>
  cover[Math.floor(v * size) * size + Math.floor(u * size)];
const meanApart = (a: Float32Array, b: Float32Array) =>
  a.reduce((sum, value, i) => sum + Math.abs(value - b[i]), 0) / a.length;
const areaOf = (cover: Float32Array) => cover.reduce((sum, value) => sum + value, 0) / cover.length;

/** One flat side of the tile's size. */
const FLAT = sheet(
  8,
  (s, t) => [s, -t, 0],
  (s, t) => [s, t],
);

describe('strokes over a shape', () => {
  it('on a flat sheet are those of the tile itself', () => {
    const way = line([0.2, -0.3, 0], [0.6, -0.45, 0]);
    const stroke = strokeOn(FLAT, way, { softness: 0.4 });
    expect(stroke.patches).to.have.length(1);
    expect(stroke.patches![0].within).to.equal(undefined);
    const { patches: _patches, ...plain } = stroke;
    const flat: PaintStroke = { ...plain, points: way.map(({ at: [x, y] }) => [x, -y]) };
    expect(meanApart(painted(stroke), painted(flat))).to.be.below(1e-4);
  });

  it('carry the lean of the pen, by which prints are turned, however the texture coordinates lie', () => {
    const turned = sheet(
      8,
      (s, t) => [s, -t, 0],
      (s, t) => [t, 1 - s],
    );
    const leans = (triangles: ShapeTriangle[], lean: Vector) => {
      const way = line([0.3, -0.5, 0], [0.6, -0.5, 0]).map((point) => ({ ...point, lean }));
      return strokeOn(triangles, way).patches![0].points.map(([, , , degrees]) => degrees);
    };
    expect(new Set(leans(FLAT, [0, 1, 0]))).to.deep.equal(new Set([0]));
    expect(new Set(leans(FLAT, [1, 0, 0]))).to.deep.equal(new Set([90]));
    expect(new Set(leans(FLAT, [-Math.SQRT1_2, -Math.SQRT1_2, 0]))).to.deep.equal(new Set([-135]));
    // Up on this sheet is to the left in the tile.
    expect(new Set(leans(turned, [0, 1, 0]))).to.deep.equal(new Set([-90]));
    const way = line([0.3, -0.5, 0], [0.6, -0.5, 0]);
    const prints = {
      stamp: 'leaf',
      spacing: 1.2,
      turning: 'pen',
      degrees: 0,
      size: 0,
      stray: 0,
      tint: 0,
      seed: 1,
    };
    const leaning = way.map((point) => ({ ...point, lean: [1, 0, 0] as Vector }));
    const stroke = strokeOn(FLAT, leaning, { more: { prints } });
    const { patches: _patches, ...plain } = stroke;
    const flat = { ...plain, points: way.map(({ at: [x, y] }) => [x, -y, 1, 90]) } as PaintStroke;
    const upright = strokeOn(FLAT, way, { more: { prints } });
    expect(meanApart(painted(stroke), painted(flat))).to.be.below(1e-3);
    expect(meanApart(painted(stroke), painted(upright))).to.be.above(5e-3);
  });

  it('keep their true size where texture coordinates are stretched and sheared', () => {
    const stretched = sheet(
      8,
      (s, t) => [s, -t, 0],
      (s, t) => [0.4 * s + 0.2 * t, 0.8 * t],
    );
    const [radius, edge] = [0.1, 1];
    const stroke = strokeOn(stretched, [{ at: [0.5, -0.5, 0], pressure: 1 }], { radius, edge });
    const cover = painted(stroke);
    // Area on the shape, by how much of the tile one unit of it takes.
    expect(areaOf(cover) / (0.4 * 0.8)).to.be.closeTo(Math.PI * radius ** 2, 0.02 * Math.PI * radius ** 2);
    const [u, v] = [0.4 * 0.5 + 0.2 * 0.5, 0.8 * 0.5];
    for (const [x, y] of [
      [0.09, 0],
      [0, 0.09],
      [-0.09, 0],
      [0, -0.09],
    ]) {
      expect(at(cover, u + 0.4 * x + 0.2 * y, v + 0.8 * y)).to.be.above(0.9);
    }
    expect(at(cover, u + 0.4 * 0.11, v)).to.equal(0);
  });

  /** Two sides of a fold that lie apart and turned in the tile. */
  const fold = (angle: number) => [
    ...sheet(
      6,
      (s, t) => [s - 1, -t, 0],
      (s, t) => [0.05 + 0.4 * s, 0.1 + 0.4 * t],
    ),
    ...sheet(
      6,
      (s, t) => [s * Math.cos(angle), -t, s * Math.sin(angle)],
      (s, t) => [0.9 - 0.4 * t, 0.55 + 0.4 * s],
    ),
  ];

  it('go on over an edge of the texture coordinates, and nowhere else', () => {
    const way = line([-0.3, -0.5, 0], [0.3, -0.5, 0]);
    const stroke = strokeOn(fold(0), way, { radius: 0.1 });
    expect(stroke.patches!.length).to.equal(2);
    const cover = painted(stroke);
    // Just on either side of the fold, on its own island.
    expect(at(cover, 0.445, 0.3)).to.equal(1);
    expect(at(cover, 0.7, 0.555)).to.equal(1);
    // Beyond the border of the first island nothing is painted, but for a margin of a pixel.
    for (let y = 0; y < 128; y++) {
      for (let x = Math.ceil(0.45 * SIZE) + 3; x < 130; x++) expect(cover[y * SIZE + x]).to.equal(0);
    }
    const area = areaOf(cover) / 0.16;
    const wanted = 0.6 * 0.2 + Math.PI * 0.1 ** 2;
    expect(area).to.be.closeTo(wanted, 0.06 * wanted);
  });

  it('take of a folded side what lies within the brush', () => {
    const way: ShapePoint[] = [{ at: [-0.06, -0.5, 0], pressure: 1 }];
    const stroke = strokeOn(fold(Math.PI / 2), way, { radius: 0.1 });
    const cover = painted(stroke);
    // A ball about the point cuts the other side in a disc of √(0.1² − 0.06²).
    expect(at(cover, 0.7, 0.55 + 0.4 * 0.07)).to.equal(1);
    expect(at(cover, 0.7, 0.55 + 0.4 * 0.09)).to.equal(0);
  });

  it('come in again over the joined edges of a tile that a shape repeats', () => {
    const twice = sheet(
      8,
      (s, t) => [2 * s, -2 * t, 0],
      (s, t) => [2 * s, 2 * t],
    );
    const stroke = strokeOn(twice, line([0.9, -0.5, 0], [1.1, -0.5, 0]), { goesOn: true });
    const cover = painted(stroke);
    expect(at(cover, 0.98, 0.5)).to.equal(1);
    expect(at(cover, 0.02, 0.5)).to.equal(1);
    expect(at(cover, 0.5, 0.5)).to.equal(0);
  });

  it('are round on a ball, whose tile narrows towards its poles', () => {
    const [across, down] = [4, 2];
    const ball = sheet(
      64,
      (s, t) => [
        Math.cos(2 * Math.PI * s) * Math.sin(Math.PI * t),
        Math.cos(Math.PI * t),
        Math.sin(2 * Math.PI * s) * Math.sin(Math.PI * t),
      ],
      (s, t) => [across * s, down * t],
    );
    const edge = Math.PI / 2;
    const [s, t, radius] = [0.3, 0.27, 0.2];
    const place: Vector = [
      Math.cos(2 * Math.PI * s) * Math.sin(Math.PI * t),
      Math.cos(Math.PI * t),
      Math.sin(2 * Math.PI * s) * Math.sin(Math.PI * t),
    ];
    const near = ball.filter(({ corners }) =>
      corners.some((corner) => Math.hypot(...corner.map((value, c) => value - place[c])) < 1.5 * radius),
    );
    const stroke = strokeOn(near, [{ at: place, pressure: 1 }], { radius, edge, goesOn: true });
    const cover = painted(stroke);
    const sin = Math.sin(Math.PI * t);
    const [u, v] = [(across * s) % 1, (down * t) % 1];
    // Along the circle of latitude and along the meridian, lengths on the ball as shares of the tile.
    for (const [by, wanted] of [
      [0.88, 1],
      [1.14, 0],
    ]) {
      for (const way of [1, -1]) {
        const du = (way * by * radius) / sin / edge;
        const dv = (way * by * radius) / edge;
        expect(at(cover, u + du, v), `${way * by} across`).to.equal(wanted);
        expect(at(cover, u, v + dv), `${way * by} down`).to.equal(wanted);
      }
    }
    // No gap where one patch meets the next.
    for (let k = -8; k <= 8; k++) expect(at(cover, u, v + (k / 10) * (radius / edge))).to.be.above(0.99);
  });

  it('differ by less than a code between 512 and 2048', () => {
    const stroke = strokeOn(fold(0.4), line([-0.3, -0.4, 0], [0, -0.6, 0]), { radius: 0.1, softness: 0.3 });
    const [small, large] = [painted(stroke, 512), painted(stroke, 2048)];
    const reduced = new Float32Array(512 * 512);
    for (let y = 0; y < 2048; y++)
      for (let x = 0; x < 2048; x++) reduced[(y >> 2) * 512 + (x >> 2)] += large[y * 2048 + x] / 16;
    expect(meanApart(small, reduced)).to.be.below(1 / 255);
  });

  it('put prints of a stamp in their true shape, the same on either side of a fold', () => {
    const prints = {
      stamp: 'leaf',
      spacing: 0.9,
      turning: 'along',
      degrees: 0,
      size: 0,
      stray: 0,
      tint: 0,
      seed: 1,
    } as const;
    const way = line([-0.5, -0.5, 0], [0.5, -0.5, 0], 40);
    const cover = painted(strokeOn(fold(0), way, { radius: 0.1, more: { prints } }));
    const { patches: _patches, ...plain } = strokeOn(FLAT, way, { radius: 0.04, more: { prints } });
    const flat = painted({
      ...plain,
      points: [
        [0.3, 0.5],
        [0.7, 0.5],
      ],
    });
    expect(areaOf(cover)).to.be.closeTo(areaOf(flat), 0.05 * areaOf(flat));
  });

  it('is no stroke where the shape has no texture coordinates there', () => {
    const none = sheet(
      2,
      (s, t) => [s, t, 0],
      () => [0.5, 0.5],
    );
    expect(
      patchesOf(none, line([0.2, 0.2, 0], [0.4, 0.4, 0]), { radius: 0.1, edge: 1, goesOn: false }),
    ).to.deep.equal([]);
  });
});
