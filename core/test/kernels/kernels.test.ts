import { type Edges, Raster, resizeArea, resizeLanczos, runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { blurring } from '../../src/filters/gaussian.ts';
import { firKernel } from '../../src/kernels/gaussian-fir/reference.ts';
import { KERNELS, type Kernels } from '../../src/kernels/kernels.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';
import type { Taps } from '../../src/kernels/weigh/reference.ts';
import { edgeIndex } from '../../src/raster/edges.ts';
import { phaseTable } from '../../src/raster/phases.ts';
import { noisePlane } from '../fields.ts';

/** How far a twin may be off, of values about 1: the last place or two of a 32-bit float, and what sums leave. */
const TOLERANCE = 3e-6;

const edge = fc.constantFrom('wrap', 'mirror') as fc.Arbitrary<Edges['x']>;
const side = fc.integer({ min: 4, max: 70 });
const field = fc.record({
  width: side,
  height: side,
  seed: fc.integer({ min: 1, max: 1e6 }),
  edges: fc.record({ x: edge, y: edge }),
});

function farthest(a: Float32Array, b: Float32Array): number {
  expect(a.length).to.equal(b.length);
  return a.reduce((most, value, i) => Math.max(most, Math.abs(value - b[i])), 0);
}

const plane = ({ width, height, seed }: { width: number; height: number; seed: number }) =>
  noisePlane(width * height, seed).map((value) => 0.5 + 0.2 * value);

/** Weights of each sample brought to a sum of 1, as all taps have it. */
function summingToOne(noise: Float32Array, count: number): Float32Array {
  return noise.map((_, i) => {
    const first = i - (i % count);
    const own = Array.from(noise.subarray(first, first + count), (value) => 0.2 + Math.abs(value));
    return own[i - first] / own.reduce((sum, value) => sum + value, 0);
  });
}

describe('kernels', () => {
  it('have their twins in WASM here', () => {
    expect(KERNELS).not.to.equal(REFERENCE);
    expect(Object.keys(KERNELS).sort()).to.deep.equal(Object.keys(REFERENCE).sort());
  });

  it('a twin blurs as its reference does, at any size, σ and edges', () => {
    fc.assert(
      fc.property(field, fc.double({ min: 0.1, max: 3, noNaN: true }), (of, sigma) => {
        const p = plane(of);
        const by = (k: Kernels) => runToEnd(blurring(p, of.width, of.height, sigma, of.edges, k));
        expect(farthest(by(KERNELS), by(REFERENCE))).to.be.below(TOLERANCE);
      }),
      { numRuns: 60 },
    );
    fc.assert(
      fc.property(field, fc.double({ min: 3, max: 60, noNaN: true }), (of, sigma) => {
        const p = plane(of);
        const by = (k: Kernels) => runToEnd(blurring(p, of.width, of.height, sigma, of.edges, k));
        expect(farthest(by(KERNELS), by(REFERENCE))).to.be.below(TOLERANCE);
      }),
      { numRuns: 40 },
    );
  });

  it('in many bands a plane is blurred as in one, whatever the last one holds', () => {
    // Bands are cut by how many pixels they hold.
    for (const [width, height] of [
      [4096, 258],
      [261, 4100],
    ]) {
      const p = plane({ width, height, seed: 3 });
      for (const sigma of [2.6, 9]) {
        const by = (k: Kernels) => runToEnd(blurring(p, width, height, sigma, TORUS, k));
        expect(farthest(by(KERNELS), by(REFERENCE)), `σ ${sigma} ${width} × ${height}`).to.be.below(
          TOLERANCE,
        );
        let pauses = 0;
        for (const _ of blurring(p, width, height, sigma, TORUS)) pauses++;
        expect(pauses).to.be.above(2);
      }
    }
    const [width, height] = [600, 1000];
    const p = plane({ width, height, seed: 4 });
    const kernel = firKernel(1.7);
    const whole = new Float32Array(p.length);
    const parts = new Float32Array(p.length);
    const shape = { width, height, edges: TORUS };
    KERNELS.gaussianFirBand(p, whole, shape, kernel, { from: 0, to: height });
    for (const [from, to] of [
      [0, 5],
      [5, 700],
      [700, 701],
      [701, height],
    ])
      KERNELS.gaussianFirBand(p, parts, shape, kernel, { from, to });
    expect(farthest(parts, whole)).to.equal(0);
  });

  it('a plane too small for vectors is blurred too', () => {
    for (const [width, height] of [
      [1, 9],
      [3, 3],
      [9, 1],
    ]) {
      const p = plane({ width, height, seed: 5 });
      const edges: Edges = { x: 'wrap', y: 'mirror' };
      for (const sigma of [1.2, 4]) {
        const by = (k: Kernels) => runToEnd(blurring(p, width, height, sigma, edges, k));
        expect(farthest(by(KERNELS), by(REFERENCE)), `σ ${sigma} ${width} × ${height}`).to.be.below(
          TOLERANCE,
        );
      }
    }
  });

  it('a twin smooths with holes as its reference does, also where they are wider than the plane', () => {
    fc.assert(
      fc.property(field, fc.constantFrom(1, 2, 4, 8, 16), (of, hole) => {
        const p = plane(of);
        const by = (k: Kernels) => k.atrousSmooth(p, of.width, of.height, hole, of.edges);
        expect(farthest(by(KERNELS), by(REFERENCE))).to.be.below(TOLERANCE);
      }),
      { numRuns: 60 },
    );
  });

  it('a twin weighs columns and rows as its reference does, with taps beyond either edge', () => {
    fc.assert(
      fc.property(
        field,
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: -6, max: 6 }),
        (of, to, count, start) => {
          const p = plane(of);
          const tapsOf = (n: number): Taps => ({
            count,
            first: Int32Array.from({ length: to }, (_, i) => start + Math.floor((i * (n - 1)) / to)),
            weights: summingToOne(noisePlane(to * count, of.seed + 1), count),
          });
          const indexed = ({ first }: Taps, n: number, at: Edges['x']) =>
            Int32Array.from({ length: to * count }, (_, i) =>
              edgeIndex(first[Math.floor(i / count)] + (i % count), n, at),
            );
          const weighing = (n: number, at: Edges['x']) => {
            const taps = tapsOf(n);
            return { taps, samples: indexed(taps, n, at) };
          };
          const across = weighing(of.width, of.edges.x);
          const down = weighing(of.height, of.edges.y);
          const made = (k: Kernels) => {
            const out = new Float32Array(to * to + 5);
            k.weighBand(p, of.width, across, down, out, 3);
            return out;
          };
          const [a, b] = [made(KERNELS), made(REFERENCE)];
          expect(farthest(a, b)).to.be.below(2 * TOLERANCE);
          expect([...a.subarray(0, 3), ...a.subarray(-2)]).to.deep.equal([0, 0, 0, 0, 0]);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('a twin resamples as its reference does, at places inside, beyond and far beyond, for any stretch', () => {
    fc.assert(
      fc.property(
        field,
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 1, max: 30 }),
        fc.double({ min: 1, max: 2.5, noNaN: true }),
        fc.double({ min: -1, max: 2, noNaN: true }),
        (of, channels, count, stretch, far) => {
          const planes = Array.from({ length: channels }, (_, c) => plane({ ...of, seed: of.seed + c }));
          const raster = new Raster(of.width, of.height, planes);
          const places = noisePlane(4 * count, of.seed + 9);
          const table = phaseTable(stretch);
          const by = (k: Kernels) => {
            const out = Raster.filled(count, 2, channels);
            const resample = k.rowResampler(raster, of.edges);
            for (let y = 0; y < 2; y++) {
              const at = (size: number, from: number) =>
                Float64Array.from({ length: count }, (_, i) => size * (0.5 + far * places[from + i]));
              // Another table between two rows, as a bent grid has it.
              const used = y === 0 ? table : phaseTable(1);
              resample(out, y, at(of.width, 2 * y * count), at(of.height, (2 * y + 1) * count), used);
            }
            return out;
          };
          const [a, b] = [by(KERNELS), by(REFERENCE)];
          for (let c = 0; c < channels; c++)
            expect(farthest(a.planes[c], b.planes[c])).to.be.below(TOLERANCE);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('what is constant stays so to the bit, whatever is done to it', () => {
    fc.assert(
      fc.property(field, fc.double({ min: 0.01, max: 1, noNaN: true }), (of, value) => {
        const { width, height, edges } = of;
        const flat = new Float32Array(width * height).fill(value);
        const raster = new Raster(width, height, [flat]);
        const out = Raster.filled(9, 1, 1);
        const places = Float64Array.from({ length: 9 }, (_, i) => 1.37 * i - 2);
        KERNELS.rowResampler(raster, edges)(out, 0, places, places, phaseTable(1.3));
        for (const plane of [
          runToEnd(blurring(flat, width, height, 2.1, edges)),
          KERNELS.atrousSmooth(flat, width, height, 4, edges),
          resizeLanczos(raster, 7, 11, edges).planes[0],
          resizeArea(raster, 5, 3).planes[0],
          out.planes[0],
        ])
          for (const one of plane) expect(one).to.equal(Math.fround(value));
      }),
      { numRuns: 40 },
    );
  });

  it('resizing keeps a constant and the mean, whatever computes it', () => {
    const flat = new Raster(48, 30, [new Float32Array(48 * 30).fill(0.4)]);
    const small = resizeLanczos(flat, 20, 17, { x: 'wrap', y: 'mirror' });
    for (const value of small.planes[0]) expect(value).to.equal(Math.fround(0.4));
    const noise = new Raster(64, 64, [plane({ width: 64, height: 64, seed: 3 })]);
    const mean = (values: Float32Array) => values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(mean(resizeArea(noise, 16, 16).planes[0])).to.be.closeTo(mean(noise.planes[0]), 1e-6);
  });
});
