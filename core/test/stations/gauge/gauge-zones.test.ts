import {
  albedoBand,
  type ChartLine,
  chartLine,
  gaugeMarks,
  hexOfLinear,
  luminance,
  MARK,
  type Mask,
  meanAt,
  median,
  PLAIN_CONTEXT,
  Raster,
  STATIONS,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { fitPatches } from '../../../src/stations/gauge/patches.ts';
import { TUFF } from '../../chart-line.ts';
import { farthest, noisePlane, planeOf } from '../../fields.ts';
import { frameOf, maskOf, runStation, unpainted } from '../run.ts';

const SIZE = 128;
const grain = noisePlane(SIZE * SIZE, 5);
const isMoss = (x: number) => x % 64 < 16;
/** Green stripes of moss on sandy ground, both grainy. */
const ground = new Raster(
  SIZE,
  SIZE,
  [0, 1, 2].map((c) =>
    planeOf(SIZE, SIZE, (x, y) => {
      const g = 0.85 + 0.3 * grain[y * SIZE + x];
      return (isMoss(x) ? [0.04, 0.09, 0.02][c] : [0.28, 0.22, 0.15][c]) * g;
    }),
  ),
);
const moss = maskOf('moss', [
  { by: 'colour', how: 'and', colour: hexOfLinear([0.04, 0.09, 0.02]), reach: 0.12, softness: 0.2 },
]);
const tone = { ownLine: null, exposure: 0, contrast: 1 };

async function gauged(changes: object, zones: Mask[] = [moss], of = ground, more: object = {}) {
  const frame = { ...frameOf(SIZE), masks: zones };
  const input = { style: unpainted(of), ...more };
  const { output, decided } = await runStation('gauge', input, changes, frame);
  const { gauge } = STATIONS;
  const defaults = Object.fromEntries(Object.entries(gauge.settings).map(([k, s]) => [k, s.default]));
  const chosen = { ...defaults, ...changes } as never;
  const verdict = await gauge.verdict(output, input as never, chosen, decided, frame, PLAIN_CONTEXT);
  return { output, decided, verdict, y: luminance(output.albedo) };
}
const middle = (y: Float32Array, part: (x: number) => boolean) => median(y.filter((_v, i) => part(i % SIZE)));
const aim = (id: string, value: number) => {
  const [low, high] = albedoBand(chartLine(id)!);
  return Math.min(low * (high / low) ** 0.75, Math.max(low * (high / low) ** 0.25, value));
};

describe('zones of Gauge', () => {
  it('each comes to its own line and the rest to its own, within 0.5 %', async () => {
    const { y, decided } = await gauged({
      line: 'sand-dry',
      zoneTones: [{ zone: 'moss', line: 'basalt', ...tone }],
    });
    const before = luminance(ground);
    expect(middle(y, isMoss)).to.be.closeTo(aim('basalt', middle(before, isMoss)), 0.005 * middle(y, isMoss));
    const rest = (x: number) => !isMoss(x);
    expect(middle(y, rest)).to.be.closeTo(aim('sand-dry', middle(before, rest)), 0.005 * middle(y, rest));
    expect(decided.zones).to.have.length(1);
    const whole = await gauged({ line: 'sand-dry' }, []);
    expect(middle(whole.y, rest)).not.to.be.closeTo(middle(y, rest), 1e-4);
  });

  it('one without a line only takes its own exposure and contrast', async () => {
    const plain = await gauged({ line: 'sand-dry', hold: false });
    const up = await gauged({
      line: 'sand-dry',
      hold: false,
      zoneTones: [{ zone: 'moss', line: 'none', ...tone, exposure: 1 }],
    });
    for (let i = 0; i < SIZE * SIZE; i += 31) {
      expect(up.y[i] / plain.y[i]).to.be.closeTo(isMoss(i % SIZE) ? 2 : 1, 1e-3);
    }
  });

  it('figures and marks hold each pixel against its own line', async () => {
    const zoneTones = [{ zone: 'moss', line: 'copper', ...tone, exposure: -3 }];
    const { output, verdict, y } = await gauged({ line: 'sand-dry', hold: false, zoneTones });
    const { marks } = gaugeMarks(
      y,
      { line: 'sand-dry', ownLine: null, countFrom: 0, countTo: 100 },
      output.zones,
    );
    expect(marks[5]).to.equal(MARK.belowMetal);
    expect(marks[30]).to.equal(MARK.within);
    expect(verdict.state).to.equal('wrong');
    expect(verdict.advice).to.include('Copper');
    expect(verdict.figures.find(({ label }) => label === 'Median, Copper')?.value).to.be.closeTo(
      middle(y, isMoss),
      2e-3,
    );
  });

  it('what lies on a soft edge is held against neither line, and the core of the zone lands on its aim', async () => {
    const ramp = planeOf(SIZE, SIZE, (x) => 0.3 + 0.2 * Math.sin((2 * Math.PI * x) / SIZE));
    const grey = new Raster(SIZE, SIZE, [ramp, ramp, ramp]);
    const light = maskOf('light', [
      { by: 'range', how: 'and', map: 'luminance', from: 0.35, to: 1, softness: 0.3 },
    ]);
    const { output, y, verdict } = await gauged(
      { line: 'soil-pale', zoneTones: [{ zone: 'light', line: 'limewash', ...tone }] },
      [light],
      grey,
    );
    const parts = new Set<number>(output.zones.belongs);
    expect([...parts].sort((a, b) => a - b)).to.deep.equal([0, 1, 255]);
    const core = y.filter((_v, i) => output.zones.belongs[i] === 1);
    const before = luminance(grey).filter((_v, i) => output.zones.belongs[i] === 1);
    expect(median(core) / aim('limewash', median(before))).to.be.closeTo(1, 0.005);
    expect(verdict.state).to.equal('fine');
  });

  it('that pick nothing are named and change nothing', async () => {
    const blue = maskOf('blue', [{ by: 'colour', how: 'and', colour: '#0000ff', reach: 0.05, softness: 0 }]);
    const plain = await gauged({ line: 'sand-dry' }, []);
    const with_ = await gauged({ line: 'sand-dry', zoneTones: [{ zone: 'blue', line: 'moss', ...tone }] }, [
      blue,
    ]);
    expect(farthest(plain.y, with_.y)).to.equal(0);
    expect(with_.verdict.state).to.equal('look');
    expect(with_.verdict.advice).to.include('“blue” picks nothing');
  });

  it('wet ones darken, but the chart is held against the dry', async () => {
    const soaked = { ...moss, wetness: 1 };
    const dry = await gauged({ line: 'sand-dry' });
    const wet = await gauged({ line: 'sand-dry' }, [soaked]);
    expect(wet.y[5]).to.be.below(0.75 * dry.y[5]);
    expect(wet.y[30]).to.equal(dry.y[30]);
    expect(wet.verdict.figures).to.deep.equal(dry.verdict.figures);
  });
});

describe('lines of own charts', () => {
  const tuff: ChartLine = { ...TUFF, reflectance: [0.31, 0.33], f0: 0.05, roughness: [0.7, 0.72] };

  it('serve Gauge and Finish like built-in ones', async () => {
    const own = { line: 'own', ownLine: tuff };
    const { y, verdict } = await gauged(own, []);
    expect(median(y)).to.be.within(0.31, 0.33);
    expect(verdict.sentence).to.include('inside the band 0.31–0.33');
    const join = unpainted(ground);
    const { output: relief } = await runStation(
      'relief',
      { style: join, omit: ['occlusion'] },
      {},
      frameOf(SIZE),
    );
    const { output } = await runStation('finish', { style: join, relief }, own, frameOf(SIZE));
    expect(output.f0).to.deep.equal([0.05, 0.05, 0.05]);
    expect(Math.min(...output.roughness)).to.be.at.least(0.7 - 1e-6);
  });

  it('said to be chosen but not there count as none', async () => {
    const { verdict } = await gauged({ line: 'own', ownLine: null }, []);
    expect(verdict.brief).to.equal('no line chosen');
  });
});

describe('a metal line on a photo of dielectric', () => {
  it('is said in words, and harms nothing', async () => {
    const dark = ground.mapPlanes((plane) => plane.map((value) => value / 3));
    const { verdict, y } = await gauged({ line: 'silver' }, [], dark);
    expect(verdict.advice).to.include('far from bare metal');
    for (const value of y) expect(value).to.be.within(0, 1);
  });
});

/** A photo with grey patches under a warm light, the left one of 0.18, the right one of 0.5. */
const LIGHT = [0.9, 0.7, 0.4];
const shot = new Raster(
  200,
  100,
  LIGHT.map((light, c) =>
    planeOf(200, 100, (x, y) => {
      const inside = (cx: number) => Math.hypot(x - cx, y - 80) < 12;
      const value = inside(30) ? 0.18 : inside(170) ? 0.5 : [0.3, 0.22, 0.2][c];
      return value * light;
    }),
  ),
);
const patches = [
  { x: 30 / 200, y: 0.8, radius: 0.08, reflectance: 0.18 },
  { x: 170 / 200, y: 0.8, radius: 0.08, reflectance: 0.5 },
];

describe('patches of known reflectance', () => {
  it('bring back the colours of the surface from under the light', async () => {
    const tile = new Raster(
      SIZE,
      SIZE,
      [0, 1, 2].map((c) => new Float32Array(SIZE * SIZE).fill([0.3, 0.22, 0.2][c] * LIGHT[c])),
    );
    for (const some of [patches.slice(0, 1), patches]) {
      const { output, decided, verdict } = await gauged(
        { fitBy: 'patches', patches: some, hold: false },
        [],
        tile,
        {
          source: { picture: shot },
        },
      );
      [0.3, 0.22, 0.2].forEach((truth, c) => {
        expect(output.albedo.planes[c][7] / truth).to.be.closeTo(1, 0.005);
      });
      expect(decided.patches.residual).to.be.below(0.003);
      expect(verdict.state).to.equal('fine');
      expect(verdict.sentence).to.include('remains as error');
    }
  });

  it('that disagree leave a residual, which is stated with each one’s part', async () => {
    const wrong = [patches[0], { ...patches[1], reflectance: 0.4 }];
    const fit = fitPatches(shot, wrong)!;
    // Logarithms of 1 and 0.8 lie half of ln 0.8 about their mean.
    expect(fit.residual).to.be.closeTo(Math.abs(Math.log(0.8)) / 2, 0.005);
    expect(fit.errors[0]).to.be.below(-0.05);
    expect(fit.errors[1]).to.be.above(0.05);
    const { verdict } = await gauged({ fitBy: 'patches', patches: wrong }, [], ground, {
      source: { picture: shot },
    });
    expect(verdict.state).to.equal('look');
    expect(verdict.advice).to.include('patches disagree');
  });

  it('burnt out or smaller than a pixel are no reason to fall over', () => {
    const white = Raster.filled(20, 20, 3, 1);
    expect(fitPatches(white, [{ x: 1, y: 1, radius: 0.001, reflectance: 0.9 }])?.burnt).to.equal(true);
    expect(fitPatches(shot, patches)?.burnt).to.equal(false);
    expect(fitPatches(shot, [])).to.equal(null);
  });
});

describe('judged by eye', () => {
  it('multiplies what the fit made', async () => {
    const plain = await gauged({ line: 'sand-dry', hold: false }, []);
    const turned = await gauged({ line: 'sand-dry', hold: false, eye: 1.25 }, []);
    expect(turned.y[9] / plain.y[9]).to.be.closeTo(1.25, 1e-4);
  });
});

describe('readings', () => {
  const ramp = planeOf(40, 20, (x, y) => x + 100 * y);

  it('are the pixel at a point and the mean over a patch', () => {
    const sides = { width: 40, height: 20 };
    expect(meanAt([ramp], sides, { x: 0.5, y: 0.5 }, 0, TORUS)).to.deep.equal([20 + 1000]);
    const [mean] = meanAt([ramp], sides, { x: 0.5, y: 0.5 }, 4, TORUS);
    // A disc about (20, 10) reaches as far to both sides; pixel centres lie half a pixel further.
    expect(mean).to.be.closeTo(19.5 + 950, 1e-3);
  });

  it('outside the tile go on as the tile meets itself', () => {
    const sides = { width: 40, height: 20 };
    expect(meanAt([ramp], sides, { x: 1.5, y: -0.5 }, 3, TORUS)).to.deep.equal(
      meanAt([ramp], sides, { x: 0.5, y: 0.5 }, 3, TORUS),
    );
    const mirror = { x: 'mirror', y: 'mirror' } as const;
    expect(meanAt([ramp], sides, { x: -0.01, y: 0.5 }, 0, mirror)).to.deep.equal([1000]);
  });
});
