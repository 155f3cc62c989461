import { Raster, type StationName, type Verdict } from '@zesty-tile/core';
import { expect } from 'chai';
import { isOneColour } from '../../src/statistics/one-colour.ts';
import { tilingPicture } from '../fields.ts';
import { frameOf, unpainted, verdictOf } from './run.ts';

const SIZE = 64;
const plain = (...values: number[]) =>
  new Raster(
    SIZE,
    SIZE,
    values.map((value) => new Float32Array(SIZE * SIZE).fill(value)),
  );

/** Verdicts of the stations that calibrate a picture. */
async function verdictsOf(picture: Raster): Promise<Partial<Record<StationName, Verdict>>> {
  const join = unpainted(picture);
  const relief = await verdictOf('relief', { style: join }, {}, frameOf(SIZE));
  const gauge = await verdictOf('gauge', { style: join }, {}, frameOf(SIZE));
  const finish = await verdictOf('finish', { style: join, relief: relief.output }, {}, frameOf(SIZE));
  return { relief: relief.verdict, gauge: gauge.verdict, finish: finish.verdict };
}

describe('a tile that starts from one colour', () => {
  it('is known by it, to less than an eight-bit code, also where only one channel differs', () => {
    expect(isOneColour(plain(0.2, 0.3, 0.4))).to.equal(true);
    const nearly = plain(0.2, 0.3, 0.4);
    nearly.planes[1][100] += 1e-5;
    expect(isOneColour(nearly)).to.equal(true);
    nearly.planes[1][SIZE * SIZE - 1] += 2e-3;
    expect(isOneColour(nearly)).to.equal(false);
  });

  it('is asked for no reference and for no depth', async () => {
    const { relief, gauge, finish } = await verdictsOf(plain(0.2, 0.3, 0.4));
    for (const verdict of [relief, gauge, finish]) {
      expect([verdict!.state, verdict!.advice]).to.deep.equal(['fine', '']);
    }
    expect(gauge!.brief).to.equal('one colour');
    expect(gauge!.sentence).to.match(/^Median 0\.286, one colour\./);
    expect(relief!.sentence).to.include('until coats give it height');
  });

  it('still hears of a colour that no surface has, and a photo of its missing reference', async () => {
    const white = { style: unpainted(plain(1, 1, 1)) };
    const { verdict } = await verdictOf('gauge', white, { hold: false }, frameOf(SIZE));
    expect(verdict.state).to.equal('look');
    expect(verdict.sentence).to.include('is beyond what any dielectric has');
    const { gauge, finish } = await verdictsOf(tilingPicture(SIZE));
    expect(gauge!.advice).to.include('Choose the line of the chart');
    expect(finish!.advice).to.include('Choose the reference');
  });
});
