import { Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { KERNELS, type Kernels } from '../../src/kernels/kernels.ts';
import { BENT, CELL_KINDS, type LayeredNoise } from '../../src/kernels/noise-layers/reference.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';
import { finer, latticeOf } from '../../src/lattice/lattice.ts';
import { BLEND_MODES, BLEND_NAMES } from '../../src/stations/coats/blend/modes.ts';
import { blendColour } from '../../src/stations/coats/blend/over.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { farthest, noisePlane } from '../fields.ts';

/** How far a twin may be off, of values about 1. */
const TOLERANCE = 3e-6;
/** Beside a step of a rule, rounding decides on which side a value is, and a quotient of small numbers swells it. */
const QUOTIENT = 2e-4;

const seed = fc.integer({ min: 1, max: 1e6 });
const count = fc.integer({ min: 2, max: 300 });
const one = fc.float({ min: 0, max: 1, noNaN: true }).map((value) => Float32Array.of(value));
const both = <T>(by: (k: Kernels) => T): [T, T] => [by(KERNELS), by(REFERENCE)];
const shares = (length: number, of: number) =>
  noisePlane(length, of).map((value) => Math.min(1, Math.max(0, 0.5 + 0.4 * value)));

describe('twins of the kernels of coats', () => {
  for (const name of BLEND_NAMES) {
    it(`blend alike by ${name}, encoded or not, planes or single values above, whatever is covered`, () => {
      const mode = BLEND_MODES[name];
      fc.assert(
        fc.property(
          ...[count, seed, fc.boolean(), fc.option(one), fc.option(one)],
          (length, of, isEncoded, above, cover) => {
            const over = [1, 2, 3].map((k) => above ?? shares(length, of + k));
            const share = cover ?? shares(length, of + 4);
            const [a, b] = both((k) => {
              const below = [5, 6, 7].map((n) => shares(length, of + n));
              k.blendPlanes(below, over, share, mode, isEncoded);
              return below;
            });
            const most = name === 'divide' || name === 'dodge' || name === 'burn' ? QUOTIENT : TOLERANCE * 10;
            for (let c = 0; c < 3; c++) expect(farthest(a[c], b[c])).to.be.below(most);
          },
        ),
        { numRuns: 40 },
      );
    });
  }

  it('leave what is not covered as it is, to the bit, more than a block of it', async () => {
    const length = 2 ** 16 + 5;
    const below = new Raster(
      length,
      1,
      [1, 2, 3].map((k) => shares(length, k)),
    );
    const before = below.planes.map((plane) => plane.slice());
    const cover = new Float32Array(length);
    cover[length - 1] = 1;
    await blendColour(below, [0, 0, 0], cover, 'multiply', false, PLAIN_CONTEXT);
    for (let c = 0; c < 3; c++) {
      expect(below.planes[c].subarray(0, length - 1)).to.deep.equal(before[c].subarray(0, length - 1));
      expect(below.planes[c][length - 1]).to.be.below(1e-3);
    }
  });

  it('combine and level covers alike', () => {
    const how = fc.constantFrom('and', 'or', 'without') as fc.Arbitrary<'and' | 'or' | 'without'>;
    fc.assert(
      fc.property(count, seed, how, fc.option(one), (length, of, by, single) => {
        const own = single ?? shares(length, of);
        const [a, b] = both((k) => {
          const cover = shares(length, of + 1);
          k.combineCovers(cover, own, by);
          k.levelPlane(cover, 0.4, -3);
          return cover;
        });
        expect(farthest(a, b)).to.be.below(TOLERANCE);
      }),
    );
  });

  it('blend heights alike by every rule', () => {
    const rule = fc.constantFrom('add', 'raise', 'lower', 'replace') as fc.Arbitrary<'add' | 'raise'>;
    fc.assert(
      fc.property(count, seed, rule, fc.option(one), fc.option(one), (length, of, by, above, cover) => {
        const [a, b] = both((k) => {
          const below = noisePlane(length, of);
          k.blendHeight(below, above ?? noisePlane(length, of + 1), cover ?? shares(length, of + 2), by, 0.3);
          return below;
        });
        expect(farthest(a, b)).to.be.below(TOLERANCE);
      }),
    );
  });

  it('look values up alike, beyond the ends as well', () => {
    fc.assert(
      fc.property(count, seed, fc.integer({ min: 1, max: 40 }), (length, of, entries) => {
        const values = noisePlane(length, of).map((value) => 0.5 + value);
        values[0] = 1;
        const tables = [1, 2].map((k) => shares(entries + 1, of + k));
        const [a, b] = both((k) => k.lookUp(values, tables));
        for (const c of [0, 1]) expect(farthest(a[c], b[c])).to.be.below(TOLERANCE * 10);
        expect(a[0][0]).to.equal(tables[0][entries]);
      }),
    );
  });

  it('add slopes of normals alike', () => {
    fc.assert(
      fc.property(count, seed, (length, of) => {
        const normals = (k: number) => {
          const [x, y] = [k, k + 1].map((n) => noisePlane(length, n));
          const size = x.map((value, i) => Math.hypot(value, y[i], 1));
          return [
            x.map((value, i) => value / size[i]),
            y.map((value, i) => value / size[i]),
            size.map((s) => 1 / s),
          ];
        };
        const base = normals(of);
        const [a, b] = both((k) => {
          const added = normals(of + 2);
          k.addSlopes(base, added);
          return added;
        });
        for (let c = 0; c < 3; c++) expect(farthest(a[c], b[c])).to.be.below(TOLERANCE);
      }),
    );
  });

  it('draw gradient and cellular noise to the bit', () => {
    const entry = fc.integer({ min: 1, max: 9 });
    const place = fc.double({ min: -3, max: 3, noNaN: true });
    const measures = ['first', 'second', 'between', 'value'] as const;
    fc.assert(
      fc.property(entry, entry, seed, place, place, (across, down, of, x, y) => {
        const lattice = latticeOf(across, 1, -2, down);
        const xs = Float64Array.from({ length: 60 }, (_, k) => x + 0.07 * k);
        const ys = Float64Array.from({ length: 60 }, (_, k) => y - 0.03 * k);
        const drawn = (draw: (k: Kernels, out: Float64Array) => void) =>
          both((k) => {
            const out = new Float64Array(60);
            draw(k, out);
            return out;
          });
        const [a, b] = drawn((k, out) => k.gradientNoise(lattice, of, xs, ys, 2, out));
        expect(a).to.deep.equal(b);
        for (const measure of measures) {
          const [c, d] = drawn((k, out) => k.cellNoise(lattice, of, xs, ys, 2, measure, out));
          expect(c, measure).to.deep.equal(d);
        }
      }),
    );
  });

  it('sum layers of noise of every kind to the bit', () => {
    const kinds = [...Object.keys(BENT), ...Object.keys(CELL_KINDS)] as LayeredNoise[];
    const octaves = fc.integer({ min: 1, max: 4 });
    fc.assert(
      fc.property(fc.constantFrom(...kinds), octaves, count, seed, (kind, layers, length, of) => {
        const lattice = latticeOf(3, 1, -2, 4);
        const xs = Float64Array.from({ length }, (_, k) => 0.3 + 0.11 * k);
        const ys = Float64Array.from({ length }, (_, k) => 1.7 - 0.02 * k);
        const all = Array.from({ length: layers }, (_, k) => ({
          lattice: finer(lattice, 2 ** k),
          seed: of + k,
          times: 2 ** k,
          weight: 0.6 / (k + 1),
        }));
        const [a, b] = both((k) => {
          const out = new Float32Array(length).fill(9);
          k.noiseLayers(kind, all, xs, ys, out);
          return out;
        });
        expect(a).to.deep.equal(b);
        expect(Math.min(...a)).to.be.at.least(0);
        expect(new Set(a).size).to.be.above(kind === 'cell-values' ? 0 : 1);
      }),
    );
  });
});
