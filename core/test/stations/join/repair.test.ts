import { coverOf, type Graft, Raster, type Repair, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { MIRROR } from '../../../src/raster/edges.ts';
import { rollPlane } from '../../../src/raster/roll.ts';
import { repaired } from '../../../src/stations/join/repair/apply.ts';
import { membrane } from '../../../src/stations/join/repair/membrane.ts';
import { graftOffers } from '../../../src/stations/join/repair/offers.ts';
import { patchOf } from '../../../src/stations/join/repair/patch.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { noisePlane, planeOf } from '../../fields.ts';

const N = 128;
const NO_MARGINS = { left: 0, right: 0, top: 0, bottom: 0 };
const one = (plane: Float32Array, width = N) => new Raster(width, plane.length / width, [plane]);
const textured = (seed = 5) => one(noisePlane(N * N, seed).map((v) => 0.2 + 0.5 * v));
const photoOf = (picture: Raster) => ({ picture, margins: NO_MARGINS });
const stroke = (changes: object): Repair =>
  ({
    kind: 'clone',
    points: [[0.5, 0.5]],
    radius: 0.1,
    softness: 0,
    opacity: 1,
    offset: [0.25, 0],
    ...changes,
  }) as Repair;
const apply = (tile: Raster, repairs: Repair[], edges = TORUS) =>
  repaired(tile, photoOf(tile), repairs, 'colour', 'test', edges, PLAIN_CONTEXT);

describe('a stroke', () => {
  it('covers a disc of its radius, whole inside and nothing outside', () => {
    const cover = coverOf({ points: [[0.5, 0.5]], radius: 0.125, softness: 0 }, N, N, TORUS);
    const area = cover.values.reduce((sum, v) => sum + v, 0);
    expect(area).to.be.closeTo(Math.PI * 16 ** 2, 8);
    expect(Math.max(...cover.values)).to.equal(1);
    expect(cover.width).to.be.below(40);
  });

  it('covers the same share of a tile at every size, with pressure and over the edge', () => {
    const given = {
      points: [
        [0.9, 0.4, 0.3],
        [1.15, 0.55, 1],
      ] as [number, number, number][],
      radius: 0.06,
      softness: 0.5,
    };
    const share = (n: number) => {
      const { values } = coverOf(given, n, n, TORUS);
      return values.reduce((sum, v) => sum + v, 0) / (n * n);
    };
    expect(share(512) / share(128)).to.be.closeTo(1, 0.01);
  });

  it('comes in again on the other side of a torus, and is cut off on a plane that ends', () => {
    const given = { points: [[0, 0.5]] as [number, number][], radius: 0.1, softness: 0 };
    const area = (edges: typeof TORUS) =>
      coverOf(given, N, N, edges).values.reduce((sum, value) => sum + value, 0);
    expect(area(MIRROR)).to.be.closeTo(area(TORUS) / 2, 2);
  });

  it('that leaves the tile by a hundred widths wraps round and round in reasonable time', () => {
    const given = {
      points: [
        [0, 0.3],
        [100, 0.3],
      ] as [number, number][],
      radius: 0.02,
      softness: 0,
    };
    const cover = coverOf(given, N, N, TORUS);
    expect(cover.width).to.equal(N);
    // A level line: whole rows are covered, and only they.
    const middle = Math.floor(0.3 * N) - cover.y;
    expect(cover.values.subarray(middle * N, (middle + 1) * N).every((v) => v === 1)).to.equal(true);
    expect(cover.height).to.be.below(12);
  });

  it('wholly outside a plane that ends covers nothing', () => {
    const cover = coverOf({ points: [[3, 3]], radius: 0.1, softness: 0 }, N, N, MIRROR);
    expect(cover.values.length).to.equal(0);
  });
});

describe('a membrane', () => {
  it('is a harmonic function where its border is one', () => {
    const n = 65;
    const truth = planeOf(n, n, (x, y) => ((x - 32) ** 2 - (y - 32) ** 2) / 1024 + 0.01 * x);
    const inside = new Uint8Array(n * n);
    for (let y = 0; y < n; y++) {
      for (let x = 0; x < n; x++) inside[y * n + x] = Number(Math.hypot(x - 32, y - 30) < 26);
    }
    const broken = truth.map((v, i) => (inside[i] ? 99 : v));
    const filled = membrane(broken, inside, n, n, MIRROR);
    const worst = filled.reduce((most, v, i) => Math.max(most, Math.abs(v - truth[i])), 0);
    expect(worst).to.be.below(0.02);
  });

  it('stays between the least and the most of its border, in thin and broken shapes', () => {
    const n = 40;
    const values = noisePlane(n * n, 3);
    const inside = Uint8Array.from(noisePlane(n * n, 4), (v) => Number(v > 0.4));
    const filled = membrane(values, inside, n, n, MIRROR);
    expect(Math.min(...filled)).to.be.at.least(0);
    expect(Math.max(...filled)).to.be.at.most(1);
  });

  it('has nothing to hold on to where all is inside', () => {
    const filled = membrane(new Float32Array(16).fill(3), new Uint8Array(16).fill(1), 4, 4, MIRROR);
    expect([...filled].every((v) => v === 0)).to.equal(true);
  });
});

describe('repairs', () => {
  it('clone: the disc holds exactly what lay at the source', async () => {
    const tile = textured();
    const out = await apply(tile, [stroke({})]);
    const at = (raster: Raster, x: number, y: number) => raster.planes[0][y * N + x];
    expect(at(out, 64, 64)).to.equal(at(tile, 96, 64));
    expect(at(out, 60, 70)).to.equal(at(tile, 92, 70));
    expect(at(out, 20, 64)).to.equal(at(tile, 20, 64));
  });

  it('read the tile as it was before the stroke: nothing smears', async () => {
    const tile = textured();
    const out = await apply(tile, [
      stroke({
        points: [
          [0.3, 0.5],
          [0.7, 0.5],
        ],
        offset: [-0.1, 0],
      }),
    ]);
    const from = Math.round(0.1 * N);
    for (let x = 45; x < 85; x++) {
      const near = tile.planes[0][64 * N + x - from];
      const far = tile.planes[0][64 * N + x - from + 1];
      const got = out.planes[0][64 * N + x];
      expect(got).to.be.within(Math.min(near, far) - 1e-6, Math.max(near, far) + 1e-6);
    }
  });

  it('commute with rolling the torus', async () => {
    const tile = textured();
    const move = (repairs: Repair[], by: number) =>
      repairs.map((one) => ({
        ...one,
        ...('points' in one ? { points: one.points.map(([x, y]) => [x + by, y]) } : {}),
      })) as Repair[];
    const repairs = [
      stroke({
        points: [
          [0.9, 0.2],
          [1.1, 0.3],
        ],
      }),
      stroke({ kind: 'heal', points: [[0.2, 0.6]], offset: [0.5, 0.25], softness: 0.4 }),
    ];
    const rolled = one(rollPlane(tile.planes[0], N, N, N / 2, 0));
    const there = rollPlane((await apply(rolled, move(repairs, 0.5))).planes[0], N, N, -N / 2, 0);
    const here = (await apply(tile, repairs)).planes[0];
    const worst = here.reduce((most, v, i) => Math.max(most, Math.abs(v - there[i])), 0);
    expect(worst).to.be.below(2e-3);
  });

  it('heal all the way across: what is laid goes on over the edge as it does inside', async () => {
    const tile = one(planeOf(N, N, (x, y) => 0.3 + 0.2 * Math.sin((2 * Math.PI * (x + 3 * y)) / N)));
    const across = stroke({
      kind: 'heal',
      points: [
        [0.05, 0.4],
        [0.95, 0.4],
      ],
      offset: [0.25, 0.5],
      radius: 0.12,
    });
    const [plane] = (await apply(tile, [across])).planes;
    let inside = 0;
    let edge = 0;
    for (let y = 40; y < 62; y++) {
      const row = y * N;
      edge = Math.max(edge, Math.abs(plane[row] - plane[row + N - 1]));
      for (let x = 1; x < N; x++) inside = Math.max(inside, Math.abs(plane[row + x] - plane[row + x - 1]));
    }
    expect(edge).to.be.at.most(inside);
  });

  it('heal: the detail comes from the source, the light from around', async () => {
    const grain = noisePlane(N * N, 8);
    const light = (x: number) => (x < 64 ? 0.6 : 0.15);
    const tile = one(planeOf(N, N, (x, y) => light(x) * (0.9 + 0.2 * grain[y * N + x])));
    const out = await apply(tile, [stroke({ kind: 'heal', points: [[0.25, 0.5]], offset: [0.5, 0] })]);
    let sum = 0;
    let follows = 0;
    let count = 0;
    for (let y = 56; y < 72; y++) {
      for (let x = 24; x < 40; x++) {
        const value = out.planes[0][y * N + x];
        sum += value;
        const [grainThere, grainHere] = [grain[y * N + x + 64], grain[y * N + x]];
        follows +=
          Math.abs(value / 0.6 - (0.9 + 0.2 * grainThere)) < Math.abs(value / 0.6 - (0.9 + 0.2 * grainHere))
            ? 1
            : 0;
        count++;
      }
    }
    expect(sum / count).to.be.closeTo(0.6, 0.04);
    expect(follows / count).to.be.above(0.65);
  });

  it('with half the opacity go half the way', async () => {
    const tile = one(planeOf(N, N, (x) => (x < 80 ? 0.2 : 0.6)));
    const out = await apply(tile, [stroke({ opacity: 0.5, offset: [0.4, 0] })]);
    expect(out.planes[0][64 * N + 64]).to.be.closeTo(0.4, 1e-6);
  });

  it('make the same tile at half the size', async () => {
    const smooth = (n: number) =>
      one(
        planeOf(
          n,
          n,
          (x, y) => 0.4 + 0.2 * Math.sin((12.566 * (x + 0.5)) / n) * Math.cos((6.283 * (y + 0.5)) / n),
        ),
        n,
      );
    const repairs = [
      stroke({ softness: 0.6, offset: [0.3, 0.2] }),
      stroke({ kind: 'heal', points: [[0.8, 0.8]], softness: 0.6, offset: [0.3, 0.2] }),
    ];
    const small = await apply(smooth(N), repairs);
    const large = await apply(smooth(2 * N), repairs);
    let worst = 0;
    for (let y = 0; y < N; y++) {
      for (let x = 0; x < N; x++) {
        const at = 2 * y * 2 * N + 2 * x;
        const four = [0, 1, 2 * N, 2 * N + 1].reduce((sum, d) => sum + large.planes[0][at + d], 0) / 4;
        worst = Math.max(worst, Math.abs(four - small.planes[0][y * N + x]));
      }
    }
    expect(worst).to.be.below(0.02);
  });

  it('of a data map stay within 0 and 1', async () => {
    const tile = one(planeOf(N, N, (x) => (x < 64 ? 0.02 : 0.98)));
    const patch = patchOf(
      tile,
      photoOf(tile),
      stroke({ kind: 'heal', points: [[0.5, 0.5]], offset: [0.2, 0] }),
      'data',
      TORUS,
    );
    expect(Math.min(...patch!.planes[0])).to.be.at.least(0);
    expect(Math.max(...patch!.planes[0])).to.be.at.most(1);
  });
});

describe('grafts', () => {
  /** Blobs at random, and one that is unlike them all. */
  function blobs(withStain: boolean): Raster {
    const spots = noisePlane(900, 12);
    const plane = planeOf(256, 256, (x, y) => {
      let value = 0.3;
      for (let k = 0; k < 150; k++) {
        const dx = Math.abs(x - 256 * spots[3 * k]);
        const dy = Math.abs(y - 256 * spots[3 * k + 1]);
        const d = Math.hypot(Math.min(dx, 256 - dx), Math.min(dy, 256 - dy));
        if (d < 10) value = 0.3 + 0.3 * (1 - d / 10);
      }
      return withStain && Math.hypot(x - 128, y - 128) < 14 ? 0.02 : value;
    });
    return new Raster(256, 256, [plane, plane, plane]);
  }

  it('cover the place, come from elsewhere, and hide their edge', async () => {
    const tile = blobs(true);
    const photo = { picture: tile, margins: NO_MARGINS };
    const offers = await graftOffers(tile, photo, { x: 0.5, y: 0.5, radius: 0.09 }, TORUS, async () => {});
    expect(offers.length).to.equal(6);
    for (const { graft } of offers) {
      const away = Math.hypot(
        Math.min(Math.abs(graft.offset[0]), 1 - Math.abs(graft.offset[0])),
        Math.min(Math.abs(graft.offset[1]), 1 - Math.abs(graft.offset[1])),
      );
      expect(away).to.be.above(0.17);
    }
    const unlike = offers.map((offer) => offer.unlike);
    expect(unlike).to.deep.equal([...unlike].sort((a, b) => a - b));
    expect(unlike[0]).to.be.below(2);
    const out = await repaired(tile, photo, [offers[0].graft], 'colour', 't', TORUS, PLAIN_CONTEXT);
    let dark = 0;
    for (const v of out.planes[0]) if (v < 0.1) dark++;
    expect(dark).to.equal(0);
  });

  it('taken from the photo lie where they were taken, margins aside', async () => {
    const margins = { left: 8, right: 8, top: 4, bottom: 4 };
    const flat = new Raster(64, 64, [new Float32Array(64 * 64).fill(0.4)]);
    const marked = new Raster(80, 72, [
      planeOf(80, 72, (x, y) => (x === 8 + 40 && y === 4 + 20 ? 0.8 : 0.4)),
    ]);
    const square: [number, number][] = [
      [0.2, 0.2],
      [0.4, 0.2],
      [0.4, 0.4],
      [0.2, 0.4],
    ];
    const graft: Graft = { kind: 'graft', outline: square, offset: [0.3125, 0], of: 'photo' };
    const out = await repaired(
      flat,
      { picture: marked, margins },
      [graft],
      'colour',
      't',
      TORUS,
      PLAIN_CONTEXT,
    );
    expect(out.planes[0][20 * 64 + 20]).to.be.closeTo(0.8, 0.01);
    expect(out.planes[0][40 * 64 + 40]).to.be.closeTo(0.4, 1e-6);
  });
});
