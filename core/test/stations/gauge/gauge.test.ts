import {
  albedoBand,
  CHART,
  chartLine,
  gaugeMarks,
  histogramPercentiles,
  luminance,
  MARK,
  PLAIN_CONTEXT,
  Raster,
  STATIONS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { luminanceMap, softHold, undoHold } from '../../../src/colour/luminance-map.ts';
import { aimFor } from '../../../src/stations/gauge/fit.ts';
import { noisePlane, planeOf, tilingPicture } from '../../fields.ts';
import { withBothKernels } from '../../kernels/both.ts';
import { frameOf, runStation, unpainted } from '../run.ts';

const size = 64;
const picture = tilingPicture(size);
const medianOf = (raster: Raster) => histogramPercentiles(luminance(raster), [50])[0];

withBothKernels('chart', () => {
  it('has sound lines: unique ids, bands in order and inside the limits', () => {
    expect(new Set(CHART.lines.map((line) => line.id)).size).to.equal(CHART.lines.length);
    for (const line of CHART.lines) {
      const [low, high] = albedoBand(line);
      expect(low, line.id).to.be.below(high);
      if (line.kind === 'dielectric') {
        expect(low, line.id).to.be.at.least(CHART.limits.dielectricFloor);
        expect(high, line.id).to.be.at.most(CHART.limits.dielectricCeiling);
      }
    }
    expect(chartLine('fired-clay-red')?.name).to.equal('Fired clay, red');
    expect(chartLine('no such line')).to.equal(null);
  });
});

withBothKernels('gauge', () => {
  it('fit brings the median into the band of any line', async () => {
    for (const line of CHART.lines) {
      const { output } = await runStation(
        'gauge',
        { style: unpainted(picture) },
        { line: line.id },
        frameOf(size),
      );
      const [low, high] = albedoBand(line);
      expect(medianOf(output.albedo), line.id).to.be.within(low * 0.999, high * 1.001);
    }
  });

  it('fit keeps the contrast: all ratios stay, away from the limits', async () => {
    const { output } = await runStation(
      'gauge',
      { style: unpainted(picture) },
      { line: 'soil-pale' },
      frameOf(size),
    );
    const before = luminance(picture);
    const after = luminance(output.albedo);
    const ratio = after[0] / before[0];
    expect(ratio).not.to.be.closeTo(1, 1e-3);
    for (let i = 0; i < before.length; i++) expect(after[i] / before[i]).to.be.closeTo(ratio, 1e-4);
  });

  it('a tile already in the middle of its band is left as it is', async () => {
    expect(aimFor(0.2, [0.1, 0.4])).to.equal(0.2);
    expect(aimFor(0.01, [0.1, 0.4])).to.be.within(0.1, 0.2);
    expect(aimFor(0.9, [0.1, 0.4])).to.be.within(0.2, 0.4);
  });

  it('exposure is in stops: one doubles the light', async () => {
    const settings = { fit: false, hold: false };
    const { output: plain } = await runStation(
      'gauge',
      { style: unpainted(picture) },
      settings,
      frameOf(size),
    );
    const { output: more } = await runStation(
      'gauge',
      { style: unpainted(picture) },
      { ...settings, exposure: 0.5 },
      frameOf(size),
    );
    expect(medianOf(more.albedo) / medianOf(plain.albedo)).to.be.closeTo(Math.SQRT2, 0.01);
    expect([...plain.albedo.planes[0]].every((v, i) => Math.abs(v - picture.planes[0][i]) < 1e-6)).to.equal(
      true,
    );
  });

  it('colour holds luminance, to grey and beyond', async () => {
    const before = luminance(picture);
    for (const colour of [0, 0.5, 1.5]) {
      const settings = { fit: false, hold: false, colour };
      const { output } = await runStation('gauge', { style: unpainted(picture) }, settings, frameOf(size));
      const after = luminance(output.albedo);
      for (let i = 0; i < after.length; i += 7) expect(after[i]).to.be.closeTo(before[i], 1e-4);
      const spread = Math.abs(output.albedo.planes[0][9] - output.albedo.planes[2][9]);
      const was = Math.abs(picture.planes[0][9] - picture.planes[2][9]);
      if (colour === 0) expect(spread).to.be.below(1e-4);
      else expect(Math.sign(spread - was)).to.equal(Math.sign(colour - 1));
    }
  });

  it('holds softly: never past the limits, rising throughout, no corner, undone exactly', () => {
    const limits: [number, number] = [0.02, 0.95];
    let last = -1;
    for (let y = 0; y < 3; y += 0.001) {
      const held = softHold(y, limits);
      expect(held).to.be.within(limits[0] - 1e-9, limits[1] + 1e-9);
      expect(held).to.be.at.least(last);
      expect(held - last < 0.0011 || y === 0).to.equal(true);
      last = held;
    }
    for (const y of [0.025, 0.05, 0.4, 0.8, 0.93])
      expect(softHold(undoHold(y, limits), limits)).to.be.closeTo(y, 1e-9);
  });

  it('what does not count has no say: bright joints move neither fit nor figures', async () => {
    const clay = noisePlane(size * size, 2).map((v) => 0.1 + 0.05 * v);
    const withJoints = (joint: number) => {
      const plane = planeOf(size, size, (x, y) => (x % 16 < 3 ? joint : clay[y * size + x]));
      return unpainted(new Raster(size, size, [plane, plane.slice(), plane.slice()]));
    };
    const settings = { line: 'fired-clay-red', countTo: 80 };
    const frame = frameOf(size);
    const one = await runStation('gauge', { style: withJoints(0.5) }, settings, frame);
    const two = await runStation('gauge', { style: withJoints(0.9) }, settings, frame);
    expect(one.decided).to.deep.equal(two.decided);
    const counting = await runStation(
      'gauge',
      { style: withJoints(0.5) },
      { ...settings, countTo: 100 },
      frame,
    );
    expect(counting.decided).not.to.deep.equal(one.decided);
  });

  it('its verdict is measured on the result: dark in spite of its settings is wrong', async () => {
    const settings = { line: 'limewash', fit: false };
    const { output, decided } = await runStation(
      'gauge',
      { style: unpainted(picture) },
      settings,
      frameOf(size),
    );
    const { gauge } = STATIONS;
    const all = {
      ...Object.fromEntries(Object.entries(gauge.settings).map(([k, s]) => [k, s.default])),
      ...settings,
    } as never;
    const verdict = await gauge.verdict(
      output,
      unpainted(picture),
      all,
      decided,
      frameOf(size),
      PLAIN_CONTEXT,
    );
    expect(verdict.state).to.equal('wrong');
    expect(verdict.sentence).to.include('below the band');
    expect(verdict.figures.find((f) => f.id === 'median')?.value).to.be.closeTo(
      medianOf(output.albedo),
      1e-3,
    );
  });
});

withBothKernels('marks of Gauge', () => {
  const y = Float32Array.of(0.001, 0.1, 0.15, 0.2, 0.25, 0.3, 0.97, 0.99);
  const all = { line: 'fired-clay-red', ownLine: null, countFrom: 0, countTo: 100 };

  it('tell what lies below and above any real surface apart', () => {
    const { marks, counted } = gaugeMarks(y, all);
    expect([...marks]).to.deep.equal([MARK.below, ...new Array(5).fill(MARK.within), MARK.above, MARK.above]);
    expect(counted).to.equal(8);
  });

  it('leave out what does not count, but not equal pixels at the limit of it', () => {
    const { marks } = gaugeMarks(y, { ...all, countTo: 80 });
    expect([...marks].slice(-1)).to.deep.equal([MARK.uncounted]);
    const white = new Float32Array(1000).fill(1);
    white[0] = 0.2;
    const { marks: held, counted } = gaugeMarks(white, { ...all, countTo: 92 });
    expect(counted).to.equal(1000);
    expect(held[500]).to.equal(MARK.above);
  });
});

withBothKernels('the map of luminance', () => {
  const limits: [number, number] = [0.02, 0.9];
  const anyTone = fc.record({
    gain: fc.double({ min: 0.1, max: 8, noNaN: true }),
    contrast: fc.double({ min: 0.3, max: 2, noNaN: true }),
    pivot: fc.double({ min: 0.01, max: 0.9, noNaN: true }),
    hold: fc.constantFrom(null, limits),
  });

  it('never turns an order round, and keeps inside the limits that it holds', () => {
    fc.assert(
      fc.property(anyTone, (tone) => {
        const map = luminanceMap(tone);
        let last = Number.NEGATIVE_INFINITY;
        for (let y = 0; y <= 1.5; y += 0.05) {
          const v = map(y);
          expect(v).to.be.at.least(last);
          if (tone.hold) expect(v).to.be.within(limits[0], limits[1]);
          last = v;
        }
      }),
    );
  });

  it('contrast leaves the pivot where it is', () => {
    fc.assert(
      fc.property(anyTone, (tone) => {
        const map = luminanceMap({ ...tone, hold: null });
        expect(map(tone.pivot / tone.gain)).to.be.closeTo(tone.pivot, 1e-9);
      }),
    );
  });
});
