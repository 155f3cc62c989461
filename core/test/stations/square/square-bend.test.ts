import {
  type BendMesh,
  cropMapper,
  flatMesh,
  isFolded,
  MIRROR,
  meshWith,
  type Problem,
  Raster,
  resizeLanczos,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { meshMove, splineWeights } from '../../../src/stations/square/mesh.ts';
import { cropOffers } from '../../../src/stations/square/offers/crop-offers.ts';
import { noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { wall } from '../join/surfaces.ts';
import { frameOf, runStation } from '../run.ts';

const crop = { centreX: 0.5, centreY: 0.5, share: 0.7, turnDegrees: 0 };
const inputOf = (picture: Raster) => ({
  picture,
  alpha: null,
  given: {},
  originalWidth: picture.width,
  originalHeight: picture.height,
});
const still = async () => {};

/** A bend whose rows are moved by a function of the place across. */
const rowsMoved = (across: number, down: number, by: (u: number) => number): BendMesh => ({
  ...flatMesh(across, down),
  moves: Array.from({ length: across * down }, (_, k) => [0, by((k % across) / (across - 1))]),
});

describe('the bend', () => {
  it('runs through its handles, keeps what is straight straight, and goes on straight outside', () => {
    for (const n of [3, 4, 5, 6]) {
      for (let k = 0; k < n; k++) {
        const weights = splineWeights(n, k / (n - 1));
        for (const [i, weight] of weights.entries()) expect(weight).to.be.closeTo(Number(i === k), 1e-12);
      }
      for (const t of [-0.3, 0.13, 0.5, 0.97, 1.2]) {
        const place = splineWeights(n, t).reduce((sum, weight, k) => sum + (weight * k) / (n - 1), 0);
        expect(place).to.be.closeTo(t, 1e-12);
      }
    }
  });

  it('is smooth: its slope does not jump at a handle or at the border', () => {
    const d = 1e-4;
    for (const t of [0, 1 / 3, 2 / 3, 1]) {
      const at = (x: number) => splineWeights(4, x)[1];
      const [before, after] = [(at(t) - at(t - d)) / d, (at(t + d) - at(t)) / d];
      expect(after - before).to.be.closeTo(0, 0.01);
    }
  });

  it('is the same under other handles where these can follow it', () => {
    const mesh = rowsMoved(3, 3, (u) => 0.05 * u);
    const finer = meshWith(mesh, 6, 5);
    expect(finer.moves).to.have.length(30);
    for (const [u, v] of [
      [0.2, 0.4],
      [0.9, 0.1],
    ]) {
      meshMove(finer, u, v).forEach((value, k) => {
        expect(value).to.be.closeTo(meshMove(mesh, u, v)[k], 1e-9);
      });
    }
  });

  it('makes bowed rows level, margins included, in one resampling', async () => {
    const size = 400;
    const bow = (x: number) => 14 * Math.sin((Math.PI * (x - 60)) / 280);
    const plane = planeOf(size, size, (x, y) => 0.4 + 0.2 * Math.sin((y - bow(x)) / 5));
    const photo = new Raster(size, size, [plane, plane, plane]);
    const edge = 0.7 * size;
    const mesh = rowsMoved(6, 3, (u) => bow(60 + u * edge) / edge);
    const { output } = await runStation('square', inputOf(photo), { ...crop, bend: mesh }, frameOf(256));
    const { picture, margins } = output;
    const [values] = picture.planes;
    let unlevel = 0;
    for (let y = margins.top; y < margins.top + 256; y++) {
      const row = values.subarray(y * picture.width + margins.left, y * picture.width + margins.left + 256);
      unlevel = Math.max(unlevel, Math.max(...row) - Math.min(...row));
    }
    expect(unlevel).to.be.below(0.05);
    const { output: plain } = await runStation('square', inputOf(photo), crop, frameOf(256));
    const [before] = plain.picture.planes;
    const line = before.subarray(
      100 * plain.picture.width + plain.margins.left,
      100 * plain.picture.width + plain.margins.left + 256,
    );
    expect(Math.max(...line) - Math.min(...line)).to.be.above(0.3);
  });

  it('that moves nothing changes nothing', async () => {
    // No finer than what a lens leaves: of the finest each way of resampling keeps something else.
    const coarse = new Raster(100, 75, [noisePlane(100 * 75, 4)]);
    const [noise] = resizeLanczos(coarse, 200, 150, MIRROR).planes;
    const photo = new Raster(200, 150, [noise, noise, noise]);
    const settings = { ...crop, turnDegrees: 5 };
    const { output: plain } = await runStation('square', inputOf(photo), settings, frameOf(256));
    const { output: bent } = await runStation(
      'square',
      inputOf(photo),
      { ...settings, bend: flatMesh(4, 4) },
      frameOf(256),
    );
    expect(bent.margins).to.deep.equal(plain.margins);
    expect(rmsBetween(bent.picture.planes[0], plain.picture.planes[0])).to.be.below(1e-3);
  });

  it('that folds is refused in plain words', async () => {
    const mesh = flatMesh(3, 3);
    mesh.moves[4] = [0.9, 0];
    expect(isFolded(mesh)).to.equal(true);
    expect(isFolded(flatMesh(3, 3))).to.equal(false);
    let problem: Problem | undefined;
    try {
      const noise = noisePlane(90 * 90, 4);
      await runStation(
        'square',
        inputOf(new Raster(90, 90, [noise, noise, noise])),
        { ...crop, bend: mesh },
        frameOf(256),
      );
    } catch (error) {
      problem = error as Problem;
    }
    expect(problem?.code).to.equal('bad_bend');
    expect(`${problem?.message} ${problem?.hint}`).to.match(/over itself.*handles apart/);
  });
});

describe('pieces offered', () => {
  it('of a slanted wall are whole periods that hide their edge, and say by how much they are changed', async () => {
    const photo = wall(640, { across: 76, down: 52, turnDegrees: 2.5, bond: true });
    const [first, ...others] = await cropOffers(photo, 0, '1:1', still);
    expect(first.periods?.turn).to.be.closeTo(2.5, 0.15);
    expect(first.periods!.stretch).to.be.within(1, 1.16);
    // Whole periods: opposite corners lie whole blocks and an even number of rows apart.
    const [a, b, , d] = first.framing.corners!;
    const along = Math.hypot((b[0] - a[0]) * 640, (b[1] - a[1]) * 640) / 76;
    const down = Math.hypot((d[0] - a[0]) * 640, (d[1] - a[1]) * 640) / 52;
    expect(Math.abs(along - Math.round(along))).to.be.below(0.03);
    expect(Math.abs(down / 2 - Math.round(down / 2))).to.be.below(0.03);
    const worst = (offer: typeof first) => Math.max(offer.seams.seamX, offer.seams.seamY);
    expect(worst(first)).to.be.below(1);
    expect(others.filter((offer) => !offer.periods)).to.have.length(3);
  });

  it('of a surface without a period have edges more alike than the middle crop', async () => {
    const size = 320;
    const spots = noisePlane(1200, 6);
    const plane = planeOf(size, size, (x, y) => {
      let value = 0.3;
      for (let k = 0; k < 60; k++) {
        const d = Math.hypot(x - size * spots[3 * k], y - size * spots[3 * k + 1]);
        const r = 14 + 22 * spots[3 * k + 2];
        if (d < r) value += 0.25 * (1 - d / r);
      }
      return value;
    });
    const photo = new Raster(size, size, [plane, plane, plane]);
    const offers = await cropOffers(photo, 0, '1:1', still);
    expect(offers.every((offer) => offer.periods === null)).to.equal(true);
    const edgeOf = (framing: Parameters<typeof cropMapper>[2]) => {
      const { at } = cropMapper(size, size, framing);
      let sum = 0;
      const value = (u: number, v: number) => {
        const [x, y] = at(u, v);
        const inside = (n: number) => Math.min(size - 1, Math.max(0, Math.floor(n)));
        return plane[inside(y) * size + inside(x)];
      };
      for (let k = 0.5; k < 64; k++) {
        sum += Math.abs(value(0, k / 64) - value(1, k / 64)) + Math.abs(value(k / 64, 0) - value(k / 64, 1));
      }
      return sum;
    };
    const middle = edgeOf({ ...offers[0].framing, centreX: 0.5, centreY: 0.5 });
    expect(edgeOf(offers[0].framing)).to.be.below(0.8 * middle);
  });
});
