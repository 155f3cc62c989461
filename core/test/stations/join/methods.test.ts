import { pictureSeams, Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import { TORUS } from '../../../src/raster/edges.ts';
import { findBend } from '../../../src/stations/join/meet.ts';
import { mixStrip, normalQuantile } from '../../../src/stations/join/mix.ts';
import { searchOffset } from '../../../src/stations/join/offset.ts';
import { spreadJumps } from '../../../src/stations/join/spread.ts';
import { statistics } from '../../../src/statistics/statistics.ts';
import { noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { grain, smooth, wall } from './surfaces.ts';

const still = async () => {};
const mean = (plane: Float32Array) => plane.reduce((sum, v) => sum + v, 0) / plane.length;

describe('the search for a shift', () => {
  it('finds the period of a wall near the crop’s edge without being told of it', async () => {
    const margin = 64;
    const size = 512;
    const picture = wall(size + 2 * margin, { across: 99, down: 70, turnDegrees: 0, even: true });
    const margins = { left: margin, right: margin, top: margin, bottom: margin };
    const [across, aside] = await searchOffset(picture, margins, size, 1, 1 / 6, still);
    expect(across * size).to.be.closeTo(5 * 99, 2);
    expect(Math.abs(aside * size)).to.be.at.most(1);
  });
});

describe('mixing fine grain', () => {
  const strip = () => {
    const [a, b] = [grain(128, 1).planes[0], grain(128, 2).planes[0]];
    const cut = (plane: Float32Array) => planeOf(64, 128, (x, y) => plane[y * 128 + x]);
    return { strip: { width: 64, length: 128, a: [cut(a)], b: [cut(b)] }, whole: [a] };
  };

  it('keeps the spread that a plain crossfade loses', () => {
    const { strip: one, whole } = strip();
    const [mixed] = mixStrip(one, whole);
    const middle = (plane: Float32Array) =>
      statistics(planeOf(8, 128, (x, y) => plane[y * 64 + 28 + x])).deviation;
    const plain = one.a[0].map((v, i) => (v + one.b[0][i]) / 2);
    expect(middle(plain)).to.be.below(0.8 * middle(one.a[0]));
    expect(middle(mixed)).to.be.within(0.93 * middle(one.a[0]), 1.07 * middle(one.a[0]));
  });

  it('is the far copy at one end and the near one at the other', () => {
    const { strip: one, whole } = strip();
    const [mixed] = mixStrip(one, whole);
    for (let y = 0; y < 128; y++) {
      expect(mixed[y * 64]).to.be.closeTo(one.a[0][y * 64], 0.01);
      expect(mixed[y * 64 + 63]).to.be.closeTo(one.b[0][y * 64 + 63], 0.01);
    }
  });

  it('knows the normal distribution', () => {
    expect(normalQuantile(0.5)).to.be.closeTo(0, 1e-9);
    expect(normalQuantile(0.975)).to.be.closeTo(1.959964, 1e-6);
    expect(normalQuantile(0.001)).to.be.closeTo(-3.090232, 1e-6);
  });
});

describe('spreading the difference', () => {
  it('makes smooth tone meet itself and keeps its mean', async () => {
    const picture = smooth(128);
    expect(pictureSeams(picture).seamX).to.be.above(5);
    const spread = await spreadJumps(picture, TORUS, still);
    const f = pictureSeams(spread);
    expect(Math.max(f.seamX, f.seamY)).to.be.at.most(1.5);
    picture.planes.forEach((plane, c) => {
      expect(mean(spread.planes[c])).to.be.closeTo(mean(plane), 1e-4);
    });
  });

  it('leaves alone what meets already', async () => {
    const wave = planeOf(64, 64, (x, y) => 0.5 + 0.2 * Math.sin((2 * Math.PI * (3 * x + 2 * y)) / 64));
    const spread = await spreadJumps(new Raster(64, 64, [wave]), TORUS, still);
    // Not to the bit: between the last column and the first lies a step of the wave itself.
    expect(rmsBetween(spread.planes[0], wave)).to.be.below(0.02);
  });
});

describe('bending both sides together', () => {
  it('finds by how much rows are apart', () => {
    const size = 256;
    const rows = (shift: number) =>
      planeOf(48, size, (_x, y) => 0.4 + 0.3 * Math.sin((2 * Math.PI * (y + shift)) / 32));
    const noise = noisePlane(48 * size, 3);
    const strip = {
      width: 48,
      length: size,
      a: [rows(0).map((v, i) => v + 0.02 * noise[i])],
      b: [rows(6)],
    };
    const bend = findBend(strip, size, false);
    // What lies at y in `a` lies at y − 6 in `b`: together they move by six pixels.
    const middle = bend.along.slice(20, 76);
    expect(mean(Float32Array.from(middle)) * size).to.be.closeTo(6, 1);
    expect(Math.max(...bend.across.map(Math.abs)) * size).to.be.below(4);
  });
});
