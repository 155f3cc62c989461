import { Raster, runToEnd, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { KERNELS, type Kernels } from '../../src/kernels/kernels.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';
import type { Edges } from '../../src/raster/edges.ts';
import { GRADIENT_KERNELS } from '../../src/raster/gradient.ts';
import { farthest, noisePlane } from '../fields.ts';

/** How far a twin may be off, of values about 1. */
const TOLERANCE = 3e-6;
/** A colour that goes to OKLab and back is raised to the third power there. */
const CUBED = 1e-5;
/**
 * A colour that lies on the border of the gamut, within rounding, is kept by one twin and brought in by the other, which
 * halves its way there twelve times.
 */
const BROUGHT_IN = 2 ** -12;

const edge = fc.constantFrom('wrap', 'mirror') as fc.Arbitrary<Edges['x']>;
const edges = fc.record({ x: edge, y: edge });
const side = fc.integer({ min: 4, max: 60 });
const seed = fc.integer({ min: 1, max: 1e6 });

const values = (count: number, of: number) => noisePlane(count, of).map((value) => 0.5 + 0.3 * value);
const both = <T>(by: (k: Kernels) => T): [T, T] => [by(KERNELS), by(REFERENCE)];

describe('twins of kernels', () => {
  it('transform complex planes of any two sides alike, and to the last places of 64 bits', () => {
    const power = fc.integer({ min: 1, max: 7 }).map((k) => 2 ** k);
    fc.assert(
      fc.property(power, power, seed, (width, height, of) => {
        const [re, im] = [of, of + 1].map((k) => new Float64Array(noisePlane(width * height, k)));
        const [a, b] = both((k) => runToEnd(k.fourier({ width, height, re, im })));
        expect(farthest(a.re, b.re)).to.be.below(1e-11);
        expect(farthest(a.im, b.im)).to.be.below(1e-11);
      }),
      { numRuns: 40 },
    );
  });

  it('see the same horizons in every direction, far and near, with and without a bias, for any rows', () => {
    fc.assert(
      fc.property(
        side,
        seed,
        fc.constantFrom(-1, -0.5, 0, 0.5, 1),
        fc.constantFrom(-1, 1) as fc.Arbitrary<-1 | 1>,
        fc.integer({ min: 1, max: 30 }),
        edges,
        fc.constantFrom(0, 0.2),
        (size, of, slope, down, radius, at, bias) => {
          const field = noisePlane(size * size, of).map((value) => 3 * value);
          const looking = {
            directions: [
              { down, slope, share: 0.25 },
              { down: 1 as const, slope: 0, share: 0.1 },
            ],
            ...{ radius: Math.min(radius, size / 2), bias, edges: at },
          };
          const rows = { from: of % 4, to: size - (of % 3) };
          if (rows.from >= rows.to) return;
          const [a, b] = both((k) => k.sweepHorizons(field, size, looking, rows));
          expect(a.length).to.equal(size * (rows.to - rows.from));
          expect(farthest(a, b)).to.be.below(TOLERANCE);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('price the same cut and find the same way, cyclic or not, within a band or not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 8, max: 50 }),
        side,
        seed,
        fc.boolean(),
        fc.boolean(),
        (width, length, of, cyclic, banded) => {
          const copy = (from: number) => [0, 1, 2].map((c) => values(width * length, from + c));
          const strip = { width, length, a: copy(of), b: copy(of + 3) };
          const [a, b] = both((k) => k.cutCosts(strip));
          expect(farthest(a.upright, b.upright)).to.be.below(5 * TOLERANCE);
          expect(farthest(a.level, b.level)).to.be.below(5 * TOLERANCE);
          const [low, high] = [2, width - 2];
          const rows = cyclic ? 2 * length : length;
          const allowed = new Uint8Array((width + 1) * (rows + 1)).map((_, i) => Number(i % (width + 1) > 3));
          const search = {
            ...{ width, length, low, high, rows },
            from: [4, 5, 6],
            to: cyclic ? 5 : null,
            ...(banded ? { allowed } : {}),
          };
          const [way, plain] = both((k) => k.searchCut(b, search));
          expect([...way]).to.deep.equal([...plain]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('say alike that there is no way', () => {
    const costs = { upright: new Float32Array(64).fill(1), level: new Float32Array(64).fill(1) };
    const search = { width: 8, length: 8, low: 1, high: 7, rows: 8, from: [3], to: null };
    const ways = both((k) => k.searchCut(costs, { ...search, allowed: new Uint8Array(9 * 9) }).length);
    expect(ways).to.deep.equal([0, 0]);
  });

  it('blend alike, band by band', () => {
    fc.assert(
      fc.property(
        side,
        side,
        seed,
        fc.integer({ min: 1, max: 4 }),
        edges,
        (width, height, of, levels, at) => {
          const [a, b] = [values(width * height, of), values(width * height, of + 1)];
          const masks = Array.from({ length: levels + 1 }, (_, k) => values(width * height, of + 2 + k));
          const [one, other] = both((k) => k.blendChannel(a, b, width, height, masks, at));
          expect(farthest(one, other)).to.be.below(TOLERANCE);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('make the same normals with every derivative, either way up', () => {
    fc.assert(
      fc.property(
        side,
        side,
        seed,
        fc.constantFrom(...GRADIENT_KERNELS),
        fc.constantFrom('up' as const, 'down' as const),
        edges,
        (width, height, of, kernel, normalY, at) => {
          const field = values(width * height, of);
          const [a, b] = both((k) =>
            runToEnd(k.makingNormals(field, { width, height }, 0.05, 1.3, kernel, normalY, at)),
          );
          for (let c = 0; c < 3; c++) expect(farthest(a.planes[c], b.planes[c])).to.be.below(TOLERANCE);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('encode sRGB alike: below 0, above 1, what is no number, and everything between', () => {
    const odd = [-1, 0, 1, 2, Number.NaN, Number.POSITIVE_INFINITY, 1e-8, 0.0031308, 0.0031309];
    const plane = Float32Array.from([...odd, ...values(1000, 3), ...values(99, 4).map((v) => v / 300)]);
    const [a, b] = both((k) => k.encodeSrgbPlane(plane));
    expect(farthest(a, b)).to.be.below(TOLERANCE);
    expect([...a.subarray(0, 6)]).to.deep.equal([0, 0, 1, 1, 0, 1]);
  });

  it('go to OKLab alike, for negative light too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 70 }), seed, (count, of) => {
        const planes = [0, 1, 2].map((c) => noisePlane(count, of + c));
        const [a, b] = both((k) => k.oklabPlanes(planes));
        for (let c = 0; c < 3; c++) expect(farthest(a[c], b[c])).to.be.below(TOLERANCE);
      }),
      { numRuns: 60 },
    );
  });

  it('take the same tone and colour, also where they leave the gamut, are black or are laid over', () => {
    const tone = fc.record({
      gain: fc.double({ min: 0.2, max: 4, noNaN: true }),
      contrast: fc.constantFrom(1, 0.7, 1.4),
      pivot: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
      hold: fc.constantFrom(null, [0.03, 0.8] as [number, number]),
    });
    const plain = { strength: 1, hueDegrees: 0, towards: '#808080', pull: 0 };
    const colour = fc.constantFrom(plain, { strength: 1.3, hueDegrees: 25, towards: '#c0a040', pull: 0.3 });
    fc.assert(
      fc.property(
        side,
        side,
        seed,
        tone,
        colour,
        fc.boolean(),
        (width, height, of, how, recolour, covers) => {
          const count = width * height;
          const black = (plane: Float32Array) =>
            plane.map((value, i) => (i % 17 === 0 ? 0 : Math.max(0, value)));
          const picture = new Raster(
            width,
            height,
            [0, 1, 2].map((c) => black(values(count, of + c))),
          );
          const cover = covers
            ? values(count, of + 4).map((value) => (value > 0.5 ? Math.min(1, value) : 0))
            : null;
          const [a, b] = both((k) => {
            const under = [5, 6, 7].map((c) => values(count, of + c));
            const out = new Raster(width, height, under);
            k.toneBlock(picture, out, how, recolour, 1, count - 1, cover);
            return out.planes;
          });
          for (let c = 0; c < 3; c++) {
            expect(farthest(a[c], b[c])).to.be.below(BROUGHT_IN);
            const onBorder = a[c].filter((value, i) => Math.abs(value - b[c][i]) >= CUBED);
            expect(onBorder.length).to.be.at.most(1);
          }
        },
      ),
      { numRuns: 80 },
    );
  });

  it('sum planes alike, held to a range, and into one of them', () => {
    const count = fc.integer({ min: 1, max: 300 });
    const weight = fc.double({ min: -2, max: 2, noNaN: true });
    const ranges = fc.constantFrom({}, { base: 0.5 }, { base: -0.2, low: 0, high: 1 });
    fc.assert(
      fc.property(
        count,
        fc.array(weight, { minLength: 1, maxLength: 6 }),
        seed,
        ranges,
        (n, by, of, range) => {
          const planes = by.map((_, k) => values(n, of + k));
          const [a, b] = both((k) => k.sumPlanes(planes, by, range));
          expect(farthest(a, b)).to.be.below(2 * TOLERANCE);
          const own = planes.map((plane) => plane.slice());
          expect(KERNELS.sumPlanes(own, by, range, own[0])).to.equal(own[0]);
          expect([...own[0]]).to.deep.equal([...a]);
        },
      ),
      { numRuns: 60 },
    );
    // More than goes through at once.
    const long = values(2 ** 16 + 7, 5);
    const [a, b] = both((k) => k.sumPlanes([long, long], [1, -0.5]));
    expect(farthest(a, b)).to.be.below(TOLERANCE);
  });

  it('bring a plane up to another alike', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), seed, (count, of) => {
        const [a, b] = both((k) => {
          const plane = noisePlane(count, of);
          k.raisePlane(plane, noisePlane(count, of + 1));
          return plane;
        });
        expect(farthest(a, b)).to.equal(0);
      }),
    );
  });

  it('read the same slopes from normals as they ship, green up and down', () => {
    // No value lies where two codes meet: there the last place of a float decides.
    const near = (count: number, of: number) =>
      noisePlane(count, of).map((v, i) => (2 * (((37 * i + of) % 256) + 0.4 * v)) / 255 - 1);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), seed, fc.constantFrom(-1, 1), (count, of, green) => {
        const planes = [0, 1, 2].map((c) => near(count, of + c));
        const [a, b] = both((k) => k.shippedSlopes(planes, green as 1 | -1));
        for (const c of [0, 1]) expect(farthest(a[c], b[c]) / 50).to.be.below(TOLERANCE);
      }),
    );
  });

  it('take logarithms alike, below 0 too', () => {
    const plane = Float32Array.from([-1, 0, 1e-7, 0.01, 1, 900, ...values(2 ** 16, 3)]);
    const [a, b] = both((k) => k.logPlane(plane, 0.01));
    expect(farthest(a, b)).to.be.below(TOLERANCE);
    expect(b[0]).to.be.closeTo(Math.log(0.01), 1e-6);
  });

  it('divide the same light out, with a shade and without, at any width', () => {
    const term = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        side,
        side,
        seed,
        fc.array(term, { minLength: 3, maxLength: 3 }),
        fc.boolean(),
        (width, rows, of, t, shaded) => {
          const from = values(width * rows, of);
          const terms = Float32Array.from({ length: 3 * rows }, (_, i) => t[i % 3] + i / 300);
          const light = { width, terms, start: -1.2, step: 2.4 / width };
          const shade = shaded ? noisePlane(width * rows, of + 1) : null;
          const [a, b] = both((k) => {
            const out = new Float32Array(from.length);
            k.divideRows(from, out, light, shade);
            return out;
          });
          // Values up to e⁴: the last places of 32 bits.
          expect(farthest(a.map(Math.log1p), b.map(Math.log1p))).to.be.below(2 * TOLERANCE);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('turn planes over alike and back to themselves, whole vectors or not', () => {
    fc.assert(
      fc.property(side, side, seed, (width, height, of) => {
        const plane = values(width * height, of);
        const [a, b] = both((k) => k.transposePlane(plane, width, height));
        expect([...a]).to.deep.equal([...b]);
        expect([...KERNELS.transposePlane(a, height, width)]).to.deep.equal([...plane]);
      }),
      { numRuns: 60 },
    );
    // More than is turned at once.
    const [width, height] = [2048, 516];
    const [a, b] = both((k) => k.transposePlane(values(width * height, 4), width, height));
    expect(farthest(a, b)).to.equal(0);
  });

  it('round to the same codes, of 8 and 16 bits, beyond 0..1 too', () => {
    const bits = fc.constantFrom(8 as const, 16 as const);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99 }),
        fc.constantFrom(1, 3, 4),
        bits,
        seed,
        (count, channels, of, from) => {
          const planes = Array.from({ length: channels }, (_, c) =>
            noisePlane(count, from + c).map((value, i) => (i % 5 === 0 ? (i % 7) / 6 : value)),
          );
          const [a, b] = both((k) => k.quantise(planes, of));
          expect([...a]).to.deep.equal([...b]);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('take the same values from codes of 8 and 16 bits, three or four a pixel', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 70000 }),
        fc.constantFrom(3, 4),
        fc.constantFrom(8, 16),
        seed,
        (count, channels, bits, of) => {
          const table = Float32Array.from({ length: 2 ** bits }, (_, code) => (code / 2 ** bits) ** 2.2);
          const codes = noisePlane(count * channels, of).map((value) => Math.floor(value * 2 ** bits));
          const data = bits === 8 ? Uint8Array.from(codes) : Uint16Array.from(codes);
          const [a, b] = both((k) => {
            const planes = [0, 1, 2].map(() => new Float32Array(count));
            k.takeCodes(data, channels, table, planes);
            return planes;
          });
          for (const c of [0, 1, 2]) expect(farthest(a[c], b[c])).to.equal(0);
          expect(a[2][count - 1]).to.equal(table[data[channels * (count - 1) + 2]]);
        },
      ),
      { numRuns: 12 },
    );
  });

  it('say alike how far a plane stands out from another, also where all of it is the same', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), seed, fc.boolean(), (count, of, isFlat) => {
        const [plane, other] = [of, of + 1].map((from) => values(count, from));
        const [a, b] = both((k) => k.standOut(plane, isFlat ? plane : other, 0.7, 0.001));
        expect(a.length).to.equal(count);
        for (let i = 0; i < count; i++) expect(a[i]).to.be.closeTo(b[i], 2e-5 * (1 + b[i]));
      }),
      { numRuns: 60 },
    );
  });

  it('give the screen the same pixels but for a code at a half, colour and data, of one plane or three', () => {
    const as = fc.constantFrom('colour' as const, { gain: 1, base: 0 }, { gain: 0.5, base: 0.5 });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99 }),
        fc.constantFrom(1, 3),
        as,
        seed,
        (count, channels, how, of) => {
          const planes = Array.from({ length: channels }, (_, c) => noisePlane(count, of + c));
          const [a, b] = both((k) => k.screenCodes(planes, how));
          expect(farthest(Float32Array.from(a), Float32Array.from(b))).to.be.at.most(1);
          for (let i = 3; i < a.length; i += 4) expect(a[i]).to.equal(255);
        },
      ),
      { numRuns: 60 },
    );
    // Every code by its own light, and colours in their order.
    const light = Float32Array.from({ length: 256 }, (_, code) => srgbToLinear(code / 255));
    for (const codes of both((k) =>
      k.screenCodes([light, light.slice().reverse(), light.map(() => 0)], 'colour'),
    )) {
      for (let i = 0; i < 256; i++)
        expect([...codes.subarray(4 * i, 4 * i + 4)]).to.deep.equal([i, 255 - i, 0, 255]);
    }
  });
});
