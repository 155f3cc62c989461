import {
  gaussian,
  KERNELS,
  luminance,
  percentiles,
  Raster,
  resizeArea,
  runToEnd,
  type Steps,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { blurring } from '../../src/filters/gaussian.ts';
import { madeInParts } from '../../src/planes/made-in-parts.ts';
import { mapped, mapping } from '../../src/planes/mapped.ts';
import { summing } from '../../src/planes/summing.ts';
import { resizingArea } from '../../src/sampling/resize.ts';
import { measuringSeams, pictureSeams } from '../../src/stations/join/seam.ts';
import { findingPercentiles, histogramPercentiles } from '../../src/statistics/histogram.ts';
import { inParts } from '../../src/work/steps.ts';
import { farthest, noisePlane, tilingPicture } from '../fields.ts';
import { withBothKernels } from '../kernels/both.ts';

/** More than two parts, the last of them not whole. */
const LENGTH = 2 ** 19 + 12345;

const pausesOf = (work: Steps<unknown>): number => {
  let pauses = 0;
  while (!work.next().done) pauses++;
  return pauses;
};

withBothKernels('planes in parts', () => {
  const a = noisePlane(LENGTH, 1);
  const b = noisePlane(LENGTH, 2);

  it('every value has its turn once, in its place', () => {
    const seen = new Uint8Array(LENGTH);
    let end = 0;
    const pauses = pausesOf(
      inParts(LENGTH, (from, to) => {
        expect(from).to.equal(end);
        end = to;
        for (let i = from; i < to; i++) seen[i]++;
      }),
    );
    expect(end).to.equal(LENGTH);
    expect(seen.every((times) => times === 1)).to.equal(true);
    expect(pauses).to.equal(3);
  });

  it('are what they are in one go: sums, maps of values, planes made of others', () => {
    const weights = [0.7, -1.3];
    const range = { base: 0.1, low: -0.8, high: 0.9 };
    const whole = KERNELS.sumPlanes([a, b], weights, range);
    expect(farthest(runToEnd(summing([a, b], weights, range)), whole)).to.equal(0);
    const own = a.slice();
    expect(runToEnd(summing([own, b], weights, range, own))).to.equal(own);
    expect(farthest(own, whole)).to.equal(0);
    const of = (value: number, i: number) => value * (i % 7) + b[i];
    expect(farthest(runToEnd(mapping(a, of)), mapped(a, of))).to.equal(0);
    const positive = a.map((value) => Math.abs(value));
    const log = (from: number, to: number) => KERNELS.logPlane(positive.subarray(from, to), 0.01);
    expect(farthest(runToEnd(madeInParts(LENGTH, log)), KERNELS.logPlane(positive, 0.01))).to.equal(0);
  });

  it('tell percentiles to a bin of their range, and pause on the way', () => {
    const ranks = [0, 2, 50, 98, 100];
    const exact = percentiles(a, ranks);
    const found = histogramPercentiles(a, ranks);
    const [low, high] = [exact[0], exact[4]];
    for (const [k, value] of found.entries())
      expect(value).to.be.closeTo(exact[k], (2 * (high - low)) / 65536);
    expect(pausesOf(findingPercentiles(a, ranks))).to.be.at.least(6);
    expect(histogramPercentiles(new Float32Array(9).fill(0.3), [5, 50])).to.deep.equal([
      Math.fround(0.3),
      Math.fround(0.3),
    ]);
  });

  it('luminance does not write into what it is taken from', () => {
    const before = [a, b, a].map((plane) => plane.slice());
    luminance(new Raster(1, LENGTH, [a, b, a]));
    luminance(new Raster(1, LENGTH, [a]))[5] = 9;
    for (const [c, plane] of [a, b, a].entries()) expect(farthest(plane, before[c])).to.equal(0);
  });
});

describe('pictures in bands', () => {
  it('come to the same where others use the kernels at every pause', () => {
    const tile = tilingPicture(512);
    const large = new Raster(1024, 1024, [noisePlane(2 ** 20, 5)]);
    const disturbed = <T>(work: Steps<T>): [T, number] => {
      for (let pauses = 0; ; pauses++) {
        const step = work.next();
        if (step.done) return [step.value, pauses];
        gaussian(tile.planes[0], 512, 512, 2 + pauses, TORUS);
        resizeArea(tile, 100, 90);
      }
    };
    const [small, resized] = disturbed(resizingArea(large, 256, 256));
    expect(farthest(small.planes[0], resizeArea(large, 256, 256).planes[0])).to.equal(0);
    const [seams, measured] = disturbed(measuringSeams(tile));
    expect(seams).to.deep.equal(pictureSeams(tile));
    for (const sigma of [2, 9]) {
      const [blurred, pauses] = disturbed(blurring(large.planes[0], 1024, 1024, sigma, TORUS));
      expect(farthest(blurred, gaussian(large.planes[0], 1024, 1024, sigma, TORUS))).to.equal(0);
      expect(pauses).to.be.above(1);
    }
    expect(Math.min(resized, measured)).to.be.above(1);
  });

  it('a blur that is left on its way has touched nothing, and the next one is right', () => {
    const plane = noisePlane(2 ** 20, 3);
    const before = plane.slice();
    for (const sigma of [2, 9]) {
      const whole = gaussian(plane, 1024, 1024, sigma, TORUS);
      const left = blurring(plane, 1024, 1024, sigma, TORUS);
      expect(left.next().done).to.equal(false);
      left.return(plane);
      expect(farthest(plane, before)).to.equal(0);
      expect(farthest(gaussian(plane, 1024, 1024, sigma, TORUS), whole)).to.equal(0);
    }
  });
});
