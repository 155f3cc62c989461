import { type Edges, KERNELS, MIRROR, normalMap, sampleBilinear, TORUS, visibility } from '@zesty-tile/core';
import { expect } from 'chai';
import { farthest, noisePlane, planeOf, rmsBetween, tilingPicture } from '../../fields.ts';
import { withBothKernels } from '../../kernels/both.ts';
import { frameOf, runStation, unpainted, verdictOf } from '../run.ts';

const wait = async () => {};

withBothKernels('normals', () => {
  it('are those of a plane of known slope, x to the right, green the way it is told', () => {
    // 1/64 of the height range a pixel, 64 px an edge, depth a tenth of the edge: a slope of 0.1.
    const plane = planeOf(64, 64, (x, y) => (x + 2 * y) / 64);
    for (const [normalY, sign] of [
      ['up', 1],
      ['down', -1],
    ] as const) {
      const { planes } = normalMap(plane, { width: 64, height: 64 }, 0.1, 1, 'sharp', normalY, MIRROR);
      const [nx, ny, nz] = planes.map((p) => p[32 * 64 + 32]);
      expect(nx / nz).to.be.closeTo(-0.1, 1e-5);
      expect(ny / nz).to.be.closeTo(sign * 0.2, 1e-5);
      expect(Math.hypot(nx, ny, nz)).to.be.closeTo(1, 1e-6);
    }
  });

  it('point out of a bump and into a hollow, right for a wave to a tenth of a degree', () => {
    const size = 128;
    const height = planeOf(
      size,
      size,
      (x, y) => 0.5 + 0.5 * Math.sin((2 * Math.PI * 2 * x) / size) * Math.cos((2 * Math.PI * y) / size),
    );
    const { planes } = normalMap(height, { width: size, height: size }, 0.05, 1, 'sharp', 'up', TORUS);
    let worst = 0;
    for (let y = 0; y < size; y++) {
      for (let x = 0; x < size; x++) {
        const a = (2 * Math.PI * 2 * x) / size;
        const b = (2 * Math.PI * y) / size;
        const p = 0.05 * 0.5 * 4 * Math.PI * Math.cos(a) * Math.cos(b);
        const q = -0.05 * 0.5 * 2 * Math.PI * Math.sin(a) * Math.sin(b);
        const norm = Math.hypot(p, q, 1);
        const i = y * size + x;
        const dot = (planes[0][i] * -p + planes[1][i] * q + planes[2][i]) / norm;
        worst = Math.max(worst, Math.acos(Math.min(1, dot)));
      }
    }
    expect((worst * 180) / Math.PI).to.be.below(0.1);
  });

  it('are level where there is no depth', () => {
    const { planes } = normalMap(noisePlane(1024), { width: 32, height: 32 }, 0, 1, 'scharr', 'up', TORUS);
    expect(farthest(planes[2], new Float32Array(1024).fill(1))).to.equal(0);
  });
});

withBothKernels('horizons of one direction', () => {
  it('are what looking at every point within reach gives', () => {
    const size = 64;
    // Low hills behind high ones, and a peak that only few see.
    const field = noisePlane(size * size, 7).map((v, i) => 2 * v + (i === 900 ? 30 : 0));
    const step = Math.SQRT2;
    for (const radius of [1.5, 5, 13, 31]) {
      const looking = {
        directions: [{ down: -1 as const, slope: 1, share: 1 }],
        ...{ radius, bias: 0, edges: TORUS },
      };
      const seen = KERNELS.sweepHorizons(field, size, looking, { from: 0, to: size });
      const truth = planeOf(size, size, (x, y) => {
        let tan = 0;
        for (let k = 1; k * step <= radius; k++) {
          const there = field[((y - k + size) % size) * size + ((x + k) % size)];
          tan = Math.max(tan, (there - field[y * size + x]) / (k * step));
        }
        return 1 / (1 + tan * tan);
      });
      expect(farthest(seen, truth)).to.be.below(1e-6);
    }
  });
});

/** Occlusion by marching in many directions with small steps on bilinear heights. */
function bruteForce(height: Float32Array, size: number, radius: number, edges: Edges): Float32Array {
  const directions = 64;
  return planeOf(size, size, (x, y) => {
    const h = height[y * size + x];
    let sum = 0;
    for (let d = 0; d < directions; d++) {
      const turn = (2 * Math.PI * d) / directions;
      let tan = 0;
      for (let t = 1; t <= radius; t += 0.5) {
        const there = sampleBilinear(
          height,
          size,
          size,
          x + t * Math.cos(turn),
          y + t * Math.sin(turn),
          edges,
        );
        tan = Math.max(tan, (there - h) / t);
      }
      sum += 1 / (1 + tan * tan);
    }
    return sum / directions;
  });
}

withBothKernels('ambient occlusion', () => {
  const size = 48;
  const wave = (x: number, y: number) => (2 * Math.PI * (2 * x + y)) / size;
  const stones = planeOf(
    size,
    size,
    (x, y) => 4 * Math.sin(wave(x, y)) * Math.cos(wave(-y, x)) + 2 * Math.sin((2 * Math.PI * 3 * y) / size),
  );

  for (const edges of [TORUS, MIRROR, { x: 'wrap', y: 'mirror' } as Edges]) {
    it(`agrees with brute force (${edges.x}, ${edges.y})`, async () => {
      const seen = await visibility(stones, size, 12, edges, wait);
      const truth = bruteForce(stones, size, 12, edges);
      expect(rmsBetween(seen, truth)).to.be.below(0.02);
      expect(rmsBetween(truth, new Float32Array(size * size).fill(1))).to.be.above(0.1);
    });
  }

  it('a level field is fully open, the floor of a trench half closed in', async () => {
    const level = await visibility(new Float32Array(size * size).fill(3), size, 10, TORUS, wait);
    expect(farthest(level, new Float32Array(size * size).fill(1))).to.be.below(1e-6);
    // An endless trench 8 px wide, as deep: seen from its middle the walls rise at 45° or steeper.
    const trench = planeOf(size, size, (x) => (x >= 20 && x < 28 ? 0 : 8));
    const inside = (await visibility(trench, size, 20, TORUS, wait))[24 * size + 24];
    expect(inside).to.be.within(0.2, 0.55);
  });

  it('reaches no farther than it is told', async () => {
    const wall = planeOf(64, 64, (x) => (x === 40 ? 20 : 0));
    const seen = await visibility(wall, 64, 10, TORUS, wait);
    expect(seen[32 * 64 + 20]).to.be.closeTo(1, 1e-6);
    expect(seen[32 * 64 + 36]).to.be.below(0.8);
  });
});

withBothKernels('relief', () => {
  const size = 128;
  const input = { style: unpainted(tilingPicture(size)) };

  it('turns hills into hollows with the other polarity', async () => {
    const { output: bright } = await runStation('relief', input, { polarity: 'bright' }, frameOf(size));
    const { output: dark } = await runStation('relief', input, { polarity: 'dark' }, frameOf(size));
    expect(
      farthest(
        bright.height.map((h: number) => 1 - h),
        dark.height,
      ),
    ).to.be.below(0.02);
    expect(
      farthest(
        bright.normal.planes[0].map((v: number) => -v),
        dark.normal.planes[0],
      ),
    ).to.be.below(0.05);
  });

  it('a bright spot stands out: high, open, over flat in cavity, its left side facing left', async () => {
    const picture = tilingPicture(size);
    for (const plane of picture.planes)
      plane.set(planeOf(size, size, (x, y) => 0.2 + 0.5 * Math.exp(-((x - 64) ** 2 + (y - 64) ** 2) / 120)));
    const { output } = await runStation(
      'relief',
      { style: unpainted(picture) },
      { depthMm: 60, cavityMm: 60 },
      frameOf(size),
    );
    const at = (plane: Float32Array, x: number, y: number) => plane[y * size + x];
    expect(at(output.height, 64, 64)).to.be.above(at(output.height, 20, 20) + 0.3);
    expect(at(output.cavity, 64, 64)).to.be.above(0.55);
    expect(at(output.normal.planes[0], 56, 64)).to.be.below(-0.05);
    expect(at(output.normal.planes[0], 72, 64)).to.be.above(0.05);
    expect(at(output.normal.planes[1], 64, 56)).to.be.above(0.05);
    expect(at(output.occlusion, 64, 64)).to.be.above(at(output.occlusion, 64, 84));
  });

  it('a flat picture gives a flat tile, and says so', async () => {
    const flat = tilingPicture(size);
    for (const plane of flat.planes) plane.fill(0.3);
    const { output, verdict } = await verdictOf('relief', { style: unpainted(flat) }, {}, frameOf(size));
    expect(farthest(output.cavity, new Float32Array(size * size).fill(0.5))).to.equal(0);
    expect(farthest(output.normal.planes[2], new Float32Array(size * size).fill(1))).to.be.below(1e-6);
    // One colour is flat by intent; a picture with detail is flat only where its bands or its depth are off.
    expect([verdict.state, verdict.brief, verdict.advice]).to.deep.equal(['fine', 'flat', '']);
    expect(verdict.sentence).to.include('until coats give it height');
    const off = await verdictOf('relief', input, { depthMm: 0 }, frameOf(size));
    expect([off.verdict.state, off.verdict.brief]).to.deep.equal(['look', 'flat']);
    expect(off.verdict.advice).to.include('Give it depth');
  });

  it('cavity is 0.5 on the whole, and rougher hollows follow from it in Finish', async () => {
    const { output } = await runStation('relief', input, {}, frameOf(size));
    const mean = output.cavity.reduce((s: number, v: number) => s + v, 0) / (size * size);
    expect(mean).to.be.closeTo(0.5, 0.02);
    const { output: finished } = await runStation(
      'finish',
      { style: input.style, relief: output },
      { tone: 0, cavity: 1, ownBand: true, low: 0.2, high: 0.8 },
      frameOf(size),
    );
    const hollow = output.cavity.indexOf(Math.min(...output.cavity));
    const edge = output.cavity.indexOf(Math.max(...output.cavity));
    expect(finished.roughness[hollow]).to.be.above(finished.roughness[edge] + 0.1);
  });

  it('the size of a bump in the world sets its slope: half the edge, twice as steep', async () => {
    const one = await runStation('relief', input, { depthMm: 4 }, frameOf(size, 1));
    const half = await runStation('relief', input, { depthMm: 4 }, frameOf(size, 0.5), {
      decided: one.decided,
    });
    const slope = (o: typeof one) =>
      o.output.normal.planes[0].map((v: number, i: number) => v / o.output.normal.planes[2][i]);
    expect(
      farthest(
        slope(one).map((v: number) => 2 * v),
        slope(half),
      ),
    ).to.be.below(1e-3);
  });
});
