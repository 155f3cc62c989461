import { expect } from 'chai';
import fc from 'fast-check';
import { cellOf, latticeOf, nearestLattice, shapeOfLattice } from '../../src/lattice/lattice.ts';
import { NOISE_KINDS, type NoiseShape, noiseRow, snappedNoise } from '../../src/noise/noise.ts';

const TILE = { width: 512, height: 512, edgeMetres: 1 };
const SHAPE: NoiseShape = {
  kind: 'fractal',
  sizeMm: 90,
  octaves: 3,
  gain: 0.5,
  stretch: 1,
  degrees: 0,
  warp: 0,
  seed: 5,
};

const entry = fc.integer({ min: -7, max: 7 });
const place = fc.integer({ min: -50, max: 50 });

/** A noise as a function of one place. */
function noiseOf(shape: NoiseShape, tile: typeof TILE): (u: number, v: number) => number {
  const row = noiseRow(shape, tile);
  const out = new Float32Array(1);
  return (u, v) => {
    row(Float64Array.of(u), v, out, 0);
    return out[0];
  };
}

describe('noise on the torus', () => {
  it('names cells whole tiles apart alike, and all others differently, for any matrix', () => {
    fc.assert(
      fc.property(entry, entry, entry, entry, place, place, entry, entry, (a, b, c, d, x, y, m, n) => {
        fc.pre(a * d - b * c !== 0);
        const lattice = latticeOf(a, b, c, d);
        expect(lattice.row * lattice.rows).to.equal(Math.abs(a * d - b * c));
        // Tiles further on by (m, n).
        expect(cellOf(lattice, x + m * a + n * b, y + m * c + n * d)).to.equal(cellOf(lattice, x, y));
        const names = new Set<number>();
        for (let j = 0; j < lattice.rows; j++) {
          for (let i = 0; i < lattice.row; i++) names.add(cellOf(lattice, x + i, y + j));
        }
        expect(names.size).to.equal(lattice.row * lattice.rows);
        expect(Math.min(...names)).to.equal(0);
      }),
      { numRuns: 200 },
    );
    expect(() => latticeOf(1, 2, 2, 4)).to.throw('no area');
  });

  it('has cells near the size, stretch and direction that are asked for, and says which', () => {
    for (const degrees of [0, 17, 45, 80, -30]) {
      for (const stretch of [1, 2.5]) {
        const { size, ...found } = shapeOfLattice(
          nearestLattice({ size: 0.04, aspect: 1, stretch, degrees }),
          1,
        );
        expect(size).to.be.closeTo(0.04, 0.003);
        expect(found.stretch).to.be.closeTo(stretch, 0.15 * stretch);
        expect(found.degrees).to.be.closeTo(degrees, 3);
      }
    }
    // A tile twice as wide as high has twice as many cells across.
    const wide = { width: 512, height: 256, edgeMetres: 1 };
    const { sizeMm, degrees } = snappedNoise({ ...SHAPE, degrees: 45, sizeMm: 40 }, wide);
    expect(sizeMm).to.be.closeTo(40, 4);
    expect(degrees).to.be.closeTo(45, 4);
  });

  for (const kind of NOISE_KINDS) {
    it(`${kind}: one tile further on is the same to the bit, within 0 and 1, and other seeds differ`, () => {
      fc.assert(
        fc.property(
          fc.integer({ min: 0, max: 255 }),
          fc.integer({ min: 0, max: 255 }),
          fc.constantFrom(0, 30, -52),
          fc.constantFrom(1, 3),
          fc.constantFrom(0, 0.5),
          (i, j, degrees, stretch, warp) => {
            const noise = noiseOf({ ...SHAPE, kind, degrees, stretch, warp }, TILE);
            const [u, v] = [i / 256, j / 256];
            const value = noise(u, v);
            expect(value).to.be.within(0, 1);
            // Displaced or read through a sine, places are no longer exact.
            if (kind === 'directional' || warp > 0) {
              expect(noise(u + 1, v - 2)).to.be.closeTo(value, 1e-9);
            } else expect(noise(u + 1, v - 2)).to.equal(value);
          },
        ),
        { numRuns: 60 },
      );
      const at = (seed: number) =>
        Array.from({ length: 64 }, (_, k) => noiseOf({ ...SHAPE, kind, seed }, TILE)(k / 64, (k * k) / 91));
      expect(at(5)).to.deep.equal(at(5));
      expect(at(5)).to.not.deep.equal(at(6));
      expect(Math.max(...at(5)) - Math.min(...at(5))).to.be.above(0.15);
    });

    it(`${kind}: shows the same at any size`, () => {
      const noise = noiseOf({ ...SHAPE, kind, octaves: 2 }, TILE);
      const SMALL = 64;
      const TIMES = 4;
      let off = 0;
      for (let y = 0; y < SMALL; y++) {
        for (let x = 0; x < SMALL; x++) {
          let mean = 0;
          for (let j = 0; j < TIMES; j++) {
            for (let i = 0; i < TIMES; i++) {
              const share = (k: number, fine: number) => (TIMES * k + fine + 0.5) / (TIMES * SMALL);
              mean += noise(share(x, i), share(y, j)) / TIMES ** 2;
            }
          }
          off += Math.abs(mean - noise((x + 0.5) / SMALL, (y + 0.5) / SMALL)) / SMALL ** 2;
        }
      }
      expect(off).to.be.below(kind === 'directional' || kind === 'cell-values' ? 0.06 : 0.03);
    });
  }

  it('displaces by its warp and weighs octaves by their gain', () => {
    const plain = noiseOf(SHAPE, TILE)(0.3, 0.7);
    expect(noiseOf({ ...SHAPE, warp: 0.7 }, TILE)(0.3, 0.7)).to.not.equal(plain);
    const coarse = noiseOf({ ...SHAPE, octaves: 1 }, TILE)(0.3, 0.7);
    expect(noiseOf({ ...SHAPE, gain: 1e-9 }, TILE)(0.3, 0.7)).to.be.closeTo(coarse, 1e-6);
  });
});
