import type { Sides } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import type { Place } from '../../src/pattern/cell.ts';
import {
  PATTERN_NAMES,
  PATTERNS,
  type PatternName,
  type PatternPlane,
  type PatternShape,
  patternRows,
} from '../../src/pattern/pattern.ts';

const FIELD = { widthMm: 1000, heightMm: 600 };
const COUNTS = { across: 8, down: 4, shift: 0.5, jitter: 0, roundMm: 0, jointMm: 12, seed: 3 };
const shape = (kind: PatternName, changes: Partial<PatternShape> = {}): PatternShape => ({
  ...COUNTS,
  kind,
  bevelMm: 0,
  ...changes,
});

/** A plane of a pattern. */
function drawn(of: PatternShape, field: typeof FIELD, sides: Sides, plane: PatternPlane): Float32Array {
  const out = new Float32Array(sides.width * sides.height);
  patternRows(of, field, sides, plane)(out, 0, sides.height);
  return out;
}

/** Cells that must be told apart at the counts above. */
const CELLS: Record<PatternName, number> = {
  stripes: 4,
  checks: 32,
  dots: 32,
  grid: 32,
  planks: 32,
  running: 32,
  header: 64,
  herringbone: 16,
  basket: 64,
  hexagons: 32,
  triangles: 64,
  scales: 32,
  'plain-weave': 32,
  twill: 16,
  'basket-weave': 16,
  stars: 32,
  rosettes: 32,
};

describe('patterns', () => {
  for (const kind of PATTERN_NAMES) {
    it(`${kind}: repeats with its field, in ${CELLS[kind]} cells`, () => {
      const layout = PATTERNS[kind](FIELD, COUNTS);
      const here: Place = { edge: 0, cell: 0 };
      const there: Place = { edge: 0, cell: 0 };
      fc.assert(
        fc.property(fc.integer({ min: 0, max: 999 }), fc.integer({ min: 0, max: 599 }), (i, j) => {
          const [x, y] = [i + 0.37, j + 0.41];
          layout(x, y, here);
          layout(x + FIELD.widthMm, y - 2 * FIELD.heightMm, there);
          expect(there.cell).to.equal(here.cell);
          expect(there.edge).to.be.closeTo(here.edge, 1e-6);
        }),
        { numRuns: 300 },
      );
      const cells = new Set<number>();
      for (let y = 1.3; y < FIELD.heightMm; y += 3) {
        for (let x = 1.1; x < FIELD.widthMm; x += 3) {
          layout(x, y, here);
          if (here.edge > 6) cells.add(here.cell);
        }
      }
      expect(cells.size).to.equal(kind === 'checks' ? CELLS[kind] / 2 : CELLS[kind]);
    });

    it(`${kind}: distances to the edge are true: no steeper than one, and joined without a step`, () => {
      const layout = PATTERNS[kind](FIELD, COUNTS);
      const at = (x: number, y: number) => {
        const place: Place = { edge: 0, cell: 0 };
        layout(x, y, place);
        return place.edge;
      };
      const STEP = 0.25;
      // Where one thing hangs over another there is a step, and rosettes are not measured square to their border.
      const slope = kind === 'rosettes' ? 4 : 1.0001;
      if (kind === 'scales') return;
      for (let y = 0.6; y < FIELD.heightMm; y += 7) {
        for (let x = 0.4; x < FIELD.widthMm; x += 7) {
          expect(Math.abs(at(x + STEP, y) - at(x, y))).to.be.at.most(slope * STEP + 1e-9);
          expect(Math.abs(at(x, y + STEP) - at(x, y))).to.be.at.most(slope * STEP + 1e-9);
        }
      }
    });
  }

  it('joints are as wide as they are asked for, to half a pixel, at any size', () => {
    for (const size of [200, 512]) {
      const sides = { width: size, height: Math.round(0.6 * size) };
      const mm = FIELD.widthMm / size;
      const face = drawn(shape('grid'), FIELD, sides, 'face');
      // Along a line through the middle of a row of cells.
      const row = Math.round(sides.height / 8) * size;
      let joint = 0;
      for (let x = 0; x < size; x++) joint += 1 - face[row + x];
      expect((joint * mm) / COUNTS.across).to.be.closeTo(COUNTS.jointMm, mm / 2);
    }
  });

  it('the same is made at two sizes', () => {
    for (const kind of PATTERN_NAMES) {
      const small = drawn(shape(kind, { bevelMm: 15 }), FIELD, { width: 200, height: 120 }, 'profile');
      const large = drawn(shape(kind, { bevelMm: 15 }), FIELD, { width: 800, height: 480 }, 'profile');
      let off = 0;
      for (let y = 0; y < 120; y++) {
        for (let x = 0; x < 200; x++) {
          let mean = 0;
          for (let k = 0; k < 16; k++) mean += large[(4 * y + (k >> 2)) * 800 + 4 * x + (k & 3)] / 16;
          off += Math.abs(mean - small[y * 200 + x]) / 24000;
        }
      }
      expect(off, kind).to.be.below(0.05);
    }
  });

  it('corners are rounded within the joint, a bevel rises over its width, and values are one each', () => {
    const sides = { width: 1000, height: 600 };
    const at = (plane: Float32Array, x: number, y: number) => plane[y * 1000 + x];
    const sharp = drawn(shape('grid'), FIELD, sides, 'face');
    const round = drawn(shape('grid', { roundMm: 30 }), FIELD, sides, 'face');
    expect(at(sharp, 8, 8)).to.equal(1);
    expect(at(round, 8, 8)).to.equal(0);
    expect(at(round, 62, 75)).to.equal(1);
    const bevel = drawn(shape('grid', { bevelMm: 20 }), FIELD, sides, 'profile');
    expect(at(bevel, 16, 75)).to.be.closeTo(0.525, 0.01);
    expect(at(bevel, 62, 75)).to.equal(1);
    const value = drawn(shape('running'), FIELD, sides, 'value');
    expect(at(value, 20, 20)).to.equal(at(value, 100, 100));
    expect(new Set(value).size).to.equal(32);
  });
});
