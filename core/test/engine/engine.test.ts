import {
  Engine,
  encodedPlanes,
  KERNELS,
  MAP_NAMES,
  mapRaster,
  type Recipe,
  resizeArea,
  STATION_NAMES,
  type StationName,
  Stopped,
  surfaceOf,
  type TileOutputs,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { farthest, rmsBetween } from '../fields.ts';
import { hostOf, photo, pixelsOf, recipeWith } from './host.ts';

const pixels = pixelsOf(photo(720, 560));
const source = { sha256: 'a'.repeat(64), width: 720, height: 560 };
const CACHE = 512 * 2 ** 20;

const fresh = () => {
  const host = hostOf(pixels);
  return { host, engine: new Engine(host, CACHE) };
};

describe('engine', () => {
  it('walks the stations in order, tells of each, and ends at full progress', async () => {
    const told: string[] = [];
    const progress: number[] = [];
    const { outputs, verdicts } = await fresh().engine.evaluate({
      recipe: recipeWith({}),
      source,
      size: 256,
      onStation: (name) => told.push(name),
      onProgress: (_name, done) => progress.push(done),
    });
    expect(told).to.deep.equal([...STATION_NAMES]);
    expect(Object.keys(outputs)).to.deep.equal([...STATION_NAMES]);
    expect(Object.keys(verdicts)).to.deep.equal([...STATION_NAMES]);
    expect(progress.every((p, i) => i === 0 || p >= progress[i - 1])).to.equal(true);
    expect(progress.at(-1)).to.be.closeTo(1, 1e-9);
  });

  it('the longest step is counted from one turn to the next, whoever holds the thread; what is waited for is none', async () => {
    const host = hostOf(pixels);
    const late = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
    const engine = new Engine(
      {
        pixels: async (...asked) => {
          await late(1000);
          return host.pixels(...asked);
        },
      },
      CACHE,
    );
    const { longestStep } = await engine.evaluate({
      recipe: recipeWith({}),
      source,
      size: 256,
      until: 'even',
      onOutput: (name) => {
        const until = performance.now() + (name === 'square' ? 300 : 0);
        while (performance.now() < until);
      },
    });
    expect(longestStep.ms).to.be.within(300, 999);
    expect(longestStep.station).to.equal('square');
  });

  it('measures nothing before what is looked at is made, then everything in its order', async () => {
    const told: string[] = [];
    const walk = (first?: StationName) =>
      fresh().engine.evaluate({
        recipe: recipeWith({}),
        source,
        size: 256,
        until: 'gauge',
        first,
        onOutput: (name) => {
          told.push(`${name} made`);
        },
        onStation: (name) => told.push(`${name} measured`),
      });
    const { verdicts } = await walk('even');
    expect(told).to.deep.equal([
      ...['source made', 'square made', 'even made'],
      ...['source measured', 'square measured', 'even measured'],
      ...['join made', 'join measured', 'style made', 'style measured', 'gauge made', 'gauge measured'],
    ]);
    expect(verdicts).to.deep.equal((await walk()).verdicts);
  });

  it('stops at the station that was asked for', async () => {
    const { outputs } = await fresh().engine.evaluate({
      recipe: recipeWith({}),
      source,
      size: 256,
      until: 'even',
    });
    expect(Object.keys(outputs)).to.deep.equal(['source', 'square', 'even']);
  });

  it('releases the photo where only the tile is wanted, and makes the same tile', async () => {
    const whole = await fresh().engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const held: string[][] = [];
    const { outputs } = await new Engine(hostOf(pixels), 0).evaluate({
      recipe: recipeWith({}),
      source,
      size: 256,
      tileOnly: true,
      onStation: (_name, _verdict, now) => held.push(Object.keys(now)),
    });
    expect(Object.keys(outputs)).to.deep.equal([
      ...['join', 'style', 'gauge', 'relief', 'finish', 'coats', 'proof', 'crate'],
    ]);
    // Everything of the photo is gone before Gauge begins, where no patches of it are read.
    expect(held[STATION_NAMES.indexOf('gauge')]).to.deep.equal(['join', 'style', 'gauge']);
    const { style, relief } = outputs as TileOutputs;
    const { style: other, relief: theirs } = whole.outputs as TileOutputs;
    expect(farthest(style.picture.planes[0], other.picture.planes[0])).to.equal(0);
    expect(farthest(relief.height, theirs.height)).to.equal(0);
    const before = await style.before().catch((error: Error) => error);
    expect(before).to.be.instanceOf(Error).with.property('message').that.includes('let go');
  });

  it('holds the picture as it was before Even for height by slanting light, which reads it', async () => {
    const lit = recipeWith({ relief: { heightFrom: 'light' } });
    const made = async (more: object) => {
      const engine = new Engine(hostOf(pixels), 0);
      const { outputs } = await engine.evaluate({ recipe: lit, source, size: 256, until: 'relief', ...more });
      return outputs.relief!.height;
    };
    expect(farthest(await made({ tileOnly: true }), await made({}))).to.equal(0);
  });

  it('computes nothing twice: the same request again comes from the cache, a late dial leaves early stations alone', async () => {
    const { engine, host } = fresh();
    const first = await engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const asked = host.asked;
    const again = await engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    expect(Object.values(again.timings).every((ms) => ms === 0)).to.equal(true);
    expect(again.outputs.relief).to.equal(first.outputs.relief);
    const turned = await engine.evaluate({
      recipe: recipeWith({ gauge: { exposure: 1 } }),
      source,
      size: 256,
    });
    expect(turned.outputs.relief).to.equal(first.outputs.relief);
    expect(turned.outputs.gauge).not.to.equal(first.outputs.gauge);
    expect(host.asked).to.equal(asked);
  });

  it('counts what one evaluation found and made, whatever others make meanwhile', async () => {
    const { engine } = fresh();
    const ask = (exposure: number) =>
      engine.evaluate({ recipe: recipeWith({ gauge: { exposure } }), source, size: 256 });
    const first = await ask(0);
    expect(first.used.misses).to.be.above(10);
    const [other, again] = await Promise.all([ask(0.5), ask(0)]);
    expect(again.used.misses).to.equal(0);
    expect(again.used.hits).to.be.above(10);
    expect(other.used.misses).to.be.above(0);
  });

  it('knows decisions that a recipe brought when another has taken their place', async () => {
    const { recipe } = await fresh().engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const { engine } = fresh();
    await engine.evaluate({ recipe, source, size: 256 });
    expect(Object.keys(recipe.decisions).length).to.be.above(2);
    const { used } = await engine.evaluate({ recipe: { ...recipe, decisions: {} }, source, size: 256 });
    expect(used.misses).to.equal(0);
  });

  it('makes the normals anew for another depth, but not the occlusion for another normal strength', async () => {
    const { engine } = fresh();
    const first = await engine.evaluate({ recipe: recipeWith({}), source, size: 256, until: 'relief' });
    const strong = await engine.evaluate({
      recipe: recipeWith({ relief: { normalStrength: 2 } }),
      source,
      size: 256,
      until: 'relief',
    });
    expect(strong.outputs.relief!.occlusion).to.equal(first.outputs.relief!.occlusion);
    expect(strong.outputs.relief!.normal).not.to.equal(first.outputs.relief!.normal);
  });

  it('can be stopped before it begins and while it works, and works again after', async () => {
    const { engine } = fresh();
    const stopped = AbortSignal.abort();
    const early = await engine
      .evaluate({ recipe: recipeWith({}), source, size: 256, signal: stopped })
      .catch((e) => e);
    expect(early).to.be.instanceOf(Stopped);
    const abort = new AbortController();
    const reached: string[] = [];
    const late = await engine
      .evaluate({
        recipe: recipeWith({}),
        source,
        size: 256,
        signal: abort.signal,
        onStation(name) {
          reached.push(name);
          if (name === 'square') abort.abort();
        },
      })
      .catch((e) => e);
    expect(late).to.be.instanceOf(Stopped);
    expect(reached).to.deep.equal(['source', 'square']);
    const whole = await engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    expect(whole.outputs.crate!.files.length).to.be.above(5);
  });

  it('gives the same to the last bit each time, whatever was computed before', async () => {
    const a = await fresh().engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const busy = fresh().engine;
    await busy.evaluate({ recipe: recipeWith({ even: { amount: 0.3 } }), source, size: 512 });
    const b = await busy.evaluate({ recipe: recipeWith({}), source, size: 256 });
    for (const map of MAP_NAMES) {
      const [one, two] = [a, b].map((e) => mapRaster(surfaceOf(e.outputs as TileOutputs), map));
      expect(one?.planes.length, map).to.equal(two?.planes.length);
      one?.planes.forEach((plane, c) => {
        expect(farthest(plane, two!.planes[c]), map).to.equal(0);
      });
    }
  });

  it('decides once: a recipe with its decisions is replayed, and decided anew only when its own input changes', async () => {
    const first = await fresh().engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const decided = first.recipe.decisions;
    expect(Object.keys(decided)).to.have.members(['even', 'join', 'gauge', 'relief', 'finish', 'coats']);
    const marked: Recipe = structuredClone(first.recipe);
    const { fields } = marked.decisions.even!.data as { fields: number[][] };
    fields[0][1] += 0.01;
    const replayed = await fresh().engine.evaluate({ recipe: marked, source, size: 256 });
    expect(replayed.recipe.decisions.even).to.deep.equal(marked.decisions.even);
    const turned = { ...marked, stations: recipeWith({ square: { turnDegrees: 3 } }).stations };
    const anew = await fresh().engine.evaluate({ recipe: turned, source, size: 256 });
    expect(anew.recipe.decisions.even).not.to.deep.equal(marked.decisions.even);
    const brighter = { ...first.recipe, stations: recipeWith({ gauge: { exposure: 1 } }).stations };
    const { recipe } = await fresh().engine.evaluate({ recipe: brighter, source, size: 256 });
    // Coats see the calibrated colour: what they settle is settled anew, and is the same.
    const { coats, ...others } = recipe.decisions;
    const { coats: before, ...same } = decided;
    expect(others).to.deep.equal(same);
    expect(coats?.data).to.deep.equal(before?.data);
    const deeper = { ...first.recipe, stations: recipeWith({ relief: { band3: 2 } }).stations };
    const other = (await fresh().engine.evaluate({ recipe: deeper, source, size: 256 })).recipe.decisions;
    expect(other.relief).not.to.deep.equal(decided.relief);
    expect(other.finish).to.deep.equal(decided.finish);
  });

  it('Gauge moves no other map by a single bit', async () => {
    const { engine } = fresh();
    const plain = await engine.evaluate({ recipe: recipeWith({}), source, size: 256 });
    const gauged = await fresh().engine.evaluate({
      recipe: recipeWith({
        gauge: { line: 'limewash', exposure: 1.5, contrast: 1.4, colour: 0.2, hold: false, countFrom: 20 },
      }),
      source,
      size: 256,
    });
    const [a, b] = [plain, gauged].map((e) => e.outputs as TileOutputs);
    expect(rmsBetween(a.gauge.albedo.planes[0], b.gauge.albedo.planes[0])).to.be.above(0.05);
    for (const map of MAP_NAMES.filter(
      (name) => !['albedo', 'diffuse', 'opacity', 'emission', 'dielectric'].includes(name),
    )) {
      const [one, two] = [mapRaster(surfaceOf(a), map)!, mapRaster(surfaceOf(b), map)!];
      one.planes.forEach((plane, c) => {
        expect(farthest(plane, two.planes[c]), map).to.equal(0);
      });
    }
  });

  it('looks the same at every size: 1024 brought down to 512 is the 512', async () => {
    const { engine } = fresh();
    const recipe = recipeWith({ square: { size: 1024, turnDegrees: 2 }, gauge: { line: 'sand-dry' } });
    const [small, large] = [
      await engine.evaluate({ recipe, source, size: 512 }),
      await engine.evaluate({ recipe, source, size: 1024 }),
    ].map((e) => e.outputs as TileOutputs);
    // Stated tolerance, RMS in file codes of 255. Normals and what depends on them lose steepness when fine
    // detail is averaged, so theirs is wider.
    const most: Partial<Record<(typeof MAP_NAMES)[number], number>> = {
      albedo: 2.5,
      height: 3,
      occlusion: 5,
      cavity: 5,
      roughness: 2.5,
      normal: 7,
    };
    for (const [map, bound] of Object.entries(most)) {
      const name = map as (typeof MAP_NAMES)[number];
      const down = resizeArea(mapRaster(surfaceOf(large), name)!, 512, 512);
      const codes = [down, mapRaster(surfaceOf(small), name)!].map((raster) =>
        KERNELS.quantise(encodedPlanes(raster, name), 8),
      );
      expect(rmsBetween(codes[0], codes[1]), map).to.be.below(bound);
    }
  });

  it('brings alpha through to the opacity map, joined with the colour', async () => {
    const picture = photo(400, 400);
    const alpha = picture.planes[0].map((v) => (v > 0.2 ? 1 : 0.25));
    const engine = new Engine(hostOf(pixelsOf(picture, alpha)), CACHE);
    const { outputs } = await engine.evaluate({
      recipe: recipeWith({}),
      source: { ...source, width: 400, height: 400 },
      size: 256,
    });
    const opacity = outputs.join!.alpha!;
    expect(opacity.length).to.equal(256 * 256);
    expect(opacity.every((v) => v >= 0 && v <= 1)).to.equal(true);
    expect(outputs.crate!.files.map((f) => f.ending)).to.include('opacity');
  });

  it('says in its crate what stands in each channel', async () => {
    const { engine } = fresh();
    const packed = await engine.evaluate({
      recipe: recipeWith({ crate: { profile: 'packed' } }),
      source,
      size: 256,
    });
    const file = packed.outputs.crate!.files.find((f) => f.maps.length === 3)!;
    expect(file.maps).to.deep.equal(['occlusion', 'roughness', 'metallic']);
    const samples = file.samples();
    const { relief, finish } = packed.outputs;
    const i = 12345;
    expect(samples[3 * i]).to.equal(Math.floor(relief!.occlusion![i] * 255 + 0.5));
    expect(samples[3 * i + 1]).to.equal(Math.floor(finish!.roughness[i] * 255 + 0.5));
    expect(samples[3 * i + 2]).to.equal(0);
  });
});
