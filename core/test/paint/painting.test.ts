import { type PaintStroke, type Prints, Raster, resizeArea, runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import { emptyCanvas, type PaintedChannel } from '../../src/paint/canvas.ts';
import { turnedImages } from '../../src/paint/images.ts';
import { painting } from '../../src/paint/painting.ts';
import { printsOf } from '../../src/paint/prints.ts';
import { MIRROR, TORUS } from '../../src/raster/edges.ts';

const SIZE = 96;

const stroke = (more: Partial<PaintStroke> = {}): PaintStroke => ({
  points: [
    [0.2, 0.3],
    [0.6, 0.45],
  ],
  radius: 0.06,
  softness: 0.4,
  erase: false,
  ...more,
});

const prints = (more: Partial<Prints> = {}): Prints => ({
  spacing: 0.5,
  turning: 'fixed',
  degrees: 0,
  size: 0,
  stray: 0,
  tint: 0,
  seed: 7,
  ...more,
});

function painted(
  strokes: PaintStroke[],
  channel: PaintedChannel = 'colour',
  size = SIZE,
  edges = TORUS,
  ground: Raster | null = null,
) {
  const canvas = emptyCanvas(size * size, [channel]);
  runToEnd(painting(strokes, canvas, { width: size, height: size, edges }, ground));
  return { cover: canvas.cover, ...canvas.carried[channel]! };
}

/** What a canvas puts into its channel at a place in shares, and how much of it. */
function valueAt(canvas: ReturnType<typeof painted>, u: number, v: number, size = SIZE) {
  const i = Math.floor(v * size) * size + Math.floor(u * size);
  const has = canvas.has[i];
  return { cover: canvas.cover[i], has, of: canvas.values.map((plane) => plane[i] / (has || 1)) };
}

/** Stamps that lean as the pen did. */
const LEANING: PaintStroke = stroke({
  points: [
    [0.3, 0.5, 1, 90],
    [0.7, 0.5, 1, 90],
  ],
  prints: prints({ stamp: 'leaf', spacing: 1, turning: 'pen' }),
});

const LEAVES: PaintStroke = stroke({
  flow: 0.7,
  softness: 0.1,
  prints: prints({ stamp: 'leaf', spacing: 0.8, turning: 'along', size: 0.5, stray: 0.4, tint: 0.5 }),
  paint: { colour: '#7a8f3c' },
});

describe('painting by hand', () => {
  it('the later of two colours lies over the earlier, and a hard stroke gives exactly its own', () => {
    const red = stroke({ softness: 0, paint: { colour: '#ff0000' } });
    const blue = stroke({
      points: [
        [0.4, 0.1],
        [0.4, 0.7],
      ],
      softness: 0,
      paint: { colour: '#0000ff' },
    });
    const canvas = painted([red, blue], 'colour');
    expect(valueAt(canvas, 0.25, 0.32).of).to.deep.equal([1, 0, 0]);
    expect(valueAt(canvas, 0.4, 0.38).of).to.deep.equal([0, 0, 1]);
    expect(valueAt(canvas, 0.9, 0.9)).to.include({ cover: 0, has: 0 });
  });

  it('a stroke puts into a channel only what it carries', () => {
    const rough = stroke({ softness: 0, paint: { roughness: 0.8 } });
    expect(valueAt(painted([rough], 'roughness'), 0.4, 0.375)).to.deep.equal({
      cover: 1,
      has: 1,
      of: [Math.fround(0.8)],
    });
    expect(valueAt(painted([rough], 'metallic'), 0.4, 0.375)).to.include({ cover: 1, has: 0 });
    // One that does not carry height leaves that of one below it, and brings none where it goes on.
    const high = stroke({ softness: 0, paint: { heightMm: 4 } });
    const both = painted([high, { ...rough, points: [...rough.points, [0.9, 0.8]] }], 'height');
    expect(valueAt(both, 0.4, 0.375)).to.deep.equal({ cover: 1, has: 1, of: [4] });
    expect(valueAt(both, 0.85, 0.74)).to.include({ cover: 1, has: 0 });
  });

  it('flow adds up from stroke to stroke, and without it a stroke covers no more than itself', () => {
    const at = (strokes: PaintStroke[]) => painted(strokes).cover[36 * SIZE + 38];
    const light = stroke({ softness: 0, flow: 0.5 });
    expect(at([light])).to.equal(0.5);
    expect(at([light, light])).to.equal(0.75);
    const soft = stroke({ softness: 1 });
    expect(at([soft, soft])).to.equal(at([soft]));
  });

  it('prints lie one spacing apart along the way, whatever its points are', () => {
    const sides = { width: 200, height: 100 };
    const few = printsOf(
      stroke({
        points: [
          [0, 0.5],
          [1, 0.5],
        ],
        radius: 0.05,
      }),
      prints(),
      sides,
    );
    expect(few).to.have.length(21);
    for (const [k, { x, y }] of few.entries()) {
      expect(x).to.be.closeTo(10 * k, 1e-9);
      expect(y).to.equal(50);
    }
    const many = printsOf(
      stroke({ points: Array.from({ length: 41 }, (_, k) => [k / 40, 0.5]), radius: 0.05 }),
      prints(),
      sides,
    );
    expect(many.map(({ x }) => Math.round(1e6 * x))).to.deep.equal(few.map(({ x }) => Math.round(1e6 * x)));
  });

  it('along a stroke stamps point its way; what is random is the same at any size', () => {
    const to = (x: number, y: number) =>
      printsOf(
        stroke({
          points: [
            [0.5, 0.5],
            [x, y],
          ],
        }),
        prints({ turning: 'along' }),
        { width: 64, height: 64 },
      )[1].degrees;
    expect(to(0.5, 0.1)).to.equal(0);
    expect(to(0.9, 0.5)).to.equal(90);
    const [small, large] = [64, 256].map((size) =>
      printsOf(LEAVES, LEAVES.prints!, { width: size, height: size }),
    );
    expect(small.map(({ tint }) => tint)).to.deep.equal(large.map(({ tint }) => tint));
    expect(small.map(({ x }) => x * 4)).to.deep.equal(large.map(({ x }) => x));
  });

  it('goes on over the edges to the pixel', () => {
    const move = (of: PaintStroke): PaintStroke => ({
      ...of,
      points: of.points.map(([u, v]) => [u + 0.5, v + 0.75]),
    });
    for (const one of [stroke({ paint: { colour: '#336699' } }), LEAVES]) {
      const [here, there] = [painted([one], 'colour'), painted([move(one)], 'colour')];
      for (let y = 0; y < SIZE; y++) {
        for (let x = 0; x < SIZE; x++) {
          const j = ((y + 0.75 * SIZE) % SIZE) * SIZE + ((x + 0.5 * SIZE) % SIZE);
          expect(there.cover[j]).to.be.closeTo(here.cover[y * SIZE + x], 1e-5);
        }
      }
    }
  });

  it('ends at an edge that is not joined', () => {
    const out = stroke({
      points: [
        [0.9, 0.5],
        [1.1, 0.5],
      ],
      prints: prints({ spacing: 0.25 }),
    });
    const at = (edges: typeof TORUS) => painted([out], undefined, SIZE, edges).cover[48 * SIZE + 2];
    expect(at(TORUS)).to.be.above(0.5);
    expect(at(MIRROR)).to.equal(0);
  });

  it('replayed at 512 and at 2048 reduced it is the same to a code of 255 in the mean', () => {
    for (const one of [stroke({ softness: 0 }), stroke({ softness: 0.8, flow: 0.6 }), LEAVES]) {
      const small = painted([one], undefined, 512).cover;
      const large = new Raster(2048, 2048, [painted([one], undefined, 2048).cover]);
      const [reduced] = resizeArea(large, 512, 512).planes;
      let off = 0;
      for (let i = 0; i < small.length; i++) off += Math.abs(small[i] - reduced[i]) / small.length;
      expect(off).to.be.below(1 / 255);
    }
  });

  it('turned about a place it is the same in every part, and mirrored the same to the bit', () => {
    for (const of of [stroke({}), { ...LEAVES, prints: prints({ stamp: 'leaf', turning: 'along' }) }]) {
      const { cover } = painted([{ ...of, turns: { count: 4, x: 0.5, y: 0.5 } }]);
      const folded = painted([{ ...of, mirror: 'both' }]).cover;
      for (let y = 0; y < SIZE; y++) {
        for (let x = 0; x < SIZE; x++) {
          expect(cover[x * SIZE + SIZE - 1 - y]).to.be.closeTo(cover[y * SIZE + x], 1e-4);
          expect(folded[y * SIZE + SIZE - 1 - x]).to.be.closeTo(folded[y * SIZE + x], 1e-6);
        }
      }
    }
  });

  describe('filling', () => {
    const PAPER = [0.8, 0.78, 0.7] as const;
    const INK = '#101010';
    const paper = (size = SIZE) =>
      new Raster(
        size,
        size,
        PAPER.map((value) => new Float32Array(size * size).fill(value)),
      );
    const fill = (at: [number, number], gap = 0, tolerance = 0.05): PaintStroke =>
      stroke({ points: [at], fill: { tolerance, gap }, paint: { colour: '#ff0000' } });
    /** A ring of ink about the tile's middle, from one angle to another, clockwise from the top. */
    const ring = (from: number, to: number, radius = 0.3): PaintStroke =>
      stroke({
        points: Array.from({ length: 73 }, (_, k) => {
          const turn = ((from + (k / 72) * (to - from)) * Math.PI) / 180;
          return [0.5 + radius * Math.sin(turn), 0.5 - radius * Math.cos(turn)];
        }),
        radius: 0.02,
        softness: 0,
        paint: { colour: INK },
      });
    const coverAt = (cover: Float32Array, u: number, v: number) =>
      cover[Math.floor(v * SIZE) * SIZE + Math.floor(u * SIZE)];

    it('fills what a line encloses and no more, and outside it what lies around the torus', () => {
      const inside = painted([ring(0, 360), fill([0.5, 0.5])], 'colour', SIZE, TORUS, paper());
      expect(valueAt(inside, 0.5, 0.5)).to.deep.equal({ cover: 1, has: 1, of: [1, 0, 0] });
      expect(valueAt(inside, 0.35, 0.4).of).to.deep.equal([1, 0, 0]);
      expect(coverAt(inside.cover, 0.05, 0.05)).to.equal(0);
      const outside = painted([ring(0, 360), fill([0.02, 0.02])], 'colour', SIZE, TORUS, paper());
      for (const [u, v] of [
        [0.95, 0.95],
        [0.05, 0.95],
        [0.5, 0.02],
      ]) {
        expect(coverAt(outside.cover, u, v)).to.equal(1);
      }
      expect(coverAt(outside.cover, 0.5, 0.5)).to.equal(0);
    });

    it('closes gaps up to the width that is asked for, and runs out of wider ones', () => {
      const open = (gap: number) =>
        coverAt(
          painted([ring(10, 350), fill([0.5, 0.5], gap)], 'colour', SIZE, TORUS, paper()).cover,
          0.05,
          0.05,
        );
      expect(open(0)).to.equal(1);
      expect(open(0.1)).to.equal(0);
    });

    it('leaves no fringe of the ground at an anti-aliased line', () => {
      const inside = painted([ring(0, 360), fill([0.5, 0.5])], 'colour', SIZE, TORUS, paper());
      // From the middle to within the line nothing of the paper's blue is seen: it is red or ink.
      for (let turn = 0; turn < 360; turn += 7) {
        for (let r = 0; r < 0.29; r += 0.5 / SIZE) {
          const angle = (turn * Math.PI) / 180;
          const { cover, of } = valueAt(inside, 0.5 + r * Math.sin(angle), 0.5 - r * Math.cos(angle));
          const blue = (1 - cover) * PAPER[2] + cover * of[2];
          expect(blue, `${turn}° ${r}`).to.be.below(0.02);
        }
      }
    });

    it('goes over joined edges and ends at open ones', () => {
      const walls = stroke({
        points: [
          [0.5, -0.2],
          [0.5, 1.2],
        ],
        softness: 0,
        paint: { colour: INK },
      });
      const at = (edges: typeof TORUS) =>
        coverAt(painted([walls, fill([0.2, 0.5])], 'colour', SIZE, edges, paper()).cover, 0.9, 0.5);
      expect(at(TORUS)).to.equal(1);
      expect(at(MIRROR)).to.equal(0);
    });
  });

  it('prints lean as the pen did, and turned copies of them with their stroke', () => {
    const sides = { width: SIZE, height: SIZE };
    for (const { degrees } of printsOf(LEANING, LEANING.prints!, sides)) expect(degrees).to.equal(90);
    const copies = turnedImages({ ...LEANING, turns: { count: 4, x: 0.5, y: 0.5 } }, sides);
    expect(copies.map((copy) => printsOf(copy, copy.prints!, sides)[0].degrees)).to.deep.equal([
      90, -180, -90, 0,
    ]);
    const upright = stroke({ prints: LEANING.prints });
    expect(printsOf(upright, LEANING.prints!, sides)[0].degrees).to.equal(0);
  });

  it('erasing everything leaves nothing, to the bit', () => {
    const all = Array.from({ length: 16 }, (_, k) =>
      stroke({ points: [[(k % 4) / 4, Math.floor(k / 4) / 4]], radius: 0.5, softness: 0, erase: true }),
    );
    expect(painted([LEAVES, stroke(), ...all]).cover).to.deep.equal(new Float32Array(SIZE * SIZE));
  });
});
