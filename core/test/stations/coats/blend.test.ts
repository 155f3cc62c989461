import { linearToSrgb, Raster, runToEnd, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import fc from 'fast-check';
import sharp, { type Blend } from 'sharp';
import type { SeparableRule as Separable, Triple } from '../../../src/kernels/blend-planes/reference.ts';
import { blendingHeight } from '../../../src/stations/coats/blend/heights.ts';
import { lumOf, satOf } from '../../../src/stations/coats/blend/hsl.ts';
import { BLEND_MODES, type BlendName } from '../../../src/stations/coats/blend/modes.ts';
import { blendChannel, blendColour } from '../../../src/stations/coats/blend/over.ts';
import { PLAIN_CONTEXT } from '../../../src/team/context.ts';

/** Modes that an independent implementation has too, by its names. */
const OTHERS: [BlendName, Blend][] = [
  ['multiply', 'multiply'],
  ['screen', 'screen'],
  ['overlay', 'overlay'],
  ['darken', 'darken'],
  ['lighten', 'lighten'],
  ['dodge', 'colour-dodge'],
  ['burn', 'colour-burn'],
  ['hard-light', 'hard-light'],
  ['soft-light', 'soft-light'],
  ['difference', 'difference'],
  ['exclusion', 'exclusion'],
];

const CODES = Array.from({ length: 16 }, (_, k) => 17 * k);
const SIDE = CODES.length;
const channel = fc.double({ min: 0, max: 1, noNaN: true });
const triple = fc.tuple(channel, channel, channel);

/** Every pair of codes: what is below along rows, what lies above down columns. */
const pairs = (code: (x: number, y: number) => number) =>
  Float32Array.from({ length: SIDE * SIDE }, (_, i) => code(i % SIDE, Math.floor(i / SIDE)));
const greyOf = (codes: Float32Array) => {
  const plane = codes.map((code) => srgbToLinear(code / 255));
  return new Raster(
    SIDE,
    SIDE,
    [0, 1, 2].map(() => plane.slice()),
  );
};

/** One value by a mode. */
function blended(mode: Separable, below: number, above: number): number {
  const out = new Float32Array(1);
  mode.row(Float32Array.of(below), Float32Array.of(above), 1, out, 0, 1);
  return out[0];
}

describe('blend modes of coats', () => {
  for (const [name, other] of OTHERS) {
    it(`${name} is what another program makes of the same codes`, async () => {
      const below = pairs((x) => CODES[x]);
      const above = pairs((_x, y) => CODES[y]);
      const picture = greyOf(below);
      await blendColour(picture, greyOf(above), 1, name, false, PLAIN_CONTEXT);
      const raw = { width: SIDE, height: SIDE, channels: 3 as const };
      const rgb = (codes: Float32Array) => Buffer.from([...codes].flatMap((code) => [code, code, code]));
      const expected = await sharp(rgb(below), { raw })
        .composite([{ input: rgb(above), raw, blend: other }])
        .raw()
        .toBuffer({ resolveWithObject: true });
      const { channels } = expected.info;
      let most = 0;
      for (let i = 0; i < below.length; i++) {
        // Black dodged by white stays black, and white burned by black white: the standard's rule, which the other lacks.
        if (below[i] + above[i] === 255 && (name === 'dodge' || name === 'burn') && below[i] % 255 === 0)
          continue;
        const own = 255 * linearToSrgb(picture.planes[0][i]);
        most = Math.max(most, Math.abs(own - expected.data[channels * i]));
      }
      // The other rounds to codes on its way.
      expect(most).to.be.below(1.6);
    });
  }

  it('come to the values of the standard’s formulas, worked by hand', () => {
    const worked: [BlendName, number, number, number][] = [
      ['multiply', 0.5, 0.4, 0.2],
      ['screen', 0.5, 0.4, 0.7],
      ['overlay', 0.25, 0.4, 0.2],
      ['overlay', 0.75, 0.4, 0.7],
      ['hard-light', 0.5, 0.75, 0.75],
      ['soft-light', 0.5, 0.25, 0.375],
      ['soft-light', 0.16, 0.75, 0.279168],
      ['dodge', 0.3, 0.5, 0.6],
      ['dodge', 0, 1, 0],
      ['burn', 0.7, 0.5, 0.4],
      ['burn', 1, 0, 1],
      ['exclusion', 0.5, 0.4, 0.5],
      ['add', 0.5, 0.4, 0.9],
      ['subtract', 0.5, 0.4, 0.1],
      ['divide', 0.2, 0.4, 0.5],
      ['divide', 0, 0, 0],
    ];
    for (const [name, below, above, expected] of worked) {
      const mode = BLEND_MODES[name];
      if (mode.kind === 'separable') expect(blended(mode, below, above), name).to.be.closeTo(expected, 1e-6);
    }
  });

  it('of whole colours keep and take brightness and saturation as they say', () => {
    const blended = (name: BlendName, below: Triple, above: Triple): Triple => {
      const out: Triple = [0, 0, 0];
      const mode = BLEND_MODES[name];
      if (mode.kind === 'colours') mode.into(below, above, out);
      return out;
    };
    fc.assert(
      fc.property(triple, triple, (below, above) => {
        for (const name of ['hue', 'saturation', 'color'] as const) {
          expect(lumOf(blended(name, below, above))).to.be.closeTo(lumOf(below), 1e-9);
        }
        const lit = blended('luminosity', below, above);
        expect(lumOf(lit)).to.be.closeTo(lumOf(above), 1e-9);
        for (const name of ['hue', 'saturation', 'color', 'luminosity'] as const) {
          for (const value of blended(name, below, above)) expect(value).to.be.within(-1e-9, 1 + 1e-9);
        }
        // Bringing a colour back into range can only weaken it.
        expect(satOf(blended('hue', below, above))).to.be.at.most(satOf(below) + 1e-9);
        expect(satOf(blended('saturation', below, above))).to.be.at.most(satOf(above) + 1e-9);
      }),
      { numRuns: 300 },
    );
    // Red laid over mid grey as a colour: the grey's brightness, and no channel beyond its range.
    const [r, g, b] = blended('color', [0.5, 0.5, 0.5], [1, 0, 0]);
    expect(r).to.be.closeTo(1, 1e-9);
    expect(g).to.be.closeTo(0.2857, 1e-4);
    expect(b).to.be.closeTo(g, 1e-9);
  });

  it('leave what is not covered to the bit, for any mode, and mix plainly covered light linearly', async () => {
    const names = Object.keys(BLEND_MODES) as BlendName[];
    await fc.assert(
      fc.asyncProperty(
        triple,
        triple,
        fc.constantFrom(...names),
        fc.boolean(),
        async (below, above, name, isLinear) => {
          const picture = new Raster(
            2,
            1,
            below.map((value) => Float32Array.of(value, value)),
          );
          const before = picture.planes.map((plane) => plane[0]);
          await blendColour(picture, above, Float32Array.of(0, 0.25), name, isLinear, PLAIN_CONTEXT);
          for (let c = 0; c < 3; c++) {
            expect(picture.planes[c][0]).to.equal(before[c]);
            expect(picture.planes[c][1]).to.be.within(-1e-6, 1 + 1e-6);
            if (name === 'normal') {
              expect(picture.planes[c][1]).to.be.closeTo(0.75 * before[c] + 0.25 * above[c], 1e-6);
            }
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  it('of one channel keep one value one value, and fill a plane only where they must', async () => {
    const over = (below: number | Float32Array, above: number, cover: number | Float32Array) =>
      blendChannel(below, above, cover, 'multiply', 2, PLAIN_CONTEXT);
    expect(await over(0.5, 0.5, 0.5)).to.be.closeTo(0.375, 1e-12);
    expect(await over(0.5, 0.5, Float32Array.of(0, 1))).to.deep.equal(Float32Array.of(0.5, 0.25));
  });

  it('of heights add, raise, lower, replace and level in millimetres', () => {
    const after = (mode: Parameters<typeof blendingHeight>[3], cover: number | Float32Array = 1) => {
      const below = Float32Array.of(0, 2, 4, 6);
      runToEnd(blendingHeight(below, 3, cover, mode));
      return [...below];
    };
    expect(after('add')).to.deep.equal([3, 5, 7, 9]);
    expect(after('raise')).to.deep.equal([3, 3, 4, 6]);
    expect(after('lower')).to.deep.equal([0, 2, 3, 3]);
    expect(after('replace')).to.deep.equal([3, 3, 3, 3]);
    expect(after('level')).to.deep.equal([6, 6, 6, 6]);
    expect(after('level', Float32Array.of(1, 1, 0, 0))).to.deep.equal([4, 4, 4, 6]);
    expect(after('replace', 0.5)).to.deep.equal([1.5, 2.5, 3.5, 4.5]);
  });
});
