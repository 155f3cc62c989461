import {
  applySaved,
  chartProblems,
  Engine,
  encodedPlanes,
  KERNELS,
  type Mask,
  newRecipe,
  parseRecipe,
  Raster,
  reducePixels,
  reductionFor,
  resultKey,
  type StationSettings,
  sectionsToSave,
  type TileOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { TUFF } from '../chart-line.ts';
import { farthest, noisePlane, planeOf } from '../fields.ts';
import { maskOf } from '../stations/run.ts';
import { hostOf, photo, pixelsOf, recipeWith } from './host.ts';

const source = { sha256: 'a'.repeat(64), width: 420, height: 360 };
const picture = photo(420, 360);
const high = maskOf('high', [{ by: 'range', how: 'and', map: 'height', from: 0.6, to: 1, softness: 0.1 }]);
const tone = { zone: 'high', line: 'none' as const, ownLine: null, exposure: -1, contrast: 1 };

async function made(
  { masks = [], ...gauge }: Partial<StationSettings['gauge']> & { masks?: Mask[] },
  engine = new Engine(hostOf(pixelsOf(picture)), 2 ** 28),
) {
  const { outputs, timings } = await engine.evaluate({
    recipe: { ...recipeWith({ gauge }), masks },
    source,
    size: 128,
  });
  return { outputs: outputs as TileOutputs, timings, engine };
}

describe('masks in the engine', () => {
  it('Gauge reads Relief where a zone is picked by it, and only then', async () => {
    const plain = await made({});
    const zoned = await made({ masks: [high], zoneTones: [tone] });
    const { height } = zoned.outputs.relief;
    let [inside, outside] = [0, 0];
    for (let i = 0; i < height.length; i++) {
      const ratio = zoned.outputs.gauge.albedo.planes[1][i] / plain.outputs.gauge.albedo.planes[1][i];
      if (height[i] > 0.75) inside = Math.max(inside, Math.abs(ratio - 0.5));
      if (height[i] < 0.5) outside = Math.max(outside, Math.abs(ratio - 1));
    }
    expect(inside).to.be.below(0.06);
    expect(outside).to.be.below(1e-5);
    // A dial of Relief makes such a Gauge again, and no other.
    const dial = async (engine: Engine, { masks = [], ...gauge }: Parameters<typeof made>[0]) => {
      const recipe = { ...recipeWith({ gauge, relief: { polarity: 'dark' } }), masks };
      return (await engine.evaluate({ recipe, source, size: 128 })).timings.gauge;
    };
    expect(await dial(plain.engine, {})).to.equal(0);
    expect(await dial(zoned.engine, { masks: [high], zoneTones: [tone] })).to.be.above(0);
  });

  it('readings and zones that nothing is set for leave Gauge as it is', async () => {
    const { engine, outputs } = await made({});
    const looked = await made({ masks: [high], readings: [{ x: 0.2, y: 0.2, mm: 0, grey: null }] }, engine);
    expect(looked.timings.gauge).to.equal(0);
    expect(looked.outputs.gauge.albedo).to.equal(outputs.gauge.albedo);
  });

  it('what no result depends on is no reason to compute again', () => {
    const key = (masks: Mask[], changes: Parameters<typeof recipeWith>[0]) =>
      resultKey({ ...recipeWith(changes), masks });
    const plain = key([], {});
    expect(key([high], { gauge: { readings: [{ x: 0.1, y: 0.1, mm: 0, grey: null }] } })).to.equal(plain);
    const toned = key([high], { gauge: { zoneTones: [tone] } });
    expect(toned).to.not.equal(key([], { gauge: { zoneTones: [tone] } }));
    expect(key([{ ...high, name: 'Another name' }], { gauge: { zoneTones: [tone] } })).to.equal(toned);
    expect(key([{ ...high, wetness: 0.5 }], {})).to.not.equal(plain);
    const zoneFinish = [
      { zone: 'high', line: 'none', ownLine: null, band: null, f0: null, metallic: 'yes' as const },
    ];
    expect(key([high], { finish: { zoneFinish } })).to.not.equal(key([], { finish: { zoneFinish } }));
    expect(key([], { square: { edgeMetres: 2 } })).to.not.equal(plain);
  });

  it('a zone by occlusion has it, even where nobody asked for the map', async () => {
    const shaded = maskOf('shaded', [
      { by: 'range', how: 'and', map: 'occlusion', from: 0, to: 0.98, softness: 0 },
    ]);
    const engine = new Engine(hostOf(pixelsOf(picture)), 2 ** 28);
    const recipe = {
      ...recipeWith({ gauge: { zoneTones: [{ ...tone, zone: 'shaded' }] } }),
      masks: [shaded],
    };
    const { outputs } = await engine.evaluate({
      recipe,
      source,
      size: 128,
      until: 'gauge',
      without: ['relief.occlusion'],
    });
    expect(outputs.gauge!.empty).to.deep.equal([]);
  });

  it('patches are read from the photo, wherever the crop lies', async () => {
    const card = pixelsOf(
      picture.mapPlanes((plane) => plane.map((value, i) => (i % 420 > 400 && i < 420 * 40 ? 0.09 : value))),
    );
    const patches = [{ x: 0.977, y: 0.05, radius: 0.015, reflectance: 0.18 }];
    const of = async (turnDegrees: number) => {
      const recipe = recipeWith({
        gauge: { fitBy: 'patches', patches, hold: false },
        square: { turnDegrees, share: 0.7 },
      });
      const { recipe: decided } = await new Engine(hostOf(card), 2 ** 28).evaluate({
        recipe,
        source,
        size: 128,
        until: 'gauge',
      });
      return (decided.decisions.gauge!.data as { gain: number }).gain;
    };
    expect(await of(0)).to.be.closeTo(2, 0.01);
    expect(await of(20)).to.be.closeTo(2, 0.01);
  });

  it('go with a saved recipe, without their strokes', () => {
    const painted = maskOf('painted', [
      {
        by: 'brush',
        how: 'and',
        strokes: [{ points: [[0.1, 0.1]], radius: 0.1, softness: 0, erase: false }],
      },
    ]);
    const readings = [{ x: 0, y: 0, mm: 0, grey: null }];
    const recipe = { ...recipeWith({ gauge: { readings } }), masks: [high, painted] };
    const saved = JSON.parse(JSON.stringify(sectionsToSave(recipe, ['masks', 'gauge'])));
    expect(saved.stations.gauge).not.to.have.property('readings');
    const { masks } = applySaved(newRecipe(), saved);
    expect(masks[0]).to.deep.equal(high);
    expect(masks[1].parts).to.deep.equal([{ by: 'brush', how: 'and', strokes: [] }]);
  });

  it('a tone curve that folds and a band upside down are refused in words', () => {
    const bad = (finish: object) => () => parseRecipe({ version: 1, stations: { finish } });
    expect(
      bad({
        points: [
          [0, 0],
          [0.5, 1],
          [0.4, 1],
        ],
      }),
    ).to.throw(/folds back on itself/);
    const zone = { zone: 'a', line: 'none', ownLine: null, f0: null, metallic: 'line' };
    expect(bad({ zoneFinish: [{ ...zone, band: [0.6, 0.2] }] })).to.throw(/lower value first/);
  });
});

describe('a set with specular, gloss and emission', () => {
  it('leaves again within 1/255, coloured specular and all', async () => {
    const size = 256;
    const noise = (seed: number, low: number, high: number) =>
      noisePlane(size * size, seed).map((value) => low + (high - low) * value);
    const isMetal = planeOf(size, size, (x) => Number(x < 50));
    const diffuse = new Raster(
      size,
      size,
      [1, 2, 3].map((seed) => noise(seed, 0.05, 0.9).map((value, i) => value * (1 - isMetal[i]))),
    );
    const specular = new Raster(
      size,
      size,
      [4, 5, 6].map((seed) => noise(seed, 0.4, 1).map((value, i) => (isMetal[i] ? value : value / 12))),
    );
    const gloss = new Raster(size, size, [noise(7, 0, 1)]);
    const emission = new Raster(
      size,
      size,
      [8, 9, 10].map((seed) => noise(seed, 0, 1)),
    );
    const codes = (raster: Raster, colour: boolean) =>
      KERNELS.quantise(encodedPlanes(raster, colour ? 'albedo' : 'gloss'), 8) as Uint8Array;
    const three = (raster: Raster) => {
      const pixels = pixelsOf(raster);
      return { ...pixels, data: codes(raster, true) };
    };
    const grey = {
      ...pixelsOf(new Raster(size, size, [gloss.planes[0], gloss.planes[0], gloss.planes[0]])),
    };
    const glossCodes = codes(gloss, false);
    grey.data = Uint8Array.from({ length: 3 * size * size }, (_v, i) => glossCodes[Math.floor(i / 3)]);
    const files: Record<string, ReturnType<typeof pixelsOf>> = {
      d: three(diffuse),
      s: three(specular),
      g: grey,
      e: three(emission),
    };
    const ref = (sha256: string) => ({ sha256, width: size, height: size });
    const recipe = recipeWith({
      source: { given: { specular: ref('s'), gloss: ref('g'), emission: ref('e') } },
      square: { size: size as never, share: 1 },
      even: { amount: 0, local: 0 },
      join: { axes: 'neither' },
      crate: { profile: 'specular-gloss' },
    });
    const engine = new Engine(
      {
        pixels: async (from, shortEdge, kind) =>
          reducePixels(files[from.sha256], reductionFor(from, shortEdge), kind),
      },
      2 ** 28,
    );
    const { outputs } = await engine.evaluate({ recipe, source: ref('d'), size });
    const out = (ending: string) => outputs.crate!.files.find((file) => file.ending === ending)!.samples();
    expect(farthest(out('diffuse'), files.d.data)).to.be.at.most(1);
    expect(farthest(out('specular'), files.s.data)).to.be.at.most(1);
    expect(farthest(out('gloss'), glossCodes)).to.be.at.most(1);
    expect(farthest(out('emission'), files.e.data)).to.be.at.most(1);
  });
});

describe('sizes of their own in a crate', () => {
  it('the height is soft and small, the normal deep, all else as the tile', async () => {
    const files = async (crate: object) => {
      const recipe = recipeWith({ crate });
      const { outputs } = await new Engine(hostOf(pixelsOf(picture)), 2 ** 28).evaluate({
        recipe,
        source,
        size: 256,
      });
      return outputs.crate!.files;
    };
    const plain = await files({});
    const own = await files({ heightSize: 128, heightSoftMm: 40, normalBits: 16 });
    const of = (all: typeof plain, ending: string) => all.find((file) => file.ending === ending)!;
    expect(of(own, 'height')).to.include({ width: 128, height: 128, bits: 16 });
    expect(of(own, 'height').samples()).to.have.length(128 * 128);
    expect(of(own, 'normal')).to.include({ width: 256, bits: 16 });
    expect(of(own, 'albedo').samples()).to.deep.equal(of(plain, 'albedo').samples());
    expect(of(plain, 'normal').bits).to.equal(8);
    const rough = (file: (typeof plain)[number]) => {
      const values = file.samples();
      let sum = 0;
      for (let i = 1; i < values.length; i++) sum += Math.abs(values[i] - values[i - 1]);
      return sum / values.length;
    };
    const small = await files({ heightSize: 128 });
    expect(rough(of(own, 'height'))).to.be.below(0.7 * rough(of(small, 'height')));
  });
});

describe('charts of one’s own', () => {
  const line = TUFF;

  it('that are sound have no problems; what is wrong is said with its line', () => {
    expect(
      chartProblems({ name: 'Ours', lines: [line, { ...line, id: 'b', swatch: '#8a7f70' }] }),
    ).to.deep.equal([]);
    const said = (changed: object) =>
      chartProblems({ name: 'Ours', lines: [{ ...line, ...changed }] }).join(' ');
    expect(said({ reflectance: [0.3, 0.2] })).to.match(
      /“Tuff”, reflectance: A band needs its lower value first/,
    );
    expect(said({ roughness: [0.3, 1.2] })).to.include('“Tuff”, roughness');
    expect(said({ swatch: 'grey' })).to.include('#8a7f70');
    expect(said({ name: '' })).to.include('Line 1, name: A line needs a name.');
    expect(chartProblems({ name: 'Ours', lines: [line, line] }).join()).to.include('same id');
    expect(chartProblems({ name: '', lines: [] })).to.have.length(1);
    expect(chartProblems('no')).to.have.length(1);
  });
});
