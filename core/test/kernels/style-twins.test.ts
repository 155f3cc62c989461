import { type Edges, MIRROR, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { KERNELS, type Kernels } from '../../src/kernels/kernels.ts';
import { type StrokeValues, strokeValues } from '../../src/kernels/paint-strokes/reference.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';
import { brushPrints } from '../../src/stations/style/prints.ts';
import { farthest, noisePlane, seeded } from '../fields.ts';

const TOLERANCE = 3e-6;
const seed = fc.integer({ min: 1, max: 1e6 });
const both = <T>(by: (k: Kernels) => T): [T, T] => [by(KERNELS), by(REFERENCE)];

/** A flow of unit vectors in any direction, and pixels of four values, with `pad` more on every side. */
function field(width: number, height: number, pad: number, of: number) {
  const count = (width + 2 * pad) * (height + 2 * pad);
  const flow = new Float32Array(2 * count);
  for (const [i, turn] of noisePlane(count, of).entries()) {
    flow[2 * i] = Math.cos(3 * turn);
    flow[2 * i + 1] = Math.sin(3 * turn);
  }
  return { channels: noisePlane(4 * count, of + 1), flow, width, height, pad };
}

/** Strokes of any place and course on a picture of these sides. */
function strokesOn(width: number, height: number, of: number, count: number) {
  const random = seeded(of);
  const points: number[] = [];
  const values: StrokeValues[] = [];
  for (let k = 0; k < count; k++) {
    const radius = 1 + 6 * random();
    const first = points.length;
    const pieces = 2 + Math.floor(4 * random());
    let [x, y, turn] = [width * random(), height * random(), 6 * random()];
    for (let n = 0; n <= pieces; n++) {
      points.push(x, y);
      x += 0.7 * radius * Math.cos(turn);
      y += 0.7 * radius * Math.sin(turn);
      turn += random() - 0.5;
    }
    values.push({
      ...{ first, count: pieces + 1, radius, length: 0.7 * radius * pieces },
      ...{ L: random(), a: random() - 0.5, b: random() - 0.5, ridge: random() },
      ...{ ownL: random(), ownA: 0, ownB: 0, keep: 1 + random(), opacity: 0.9 },
      ...{ lightOfRidge: 0.1, ridgeOfRidge: 0.7, print: Math.floor(6 * random()), side: k % 2 ? 1 : -1 },
    });
  }
  return { values: strokeValues(values), points: Float64Array.from(points) };
}

function paintedBy(k: Kernels, width: number, height: number, edges: Edges, of: number): Float32Array {
  const canvas = noisePlane(4 * width * height, of);
  const guide = noisePlane(4 * width * height, of + 1);
  const block = { canvas, guide, left: 0, top: 0, right: width, bottom: height };
  k.paintStrokes(block, strokesOn(width, height, of, 12), brushPrints(3), { width, height }, edges);
  return canvas;
}

describe('twins of the kernels of painting', () => {
  it('smooth along any flow alike, in steps of any length', () => {
    fc.assert(
      fc.property(seed, fc.float({ min: 1, max: 3, noNaN: true }), (of, step) => {
        const weights = Float32Array.of(1, 0.8, 0.5, 0.2);
        const [a, b] = both((k) => k.flowLines(field(19, 11, 12, of), weights, step));
        expect(farthest(a, b)).to.be.below(TOLERANCE);
      }),
      { numRuns: 40 },
    );
  });

  it('sharpen across any flow alike', () => {
    fc.assert(
      fc.property(seed, fc.integer({ min: 1, max: 4 }), (of, count) => {
        const whole = field(17, 9, 8, of);
        const signs = noisePlane(17 * 9, of + 2).map((value) => 2 * value - 1);
        const flow = whole.flow.slice(0, 2 * 17 * 9);
        const [a, b] = both((k) => k.shockEdges({ ...whole, flow, signs }, { count, step: 1.3 }));
        expect(farthest(a, b)).to.be.below(TOLERANCE);
      }),
      { numRuns: 40 },
    );
  });

  it('paint strokes of any course alike, whether edges wrap or not', () => {
    fc.assert(
      fc.property(seed, fc.constantFrom(TORUS, MIRROR, { x: 'wrap', y: 'mirror' } as Edges), (of, edges) => {
        const [a, b] = both((k) => paintedBy(k, 40, 28, edges, of));
        expect(farthest(a, b)).to.be.below(2e-4);
        expect(farthest(a, noisePlane(a.length, of))).to.be.above(0.1);
      }),
      { numRuns: 25 },
    );
  });

  it('measure the structure of rows alike, and parts as the whole', () => {
    fc.assert(
      fc.property(
        seed,
        fc.constantFrom(TORUS, MIRROR),
        fc.integer({ min: 5, max: 21 }),
        (of, edges, width) => {
          const planes = [0, 1, 2].map((c) => noisePlane(width * 12, of + c));
          const sides = { width, height: 12, edges };
          const [a, b] = both((k) => k.structureTensor(planes, [1, 2, 3], sides, { from: 4, to: 11 }));
          const whole = KERNELS.structureTensor(planes, [1, 2, 3], sides, { from: 0, to: 12 });
          for (const k of [0, 1, 2]) {
            expect(farthest(a[k], b[k])).to.be.below(TOLERANCE);
            expect(a[k]).to.deep.equal(whole[k].slice(4 * width, 11 * width));
          }
        },
      ),
      { numRuns: 30 },
    );
  });

  it('bring OKLab to the colours of screens alike', () => {
    fc.assert(
      fc.property(seed, fc.integer({ min: 1, max: 90 }), (of, count) => {
        const spread = [1.2, 0.5, 0.5];
        const lab = spread.map((by, c) => noisePlane(count, of + c).map((v) => by * (c ? v - 0.5 : v)));
        const [a, b] = both((k) => {
          const into = lab.map(() => new Float32Array(count));
          k.oklabToRgb(lab, into);
          return into;
        });
        // A halving more or less of the richness may be taken where a colour lies on the border.
        for (const c of [0, 1, 2]) expect(farthest(a[c], b[c])).to.be.below(4e-3);
      }),
      { numRuns: 40 },
    );
  });

  it('draw colours by a table alike, and at its places by what stands there', () => {
    const steps = 4;
    const table = {
      values: noisePlane(4 * (steps + 1) ** 3, 8),
      steps,
      low: [0, -0.5, -0.5],
      scale: [4, 4, 4],
    };
    fc.assert(
      fc.property(seed, fc.integer({ min: 1, max: 40 }), (of, count) => {
        const lab = [0, 1, 2].map((c) => noisePlane(count, of + c).map((v) => 1.2 * v - (c ? 0.6 : 0.1)));
        const [a, b] = both((k) => {
          const into = new Float32Array(4 * count);
          k.drawTo(lab, table, into);
          return into;
        });
        expect(farthest(a, b)).to.be.below(2e-5);
      }),
      { numRuns: 30 },
    );
    const into = new Float32Array(4);
    KERNELS.drawTo(
      [0.25, 0, 0.25].map((value) => Float32Array.of(value)),
      table,
      into,
    );
    const at = 4 * (1 * 25 + 2 * 5 + 3);
    expect(into[0]).to.be.closeTo(0.25 + table.values[at], 1e-5);
    expect(into[3]).to.be.closeTo(table.values[at + 3], 1e-5);
  });

  it('paint light alike, and add up the same changes', () => {
    fc.assert(
      fc.property(seed, fc.integer({ min: 1, max: 70 }), fc.constantFrom(0, 0.7), (of, count, ink) => {
        const planes = Array.from({ length: 8 }, (_, c) => noisePlane(count, of + c).map((v) => 2 * v - 1));
        planes[0] = planes[0].map(Math.abs);
        const by = {
          ...{ strength: 1.3, ink, byRidge: 0.8, ofThin: 1.5, ofWide: 2, lightX: 0.6, lightY: -0.8 },
          ...{ middleA: 0.1, middleB: -0.05, gain: 1.2 },
        };
        const [a, b] = both((k) => {
          const into = [0, 1, 2].map(() => new Float32Array(count));
          return { sum: k.paintLight(planes, by, into), into };
        });
        expect(a.sum).to.be.closeTo(b.sum, 1e-5 * count);
        for (const c of [0, 1, 2]) expect(farthest(a.into[c], b.into[c])).to.be.below(TOLERANCE);
      }),
      { numRuns: 40 },
    );
  });

  it('paint blocks of a picture as they paint the whole', () => {
    const [width, height] = [48, 32];
    const whole = paintedBy(KERNELS, width, height, TORUS, 5);
    const canvas = noisePlane(4 * width * height, 5);
    const guide = noisePlane(4 * width * height, 6);
    const strokes = strokesOn(width, height, 5, 12);
    for (const [left, right] of [
      [0, 20],
      [20, 48],
    ]) {
      const cut = (pixels: Float32Array) =>
        Float32Array.from({ length: 4 * (right - left) * height }, (_, i) => {
          const [pixel, c] = [Math.floor(i / 4), i % 4];
          const [x, y] = [left + (pixel % (right - left)), Math.floor(pixel / (right - left))];
          return pixels[4 * (y * width + x) + c];
        });
      const block = { canvas: cut(canvas), guide: cut(guide), left, right, top: 0, bottom: height };
      KERNELS.paintStrokes(block, strokes, brushPrints(3), { width, height }, TORUS);
      expect(farthest(block.canvas, cut(whole))).to.be.below(1e-6);
    }
  });
});
