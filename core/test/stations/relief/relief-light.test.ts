import {
  adviceOf,
  defaultsOf,
  gaussian,
  luminance,
  PLAIN_CONTEXT,
  Raster,
  runToEnd,
  STATIONS,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { polarityEvidence } from '../../../src/stations/relief/evidence.ts';
import { greyOf } from '../../../src/stations/relief/grey.ts';
import { fromAbove, slantHeight } from '../../../src/stations/relief/slant.ts';
import { correlation, noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const N = 256;
const SIDES = { width: N, height: N };
/** Stones on a torus: soft domes of several sizes. */
const stones = (() => {
  const spots = noisePlane(900, 21);
  return planeOf(N, N, (x, y) => {
    let height = 0;
    for (let k = 0; k < 220; k++) {
      const dx = Math.abs(x - N * spots[3 * k]);
      const dy = Math.abs(y - N * spots[3 * k + 1]);
      const r = 8 + 14 * spots[3 * k + 2];
      const d = Math.hypot(Math.min(dx, N - dx), Math.min(dy, N - dy)) / r;
      if (d < 1) height = Math.max(height, 6 * Math.sqrt(1 - d * d) * spots[3 * k + 2] + 1.5);
    }
    return height;
  });
})();
const soft = gaussian(stones, N, N, 1.5, TORUS);
const patches = gaussian(noisePlane(N * N, 31), N, N, 7, TORUS).map((v) => Math.exp(5 * (v - 0.5)));

/** The stones in patchy colour under light from so far round (clockwise from the top) and so high. */
function rendered(degrees: number, rise: number, colour = patches): Float32Array {
  const [turn, up] = [(degrees * Math.PI) / 180, (rise * Math.PI) / 180];
  const [lx, ly, lz] = [Math.sin(turn) * Math.cos(up), -Math.cos(turn) * Math.cos(up), Math.sin(up)];
  const at = (x: number, y: number) => soft[((y + N) % N) * N + ((x + N) % N)];
  return planeOf(N, N, (x, y) => {
    const p = (at(x + 1, y) - at(x - 1, y)) / 2;
    const q = (at(x, y + 1) - at(x, y - 1)) / 2;
    const facing = (lz - lx * p - ly * q) / Math.hypot(p, q, 1);
    return 0.4 * colour[y * N + x] * Math.max(0.05, facing);
  });
}

const grey = (plane: Float32Array) => new Raster(N, N, [plane, plane, plane]);
const tileOf = (picture: Raster) => ({ ...unpainted(picture), before: async () => picture });
const heightOf = async (picture: Raster, changes = {}) => {
  const input = { style: tileOf(picture), omit: ['occlusion'] };
  const { output, decided } = await runStation('relief', input, changes, frameOf(picture.width));
  return { height: output.height as Float32Array, decided };
};
/** Truth without what is broader than the bands. */
const broad = gaussian(soft, N, N, N / 16, TORUS);
const truth = soft.map((v, i) => v - broad[i]);

describe('height by slanting light', () => {
  for (const [degrees, rise] of [
    [315, 30],
    [60, 22],
    [180, 38],
  ]) {
    it(`follows the stones where tone alone follows the colour: light from ${degrees}°, ${rise}° high`, async () => {
      const picture = grey(rendered(degrees, rise));
      const hand = { lightFrom: 'hand', lightDegrees: degrees };
      const tone = correlation((await heightOf(picture)).height, truth);
      const both = correlation((await heightOf(picture, { heightFrom: 'both', ...hand })).height, truth);
      const light = correlation((await heightOf(picture, { heightFrom: 'light', ...hand })).height, truth);
      expect(tone).to.be.below(0.5);
      expect(Math.max(both, light)).to.be.above(0.75);
    });
  }

  it('is turned over when the light is taken to come from the other end', async () => {
    const picture = rendered(315, 30);
    const right = runToEnd(slantHeight(picture, SIDES, 315));
    const wrong = runToEnd(slantHeight(picture, SIDES, 135));
    expect(correlation(right, wrong)).to.be.closeTo(-1, 1e-6);
    expect(correlation(right, truth)).to.be.above(0.6);
  });

  it('goes round the torus: a rolled tile has the rolled height', () => {
    const picture = rendered(315, 30);
    const roll = (plane: Float32Array) => planeOf(N, N, (x, y) => plane[((y + 40) % N) * N + ((x + 90) % N)]);
    const a = roll(runToEnd(slantHeight(picture, SIDES, 315)));
    const b = runToEnd(slantHeight(roll(picture), SIDES, 315));
    expect(rmsBetween(a, b)).to.be.below(1e-5);
  });

  it('finds the light within 10°, taken to come from above', async () => {
    for (const degrees of [300, 340, 25, 75]) {
      const { decided } = await heightOf(
        grey(
          rendered(
            degrees,
            28,
            patches.map(() => 1),
          ),
        ),
      );
      const apart = Math.abs(((decided.light.degrees - degrees + 540) % 360) - 180);
      expect(apart, `${degrees}°`).to.be.below(10);
      expect(decided.light.plain).to.be.above(0.06);
    }
    expect(fromAbove(0)).to.be.oneOf([90, 270]);
    expect(fromAbove(-90)).to.be.closeTo(0, 1e-9);
    expect(fromAbove(90)).to.be.closeTo(0, 1e-9);
    expect(fromAbove(-45)).to.be.closeTo(45, 1e-9);
  });
});

describe('what stands out', () => {
  const logs = (plane: Float32Array) => plane.map((v) => Math.log(v + 0.01));
  const noise = noisePlane(N * N, 41);
  const joints = (line: number, stone: number) =>
    planeOf(N, N, (x, y) => (x % 32 < 3 || y % 32 < 3 ? line : stone) + 0.02 * noise[y * N + x]);

  it('is bright where thin dark joints lie between, dark where thin bright ones do', () => {
    const dark = runToEnd(polarityEvidence(logs(joints(0.05, 0.4)), null, 0, SIDES, TORUS));
    const bright = runToEnd(polarityEvidence(logs(joints(0.7, 0.3)), null, 0, SIDES, TORUS));
    expect(dark.together).to.be.above(0.45);
    expect(bright.together).to.be.below(-0.45);
  });

  it('is open where nothing tells', () => {
    const even = runToEnd(polarityEvidence(logs(noise.map((v) => 0.3 + 0.1 * v)), null, 0, SIDES, TORUS));
    expect(Math.abs(even.together)).to.be.below(0.25);
  });

  it('is said in the verdict when the dial is against it', async () => {
    const picture = grey(joints(0.05, 0.4));
    const input = { style: tileOf(picture), omit: ['occlusion'] };
    const frame = frameOf(N);
    for (const polarity of ['bright', 'dark'] as const) {
      const { output, decided } = await runStation('relief', input, { polarity, depthMm: 0.5 }, frame);
      const chosen = { ...defaultsOf(STATIONS.relief.settings), polarity, depthMm: 0.5 };
      const verdict = await STATIONS.relief.verdict(
        output,
        input as never,
        chosen,
        decided,
        frame,
        PLAIN_CONTEXT,
      );
      expect(/bright areas are raised/.test(adviceOf(verdict)), polarity).to.equal(polarity === 'dark');
    }
  });
});

describe('the grey that height is read from', () => {
  it('is luminance, the darkest channel, one of them, or how near a colour is', () => {
    const picture = new Raster(
      2,
      1,
      [
        [0.5, 0.1],
        [0.2, 0.6],
        [0.3, 0.05],
      ].map((values) => Float32Array.from(values)),
    );
    expect(rmsBetween(runToEnd(greyOf(picture, 'luminance', '')), luminance(picture))).to.equal(0);
    expect(Array.from(runToEnd(greyOf(picture, 'darkest', '')))).to.deep.equal([
      Math.fround(0.2),
      Math.fround(0.05),
    ]);
    expect(Array.from(runToEnd(greyOf(picture, 'green', '')))).to.deep.equal([
      Math.fround(0.2),
      Math.fround(0.6),
    ]);
    const near = runToEnd(greyOf(picture, 'nearness', '#59cb3f'));
    expect(near[1]).to.be.above(0.8);
    expect(near[0]).to.be.below(0.1);
  });

  it('tells moss from stone of the same luminance', async () => {
    const [stone, moss] = [
      [0.3, 0.3, 0.3],
      [0.2, 0.345, 0.1],
    ];
    const planes = [0, 1, 2].map((c) => planeOf(N, N, (x) => (x % 64 < 32 ? stone[c] : moss[c])));
    const picture = new Raster(N, N, planes);
    const step = (plane: Float32Array) => Math.abs(plane[128 * N + 16] - plane[128 * N + 48]);
    expect(step(runToEnd(greyOf(picture, 'luminance', '')))).to.be.below(0.01);
    expect(step(runToEnd(greyOf(picture, 'nearness', '#7c9f59')))).to.be.above(0.3);
    const { height } = await heightOf(picture, { grey: 'nearness', greyColour: '#7c9f59' });
    expect(step(height)).to.be.above(0.5);
  });
});

describe('the shape of height', () => {
  it('flattened has no broad swelling left, and keeps its detail', async () => {
    const swollen = planeOf(
      N,
      N,
      (x, y) =>
        0.3 * Math.exp(0.8 * Math.sin((2 * Math.PI * x) / N) + 0.3 * Math.sin((2 * Math.PI * 20 * y) / N)),
    );
    const swelling = (plane: Float32Array) => {
      let s = 0;
      let c = 0;
      plane.forEach((v, i) => {
        s += v * Math.sin((2 * Math.PI * (i % N)) / N);
        c += v * Math.sin((2 * Math.PI * 20 * Math.floor(i / N)) / N);
      });
      return [Math.abs(s) / plane.length, Math.abs(c) / plane.length];
    };
    const weights = { band1: 1, band2: 1, band3: 1, band4: 1, band5: 1, band6: 1 };
    const [was, detail] = swelling((await heightOf(grey(swollen), weights)).height);
    const [left, kept] = swelling((await heightOf(grey(swollen), { ...weights, flatten: 1 })).height);
    expect(left / kept).to.be.below((0.5 * was) / detail);
  });

  it('with a noise floor loses grain and keeps edges', async () => {
    const noise = noisePlane(N * N, 51);
    const clean = planeOf(N, N, (x) => (x % 64 < 32 ? 0.2 : 0.4));
    const grainy = clean.map((v, i) => v * (1 + 0.1 * (noise[i] - 0.5)));
    const spread = (plane: Float32Array) => {
      let sum = 0;
      for (let y = 0; y < N; y++)
        for (let x = 10; x < 22; x++) sum += (plane[y * N + x + 1] - plane[y * N + x]) ** 2;
      return Math.sqrt(sum);
    };
    const edge = (plane: Float32Array) => Math.abs(plane[100 * N + 36] - plane[100 * N + 28]);
    const { height: plain } = await heightOf(grey(grainy));
    const { height: quiet } = await heightOf(grey(grainy), { noiseFloor: 1.5 });
    expect(spread(quiet) / edge(quiet)).to.be.below((0.7 * spread(plain)) / edge(plain));
  });

  it('softened by millimetres is the same at twice the size', async () => {
    const wave = (n: number) =>
      planeOf(
        n,
        n,
        (x, y) =>
          0.3 +
          0.1 * Math.sin((2 * Math.PI * 9 * (x + 0.5)) / n) * Math.sin((2 * Math.PI * 7 * (y + 0.5)) / n),
      );
    const of = (n: number) => {
      const plane = wave(n);
      return new Raster(n, n, [plane, plane, plane]);
    };
    const settings = { softMm: 20, flatten: 0.5 };
    const { height: small, decided } = await heightOf(of(N), settings);
    const input = { style: tileOf(of(2 * N)), omit: ['occlusion'] };
    const { output } = await runStation('relief', input, settings, frameOf(2 * N), { decided });
    let worst = 0;
    for (let y = 0; y < N; y += 3) {
      for (let x = 0; x < N; x += 3) {
        const at = 2 * y * 2 * N + 2 * x;
        const plane = output.height;
        const mean = (plane[at] + plane[at + 1] + plane[at + 2 * N] + plane[at + 2 * N + 1]) / 4;
        worst = Math.max(worst, Math.abs(mean - small[y * N + x]));
      }
    }
    expect(worst).to.be.below(0.02);
  });
});
