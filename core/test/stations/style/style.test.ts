import {
  Engine,
  newCoat,
  newOutput,
  newPart,
  newRecipe,
  Raster,
  resizeArea,
  STATIONS,
  STYLE_STARTS,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { blurring } from '../../../src/filters/gaussian.ts';
import { KERNELS } from '../../../src/kernels/kernels.ts';
import type { StyleOutput } from '../../../src/stations/style/output.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { ALONE, type Team } from '../../../src/team/team.ts';
import { runToEnd } from '../../../src/work/steps.ts';
import { hostOf, pixelsOf } from '../../engine/host.ts';
import { farthest, noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf, runStation, unpainted, verdictOf } from '../run.ts';

const SIZE = 256;
const frame = frameOf(SIZE);

/** Slabs of a few colours with dark joints and grain, at any size. */
function slabs(size: number, of = 3): Raster {
  const grain = noisePlane(size * size, of);
  const colours = [
    [0.42, 0.25, 0.18],
    [0.35, 0.3, 0.2],
    [0.5, 0.3, 0.25],
    [0.3, 0.22, 0.2],
  ];
  const cell = size / 4;
  const planes = [0, 1, 2].map((c) =>
    planeOf(size, size, (x, y) => {
      const joint = x % cell < size / 64 || y % cell < size / 64;
      const slab = colours[(Math.floor(x / cell) + 2 * Math.floor(y / cell)) % 4];
      return (joint ? 0.12 : slab[c]) * (0.9 + 0.2 * grain[y * size + x]);
    }),
  );
  return new Raster(size, size, planes);
}

const styled = async (picture: Raster, changes: object, alpha: Float32Array | null = null) => {
  const { output, decided } = await runStation(
    'style',
    unpainted(picture, alpha),
    changes,
    frameOf(picture.width),
  );
  return { output: output as StyleOutput, decided };
};

const lightness = ({ planes }: Raster) => KERNELS.oklabPlanes(planes)[0];

describe('Style', function () {
  this.timeout(120_000);

  it('with amount 0 hands on what came in, the very same planes, and settles nothing', async () => {
    const picture = slabs(64);
    const { output, decided } = await styled(picture, { amount: 0 });
    expect(output.picture).to.equal(picture);
    expect(output.relief).to.equal(null);
    expect(decided).to.equal(null);
    const { verdict } = await verdictOf('style', unpainted(picture), { amount: 0 }, frameOf(64));
    expect(verdict.state).to.equal('fine');
    expect(verdict.figures).to.deep.equal([]);
  });

  it('with amount 0 no dial of it makes anything again', async () => {
    const source = { sha256: 'slabs', width: 64, height: 64 };
    const engine = new Engine(hostOf(pixelsOf(slabs(64))), 2 ** 28);
    const evaluate = (dials: object) => {
      const recipe = newRecipe();
      Object.assign(recipe.stations.style, dials);
      recipe.stations.join.method = 'none';
      return engine.evaluate({ recipe, source, size: 64, until: 'relief', withoutVerdicts: true });
    };
    await evaluate({});
    const { used } = await evaluate({ brush: 0.9, light: 0.1, seed: 4 });
    expect(used.misses).to.equal(0);
  });

  it('simplifies, keeps joints and broad lightness, and gives the same bytes for the same seed', async () => {
    const picture = slabs(SIZE);
    const { output } = await styled(picture, { amount: 1 });
    const [before, after] = [lightness(picture), lightness(output.picture)];
    const change = after.map((value, i) => value - before[i]);
    const broad = runToEnd(blurring(change, SIZE, SIZE, SIZE / 8, TORUS));
    expect(farthest(broad, new Float32Array(broad.length))).to.be.below(0.005);
    // Joints stay darker than the slabs beside them.
    const at = (x: number, y: number) => after[y * SIZE + x];
    for (const k of [20, 90, 150, 220]) expect(at(2, k)).to.be.below(at(32, k) - 0.1);
    const again = await styled(picture, { amount: 1 });
    expect(again.output.picture.planes).to.deep.equal(output.picture.planes);
    const other = await styled(picture, { amount: 1, seed: 2 });
    expect(rmsBetween(other.output.picture.planes[1], output.picture.planes[1])).to.be.above(0.005);
  });

  it('edges wrap: the step across them is no larger than steps inside', async () => {
    const { output } = await styled(slabs(SIZE), { amount: 1 });
    const plane = lightness(output.picture);
    const step = (row: number) => {
      let sum = 0;
      for (let x = 0; x < SIZE; x++) {
        sum += Math.abs(plane[((row + 1) % SIZE) * SIZE + x] - plane[row * SIZE + x]);
      }
      return sum / SIZE;
    };
    const steps = Array.from({ length: SIZE }, (_, row) => step(row)).sort((a, b) => a - b);
    // A slab begins at the edge, as at three other rows.
    expect(step(SIZE - 1)).to.be.at.most(1.2 * steps[SIZE - 2]);
  });

  it('a flat tile gives a flat tile, in every way of painting', async () => {
    const flat = new Raster(
      64,
      64,
      [0.4, 0.3, 0.2].map((value) => new Float32Array(64 * 64).fill(value)),
    );
    for (const { dials } of STYLE_STARTS) {
      const { output } = await styled(flat, { ...dials, marks: 0, variety: 0 });
      output.picture.planes.forEach((plane, c) => {
        expect(farthest(plane, flat.planes[c])).to.be.below(0.002);
      });
    }
  });

  it('strokes settled once are the same at any size', async () => {
    const [small, large] = [slabs(512), slabs(1024)];
    const { decided, output } = await styled(small, { amount: 1 });
    const replayed = await runStation('style', unpainted(large), { amount: 1 }, frameOf(1024), {
      decided,
    });
    const reduced = resizeArea(replayed.output.picture, 512, 512);
    const same = rmsBetween(lightness(reduced), lightness(output.picture));
    const { output: other } = await styled(small, { amount: 1, seed: 9 });
    expect(same).to.be.below(0.015);
    expect(same).to.be.below(0.5 * rmsBetween(lightness(other.picture), lightness(output.picture)));
  });

  it('a large tile, for which memory is spared, is painted to the same bytes', async () => {
    const picture = slabs(128);
    const changes = { amount: 1, ink: 0.5 };
    const { output, decided } = await styled(picture, changes);
    // Sides of a small tile, the size of a large one: nothing else of Style goes by the size.
    const large = { ...frameOf(128), size: 4096 };
    const spared = await runStation('style', unpainted(picture), changes, large, { decided });
    expect(spared.output.picture.planes).to.deep.equal(output.picture.planes);
    expect(spared.output.relief.height).to.deep.equal(output.relief!.height);
    expect(spared.output.relief.ridges).to.deep.equal(output.relief!.ridges);
    expect(spared.output.fineLeft).to.equal(output.fineLeft);
    expect(spared.output.simplified).to.equal(null);
    // What is handed on holds none of the slabs.
    for (const plane of spared.output.picture.planes)
      expect(plane.byteLength).to.equal(plane.buffer.byteLength);
  });

  it('a team makes the same bytes as one thread alone', async () => {
    const team: Team = { ...ALONE, size: 4 };
    const input = unpainted(slabs(SIZE));
    const { decided, output } = await runStation('style', input, { amount: 1 }, frame);
    const shared = await STATIONS.style.run(
      input as never,
      { ...newRecipe().stations.style, amount: 1 },
      decided,
      frame,
      { ...PLAIN_CONTEXT, team },
    );
    expect(shared.picture.planes).to.deep.equal(output.picture.planes);
  });

  it('alpha stays as it is, and what is under it has no effect', async () => {
    const alpha = planeOf(SIZE, SIZE, (x, y) => (Math.hypot(x - 128, y - 128) < 90 ? 1 : 0));
    const one = slabs(SIZE);
    const other = one.mapPlanes((plane) => plane.map((value, i) => (alpha[i] ? value : 0.9)));
    const [a, b] = [await styled(one, { amount: 1 }, alpha), await styled(other, { amount: 1 }, alpha)];
    expect(a.output.alpha).to.equal(alpha);
    a.output.picture.planes.forEach((plane, c) => {
      expect(farthest(plane, b.output.picture.planes[c])).to.be.below(1e-5);
    });
  });

  it('more light paints more of it, from where it is said to come, and as Relief reads high and low', async () => {
    const picture = slabs(SIZE);
    const few = { amount: 1, marks: 0, variety: 0 };
    const none = await styled(picture, { ...few, light: 0 });
    const much = await styled(picture, { ...few, light: 1 });
    expect(none.output.lightPainted).to.equal(0);
    expect(much.output.lightPainted).to.be.above(0.01);
    const away = await styled(picture, { ...few, light: 1, lightDegrees: 135 });
    const turned = rmsBetween(lightness(away.output.picture), lightness(much.output.picture));
    expect(turned).to.be.above(0.003);
    const dark = { ...frame, reading: { ...frame.reading, isDarkHigh: true } };
    const read = await runStation('style', unpainted(picture), { ...few, light: 1 }, dark);
    const joint = (raster: Raster) => lightness(raster)[40 * SIZE + 2];
    expect(joint(read.output.picture)).to.be.above(joint(much.output.picture) + 0.03);
  });

  it('shows on the way what is simplified, then each layer of strokes but the last', async () => {
    const source = { sha256: 'slabs', width: 128, height: 128 };
    const engine = new Engine(hostOf(pixelsOf(slabs(128))), 2 ** 28);
    const recipe = newRecipe();
    recipe.stations.join.method = 'none';
    const evaluate = (
      dials: object,
      onTheWay?: (name: string, make: () => Promise<Raster>) => Promise<void>,
    ) => {
      Object.assign(recipe.stations.style, dials);
      const given = { ...recipe, stations: { ...recipe.stations, style: { ...recipe.stations.style } } };
      return engine.evaluate({
        recipe: given,
        source,
        size: 512,
        until: 'style',
        withoutVerdicts: true,
        onTheWay,
      });
    };
    const shown: Raster[] = [];
    const take = async (name: string, make: () => Promise<Raster>) => {
      expect(name).to.equal('style');
      shown.push(await make());
    };
    const { outputs } = await evaluate({ amount: 1 }, take);
    expect(shown).to.have.length(3);
    const to = outputs.style!.simplified![0];
    const off = shown.map((raster) => rmsBetween(lightness(raster), to));
    expect(off[0]).to.be.below(1e-3);
    expect(Math.min(off[1], off[2])).to.be.above(5 * off[0]);
    expect(rmsBetween(lightness(shown[1]), lightness(shown[2]))).to.be.above(1e-3);
    // Light is painted last: nothing before it is made again.
    await evaluate({ light: 0.9 }, take);
    expect(shown).to.have.length(3);
    const plain = await evaluate({ light: 0.5 });
    expect(plain.outputs.style!.picture.planes).to.deep.equal(outputs.style!.picture.planes);
  });

  it('only in coats the tile stays as it is, and the painted picture is there for them', async () => {
    const picture = slabs(SIZE);
    const whole = await styled(picture, { amount: 1 });
    const { output } = await styled(picture, { amount: 1, place: 'coats' });
    expect(output.picture).to.equal(picture);
    expect(output.relief).to.equal(null);
    expect(output.painted!.planes).to.deep.equal(whole.output.picture.planes);
  });

  it('a coat puts the painted picture through its mask, calibrated as the rest, and nothing where none is painted', async () => {
    const source = { sha256: 'slabs', width: 128, height: 128 };
    const engine = new Engine(hostOf(pixelsOf(slabs(128))), 2 ** 28);
    const colourOf = async (style: object, parts: Parameters<typeof newPart>[0][] | null) => {
      const recipe = newRecipe();
      Object.assign(recipe.stations.style, style);
      recipe.stations.join.method = 'none';
      recipe.stations.square.share = 1;
      recipe.stations.gauge.exposure = 0.5;
      const made = (parts ?? []).map((by) => newPart(by, {}));
      const coat = newCoat({ parts: made, outputs: [newOutput('styled', { channel: 'colour' })] });
      if (parts) recipe.stations.coats.stack = [{ ...coat, id: 'painted' }];
      const { surface } = await engine.evaluate({
        recipe,
        source,
        size: 128,
        until: 'coats',
        withoutVerdicts: true,
      });
      return surface!.colour.planes[1];
    };
    const inCoats = { amount: 1, place: 'coats' };
    const [plain, whole] = [await colourOf(inCoats, null), await colourOf({ amount: 1 }, null)];
    expect(rmsBetween(plain, whole)).to.be.above(0.01);
    expect(rmsBetween(await colourOf(inCoats, []), whole)).to.be.below(0.01);
    expect(farthest(await colourOf({}, []), plain)).to.equal(0);
    const half = await colourOf(inCoats, ['gradient']);
    const changed = (from: Float32Array) =>
      half.reduce((count, value, i) => count + (Math.abs(value - from[i]) > 0.002 ? 1 : 0), 0) / half.length;
    // Some of it is painted, some is not, and most is in between.
    expect(changed(plain)).to.be.within(0.3, 0.99);
    expect(changed(whole)).to.be.within(0.3, 0.99);
  });

  it('Relief reads the simplified height: less grain, ridges by depth, and bands as chosen', async () => {
    const picture = slabs(SIZE);
    const heightOf = async (dials: object) => {
      const { output } = await styled(picture, dials);
      const { output: relief } = await runStation('relief', { style: output }, {}, frame);
      return relief as { height: Float32Array; occlusion: Float32Array };
    };
    /** Fine relief within a slab. */
    const fine = (plane: Float32Array) => {
      const soft = runToEnd(blurring(plane, SIZE, SIZE, 1, TORUS));
      const inside = (one: Float32Array) =>
        one.filter((_value, i) => (i % SIZE) % 64 > 20 && Math.floor(i / SIZE) % 64 > 20);
      return rmsBetween(inside(soft), inside(plane));
    };
    const raw = await heightOf({ amount: 0 });
    const smooth = await heightOf({ amount: 1, depth: 0 });
    const ridged = await heightOf({ amount: 1, depth: 1 });
    expect(fine(smooth.height)).to.be.below(0.8 * fine(raw.height));
    expect(fine(ridged.height)).to.be.above(fine(smooth.height));
    expect(rmsBetween(ridged.height, smooth.height)).to.be.above(0.01);
    const broad = await heightOf({
      amount: 1,
      depth: 0,
      occlusionBands: [false, false, false, false, false, true],
    });
    expect(broad.height).to.deep.equal(smooth.height);
    expect(rmsBetween(broad.occlusion, smooth.occlusion)).to.be.above(0.001);
  });

  it('says where edges did not meet before: they meet no better after', async () => {
    const slope = slabs(SIZE).mapPlanes((plane) =>
      plane.map((value, i) => value * (0.4 + (1.2 * (i % SIZE)) / SIZE)),
    );
    const { verdict } = await verdictOf('style', unpainted(slope), { amount: 1 }, frame);
    expect(verdict.state).to.equal('look');
    expect(verdict.advice).to.include('did not meet before painting');
    const { verdict: fine } = await verdictOf('style', unpainted(slabs(SIZE)), { amount: 1 }, frame);
    expect(fine.advice).to.equal('');
  });

  it('says what was simplified, what light was painted in, and how broad lightness changed', async () => {
    const { verdict } = await verdictOf('style', unpainted(slabs(SIZE)), { amount: 1 }, frame);
    const value = (id: string) => verdict.figures.find((figure) => figure.id === id)!.value;
    expect(value('fine')).to.be.within(5, 100);
    expect(value('light')).to.be.within(0.3, 8);
    expect(value('broad')).to.be.below(2);
    expect(value('colours')).to.be.at.most(12);
    expect(value('seam')).to.be.within(0, 100);
    expect(verdict.sentence).to.match(/simplified away, shapes below \d/);
  });
});
