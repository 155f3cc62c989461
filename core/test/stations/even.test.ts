import { drift, luminance, mean, Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane, planeOf, rmsBetween } from '../fields.ts';
import { frameOf, runStation } from './run.ts';

const size = 256;
const light = (x: number, y: number) => {
  const u = (2 * (x + 0.5)) / size - 1;
  const v = (2 * (y + 0.5)) / size - 1;
  return 0.25 * u - 0.15 * v - 0.12 * (u * u + v * v) + 0.05 * u * v;
};
const surface = noisePlane(size * size, 6).map((v) => 0.2 + 0.15 * v);
const lit = (at: (x: number, y: number) => number, base: Float32Array = surface) => {
  const plane = planeOf(size, size, (x, y) => base[y * size + x] * Math.exp(at(x, y)));
  return new Raster(size, size, [plane, plane.map((v) => 0.9 * v), plane.map((v) => 0.7 * v)]);
};
const inputOf = (picture: Raster) => ({
  picture,
  alpha: null,
  given: {},
  margins: { left: 0, right: 0, top: 0, bottom: 0 },
  cropPixels: size,
  outside: 0,
});
const run = async (picture: Raster, changes = {}) =>
  (await runStation('even', inputOf(picture), changes, frameOf(size))).output.picture as Raster;

/** RMS over blocks of the log of result ÷ truth, its mean aside: the light that is left. */
function leftOver(result: Raster, truth: Float32Array): number {
  const n = 16;
  const step = size / n;
  const logs: number[] = [];
  for (let j = 0; j < n; j++) {
    for (let i = 0; i < n; i++) {
      let a = 0;
      let b = 0;
      for (let y = j * step; y < (j + 1) * step; y++) {
        for (let x = i * step; x < (i + 1) * step; x++) {
          a += result.planes[0][y * size + x];
          b += truth[y * size + x];
        }
      }
      logs.push(Math.log(a / b));
    }
  }
  const centre = mean(logs);
  return Math.sqrt(mean(logs.map((v) => (v - centre) ** 2)));
}

describe('even', () => {
  it('takes known light out to under 0.01', async () => {
    const picture = lit(light);
    expect(leftOver(picture, surface)).to.be.above(0.1);
    expect(leftOver(await run(picture), surface)).to.be.below(0.01);
  });

  it('is not bent by a big dark stain', async () => {
    const stained = planeOf(
      size,
      size,
      (x, y) => (Math.hypot(x - 70, y - 80) < 50 ? 0.3 : 1) * surface[y * size + x],
    );
    expect(leftOver(await run(lit(light, stained)), stained)).to.be.below(0.03);
  });

  it('leaves a picture without light alone', async () => {
    const picture = lit(() => 0);
    expect(rmsBetween((await run(picture)).planes[0], picture.planes[0])).to.be.below(3e-3);
  });

  it('amount 0 changes nothing, half takes half', async () => {
    const picture = lit(light);
    expect(await run(picture, { amount: 0 })).to.equal(picture);
    const whole = leftOver(picture, surface);
    expect(leftOver(await run(picture, { amount: 0.5 }), surface)).to.be.closeTo(whole / 2, 0.1 * whole);
  });

  it('takes coloured light out of each channel', async () => {
    const picture = lit(() => 0);
    const warm = new Raster(
      size,
      size,
      picture.planes.map((p, c) => p.map((v, i) => v * Math.exp((0.2 * (c - 1) * (i % size)) / size))),
    );
    const evened = await run(warm);
    const tint = (raster: Raster, x: number) => {
      const part = raster.cut(x, 0, 32, size);
      return mean(part.planes[2]) / mean(part.planes[0]);
    };
    expect(tint(warm, 224) / tint(warm, 0)).to.be.above(1.3);
    expect(tint(evened, 224) / tint(evened, 0)).to.be.closeTo(1, 0.03);
  });
});

describe('drift', () => {
  it('is the RMS of the broad light, not of the grain', () => {
    const { rms } = drift(luminance(lit(light)), size, size);
    let square = 0;
    const all = planeOf(size, size, light);
    const centre = mean(all);
    for (const v of all) square += (v - centre) ** 2;
    expect(rms).to.be.closeTo(Math.sqrt(square / all.length), 0.02);
    expect(drift(luminance(lit(() => 0)), size, size).rms).to.be.below(0.01);
  });

  it('knows what unlike stones give by chance: most layouts without light stay below it', () => {
    let below = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const tones = noisePlane(16, seed);
      const stones = planeOf(128, 128, (x, y) => 0.1 + 0.3 * tones[4 * (y >> 5) + (x >> 5)]);
      const { rms, chance } = drift(stones, 128, 128);
      if (rms <= chance) below++;
    }
    expect(below).to.be.at.least(30);
  });
});
