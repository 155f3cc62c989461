import {
  edgeIndex,
  fft2,
  histogram,
  histogramPercentiles,
  inverseFft2,
  mean,
  percentiles,
  Raster,
  realSpectra,
  resizeArea,
  resizeLanczos,
  roll,
  rollPlane,
  runToEnd,
  sampleBilinear,
  statistics,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { rollInPlace } from '../../src/raster/roll.ts';
import { farthest, noisePlane, planeOf, rmsBetween } from '../fields.ts';

describe('raster', () => {
  it('refuses sizes and planes that do not fit', () => {
    expect(() => new Raster(0, 4, [])).to.throw(RangeError);
    expect(() => new Raster(2.5, 4, [])).to.throw(RangeError);
    expect(() => new Raster(2, 2, [new Float32Array(3)])).to.throw(RangeError);
    expect(() => Raster.filled(4, 4, 1).cut(2, 0, 3, 1)).to.throw(RangeError);
  });

  it('cuts out the rectangle that was asked for', () => {
    const raster = new Raster(4, 3, [planeOf(4, 3, (x, y) => 10 * y + x)]);
    expect([...raster.cut(1, 1, 2, 2).planes[0]]).to.deep.equal([11, 12, 21, 22]);
  });

  it('reads beyond an edge: the other side, or the mirror image with the border repeated', () => {
    expect([-1, -5, 4, 9].map((i) => edgeIndex(i, 4, 'wrap'))).to.deep.equal([3, 3, 0, 1]);
    expect([-1, -2, 4, 5, 8].map((i) => edgeIndex(i, 4, 'mirror'))).to.deep.equal([0, 1, 3, 2, 0]);
  });

  it('rolls by any whole shift and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }), (dx, dy) => {
        const raster = new Raster(8, 6, [noisePlane(48)]);
        const there = roll(raster, dx, dy);
        expect(farthest(roll(there, -dx, -dy).planes[0], raster.planes[0])).to.equal(0);
        const x = edgeIndex(3 + dx, 8, 'wrap');
        const y = edgeIndex(2 + dy, 6, 'wrap');
        expect(there.planes[0][y * 8 + x]).to.equal(raster.planes[0][2 * 8 + 3]);
      }),
    );
  });

  it('samples bilinearly across the edge', () => {
    const plane = Float32Array.from([0, 1, 2, 3]);
    expect(sampleBilinear(plane, 4, 1, 3.5, 0, TORUS)).to.be.closeTo(1.5, 1e-6);
    expect(sampleBilinear(plane, 4, 1, 3.5, 0, { x: 'mirror', y: 'mirror' })).to.be.closeTo(3, 1e-6);
  });
});

describe('rolling in place', () => {
  it('is rolling into another plane, whichever way and however far', () => {
    const [width, height] = [13, 7];
    const planes = [noisePlane(width * height, 3), noisePlane(width * height, 4)];
    for (const [dx, dy] of [
      [0, 0],
      [3, 2],
      [-5, 6],
      [12, -1],
      [-30, 15],
    ]) {
      const raster = new Raster(
        width,
        height,
        planes.map((plane) => plane.slice()),
      );
      rollInPlace(raster, dx, dy);
      for (const c of [0, 1])
        expect([...raster.planes[c]]).to.deep.equal([...rollPlane(planes[c], width, height, dx, dy)]);
    }
  });
});

describe('statistics', () => {
  it('give mean, deviation and extremes', () => {
    const s = statistics(Float32Array.from([1, 2, 3, 4]));
    expect(s).to.deep.include({ mean: 2.5, min: 1, max: 4 });
    expect(s.deviation).to.be.closeTo(Math.sqrt(1.25), 1e-6);
  });

  it('stay exact for small spreads on large offsets', () => {
    const plane = noisePlane(10000).map((v) => 1000 + v);
    expect(statistics(plane).deviation).to.be.closeTo(Math.sqrt(1 / 12), 0.01);
  });

  it('percentiles are those of the sorted list, whatever stands in it and in whatever order they are asked for', () => {
    const value = fc.oneof(fc.integer({ min: -3, max: 3 }), fc.double({ min: -1, max: 1, noNaN: true }));
    fc.assert(
      fc.property(
        fc.array(value, { minLength: 1, maxLength: 60 }),
        fc.array(fc.double({ min: 0, max: 100, noNaN: true }), { maxLength: 5 }),
        (list, ranks) => {
          const before = [...list];
          const sorted = [...list].sort((a, b) => a - b);
          const asked = ranks.map((rank) => {
            const at = (rank / 100) * (list.length - 1);
            const low = sorted[Math.floor(at)];
            return low + (sorted[Math.ceil(at)] - low) * (at % 1);
          });
          expect(farthest(percentiles(list, ranks), asked)).to.be.below(1e-12);
          expect(list).to.deep.equal(before);
        },
      ),
    );
  });

  it('percentiles by histogram agree with those by sorting', () => {
    const plane = noisePlane(20000, 5).map((v) => v ** 3);
    const ranks = [0, 1, 10, 50, 90, 99, 100];
    const exact = percentiles(plane, ranks);
    const quick = histogramPercentiles(plane, ranks);
    expect(farthest(exact, quick)).to.be.below(2e-4);
  });

  it('a histogram counts every value once, outliers in the end bins', () => {
    const h = histogram(Float32Array.of(-1, 0, 0.1, 0.5, 0.99, 1, 7), 10, 0, 1);
    expect([...h.counts]).to.deep.equal([2, 1, 0, 0, 0, 1, 0, 0, 0, 3]);
    expect(() => histogram(Float32Array.of(1), 0, 0, 1)).to.throw(RangeError);
  });
});

describe('resize', () => {
  const wave = (size: number) =>
    new Raster(size, size, [
      planeOf(size, size, (x, y) => {
        const u = (x + 0.5) / size;
        const v = (y + 0.5) / size;
        return 0.5 + 0.3 * Math.sin(2 * Math.PI * 3 * u) * Math.cos(2 * Math.PI * 2 * v);
      }),
    ]);

  it('Lanczos keeps a smooth picture, up and down, without a shift', () => {
    for (const size of [48, 96, 150]) {
      const resized = resizeLanczos(wave(64), size, size, TORUS);
      expect(rmsBetween(resized.planes[0], wave(size).planes[0]), `${size}`).to.be.below(3e-3);
    }
  });

  it('Lanczos takes out what a smaller picture cannot hold', () => {
    const fine = new Raster(128, 128, [planeOf(128, 128, (x) => (x % 2 ? 1 : 0))]);
    expect(statistics(resizeLanczos(fine, 32, 32, TORUS).planes[0]).deviation).to.be.below(5e-3);
  });

  it('area resize keeps the mean exactly and overshoots nowhere', () => {
    const raster = new Raster(90, 90, [noisePlane(8100)]);
    const small = resizeArea(raster, 37, 53);
    expect(mean(small.planes[0])).to.be.closeTo(mean(raster.planes[0]), 1e-6);
    const { min, max } = statistics(
      resizeArea(new Raster(4, 1, [Float32Array.from([0, 0, 1, 1])]), 3, 1).planes[0],
    );
    expect([min, max]).to.deep.equal([0, 1]);
  });
});

describe('FFT', () => {
  it('goes there and back', () => {
    const re = Float64Array.from(noisePlane(16 * 32));
    const back = runToEnd(
      inverseFft2(runToEnd(fft2({ width: 16, height: 32, re, im: new Float64Array(16 * 32) }))),
    );
    expect(farthest(back.re, re)).to.be.below(1e-12);
    expect(farthest(back.im, new Float64Array(16 * 32))).to.be.below(1e-12);
  });

  it('finds one wave in the one place it belongs', () => {
    const plane = planeOf(32, 16, (x, y) => Math.cos((2 * Math.PI * (5 * x + 2 * y)) / 32));
    const [spectrum] = runToEnd(realSpectra(plane, null, 32, 16));
    const strength = spectrum.re.map((r, i) => Math.hypot(r, spectrum.im[i]));
    const found = [...strength].map((s, i) => [s, i] as const).filter(([s]) => s > 1);
    expect(found.map(([, i]) => [i % 32, Math.floor(i / 32)])).to.deep.equal([
      [5, 1],
      [27, 15],
    ]);
  });

  it('takes two real planes in one transform', () => {
    const a = noisePlane(256, 1);
    const b = noisePlane(256, 2);
    const [both, second] = runToEnd(realSpectra(a, b, 16, 16));
    const [alone] = runToEnd(realSpectra(a, null, 16, 16));
    const [aloneB] = runToEnd(realSpectra(b, null, 16, 16));
    expect(farthest(both.re, alone.re)).to.be.below(1e-5);
    expect(farthest(second!.im, aloneB.im)).to.be.below(1e-5);
  });

  it('refuses sizes that are no powers of two', () => {
    const plane = { width: 12, height: 16, re: new Float64Array(192), im: new Float64Array(192) };
    expect(() => fft2(plane)).to.throw(RangeError, /12/);
  });
});
