import { type Frame, normalMap, Raster, STATIONS, sampleBilinear, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { cavityMap } from '../../../src/stations/relief/cavity.ts';
import { normalsOf, reoriented } from '../../../src/stations/relief/detail-normal.ts';
import { occlusionMap } from '../../../src/stations/relief/occlusion-map.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { correlation, farthest, noisePlane, planeOf, rmsBetween, tilingPicture } from '../../fields.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const SIZE = 128;
const picture = tilingPicture(SIZE);
const frame = frameOf(SIZE, 0.4);
const wait = async () => {};
const relief = async (changes: object, join: object = unpainted(picture), of: Frame = frame) =>
  (await runStation('relief', { style: join }, changes, of)).output;

/** Angle in degrees between the normals of two rasters at a pixel. */
const apart = (a: Raster, b: Raster, i: number) => {
  const dot = [0, 1, 2].reduce((sum, c) => sum + a.planes[c][i] * b.planes[c][i], 0);
  return (180 / Math.PI) * Math.acos(Math.min(1, dot));
};
const bump = planeOf(
  64,
  64,
  (x, y) => 0.5 + 0.4 * Math.sin((2 * Math.PI * x) / 64) * Math.sin((2 * Math.PI * 2 * y) / 64),
);
const sides = { width: 64, height: 64 };
const base = normalMap(bump, sides, 0.1, 1, 'sharp', 'up', TORUS);
const level = new Raster(64, 64, [
  new Float32Array(4096),
  new Float32Array(4096),
  new Float32Array(4096).fill(1),
]);

describe('a detail normal', () => {
  it('that is level leaves the base, and on a level base lies as it is', () => {
    for (let c = 0; c < 3; c++) {
      expect(farthest(reoriented(base, level, 1).planes[c], base.planes[c])).to.be.below(1e-6);
      expect(farthest(reoriented(level, base, 1).planes[c], base.planes[c])).to.be.below(1e-6);
    }
  });

  it('is turned as the base is tilted: two tilts about one axis add up', () => {
    const tilt = (degrees: number) => {
      const a = (degrees * Math.PI) / 180;
      return new Raster(1, 1, [
        Float32Array.of(Math.sin(a)),
        Float32Array.of(0),
        Float32Array.of(Math.cos(a)),
      ]);
    };
    expect(apart(reoriented(tilt(20), tilt(15), 1), tilt(35), 0)).to.be.below(1e-3);
    const out = reoriented(base, base, 1);
    for (let i = 0; i < 4096; i += 37)
      expect(Math.hypot(...out.planes.map((p) => p[i]))).to.be.closeTo(1, 1e-5);
  });

  it('given is laid a whole number of times, its green turned to that of the tile', async () => {
    const codes = base.mapPlanes((plane) => plane.map((value) => (value + 1) / 2));
    const flat = Raster.filled(64, 64, 3, 0.3);
    const defaults = Object.fromEntries(
      Object.entries(STATIONS.relief.settings).map(([k, s]) => [k, s.default]),
    );
    const detailMap = { sha256: '0'.repeat(64), width: 64, height: 64 };
    const run = async (changes: object) => {
      const chosen = { ...defaults, detailFrom: 'given', detailMap, detailCount: 1, ...changes } as never;
      const input = { style: unpainted(flat), omit: ['occlusion'] } as never;
      const context = { ...PLAIN_CONTEXT, picture: async () => codes };
      const of = frameOf(64);
      const decided = await STATIONS.relief.decide(input, chosen, of, context);
      return (await STATIONS.relief.run(input, chosen, decided, of, context)).normal;
    };
    const once = await run({});
    for (let c = 0; c < 3; c++) expect(farthest(once.planes[c], base.planes[c])).to.be.below(1e-5);
    const down = await run({ detailGreen: 'down' });
    expect(
      farthest(
        down.planes[1],
        base.planes[1].map((v) => -v),
      ),
    ).to.be.below(1e-5);
    const twice = await run({ detailCount: 2 });
    for (let i = 0; i < 32; i++) expect(twice.planes[0][i]).to.be.closeTo(twice.planes[0][i + 32], 1e-5);
    expect(rmsBetween(twice.planes[0], once.planes[0])).to.be.above(0.01);
    expect(rmsBetween((await run({ detailStrength: 2 })).planes[0], once.planes[0])).to.be.above(0.02);
    // Chosen, but not given yet: nothing happens.
    expect(farthest((await run({ detailMap: null })).planes[2], new Float32Array(4096).fill(1))).to.be.below(
      1e-5,
    );
  });

  it('of the tile’s own fine bands adds slopes and keeps normals level on the whole', async () => {
    const plain = await relief({});
    const detailed = await relief({ detailFrom: 'bands', detailCount: 3 });
    expect(rmsBetween(plain.normal.planes[0], detailed.normal.planes[0])).to.be.above(0.001);
    expect(farthest(plain.height, detailed.height)).to.equal(0);
  });

  it('codes of any length become unit normals', () => {
    const one = normalsOf(
      new Raster(
        1,
        1,
        [0.5, 0.9, 0.6].map((v) => Float32Array.of(v)),
      ),
      true,
    );
    expect(Math.hypot(...one.planes.map((p) => p[0]))).to.be.closeTo(1, 1e-6);
    expect(one.planes[1][0]).to.be.below(0);
  });
});

describe('normals against the shape itself', () => {
  it('err by at most 0.1° in the mean at 512 px, with waves of up to 32 to an edge, in 16 bits', () => {
    const n = 512;
    const waves = [
      { fx: 3, fy: 2, a: 0.2, p: 0.3 },
      { fx: 11, fy: -7, a: 0.08, p: 1.1 },
      { fx: -20, fy: 17, a: 0.04, p: 2 },
      { fx: 32, fy: 0, a: 0.03, p: 0 },
      { fx: 5, fy: 32, a: 0.03, p: 4 },
    ];
    const turn = (x: number, y: number, w: (typeof waves)[number]) =>
      (2 * Math.PI * (w.fx * x + w.fy * y)) / n + w.p;
    const height = planeOf(n, n, (x, y) => waves.reduce((s, w) => s + w.a * Math.sin(turn(x, y, w)), 0.5));
    const depth = 0.03;
    const made = normalMap(height, { width: n, height: n }, depth, 1, 'sharp', 'up', TORUS);
    const codes = made.planes.map((plane) => plane.map((v) => Math.round(((v + 1) / 2) * 65535) / 65535));
    let sum = 0;
    for (let y = 0; y < n; y++) {
      for (let x = 0; x < n; x++) {
        // Slopes over one edge of the tile; y runs down, green up.
        const slope = (of: 'fx' | 'fy') =>
          depth * waves.reduce((s, w) => s + w.a * 2 * Math.PI * w[of] * Math.cos(turn(x, y, w)), 0);
        const truth = [-slope('fx'), slope('fy'), 1];
        const length = Math.hypot(...truth);
        const i = y * n + x;
        const got = codes.map((plane) => 2 * plane[i] - 1);
        const dot = truth.reduce((s, v, c) => s + v * got[c], 0) / (length * Math.hypot(...got));
        sum += (180 / Math.PI) * Math.acos(Math.min(1, dot));
      }
    }
    expect(sum / (n * n)).to.be.at.most(0.1);
  });
});

describe('the normal by itself', () => {
  it('takes fine detail the height has not, and softness the height keeps', async () => {
    const plain = await relief({});
    const fine = await relief({ fine1: 2, fine2: 2 });
    const soft = await relief({ normalSoftMm: 40 });
    for (const other of [fine, soft]) {
      expect(farthest(other.height, plain.height)).to.equal(0);
      expect(farthest(other.occlusion, plain.occlusion)).to.equal(0);
    }
    const energy = ({ normal }: { normal: Raster }) =>
      rmsBetween(normal.planes[0], new Float32Array(SIZE * SIZE));
    expect(energy(fine)).to.be.above(1.1 * energy(plain));
    expect(energy(soft)).to.be.below(0.9 * energy(plain));
  });
});

describe('height mixed from two', () => {
  const given = planeOf(SIZE, SIZE, (x) => 0.5 + 0.5 * Math.sin((2 * Math.PI * x) / SIZE));
  const withHeight = { ...unpainted(picture), given: { height: new Raster(SIZE, SIZE, [given]) } };

  it('stands between the two, by the share', async () => {
    const [whole, mixed] = [
      await relief({}, withHeight),
      await relief({ secondFrom: 'tone', secondShare: 0.5 }, withHeight),
    ];
    const tone = await relief({});
    expect(farthest(whole.height, given)).to.be.below(1e-6);
    expect(correlation(mixed.height, given)).to.be.within(0.5, 0.9);
    expect(correlation(mixed.height, tone.height)).to.be.within(0.5, 0.9);
    const none = await relief({ secondFrom: 'tone', secondShare: 0 }, withHeight);
    expect(farthest(none.height, given)).to.be.below(1e-6);
  });
});

describe('cavity', () => {
  it('has a dark and a light part of their own strength', async () => {
    const of = (hollows: number, edges: number) =>
      cavityMap(bump, { ...sides, edges: TORUS }, 4, 0.1, { hollows, edges }, PLAIN_CONTEXT);
    const [both, dark, light] = [await of(1, 1), await of(1, 0), await of(0, 1)];
    for (let i = 0; i < 4096; i++) {
      expect(dark[i]).to.be.closeTo(Math.min(0.5, both[i]), 1e-6);
      expect(light[i]).to.be.closeTo(Math.max(0.5, both[i]), 1e-6);
    }
    expect(Math.min(...both)).to.be.below(0.4);
  });
});

/** Mean of cos² of the horizon over 64 directions, marched in half pixels: slow and plain. */
function marched(height: Float32Array, size: number, radius: number): Float32Array {
  const out = new Float32Array(height.length);
  for (let y = 0; y < size; y += 8) {
    for (let x = 0; x < size; x += 8) {
      const here = height[y * size + x];
      let seen = 0;
      for (let k = 0; k < 64; k++) {
        const [dx, dy] = [Math.cos((2 * Math.PI * k) / 64), Math.sin((2 * Math.PI * k) / 64)];
        let tan = 0;
        for (let r = 0.5; r <= radius; r += 0.5) {
          const there = sampleBilinear(height, size, size, x + r * dx, y + r * dy, TORUS);
          tan = Math.max(tan, (there - here) / r);
        }
        seen += 1 / (1 + tan * tan) / 64;
      }
      out[y * size + x] = seen;
    }
  }
  return out;
}

describe('the occlusion map', () => {
  const size = 512;
  const of = frameOf(size, 1);
  const chosen = { depthMm: 30, occlusionMm: 60, occlusionStrength: 1, occlusionBias: 0 } as never;
  const scale = 0.03 * size;
  const stones = planeOf(size, size, (x, y) => {
    const [u, v] = [((x % 64) - 32) / 32, ((y % 64) - 32) / 32];
    return Math.sqrt(Math.max(0, 1 - u * u - v * v));
  });
  const waves = planeOf(
    size,
    size,
    (x, y) =>
      0.5 +
      0.3 * Math.sin((2 * Math.PI * 6 * x) / size) +
      0.2 * Math.cos((2 * Math.PI * (9 * y + 4 * x)) / size),
  );
  const noise = noisePlane(32 * 32, 3);
  const rough = planeOf(size, size, (x, y) =>
    sampleBilinear(noise, 32, 32, x / 16 - 0.5, y / 16 - 0.5, TORUS),
  );

  for (const [name, field] of Object.entries({ stones, waves, rough })) {
    it(`of ${name} differs from brute force by at most 0.02 in the mean`, async () => {
      const map = await occlusionMap(field, chosen, of, wait);
      const truth = marched(
        field.map((h) => h * scale),
        size,
        0.06 * size,
      );
      let sum = 0;
      let count = 0;
      for (let y = 0; y < size; y += 8) {
        for (let x = 0; x < size; x += 8, count++) sum += Math.abs(map[y * size + x] - truth[y * size + x]);
      }
      expect(sum / count).to.be.below(0.02);
    });
  }

  it('with a bias is brighter, and what rises less than it shades nothing', async () => {
    const small = frameOf(128, 1);
    const low = planeOf(128, 128, (x) => 0.5 + 0.5 * Math.sin((2 * Math.PI * 8 * x) / 128));
    const run = (occlusionBias: number) =>
      occlusionMap(
        low,
        { depthMm: 10, occlusionMm: 100, occlusionStrength: 1, occlusionBias } as never,
        small,
        wait,
      );
    const [none, some, all] = [await run(0), await run(5), await run(20)];
    expect(Math.min(...none)).to.be.below(0.99);
    for (let i = 0; i < low.length; i += 11) expect(some[i]).to.be.at.least(none[i] - 1e-6);
    expect(Math.min(...all)).to.be.closeTo(1, 1e-6);
  });
});
