import { drift, luminance, mean, Raster, runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf, runStation, squared } from '../run.ts';

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
const run = async (picture: Raster, changes = {}) =>
  (await runStation('even', squared(picture), changes, frameOf(size))).output.picture as Raster;

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

describe('even, told apart', () => {
  const grey = (plane: Float32Array) => new Raster(size, size, [plane, plane, plane]);
  const meanOf = (plane: Float32Array, x: number, y: number, edge: number) =>
    mean(new Raster(size, size, [plane]).cut(x, y, edge, edge).planes[0]);

  it('a true patch of colour a quarter of the tile wide stays within three percent', async () => {
    const patch = (x: number, y: number) => x > 96 && x < 160 && y > 96 && y < 160;
    const planes = [1.2, 1, 0.8].map((tint) =>
      planeOf(size, size, (x, y) => surface[y * size + x] * (patch(x, y) ? tint : 1) * Math.exp(light(x, y))),
    );
    const result = await run(new Raster(size, size, planes));
    for (const [c, tint] of [1.2, 1, 0.8].entries()) {
      const inside = meanOf(result.planes[c], 104, 104, 48) / meanOf(surface, 104, 104, 48);
      const outside = meanOf(result.planes[c], 24, 104, 48) / meanOf(surface, 24, 104, 48);
      expect(inside / outside / tint).to.be.within(0.97, 1.03);
    }
  });

  for (const [name, at] of [
    ['a slope', (x: number) => (0.5 * x) / size],
    ['a vignette', (x: number, y: number) => -0.5 * (((x - 128) / 128) ** 2 + ((y - 128) / 128) ** 2)],
  ] as const) {
    it(`takes ${name} out to under 0.025`, async () => {
      expect(leftOver(await run(lit(at)), surface)).to.be.below(0.025);
    });
  }

  it('knows a surface of two tones, and makes it no worse', async () => {
    const halves = planeOf(size, size, (x, y) => surface[y * size + x] * (x + 0.3 * y < 150 ? 1 : 0.35));
    const input = squared(lit(() => 0, halves));
    const { output, decided } = await runStation('even', input, {}, frameOf(size));
    expect(decided.twoToned).to.equal(true);
    expect(leftOver(output.picture, halves)).to.be.below(0.03);
    const underLight = await runStation('even', squared(lit(light, halves)), {}, frameOf(size));
    expect(leftOver(underLight.output.picture, halves)).to.be.below(
      0.5 * leftOver(lit(light, halves), halves),
    );
    const plain = await runStation('even', squared(lit(light)), {}, frameOf(size));
    expect(plain.decided.twoToned).to.equal(false);
  });

  it('leaves the colour of the light where only its lightness is to go', async () => {
    const planes = [0.3, 0, -0.3].map((tint) =>
      planeOf(size, size, (x, y) => surface[y * size + x] * Math.exp((tint + 0.4) * (x / size))),
    );
    const kept = await run(new Raster(size, size, planes), { colour: 0 });
    const ratio = (raster: Raster, x: number) =>
      meanOf(raster.planes[0], x, 0, 48) / meanOf(raster.planes[2], x, 0, 48);
    const before = new Raster(size, size, planes);
    expect(ratio(kept, 200) / ratio(kept, 8)).to.be.closeTo(ratio(before, 200) / ratio(before, 8), 0.02);
    const brightness = (x: number) => meanOf(kept.planes[1], x, 0, 48) / meanOf(surface, x, 0, 48);
    expect(brightness(200) / brightness(8)).to.be.closeTo(1, 0.03);
  });

  it('the local amount takes out soft shades that the broad light leaves', async () => {
    const shade = (x: number, y: number) =>
      0.12 * Math.sin((2 * Math.PI * 2 * x) / size) * Math.sin((2 * Math.PI * 2 * y) / size);
    const broad = leftOver(await run(lit(shade)), surface);
    const local = leftOver(await run(lit(shade), { local: 1 }), surface);
    expect(local).to.be.below(0.75 * broad);
  });

  it('lifts darks and holds lights apart, about the middle, without turning tones round', async () => {
    const ramp = planeOf(size, size, (x) => 0.02 * 40 ** (x / size));
    const picture = grey(ramp);
    const middle = Math.sqrt(0.02 * 0.02 * 40);
    const lifted = (await run(picture, { amount: 0, liftDarks: 1 })).planes[0].subarray(0, size);
    const held = (await run(picture, { amount: 0, holdLights: 1 })).planes[0].subarray(0, size);
    expect(lifted[0]).to.be.above(2 * ramp[0]);
    expect(held[0]).to.equal(ramp[0]);
    expect(held[size - 1]).to.be.below(0.5 * ramp[size - 1]);
    expect(lifted[size - 1]).to.equal(ramp[size - 1]);
    for (const line of [lifted, held]) {
      for (let x = 1; x < size; x++) expect(line[x]).to.be.above(line[x - 1]);
      expect(line[size / 2]).to.be.closeTo(middle, 0.03 * middle);
    }
  });
});

describe('drift', () => {
  it('is the RMS of the broad light, not of the grain', () => {
    const { rms } = runToEnd(drift(luminance(lit(light)), size, size));
    let square = 0;
    const all = planeOf(size, size, light);
    const centre = mean(all);
    for (const v of all) square += (v - centre) ** 2;
    expect(rms).to.be.closeTo(Math.sqrt(square / all.length), 0.02);
    expect(runToEnd(drift(luminance(lit(() => 0)), size, size)).rms).to.be.below(0.01);
  });

  it('knows what unlike stones give by chance: most layouts without light stay below it', () => {
    let below = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const tones = noisePlane(16, seed);
      const stones = planeOf(128, 128, (x, y) => 0.1 + 0.3 * tones[4 * (y >> 5) + (x >> 5)]);
      const { rms, chance } = runToEnd(drift(stones, 128, 128));
      if (rms <= chance) below++;
    }
    expect(below).to.be.at.least(30);
  });
});
