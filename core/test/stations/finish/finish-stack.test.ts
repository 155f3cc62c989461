import {
  type Curve,
  curveAt,
  curveSchema,
  curveTable,
  excessShare,
  mapRaster,
  metallicOf,
  Raster,
  roll,
  rollPlane,
  runToEnd,
  STATIONS,
  surfaceOf,
  type TileOutputs,
  toMetallic,
} from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import * as v from 'valibot';
import { repeated } from '../../../src/sampling/repeat.ts';
import { cellsFor, periodicNoise } from '../../../src/stations/finish/noise.ts';
import { baseOf, diffuseOf, f0Of } from '../../../src/surface/convert.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { correlation, farthest, planeOf, tilingPicture } from '../../fields.ts';
import { frameOf, maskOf, runAfterJoin, runStation, unpainted } from '../run.ts';

const SIZE = 64;
const picture = tilingPicture(SIZE);
const frame = frameOf(SIZE);
const share = fc.double({ min: 0, max: 1, noNaN: true });

async function finished(changes: object, of = frame, given: object = {}) {
  const join = { ...unpainted(picture), given };
  const { output: relief } = await runStation('relief', { style: join }, {}, of);
  const { output, decided } = await runStation('finish', { style: join, relief }, changes, of);
  const { finish } = STATIONS;
  const defaults = Object.fromEntries(Object.entries(finish.settings).map(([k, s]) => [k, s.default]));
  const verdict = await finish.verdict(
    output,
    { style: join, relief } as never,
    { ...defaults, ...changes } as never,
    decided,
    of,
    PLAIN_CONTEXT,
  );
  return { output, relief, verdict };
}
const ALONE = { tone: 0, cavity: 0, ownBand: true, low: 0, high: 1 };

describe('the stack of roughness', () => {
  it('each contribution makes it rougher or smoother by its own sign', async () => {
    const { relief } = await finished({});
    const slope = relief.normal.planes[2].map((z: number) => Math.sqrt(Math.max(0, 1 - z * z)));
    const of: Record<string, Float32Array> = {
      height: relief.height,
      slope,
      occlusion: relief.occlusion.map((seen: number) => 1 - seen),
    };
    for (const [key, plane] of Object.entries(of)) {
      const more = (await finished({ ...ALONE, [key]: 0.4 })).output.roughness;
      const less = (await finished({ ...ALONE, [key]: -0.4 })).output.roughness;
      expect(correlation(more, plane), key).to.be.above(0.95);
      expect(correlation(less, plane), key).to.be.below(-0.95);
    }
  });

  it('with nothing in it is one value, and that is said', async () => {
    const { output, verdict } = await finished({ ...ALONE });
    expect(farthest(output.roughness, new Float32Array(SIZE * SIZE).fill(0.5))).to.be.below(1e-6);
    expect(verdict.sentence).to.match(
      /One value is enough here: roughness \(0\.5.*metallic \(0\), F0 \(0\.04/,
    );
    const { verdict: varied } = await finished({});
    expect(varied.sentence).not.to.include('roughness (');
  });

  it('takes a given grey map, laid and turned as asked', async () => {
    const dot = new Raster(16, 16, [planeOf(16, 16, (x, y) => Number(x < 4 && y < 4))]);
    const context = { ...PLAIN_CONTEXT, picture: async () => dot };
    const join = unpainted(picture);
    const { output: relief } = await runStation('relief', { style: join, omit: ['occlusion'] }, {}, frame);
    const defaults = Object.fromEntries(
      Object.entries(STATIONS.finish.settings).map(([k, s]) => [k, s.default]),
    );
    const greyMap = { sha256: '0'.repeat(64), width: 16, height: 16 };
    const run = async (changes: object) =>
      (
        await STATIONS.finish.run(
          { style: join, relief } as never,
          { ...defaults, ...ALONE, greyMap, grey: 1, ...changes } as never,
          { centre: 0, spread: 1 },
          frame,
          context,
        )
      ).roughness;
    const twice = await run({ greyCount: 2 });
    // Two dots along each edge, in the upper left of their quarter.
    for (const [x, y] of [
      [3, 3],
      [35, 3],
      [3, 35],
      [35, 35],
    ])
      expect(twice[y * SIZE + x]).to.be.closeTo(1, 0.01);
    expect(twice[20 * SIZE + 20]).to.be.closeTo(0, 0.01);
    const turned = await run({ greyCount: 1, greyQuarters: 1 });
    // Clockwise the upper left goes to the upper right.
    expect(turned[6 * SIZE + 58]).to.be.closeTo(1, 0.01);
    expect(turned[6 * SIZE + 6]).to.be.closeTo(0, 0.01);
  });
});

describe('a picture laid over the tile', () => {
  it('rolls with its own period', () => {
    const small = tilingPicture(32);
    const laid = repeated(small, { width: 96, height: 96 }, { count: 3, quarters: 0 });
    expect(farthest(laid.planes[0], roll(laid, 32, 64).planes[0])).to.be.below(1e-6);
    const four = repeated(
      repeated(small, { width: 32, height: 32 }, { count: 1, quarters: 1 }),
      { width: 32, height: 32 },
      { count: 1, quarters: 3 },
    );
    expect(farthest(four.planes[1], small.planes[1])).to.be.below(1e-6);
  });
});

describe('noise', () => {
  it('meets itself: across the edge it changes no more than within', () => {
    const plane = runToEnd(periodicNoise({ width: SIZE, height: SIZE }, [5, 3], 7));
    const step = (a: number, b: number) => {
      let sum = 0;
      for (let y = 0; y < SIZE; y++) sum += Math.abs(plane[y * SIZE + a] - plane[y * SIZE + b]);
      return sum / SIZE;
    };
    const inner = Array.from({ length: SIZE - 1 }, (_v, x) => step(x, x + 1));
    expect(step(SIZE - 1, 0)).to.be.at.most(Math.max(...inner));
    expect(Math.max(...plane)).to.be.within(0.3, 1);
  });

  it('repeats as often as it has cells, is the same at every size and another by another seed', () => {
    const one = runToEnd(periodicNoise({ width: SIZE, height: SIZE }, [4, 4], 1));
    const large = new Raster(128, 128, [runToEnd(periodicNoise({ width: 128, height: 128 }, [4, 4], 1))]);
    let most = 0;
    for (let y = 0; y < SIZE; y++) {
      for (let x = 0; x < SIZE; x++) {
        const i = 2 * y * 128 + 2 * x;
        const mean =
          (large.planes[0][i] +
            large.planes[0][i + 1] +
            large.planes[0][i + 128] +
            large.planes[0][i + 129]) /
          4;
        most = Math.max(most, Math.abs(mean - one[y * SIZE + x]));
      }
    }
    expect(most).to.be.below(0.05);
    expect(farthest(one, runToEnd(periodicNoise({ width: SIZE, height: SIZE }, [4, 4], 2)))).to.be.above(0.2);
    expect(farthest(one, rollPlane(one, SIZE, SIZE, 16, 0))).to.be.above(0.2);
    expect(cellsFor(100, { width: 200, height: 100 }, 1)).to.deep.equal([10, 5]);
    expect(cellsFor(5000, { width: 200, height: 100 }, 1)).to.deep.equal([1, 1]);
  });
});

describe('tone curves', () => {
  const curves = fc
    .uniqueArray(fc.integer({ min: 0, max: 40 }), { minLength: 2, maxLength: 8 })
    .chain((xs) =>
      fc
        .array(share, { minLength: xs.length, maxLength: xs.length })
        .map((ys) => xs.sort((a, b) => a - b).map((x, k) => [x / 40, ys[k]] as [number, number])),
    );

  it('go through their points and stay between neighbours', () => {
    fc.assert(
      fc.property(curves, (points) => {
        const table = curveTable(points);
        for (const [x, y] of points) expect(curveAt(table, x)).to.be.closeTo(y, 0.02);
        for (let k = 0; k + 1 < points.length; k++) {
          const [[x0, y0], [x1, y1]] = [points[k], points[k + 1]];
          for (let t = 0.1; t < 1; t += 0.2) {
            const value = curveAt(table, x0 + t * (x1 - x0));
            expect(value).to.be.within(Math.min(y0, y1) - 0.01, Math.max(y0, y1) + 0.01);
          }
        }
      }),
    );
  });

  it('that are straight change nothing; one that folds back is refused in words', () => {
    const table = curveTable([
      [0, 0],
      [1, 1],
    ]);
    for (let x = 0; x <= 1; x += 0.01) expect(curveAt(table, x)).to.be.closeTo(x, 1e-6);
    const folded: Curve = [
      [0, 0],
      [0.6, 0.5],
      [0.4, 0.8],
      [1, 1],
    ];
    const result = v.safeParse(curveSchema, folded);
    expect(result.success).to.equal(false);
    expect(result.issues?.[0].message).to.include('folds back');
  });
});

describe('between base colour with metallic and diffuse with specular', () => {
  it('there and back is the same within 1/255', () => {
    fc.assert(
      fc.property(fc.tuple(share, share, share), share, ([r, g, b], m) => {
        const base = [r, g, b];
        const diffuse = base.map((value) => Float32Array.of(diffuseOf(value, m)));
        const f0 = base.map((value) => Float32Array.of(f0Of(value, m, 0.04)));
        const back = toMetallic(diffuse, f0);
        const sum = [0, 1, 2].map((c) => diffuse[c][0] + f0[c][0]);
        const [fr, fg, fb] = f0.map(([value]) => value);
        if (back.metallic[0] === 0) expect(0.2126 * fr + 0.7152 * fg + 0.0722 * fb).to.be.at.most(0.0401);
        // What leaves again as diffuse and specular reflects as much in all, whatever the split.
        back.base.forEach((plane, c) => {
          const d = diffuseOf(plane[0], back.metallic[0]);
          const f = f0Of(plane[0], back.metallic[0], 0.04);
          // What is no metal has the usual F0, whatever colour its own is.
          const lost = back.metallic[0] === 0 ? Math.abs(f0[c][0] - 0.04) : 0;
          expect(Math.abs(d + f - sum[c])).to.be.closeTo(lost, 1 / 255);
        });
        // A base darker than F0 0.04 cannot be told from no metal.
        const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        if (y > 0.08) {
          expect(back.metallic[0]).to.be.closeTo(m, 2e-3);
          for (const [c, plane] of back.base.entries()) expect(plane[0]).to.be.closeTo(base[c], 1 / 255);
        }
      }),
    );
  });

  it('bare metal and plain stone are told as such', () => {
    expect(metallicOf(0, 0.9)).to.be.closeTo(1, 1e-6);
    expect(metallicOf(0.4, 0.04)).to.equal(0);
    expect(metallicOf(0.4, 0.02)).to.equal(0);
    expect(baseOf(0, 0.7, 1)).to.be.closeTo(0.7, 1e-6);
  });

  it('what throws back more light than falls on it is counted', () => {
    const one = (value: number) => [0, 1, 2].map(() => Float32Array.of(value, 0.1));
    expect(excessShare(one(0.7), one(0.5))).to.equal(0.5);
    expect(excessShare(one(0.5), one(0.5))).to.equal(0);
  });

  it('a given specular map stays the whole of F0, coloured as it is', async () => {
    const f0 = new Raster(
      SIZE,
      SIZE,
      [0.6, 0.3, 0.04].map((value) => planeOf(SIZE, SIZE, (x) => (x < 32 ? value : 0.04))),
    );
    const gloss = new Raster(SIZE, SIZE, [planeOf(SIZE, SIZE, (x) => x / SIZE)]);
    const diffuse = picture.mapPlanes((plane) => plane.map((value, i) => (i % SIZE < 32 ? 0 : value)));
    const join = { ...unpainted(diffuse), given: { specular: f0, gloss } };
    const { output: relief } = await runStation('relief', { style: join, omit: ['occlusion'] }, {}, frame);
    const { output: gauge } = await runStation('gauge', { style: join }, {}, frame);
    const { output: finish } = await runStation('finish', { style: join, relief }, {}, frame);
    const outputs = { style: join, gauge, relief, finish } as TileOutputs;
    const same = (map: 'diffuse' | 'specular' | 'gloss', truth: Raster) => {
      for (const [c, plane] of truth.planes.entries()) {
        expect(farthest(mapRaster(surfaceOf(outputs), map)!.planes[c], plane), map).to.be.below(1e-6);
      }
    };
    same('diffuse', diffuse);
    same('specular', f0);
    same('gloss', gloss);
    const metallic = mapRaster(surfaceOf(outputs), 'metallic')!.planes[0];
    expect(metallic[5]).to.be.above(0.95);
    expect(metallic[50]).to.equal(0);
    expect(mapRaster(surfaceOf(outputs), 'albedo')!.planes[0][5]).to.be.closeTo(0.6, 0.01);
  });
});

describe('zones of Finish', () => {
  const left = maskOf('left', [
    {
      by: 'brush',
      how: 'and',
      strokes: [
        {
          points: [
            [0.25, 0.05],
            [0.25, 0.95],
          ],
          radius: 0.15,
          softness: 0,
          erase: false,
        },
      ],
    },
  ]);
  const at = (plane: Float32Array, x: number) => plane[20 * SIZE + x];
  const zoned = (values: object, wetness = 0) =>
    finished(
      {
        line: 'limewash',
        zoneFinish: [
          { zone: 'left', line: 'none', ownLine: null, band: null, f0: null, metallic: 'line', ...values },
        ],
      },
      { ...frame, masks: [{ ...left, wetness }] },
    );

  it('have their own band, F0 and metallic; the rest stays to the bit', async () => {
    const plain = await finished({ line: 'limewash' });
    const { output, verdict } = await zoned({ band: [0.1, 0.2], f0: '#bca14e', metallic: 'yes' });
    expect(at(output.roughness, 16)).to.be.within(0.1, 0.2);
    expect(at(output.roughness, 48)).to.equal(at(plain.output.roughness, 48));
    expect(at(output.metallic, 16)).to.equal(1);
    expect(at(output.metallic, 48)).to.equal(0);
    expect(at(output.f0.planes[0], 16)).to.be.above(2 * at(output.f0.planes[2], 16));
    expect(at(output.f0.planes[0], 48)).to.be.closeTo(0.04, 1e-6);
    expect(verdict.sentence).to.match(/\d+ % is metal/);
  });

  it('take all three from a line of the chart', async () => {
    const { output } = await zoned({ line: 'copper' });
    expect(at(output.roughness, 16)).to.be.within(0.05, 0.6);
    expect(at(output.metallic, 16)).to.equal(1);
    expect(at(output.f0.planes[1], 16)).to.be.closeTo(0.63, 1e-6);
  });

  it('wet ones are smoother and mirror like water', async () => {
    const plain = await finished({ line: 'limewash' });
    const { output } = await zoned({}, 1);
    expect(at(output.roughness, 16) / at(plain.output.roughness, 16)).to.be.closeTo(0.3, 1e-6);
    expect(at(output.f0.planes[0], 16)).to.be.closeTo(0.02, 1e-3);
    expect(at(output.roughness, 48)).to.equal(at(plain.output.roughness, 48));
  });

  it('F0 by tone runs from the low in the dark to the high in the light', async () => {
    const { output } = await finished({ f0From: 'tone', f0Low: 0.02, f0High: 0.08 });
    expect(Math.min(...output.f0.planes[0])).to.be.within(0.0199, 0.03);
    expect(Math.max(...output.f0.planes[0])).to.be.within(0.07, 0.0801);
    expect(correlation(output.f0.planes[1], picture.planes[1])).to.be.above(0.8);
    const { output: colour } = await finished({ f0From: 'colour', f0Colour: '#383838' });
    expect(colour.f0[0]).to.be.closeTo(0.04, 1e-3);
  });

  it('metallic as a given map is taken as it is', async () => {
    const metallic = new Raster(SIZE, SIZE, [planeOf(SIZE, SIZE, (x) => Number(x < 20))]);
    const { output } = await finished({}, frame, { metallic });
    expect(output.metallic).to.deep.equal(metallic.planes[0]);
  });

  it('specular, diffuse and metallic agree at every pixel', async () => {
    const zones = [left];
    const zoneFinish = [
      { zone: 'left', line: 'copper', ownLine: null, band: null, f0: null, metallic: 'line' },
    ];
    const { outputs } = await runAfterJoin(
      picture,
      { finish: { line: 'verdigris', zoneFinish } },
      { ...frame, masks: zones },
    );
    const of = (map: 'specular' | 'diffuse' | 'albedo' | 'metallic') =>
      mapRaster(surfaceOf(outputs), map)!.planes[0];
    const [specular, diffuse, albedo, metallic] = [
      of('specular'),
      of('diffuse'),
      of('albedo'),
      of('metallic'),
    ];
    for (let i = 0; i < specular.length; i += 7) {
      const f0 = outputs.finish.f0.planes[0][i];
      expect(diffuse[i]).to.be.closeTo(albedo[i] * (1 - metallic[i]), 1e-6);
      expect(specular[i]).to.be.closeTo(f0 + metallic[i] * (albedo[i] - f0), 1e-6);
    }
  });
});
