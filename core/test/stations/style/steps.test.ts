import { rollPlane, runToEnd, TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import { toLinear } from '../../../src/stations/style/colours.ts';
import { localContrast } from '../../../src/stations/style/contrast.ts';
import { filled } from '../../../src/stations/style/fill.ts';
import { layersOf } from '../../../src/stations/style/layers.ts';
import { lightRelief } from '../../../src/stations/style/light.ts';
import { mixed, sharesOf } from '../../../src/stations/style/mix.ts';
import { drawnShareOf, keptShape, ownSize } from '../../../src/stations/style/own-size.ts';
import {
  drawingTo,
  drawnTo,
  type Lab,
  paletteCount,
  paletteOf,
} from '../../../src/stations/style/palette.ts';
import { planStrokes, wishFor } from '../../../src/stations/style/plan.ts';
import { simplified } from '../../../src/stations/style/simplify.ts';
import { packed, spineOf, storedColour, unpacked } from '../../../src/stations/style/strokes.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';
import { farthest, noisePlane, planeOf, rmsBetween, seeded } from '../../fields.ts';

const SIZE = 64;
const SIDES = { width: SIZE, height: SIZE };
const FIELD = { ...SIDES, edges: TORUS };

/** Patches of a few colours in OKLab, with grain. */
function patches(of: number): Float32Array[] {
  const grain = noisePlane(SIZE * SIZE, of);
  return [0, 1, 2].map((c) =>
    planeOf(SIZE, SIZE, (x, y) => {
      const patch = (Math.floor(x / 16) + 2 * Math.floor(y / 16)) % 4;
      return (c === 0 ? 0.4 + 0.1 * patch : 0.04 * (patch - c)) + 0.02 * (grain[y * SIZE + x] - 0.5);
    }),
  );
}

const rolled = (planes: readonly Float32Array[], dx: number, dy: number) =>
  planes.map((plane) => rollPlane(plane, SIZE, SIZE, dx, dy));

const planOf = async (lab: readonly Float32Array[], origin: [number, number]) => {
  const layers = layersOf(0.5, 3, 0);
  const ground = { sides: SIDES, origin, seed: 7 };
  const planning = { lab, alpha: null, layers, ground, wish: wishFor(ground), edges: TORUS, lean: 0.4 };
  const strokes = await planStrokes(planning, PLAIN_CONTEXT);
  return { strokes, spines: strokes.map((stroke) => spineOf(ground, layers[stroke.layer], stroke)) };
};

describe('steps of painting', () => {
  it('roll with the tile: simplified, contrast, light and mixing', async () => {
    const height = noisePlane(SIZE * SIZE, 9);
    const steps: ((planes: Float32Array[]) => Promise<Float32Array[]>)[] = [
      (planes) => simplified(planes, 0.05, FIELD, PLAIN_CONTEXT),
      async (planes) => [await localContrast(planes, FIELD, 3, PLAIN_CONTEXT)],
      async (planes) => Object.values(await lightRelief(planes[3], FIELD, PLAIN_CONTEXT)),
      async ([own, painted]) => {
        const out = painted.slice();
        await mixed([own], [out], 0.4, FIELD, PLAIN_CONTEXT);
        return [out];
      },
    ];
    for (const step of steps) {
      const planes = [...patches(3), height];
      const plain = await step(planes);
      const moved = await step(rolled(planes, 13, -21));
      plain.forEach((plane, k) => {
        const there = rollPlane(plane, SIZE, SIZE, 13, -21);
        expect(rmsBetween(there, moved[k])).to.be.below(5e-5);
        expect(farthest(there, moved[k])).to.be.below(4e-3);
      });
    }
  });

  it('strokes move with the tile and their origin, exactly, and only with it', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: 63 }), fc.integer({ min: 0, max: 63 }), async (dx, dy) => {
        const plain = await planOf(patches(4), [0, 0]);
        const moved = await planOf(rolled(patches(4), dx, dy), [dx, dy]);
        expect(moved.strokes.length).to.equal(plain.strokes.length);
        const shift = plain.spines.map((spine) => spine.map((value, k) => value + (k % 2 ? dy : dx)));
        expect(moved.spines).to.deep.equal(shift);
        expect(moved.strokes.map(({ arms }) => arms)).to.deep.equal(plain.strokes.map(({ arms }) => arms));
      }),
      { numRuns: 5 },
    );
    const still = await planOf(rolled(patches(4), 9, 5), [0, 0]);
    expect(still.spines).to.not.deep.equal((await planOf(patches(4), [0, 0])).spines);
  });

  it('the same strokes come out of their text, and a text that is cut off is refused', async () => {
    const { strokes } = await planOf(patches(5), [0, 0]);
    expect(strokes.length).to.be.above(100);
    expect(unpacked(packed(strokes))).to.deep.equal(strokes);
    expect(() => unpacked(btoa(atob(packed(strokes)).slice(0, -1)))).to.throw('cut off');
    const colour: Lab = [0.31, -0.12, 0.2];
    for (const c of [0, 1, 2]) expect(storedColour(colour)[c]).to.be.closeTo(colour[c], 0.004);
  });

  it('fine layers are painted where there is contrast', async () => {
    const lab = [0, 1, 2].map((c) =>
      planeOf(SIZE, SIZE, (x, y) =>
        c > 0 ? 0 : x < 32 ? 0.5 : 0.5 + 0.2 * Math.sign(Math.sin(x * 0.8) * Math.sin(y * 0.8)),
      ),
    );
    const { strokes, spines } = await planOf(lab, [0, 0]);
    const middles = strokes.flatMap(({ layer }, k) => (layer === 2 ? [spines[k][0]] : []));
    expect(middles.length).to.be.above(50);
    expect(middles.filter((x) => x > 28 && x < 68).length / middles.length).to.be.above(0.85);
    expect(strokes.filter(({ layer }) => layer === 0).length).to.be.above(100);
  });

  it('what is flat stays flat when it is simplified, and edges become sharper, not broader', async () => {
    const flat = [0.5, 0.1, -0.1, 0.3].map((value) => new Float32Array(SIZE * SIZE).fill(value));
    const plain = await simplified(flat, 0.05, FIELD, PLAIN_CONTEXT);
    plain.forEach((plane, c) => {
      expect(farthest(plane, flat[c])).to.be.below(1e-5);
    });
    const grain = noisePlane(SIZE * SIZE, 4);
    const edge = planeOf(SIZE, SIZE, (x, y) => (x < 32 ? 0.3 : 0.6) + 0.06 * (grain[y * SIZE + x] - 0.5));
    const [sharp] = await simplified([edge, ...flat.slice(1)], 0.08, FIELD, PLAIN_CONTEXT);
    const spread = (plane: Float32Array) => {
      const row = plane.subarray(32 * SIZE + 8, 32 * SIZE + 24);
      return Math.max(...row) - Math.min(...row);
    };
    expect(spread(sharp)).to.be.below(0.6 * spread(edge));
    expect(sharp[32 * SIZE + 29]).to.be.below(0.36);
    expect(sharp[32 * SIZE + 34]).to.be.above(0.54);
  });

  it('small shapes with a drawing of their own make the smallest shape kept smaller', async () => {
    const lines = planeOf(SIZE, SIZE, (x) => 0.5 + 0.15 * Math.sin((2 * Math.PI * 16 * x) / SIZE));
    const broad = planeOf(SIZE, SIZE, (x) => 0.5 + 0.15 * Math.sin((2 * Math.PI * 2 * x) / SIZE));
    const sizes = [await ownSize(lines, FIELD, PLAIN_CONTEXT), await ownSize(broad, FIELD, PLAIN_CONTEXT)];
    expect(sizes[0]).to.be.below(sizes[1]);
    const large = planeOf(512, 512, (x) => 0.5 + 0.1 * Math.sin((2 * Math.PI * 64 * x) / 512));
    const wide = { width: 512, height: 512, edges: TORUS };
    expect(await drawnShareOf(large, wide, PLAIN_CONTEXT)).to.be.above(0.9);
    expect(keptShape(3, 1, 0.5)).to.be.below(0.5 * keptShape(3, 0, 0.5));
    expect(keptShape(3, 0, 1)).to.be.above(keptShape(3, 0, 0));
  });

  it('a palette finds the colours there are, rare ones too, whatever the order of pixels', () => {
    const random = seeded(3);
    const colours: Lab[] = [
      [0.3, 0.1, 0.05],
      [0.6, -0.05, 0.1],
      [0.8, 0, 0],
    ];
    const chosen = Array.from({ length: 3000 }, () => (random() < 0.02 ? 2 : random() < 0.5 ? 0 : 1));
    const planes = (order: number[]) => [0, 1, 2].map((c) => Float32Array.from(order, (k) => colours[k][c]));
    const found = paletteOf(planes(chosen), 3);
    expect(paletteOf(planes([...chosen].reverse()), 3)).to.deep.equal(found);
    for (const colour of colours) {
      const nearest = Math.min(
        ...found.map((one) => Math.hypot(...one.map((value, c) => value - colour[c]))),
      );
      expect(nearest).to.be.below(0.03);
    }
    expect([0, 0.5, 1].map(paletteCount)).to.deep.equal([17, 12, 6]);
  });

  it('drawing planes to a palette is drawing each colour, within a code', async () => {
    const palette: Lab[] = [
      [0.4, 0.05, 0],
      [0.5, -0.02, 0.04],
      [0.7, 0, -0.05],
    ];
    const planes = patches(6);
    const drawn = await drawingTo(planes, palette, 0.8, SIDES, PLAIN_CONTEXT);
    const to: Lab = [0, 0, 0];
    for (let i = 0; i < SIZE * SIZE; i += 7) {
      drawnTo(palette, 0.8, [planes[0][i], planes[1][i], planes[2][i]], to);
      for (let c = 0; c < 3; c++) expect(drawn[4 * i + c]).to.be.closeTo(to[c], 0.006);
    }
    const left = await drawingTo(planes, palette, 0, SIDES, PLAIN_CONTEXT);
    for (const c of [0, 1, 2]) {
      expect(
        farthest(
          left.filter((_value, i) => i % 4 === c),
          planes[c],
        ),
      ).to.be.below(1e-6);
    }
  });

  it('a small amount changes what is fine, a larger one what is broad; broad lightness stays', async () => {
    const own = patches(7)[0];
    const painted = own.map((value, i) => value + 0.2 + 0.1 * Math.sin(i * 0.9) + (i % SIZE < 32 ? 0.05 : 0));
    const by = async (amount: number) => {
      const out = painted.slice();
      await mixed([own], [out], amount, FIELD, PLAIN_CONTEXT);
      return out;
    };
    const whole = await by(1);
    const mean = (plane: Float32Array) => plane.reduce((sum, value) => sum + value, 0) / plane.length;
    expect(Math.abs(mean(whole) - mean(own))).to.be.below(1e-4);
    const shares = sharesOf(0.3);
    expect(shares[0]).to.be.above(shares[2]);
    expect(sharesOf(1)).to.deep.equal([1, 1, 1, 1]);
    expect(sharesOf(0)).to.deep.equal([0, 0, 0, 0]);
    const change: number[] = [];
    for (const amount of [0.25, 0.5, 0.75, 1]) change.push(farthest(await by(amount), own));
    expect([...change].sort((a, b) => a - b)).to.deep.equal(change);
  });

  it('nothing under transparent pixels has an effect, and what is opaque stays', () => {
    const alpha = planeOf(SIZE, SIZE, (x, y) => (Math.hypot(x - 32, y - 32) < 20 ? 1 : 0));
    const one = patches(8);
    const other = one.map((plane, c) => plane.map((value, i) => (alpha[i] === 0 ? 0.9 - 0.3 * c : value)));
    const [a, b] = [one, other].map((planes) => runToEnd(filled(planes, alpha, SIDES, TORUS)));
    a.forEach((plane, c) => {
      expect(farthest(plane, b[c])).to.be.below(1e-6);
      for (let i = 0; i < plane.length; i++) {
        if (alpha[i] === 1) expect(plane[i]).to.equal(one[c][i]);
      }
      const inside = one[c].filter((_value, i) => alpha[i] === 1);
      expect(Math.min(...plane)).to.be.at.least(Math.min(...inside) - 1e-3);
      expect(Math.max(...plane)).to.be.at.most(Math.max(...inside) + 1e-3);
    });
  });

  it('colours that no screen has lose richness, never lightness', async () => {
    const planes = [Float32Array.of(0.6, 0.6), Float32Array.of(0.4, 0.05), Float32Array.of(0, 0.02)];
    const { planes: rgb } = await toLinear(planes, { width: 2, height: 1 }, PLAIN_CONTEXT);
    for (const plane of rgb) for (const value of plane) expect(value).to.be.within(0, 1);
    expect(rgb[0][0]).to.be.above(rgb[1][0]);
  });
});
