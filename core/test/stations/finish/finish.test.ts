import {
  CHART,
  chartLine,
  histogramPercentiles,
  luminance,
  mapRaster,
  surfaceOf,
  type TileOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { tilingPicture } from '../../fields.ts';
import { frameOf, runAfterJoin, runStation, unpainted } from '../run.ts';

const size = 64;
const picture = tilingPicture(size);
const frame = frameOf(size);

async function finished(changes: object) {
  const join = unpainted(picture);
  const { output: relief } = await runStation('relief', { style: join, omit: ['occlusion'] }, {}, frame);
  return (await runStation('finish', { style: join, relief }, changes, frame)).output;
}

const rankOrder = (values: ArrayLike<number>) => [10, 1000, 2000, 3333].map((i) => values[i]);

describe('finish', () => {
  it('keeps roughness inside the band of every line of the chart', async () => {
    for (const line of CHART.lines) {
      const { roughness } = await finished({ line: line.id });
      const [low, high] = histogramPercentiles(roughness, [0, 100]);
      expect(low, line.id).to.be.at.least(line.roughness[0] - 1e-6);
      expect(high, line.id).to.be.at.most(line.roughness[1] + 1e-6);
      expect(high - low, line.id).to.be.above(0.3 * (line.roughness[1] - line.roughness[0]));
    }
  });

  it('a metal line is metallic with its own colour of F0, a dielectric one is not', async () => {
    const copper = await finished({ line: 'copper' });
    expect([copper.metallic, copper.f0]).to.deep.equal([1, chartLine('copper')?.f0]);
    const clay = await finished({ line: 'fired-clay-red' });
    expect([clay.metallic, clay.f0]).to.deep.equal([0, [0.04, 0.04, 0.04]]);
    expect((await finished({ line: 'copper', metal: 'no' })).metallic).to.equal(0);
    expect((await finished({ line: 'fired-clay-red', metal: 'yes' })).metallic).to.equal(1);
  });

  it('brightness makes it rougher or smoother, as the dial is turned', async () => {
    const y = luminance(picture);
    const bright = y.indexOf(Math.max(...y));
    const dark = y.indexOf(Math.min(...y));
    const up = (await finished({ tone: 1, cavity: 0 })).roughness;
    const down = (await finished({ tone: -1, cavity: 0 })).roughness;
    expect(up[bright]).to.be.above(up[dark] + 0.1);
    expect(down[bright]).to.be.below(down[dark] - 0.1);
  });

  it('the tone curve bends without leaving the band or changing the order', async () => {
    const straight = (await finished({})).roughness;
    const smooth = (await finished({ curve: 1 })).roughness;
    const rough = (await finished({ curve: -1 })).roughness;
    const [a, b, c] = [smooth, straight, rough].map((plane) => histogramPercentiles(plane, [50])[0]);
    expect(a).to.be.below(b).and.below(c);
    expect(b).to.be.below(c);
    const order = (values: number[]) =>
      values
        .map((v, i) => [v, i])
        .sort(([x], [z]) => x - z)
        .map(([, i]) => i);
    expect(order(rankOrder(smooth))).to.deep.equal(order(rankOrder(straight)));
  });

  it('limits set the wrong way round are taken as they are meant', async () => {
    const one = (await finished({ ownBand: true, low: 0.2, high: 0.6 })).roughness;
    const two = (await finished({ ownBand: true, low: 0.6, high: 0.2 })).roughness;
    expect(two).to.deep.equal(one);
  });

  it('gloss is roughness turned over; a metal has no diffuse colour', async () => {
    const outputs = (await runAfterJoin(picture, { finish: { line: 'copper' } }, frame))
      .outputs as TileOutputs;
    const gloss = mapRaster(surfaceOf(outputs), 'gloss')!.planes[0];
    const rough = mapRaster(surfaceOf(outputs), 'roughness')!.planes[0];
    for (let i = 0; i < gloss.length; i += 97) expect(gloss[i] + rough[i]).to.be.closeTo(1, 1e-6);
    expect(Math.max(...mapRaster(surfaceOf(outputs), 'diffuse')!.planes[0])).to.equal(0);
    const stone = (await runAfterJoin(picture, { finish: { line: 'granite' } }, frame))
      .outputs as TileOutputs;
    expect(mapRaster(surfaceOf(stone), 'diffuse')!.planes[1]).to.deep.equal(stone.gauge.albedo.planes[1]);
    expect(mapRaster(surfaceOf(stone), 'specular')!.planes[2][5]).to.equal(
      Math.fround((stone.finish.f0 as number[])[2]),
    );
  });
});
