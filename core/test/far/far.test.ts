import { type FarLook, farField, luminance, mipChain, Raster, statistics } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane, planeOf } from '../fields.ts';

const size = 64;
const noise = (seed = 3) =>
  new Raster(
    size,
    size,
    [1, 2, 3].map((k) => noisePlane(size * size, seed + k).map((v) => 0.3 + 0.1 * v)),
  );
const above = (repeats: number, width = 128, filter: FarLook['filter'] = 'mips'): FarLook => ({
  width,
  height: width,
  from: { above: repeats },
  moved: [0, 0],
  filter,
});
const along = (filter: FarLook['filter'], moved: [number, number] = [0, 0]): FarLook => ({
  width: 96,
  height: 96,
  from: { eye: 1.5, downDegrees: 12 },
  moved,
  filter,
});
const deviation = (plane: Float32Array, ground: Float32Array) =>
  statistics(Float32Array.from(plane.filter((_, i) => ground[i] === 1))).deviation;

describe('a far field', () => {
  it('mips keep the mean of the tile, in linear light, down to one pixel; a 2:1 tile too', () => {
    for (const tile of [noise(), new Raster(8, 4, [noisePlane(32, 1)])]) {
      const chain = mipChain(tile);
      const last = chain[chain.length - 1];
      expect([last.width, last.height]).to.deep.equal([1, 1]);
      for (const [c, plane] of tile.planes.entries())
        expect(last.planes[c][0]).to.be.closeTo(statistics(plane).mean, 1e-5);
    }
  });

  it('from above at whole halves shows just that mip', () => {
    const chain = mipChain(noise());
    // 8 repeats over 128 px are 16 px each: the third mip is 8 px, the second 16.
    const out = farField(chain, above(8));
    const mip = chain[2];
    for (const [x, y] of [
      [0, 0],
      [5, 9],
      [100, 31],
    ]) {
      expect(out.planes[1][y * 128 + x]).to.be.closeTo(mip.planes[1][(y % 16) * 16 + (x % 16)], 1e-6);
    }
  });

  it('a field as far as one pixel a tile is one even grey, its mean; without mips it is noise', () => {
    const tile = noise();
    const even = farField(mipChain(tile), above(128));
    const { mean, deviation: spread } = statistics(even.planes[0]);
    expect(mean).to.be.closeTo(statistics(tile.planes[0]).mean, 1e-5);
    expect(spread).to.be.below(1e-6);
    const none = farField(mipChain(tile), { ...above(125), filter: 'none' });
    expect(statistics(none.planes[0]).deviation).to.be.above(0.02);
  });

  it('grazing, eight looks stay sharper than plain mips, and both are calmer than none', () => {
    const rows = new Raster(size, size, [planeOf(size, size, (x) => ((x >> 2) % 2 ? 0.8 : 0.1))]);
    const chain = mipChain(rows);
    const [none, mips, eight] = (['none', 'mips', 'eight'] as const).map((filter) => {
      const { planes } = farField(chain, along(filter));
      return deviation(planes[0], planes[1]);
    });
    expect(eight).to.be.above(1.1 * mips);
    expect(none).to.be.above(eight);
  });

  it('moving by a sixteenth of a texel shimmers without mips, and hardly with them', () => {
    const chain = mipChain(noise());
    const change = (filter: FarLook['filter']) => {
      const a = luminance(new Raster(96, 96, farField(chain, along(filter)).planes.slice(0, 3)));
      const b = luminance(
        new Raster(96, 96, farField(chain, along(filter, [1 / 16 / size, 1 / 16 / size])).planes.slice(0, 3)),
      );
      return Math.sqrt(a.reduce((sum, v, i) => sum + (v - b[i]) ** 2, 0) / a.length);
    };
    expect(change('none')).to.be.above(4 * change('mips'));
  });

  it('moving by a whole tile changes nothing, and above the horizon there is no ground', () => {
    const chain = mipChain(noise());
    const here = farField(chain, along('mips'));
    const there = farField(chain, along('mips', [3, -2]));
    for (let i = 0; i < here.planes[0].length; i++)
      expect(there.planes[0][i]).to.be.closeTo(here.planes[0][i], 1e-4);
    expect(here.planes[3][0]).to.equal(0);
    expect(here.planes[3][95 * 96]).to.equal(1);
  });
});
