import { gaussian, mean, Raster, runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { findSideLight } from '../../../src/stations/even/side-light.ts';
import { noisePlane, planeOf, rmsBetween } from '../../fields.ts';
import { frameOf, runStation, squared } from '../run.ts';

const size = 256;
const relief = gaussian(noisePlane(size * size, 3), size, size, 3, TORUS).map((v) => 40 * (v - 0.5));
const patches = gaussian(noisePlane(size * size, 9), size, size, 6, TORUS).map((v) => 0.3 + 1.6 * (v - 0.5));

/** A rough surface of patchy colour under slanting light, and its colour alone. */
function lit(degrees: number): { picture: Raster; colour: Float32Array } {
  const [lx, ly] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const at = (x: number, y: number) => relief[((y + size) % size) * size + ((x + size) % size)];
  const plane = planeOf(size, size, (x, y) => {
    const p = (at(x + 1, y) - at(x - 1, y)) / 2;
    const q = (at(x, y + 1) - at(x, y - 1)) / 2;
    const facing = (0.55 - 0.6 * (lx * p + ly * q)) / Math.hypot(p, q, 1);
    return patches[y * size + x] * Math.max(0.08, facing);
  });
  return { picture: new Raster(size, size, [plane, plane, plane]), colour: patches };
}

const even = async (picture: Raster, changes = {}) =>
  runStation('even', squared(picture), { amount: 0, ...changes }, frameOf(picture.width));

/** RMS of the log of result ÷ truth, its mean aside. */
function unlike(result: Float32Array, truth: Float32Array): number {
  const logs = Array.from(result, (v, i) => Math.log((v + 0.01) / (truth[i] + 0.01)));
  const centre = mean(logs);
  return Math.sqrt(mean(logs.map((v) => (v - centre) ** 2)));
}

/** Smallest turn between two lines, degrees. */
const between = (a: number, b: number) => Math.abs(((a - b + 270) % 180) - 90);

describe('side shading', () => {
  for (const degrees of [0, 30, -50, 85]) {
    it(`finds the line of light at ${degrees}° within 10°`, () => {
      const found = runToEnd(findSideLight(lit(degrees).picture, null));
      expect(between(found.degrees, degrees)).to.be.below(10);
      expect(found.plain).to.be.above(0.1);
    });
  }

  it('finds no line to rule where light does not come from a side', () => {
    const flat = new Raster(size, size, [patches, patches, patches]);
    expect(runToEnd(findSideLight(flat, null)).plain).to.be.below(0.06);
  });

  it('divided out leaves the colour of the surface plainer than it was', async () => {
    const { picture, colour } = lit(30);
    const { output } = await even(picture, { shading: 1 });
    const before = unlike(picture.planes[0], colour);
    const after = unlike(output.picture.planes[0], colour);
    expect(after).to.be.below(0.75 * before);
    const half = await even(picture, { shading: 0.5 });
    expect(unlike(half.output.picture.planes[0], colour)).to.be.within(after, before);
  });

  it('by hand along the wrong line takes little out', async () => {
    const { picture, colour } = lit(30);
    const across = await even(picture, { shading: 1, lightFrom: 'hand', lightDegrees: -60 });
    expect(across.decided.side.degrees).to.equal(-60);
    const moved = rmsBetween(across.output.picture.planes[0], picture.planes[0]);
    const found = await even(picture, { shading: 1 });
    expect(moved).to.be.below(rmsBetween(found.output.picture.planes[0], picture.planes[0]) / 3);
    expect(unlike(across.output.picture.planes[0], colour)).to.be.above(
      unlike(found.output.picture.planes[0], colour),
    );
  });

  it('is the same at twice the size', async () => {
    const { picture } = lit(30);
    const twice = (plane: Float32Array) =>
      planeOf(2 * size, 2 * size, (x, y) => plane[(y >> 1) * size + (x >> 1)]);
    const large = picture.planes.map(twice);
    const { decided, output } = await even(picture, { shading: 1 });
    const { output: fine } = await runStation(
      'even',
      squared(new Raster(2 * size, 2 * size, large)),
      { amount: 0, shading: 1 },
      frameOf(2 * size),
      { decided },
    );
    const [coarse] = output.picture.planes;
    const back = planeOf(size, size, (x, y) => {
      const at = 2 * y * 2 * size + 2 * x;
      const plane = fine.picture.planes[0];
      return (plane[at] + plane[at + 1] + plane[at + 2 * size] + plane[at + 2 * size + 1]) / 4;
    });
    expect(rmsBetween(coarse, back)).to.be.below(0.02);
  });

  it('leaves a picture without any detail as it is', async () => {
    const plain = new Float32Array(size * size).fill(0.3);
    const { output } = await even(new Raster(size, size, [plain, plain, plain]), { shading: 1 });
    expect(rmsBetween(output.picture.planes[0], plain)).to.be.below(1e-6);
  });
});

describe('what is left alone', () => {
  const slope = planeOf(size, size, (x) => 0.3 * Math.exp((0.8 * x) / size));
  const picture = new Raster(size, size, [slope, slope, slope]);
  const disc = { points: [[0.25, 0.5]] as [number, number][], radius: 0.1, softness: 0, erase: false };
  const at = (raster: Raster, x: number, y: number) => raster.planes[0][y * size + x];

  it('by a stroke stays as it was; an erasing one takes it back', async () => {
    const { output } = await even(picture, { amount: 1, leave: [disc] });
    expect(at(output.picture, 64, 128)).to.equal(at(picture, 64, 128));
    expect(at(output.picture, 200, 128)).to.be.below(0.9 * at(picture, 200, 128));
    const erased = await even(picture, { amount: 1, leave: [disc, { ...disc, erase: true }] });
    expect(at(erased.output.picture, 64, 128)).to.be.above(1.1 * at(picture, 64, 128));
  });

  it('is not looked at when the light is told', async () => {
    // A third of the picture is a bright board: it would be taken for light.
    const board = planeOf(size, size, (x, y) => (x < 100 ? 0.8 : 0.25) * (1 + 0.1 * Math.sin(y)));
    const both = new Raster(size, size, [board, board, board]);
    const strokes = Array.from({ length: 6 }, (_, k) => ({
      points: [
        [0.07 * k, -0.1],
        [0.07 * k, 1.1],
      ] as [number, number][],
      radius: 0.06,
      softness: 0,
      erase: false,
    }));
    const free = await even(both, { amount: 1, leave: strokes });
    const change = (raster: Raster, x: number) => at(raster, x, 128) / at(both, x, 128);
    expect(change(free.output.picture, 130) / change(free.output.picture, 240)).to.be.closeTo(1, 0.03);
  });

  it('by a range of luminance holds that range and no other', async () => {
    const { output } = await even(picture, { amount: 1, leaveFrom: 0.5, leaveTo: 0.7 });
    const inside = slope.findIndex((v) => v > 0.6);
    expect(at(output.picture, inside, 3)).to.be.closeTo(at(picture, inside, 3), 1e-6);
    expect(at(output.picture, 10, 3)).to.be.above(1.1 * at(picture, 10, 3));
    const none = await even(picture, { amount: 1, leaveFrom: 0.7, leaveTo: 0.5 });
    const all = await even(picture, { amount: 1 });
    expect(rmsBetween(none.output.picture.planes[0], all.output.picture.planes[0])).to.equal(0);
  });

  it('may be everything: then nothing changes', async () => {
    const { output } = await even(picture, { amount: 1, leaveFrom: 0, leaveTo: 1 });
    expect(rmsBetween(output.picture.planes[0], picture.planes[0])).to.be.below(1e-6);
  });
});
