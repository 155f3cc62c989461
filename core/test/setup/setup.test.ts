import { Engine, isApplied, newRecipe, Raster, Stopped, setUp, withProposed } from '@zesty-tile/core';
import { expect } from 'chai';
import { hostOf, pixelsOf } from '../engine/host.ts';
import { planeOf, tilingPicture } from '../fields.ts';
import { setUpOf } from './run.ts';
import { MADE_SOURCES, photographed } from './sources.ts';

const small = () => photographed({ ...MADE_SOURCES.cobbles, width: 300, height: 280 });

describe('setting up from a photo', () => {
  it('applies every proposal, and gives the defaults back where all are taken back', async () => {
    const { recipe, proposals } = await setUpOf(small());
    for (const { settings, title } of proposals) expect(isApplied(recipe, settings), title).to.equal(true);
    const back = [...proposals]
      .reverse()
      .reduce((now, { settings }) => withProposed(now, settings, 'before'), recipe);
    expect(back).to.deep.equal(newRecipe());
  });

  it('leaves a picture that tiles as it is: whole, not joined, its light kept', async () => {
    const { recipe, proposals } = await setUpOf(tilingPicture(256));
    const { square, even, join } = recipe.stations;
    expect(square.share).to.equal(1);
    expect(even.amount).to.equal(0);
    expect(join.method).to.equal('none');
    const ids = proposals.map(({ id }) => id);
    expect(ids).to.include('tiling');
    expect(ids).to.not.include.members(['level', 'crop', 'even', 'join']);
  });

  it('does not take a picture whose edges differ for a tile', async () => {
    const { recipe } = await setUpOf(small());
    expect(recipe.stations.join.method).to.not.equal('none');
  });

  it('halves the size for a soft photo, and says why', async () => {
    const soft = (size: number) =>
      planeOf(
        size,
        size,
        (x, y) => 0.3 + 0.1 * Math.sin(x / 31 + 2 * Math.cos(y / 43)) + 0.05 * Math.sin(y / 17),
      );
    const plane = soft(600);
    const { recipe, proposals } = await setUpOf(new Raster(600, 600, [plane, plane, plane]));
    expect(recipe.stations.square.size).to.equal(256);
    expect(proposals.find(({ id }) => id === 'size')?.reason).to.match(
      /^The photo is soft \(sharpness 0\.\d\d\)/,
    );
  });

  it('leaves settings alone that were chosen', async () => {
    const recipe = newRecipe();
    recipe.stations.square.size = 256;
    recipe.stations.relief.polarity = 'dark';
    const chosen = new Set(['square.size', 'relief.polarity', 'gauge.line']);
    const { recipe: made } = await setUpOf(small(), recipe, chosen);
    expect(made.stations.square.size).to.equal(256);
    expect(made.stations.relief.polarity).to.equal('dark');
    expect(made.stations.gauge.line).to.equal('none');
    expect(made.stations.finish.line).to.not.equal('none');
  });

  it('asks for the length of the edge only where it is not known', async () => {
    const recipe = newRecipe();
    recipe.stations.square.edgeMetres = 2.4;
    const ids = (await setUpOf(small(), recipe)).proposals.map(({ id }) => id);
    expect(ids).to.not.include('edge');
  });

  it('offers the three nearest materials, as a guess, for Gauge and Finish at once', async () => {
    const { proposals } = await setUpOf(small());
    const material = proposals.find(({ id }) => id === 'material')!;
    expect(material.isGuess).to.equal(true);
    expect(material.alternatives).to.have.length(3);
    for (const { swatch, settings } of material.alternatives!) {
      expect(swatch).to.match(/^#[0-9a-f]{6}$/);
      expect(settings.map(({ station, key }) => `${station}.${key}`)).to.deep.equal([
        'gauge.line',
        'finish.line',
      ]);
    }
  });

  it('stops when it is cancelled', async () => {
    const picture = small();
    const stop = new AbortController();
    const engine = new Engine(hostOf(pixelsOf(picture)), 100e6);
    const source = { sha256: '6'.repeat(64), width: picture.width, height: picture.height };
    const onProgress = (done: number) => done > 0.2 && stop.abort(new Stopped());
    const made = setUp(engine, { recipe: newRecipe(), source, signal: stop.signal, onProgress });
    const error = await made.then(
      () => null,
      (e: unknown) => e,
    );
    expect(error).to.be.instanceOf(Stopped);
  });
});
