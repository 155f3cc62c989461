import {
  defaultsOf,
  gaussian,
  pictureSeams,
  Raster,
  resizeArea,
  rollPlane,
  runToEnd,
  STATIONS,
  seamFigures,
  TORUS,
  type Verdict,
} from '@zesty-tile/core';
import { expect } from 'chai';
import type { Strip } from '../../../src/kernels/cut-costs/strip.ts';
import { encodeSrgbPlane } from '../../../src/kernels/encode-srgb/reference.ts';
import { cutMask, decodePath, encodePath, minimumCut, refineCut } from '../../../src/stations/join/cut.ts';
import { ghosting } from '../../../src/stations/join/score/ghosting.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { photo } from '../../engine/host.ts';
import { farthest, noisePlane, planeOf, rmsBetween, tilingPicture } from '../../fields.ts';
import { MADE_SOURCES, photographed } from '../../setup/sources.ts';
import { frameOf, runStation } from '../run.ts';

const NO_MARGINS = { left: 0, right: 0, top: 0, bottom: 0 };
const squareOf = (picture: Raster, margins = NO_MARGINS) => ({
  picture,
  alpha: null,
  given: {},
  margins,
  cropPixels: 1000,
  outside: 0,
});
const inputOf = (picture: Raster, margins = NO_MARGINS) => ({
  square: squareOf(picture, margins),
  even: { picture },
});

/** The cost of crossing between two pixels of a strip by its definition, to hold the search against. */
function edgeCost(strip: Strip): (i: number, j: number) => number {
  const { width, length } = strip;
  const seen = (p: Float32Array) => p.map((v) => Math.sqrt(Math.max(0, v)));
  const a = strip.a.map(seen);
  const b = strip.b.map(seen);
  const d = (i: number) => Math.sqrt(a.reduce((s, p, c) => s + (p[i] - b[c][i]) ** 2, 0));
  const g = (ps: Float32Array[], i: number, j: number) =>
    Math.sqrt(ps.reduce((s, p) => s + (p[i] - p[j]) ** 2, 0));
  let total = 0;
  for (let y = 0; y < length; y++) {
    for (let x = 0; x < width; x++) {
      const q = y * width + x;
      const up = (y === 0 ? length - 1 : y - 1) * width + x;
      if (x > 0) total += g(a, q, q - 1) + g(b, q, q - 1);
      total += g(a, q, up) + g(b, q, up);
    }
  }
  const base = total / (4 * width * length) / 2 + 0.02;
  return (i, j) => (d(i) + d(j)) / (g(a, i, j) + g(b, i, j) + base) + 0.002;
}

/** Least cost from the first row to the last: relaxed until nothing changes, slow and without cleverness. */
function bruteForceCost(strip: Strip, from: number[]): number {
  const { width, length } = strip;
  const edge = edgeCost(strip);
  const across = width + 1;
  const low = Math.max(1, Math.ceil(width * 0.18));
  const high = Math.min(width - 1, Math.floor(width * 0.82));
  const best = new Float64Array(across * (length + 1)).fill(Number.POSITIVE_INFINITY);
  for (const x of from) best[x] = 0;
  const level = (x: number, y: number) =>
    edge((y % length) * width + x, ((y + length - 1) % length) * width + x);
  const upright = (x: number, y: number) => edge(y * width + x, y * width + x - 1);
  for (let changed = true; changed; ) {
    changed = false;
    for (let y = 0; y <= length; y++) {
      for (let x = low; x <= high; x++) {
        const here = y * across + x;
        const least = Math.min(
          y > 0 ? best[here - across] + upright(x, y - 1) : Number.POSITIVE_INFINITY,
          y < length ? best[here + across] + upright(x, y) : Number.POSITIVE_INFINITY,
          x > low ? best[here - 1] + level(x - 1, y) : Number.POSITIVE_INFINITY,
          x < high ? best[here + 1] + level(x, y) : Number.POSITIVE_INFINITY,
        );
        if (least < best[here] - 1e-12) {
          best[here] = least;
          changed = true;
        }
      }
    }
  }
  return Math.min(...Array.from({ length: high - low + 1 }, (_, k) => best[length * across + low + k]));
}

/** What a path costs; it must not visit a corner twice. */
function pathCost(strip: Strip, columns: Int32Array, rows: Int32Array): number {
  const { width, length } = strip;
  const visited = new Set(Array.from(columns, (x, k) => rows[k] * (width + 1) + x));
  expect(visited.size).to.equal(columns.length);
  const edge = edgeCost(strip);
  let cost = 0;
  for (let k = 1; k < columns.length; k++) {
    const x = Math.min(columns[k], columns[k - 1]);
    const y = Math.min(rows[k], rows[k - 1]);
    cost +=
      columns[k] === columns[k - 1]
        ? edge(y * width + x, y * width + x - 1)
        : edge((y % length) * width + x, ((y + length - 1) % length) * width + x);
  }
  return cost;
}

const noiseStrip = (width: number, length: number, seed: number): Strip => ({
  width,
  length,
  a: [noisePlane(width * length, seed)],
  b: [noisePlane(width * length, seed + 100)],
});

describe('minimum cut', () => {
  it('costs what an exhaustive search costs', () => {
    for (const seed of [1, 2, 3, 4]) {
      const strip = noiseStrip(12, 10, seed);
      const path = runToEnd(minimumCut(strip, false));
      const low = Math.ceil(12 * 0.18);
      const high = Math.floor(12 * 0.82);
      const starts = Array.from({ length: high - low + 1 }, (_, k) => low + k);
      expect(pathCost(strip, path.columns, path.rows)).to.be.closeTo(bruteForceCost(strip, starts), 1e-6);
    }
  });

  it('winds round what a cut of one column a row would have to cross', () => {
    // The copies agree only inside a corridor that runs back on itself.
    const width = 40;
    const length = 40;
    const inCorridor = (x: number, y: number) =>
      (x >= 12 && x <= 15 && y <= 28) ||
      (y >= 25 && y <= 28 && x >= 12 && x <= 27) ||
      (x >= 24 && x <= 27 && y >= 12 && y <= 28) ||
      (y >= 12 && y <= 15 && x >= 18 && x <= 27) ||
      (x >= 18 && x <= 21 && y <= 15 && y >= 12) ||
      (x >= 24 && x <= 27 && y >= 25);
    const a = planeOf(width, length, () => 0.5);
    const b = planeOf(width, length, (x, y) => (inCorridor(x, y) ? 0.5 : 0.05));
    const path = runToEnd(minimumCut({ width, length, a: [a], b: [b] }, false));
    const crossed = Array.from(path.columns).filter(
      (x, k) =>
        !inCorridor(x, Math.min(path.rows[k], length - 1)) &&
        !inCorridor(x - 1, Math.min(path.rows[k], length - 1)),
    );
    expect(crossed.length).to.be.below(4);
  });

  it('meets itself on a cyclic strip', () => {
    for (const seed of [5, 6, 7]) {
      const { columns, rows } = runToEnd(minimumCut(noiseStrip(20, 30, seed), true));
      expect(columns[0]).to.equal(columns.at(-1));
      expect([rows[0], rows.at(-1)]).to.deep.equal([0, 30]);
    }
  });

  it('keeps to the middle of the strip, and its mask is pure at both ends', () => {
    const strip = noiseStrip(50, 40, 8);
    const path = runToEnd(minimumCut(strip, false));
    expect(Math.min(...path.columns)).to.be.at.least(9);
    expect(Math.max(...path.columns)).to.be.at.most(41);
    const mask = cutMask(strip, path);
    for (let y = 0; y < 40; y++) expect([mask[y * 50], mask[y * 50 + 49]]).to.deep.equal([1, 0]);
  });

  it('is kept as a text and read back', () => {
    const path = runToEnd(minimumCut(noiseStrip(24, 60, 9), false));
    expect(decodePath(encodePath(path))).to.deep.equal(path);
    expect(() => decodePath('12:dx')).to.throw(RangeError);
  });

  it('is followed at another size within a narrow band', () => {
    const small = noiseStrip(24, 60, 10);
    const path = runToEnd(minimumCut(small, false));
    const grow = (p: Float32Array) => planeOf(48, 120, (x, y) => p[(y >> 1) * 24 + (x >> 1)]);
    const large: Strip = { width: 48, length: 120, a: small.a.map(grow), b: small.b.map(grow) };
    const fine = runToEnd(refineCut(large, path, 2, false));
    const coarse = new Set(Array.from(path.columns, (x, k) => `${x},${path.rows[k]}`));
    const far = Array.from(fine.columns).filter((x, k) => {
      for (let dy = -2; dy <= 2; dy++) {
        for (let dx = -2; dx <= 2; dx++)
          if (coarse.has(`${(x >> 1) + dx},${(fine.rows[k] >> 1) + dy}`)) return false;
      }
      return true;
    });
    expect(far).to.deep.equal([]);
  });
});

describe('join', () => {
  const size = 256;
  const stones = photo(size, size);

  it('hides the edge of a picture that did not meet, on both figures and both axes', async () => {
    const before = pictureSeams(stones);
    expect(Math.min(before.seamX, before.seamY)).to.be.above(1.3);
    const { output } = await runStation('join', inputOf(stones), { from: 'straight' }, frameOf(size));
    const after = pictureSeams(output.picture);
    expect(Math.max(after.seamX, after.seamY, after.blotchX, after.blotchY)).to.be.at.most(1);
  });

  it('the figures fail what does not tile and pass what does', () => {
    const ramp = new Raster(size, size, [planeOf(size, size, (x) => x / size)]);
    expect(seamFigures(ramp).seamX).to.be.above(100);
    expect(seamFigures(ramp).blotchX).to.be.above(10);
    // A soft slope of light under grain: the blotch figure sees what the seam figure does not.
    const grainy = new Raster(size, size, [
      noisePlane(size * size, 3).map((v, i) => 0.5 + 0.4 * (v - 0.5) + 0.06 * ((i % size) / size)),
    ]);
    expect(seamFigures(grainy).seamX).to.be.below(1.1);
    expect(seamFigures(grainy).blotchX).to.be.above(1.5);
    const tiling = seamFigures(tilingPicture(size));
    expect(Math.max(...Object.values(tiling))).to.be.at.most(1.01);
    expect(seamFigures(Raster.filled(64, 64, 1, 0.5)).seamX).to.equal(0);
  });

  it('the figures of a picture are the same whether it is read in bands or whole', () => {
    // More rows than a band has, and not a whole number of bands.
    for (const [width, height] of [
      [96, 312],
      [64, 128],
      [61, 300],
    ]) {
      const planes = [1, 2, 3].map((of) =>
        noisePlane(width * height, of).map((v, i) => v * (i / (width * height))),
      );
      const found = pictureSeams(new Raster(width, height, planes));
      const whole = seamFigures(new Raster(width, height, planes.map(encodeSrgbPlane)));
      for (const name of ['seamX', 'seamY', 'blotchX', 'blotchY'] as const)
        expect(found[name]).to.be.closeTo(whole[name], 1e-4 * (1 + whole[name]));
    }
  });

  it('leaves alone to the bit what lies outside the strips', async () => {
    const margins = { left: 32, right: 32, top: 32, bottom: 32 };
    const picture = photo(size + 64, size + 64);
    const { output } = await runStation(
      'join',
      inputOf(picture, margins),
      { overlap: 0.2, from: 'straight' },
      frameOf(size),
    );
    const middle = (p: Raster, x: number) => p.cut(x, x, 128, 128).planes[0];
    expect([...middle(output.picture, 64)]).to.deep.equal([...middle(picture, 96)]);
  });

  it('joins only the axes it is told to', async () => {
    const { output } = await runStation('join', inputOf(stones), { axes: 'across' }, frameOf(size));
    const after = pictureSeams(output.picture);
    expect(after.seamX).to.be.at.most(1);
    expect(after.seamY).to.be.above(1.3);
    const { output: as } = await runStation('join', inputOf(stones), { axes: 'neither' }, frameOf(size));
    expect([...as.picture.planes[0]]).to.deep.equal([...stones.planes[0]]);
  });

  it('cuts the picture before Even along the same path', async () => {
    const dark = new Raster(
      size,
      size,
      stones.planes.map((p) => p.map((v) => 0.5 * v)),
    );
    const input = { square: squareOf(stones), even: { picture: dark } };
    const { output } = await runStation('join', input, {}, frameOf(size));
    const before: Raster = await output.before();
    let most = 0;
    before.planes[0].forEach((v, i) => {
      most = Math.max(most, Math.abs(0.5 * v - output.picture.planes[0][i]));
    });
    expect(most).to.be.below(1e-5);
  });

  for (const { most = 1.05, ...changes } of [
    { method: 'cut', blend: 'narrow' },
    { method: 'cut', blend: 'gradient' },
    { method: 'meet' },
    // Stones are not what it is for: it stays the same, but it may show.
    { method: 'mix', most: 1.6 },
    { method: 'spread' },
  ]) {
    it(`${Object.values(changes).join(', ')} gives the same again from its decision, to the bit, and hides the edge`, async () => {
      const margins = { left: 32, right: 32, top: 32, bottom: 32 };
      const input = inputOf(photo(size + 64, size + 64), margins);
      const { output, decided } = await runStation('join', input, changes, frameOf(size));
      const again = await runStation('join', input, changes, frameOf(size), { decided });
      output.picture.planes.forEach((plane: Float32Array, c: number) => {
        expect(farthest(plane, again.output.picture.planes[c])).to.equal(0);
      });
      const { seamX, seamY } = pictureSeams(output.picture);
      expect(Math.max(seamX, seamY)).to.be.at.most(most);
    });
  }

  it('warns of spreading where texture would show through, and offers a cut; tone alone may be spread', async () => {
    const size = 512;
    const lawn = photographed(MADE_SOURCES.lawn).cut(144, 54, size, size);
    const verdictOf = async (picture: Raster): Promise<Verdict> => {
      const settings = { ...defaultsOf(STATIONS.join.settings), method: 'spread' as const };
      const { output, decided } = await runStation('join', inputOf(picture), settings, frameOf(size));
      return STATIONS.join.verdict(output, inputOf(picture), settings, decided, frameOf(size), PLAIN_CONTEXT);
    };
    const verdict = await verdictOf(lawn);
    expect(verdict.state).to.equal('look');
    expect(verdict.brief).to.match(/^mismatch 0\.[3-6]/);
    expect(verdict.advice).to.contain('the texture of each edge shows');
    expect(verdict.remedies?.[0].settings).to.deep.equal([{ station: 'join', key: 'method', value: 'cut' }]);
    const grain = noisePlane(size * size, 5);
    const tone = planeOf(
      size,
      size,
      (x, y) => 0.3 + 0.1 * Math.sin((3 * x + 2 * y) / size) + 0.004 * grain[y * size + x],
    );
    const both = { x: true, y: true };
    expect(ghosting(new Raster(size, size, [tone, tone, tone].map(encodeSrgbPlane)), both)).to.be.below(0.1);
    expect(ghosting(lawn.mapPlanes(encodeSrgbPlane), both)).to.be.within(0.6, 1.2);
  });

  it('follows its decision at another size: the same tile, finer', async () => {
    const margins = { left: 32, right: 32, top: 32, bottom: 32 };
    const small = inputOf(photo(size + 64, size + 64), margins);
    const { output, decided } = await runStation('join', small, { method: 'meet' }, frameOf(size));
    const twice = { left: 64, right: 64, top: 64, bottom: 64 };
    const large = inputOf(photo(2 * size + 128, 2 * size + 128), twice);
    const fine = await runStation('join', large, { method: 'meet' }, frameOf(2 * size), { decided });
    const down = resizeArea(fine.output.picture, size, size);
    // The grain of the larger photo is its own; the stones are the same.
    const soft = (p: Raster) => gaussian(p.planes[0], size, size, 2, TORUS);
    expect(rmsBetween(soft(down), soft(output.picture))).to.be.below(0.02);
  });

  it('with none, a picture that already tiles passes untouched', async () => {
    const tile = tilingPicture(size);
    const { output } = await runStation('join', inputOf(tile), { method: 'none' }, frameOf(size));
    expect([...output.picture.planes[2]]).to.deep.equal([...tile.planes[2]]);
    expect([...rollPlane(output.picture.planes[0], size, size, 0, 0)]).to.deep.equal([...tile.planes[0]]);
  });
});
