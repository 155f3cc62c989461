import { hexOfLinear, MASKS, type Mask, type MaskPart, maskCover, Raster } from '@zesty-tile/core';
import { expect } from 'chai';
import * as v from 'valibot';
import { wetF0, wetReflectance, wetRoughness } from '../../src/masks/wet.ts';
import { portable } from '../../src/settings/portable.ts';
import { schemaOfSetting } from '../../src/settings/schema.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { farthest, planeOf } from '../fields.ts';
import { frameOf, maskOf, runStation, unpainted } from '../stations/run.ts';

const SIZE = 64;
const frame = frameOf(SIZE);

/** Left half one colour, right half another. */
const RED = [0.4, 0.1, 0.08];
const GREY = [0.3, 0.3, 0.3];
const halves = new Raster(
  SIZE,
  SIZE,
  [0, 1, 2].map((c) => planeOf(SIZE, SIZE, (x) => (x < SIZE / 2 ? RED[c] : GREY[c]))),
);
const cover = (parts: MaskPart[], input: object = {}) =>
  maskCover(maskOf('a', parts), { style: unpainted(halves), ...input }, frame, PLAIN_CONTEXT);
const byColour = (colour: number[], how: MaskPart['how'] = 'and'): MaskPart => ({
  by: 'colour',
  how,
  colour: hexOfLinear(colour),
  reach: 0.1,
  softness: 0.2,
});
const dot = (x: number, y: number, erase = false) => ({
  points: [[x, y]] as [number, number][],
  radius: 0.1,
  softness: 0,
  erase,
});
const share = (plane: Float32Array) => plane.reduce((sum, value) => sum + value, 0) / plane.length;
const at = (plane: Float32Array, x: number, y: number) => plane[y * SIZE + x];

describe('masks', () => {
  it('by colour pick what is near and nothing else', async () => {
    const red = await cover([byColour(RED)]);
    expect(
      farthest(
        red,
        planeOf(SIZE, SIZE, (x) => Number(x < SIZE / 2)),
      ),
    ).to.be.below(1e-6);
    expect(share(await cover([byColour([0.02, 0.2, 0.7])]))).to.equal(0);
  });

  it('fade over their softness and pick half at the reach', async () => {
    // OKLab L of greys is the cube root of their value.
    const ramp = planeOf(SIZE, SIZE, (x) => (0.4 + (0.4 * x) / SIZE) ** 3);
    const grey = new Raster(SIZE, SIZE, [ramp, ramp, ramp]);
    const part = {
      by: 'colour',
      how: 'and',
      colour: hexOfLinear([ramp[0], ramp[0], ramp[0]]),
      reach: 0.2,
      softness: 0.5,
    } as const;
    const soft = await maskCover(maskOf('a', [part]), { style: unpainted(grey) }, frame, PLAIN_CONTEXT);
    expect(soft[32]).to.be.closeTo(0.5, 0.02);
    expect(soft[16]).to.be.closeTo(1, 0.01);
    expect(soft[48]).to.be.closeTo(0, 0.01);
    for (let x = 1; x < SIZE; x++) expect(soft[x]).to.be.at.most(soft[x - 1] + 1e-6);
  });

  it('by range pick from luminance, and from what Relief makes', async () => {
    const dark = await cover([{ by: 'range', how: 'and', map: 'luminance', from: 0, to: 0.2, softness: 0 }]);
    expect(share(dark)).to.be.closeTo(0.5, 1e-6);
    const { output: relief } = await runStation('relief', { style: unpainted(halves) }, {}, frame);
    const high = await cover([{ by: 'range', how: 'and', map: 'height', from: 0.5, to: 1, softness: 0 }], {
      relief,
    });
    const truth = (relief.height as Float32Array).map((value) => Number(value >= 0.5));
    expect(farthest(high, truth)).to.be.at.most(0.51);
    expect(share(high)).to.be.closeTo(share(truth), 0.02);
    const steep = await cover([{ by: 'range', how: 'and', map: 'slope', from: 0.02, to: 1, softness: 0 }], {
      relief,
    });
    expect(at(steep, 32, 10)).to.equal(1);
    expect(at(steep, 16, 10)).to.equal(0);
  });

  it('of a map that the tile has not, or of a range turned round, pick nothing', async () => {
    expect(
      share(await cover([{ by: 'range', how: 'and', map: 'metallic', from: 0, to: 1, softness: 0 }])),
    ).to.equal(0);
    expect(
      share(await cover([{ by: 'range', how: 'and', map: 'luminance', from: 0.9, to: 0.1, softness: 0 }])),
    ).to.equal(0);
  });

  it('by brush wrap over the edges, and erase what was painted before', async () => {
    const corner = await cover([{ by: 'brush', how: 'and', strokes: [dot(0, 0)] }]);
    for (const [x, y] of [
      [0, 0],
      [SIZE - 1, 0],
      [0, SIZE - 1],
      [SIZE - 1, SIZE - 1],
    ])
      expect(at(corner, x, y)).to.equal(1);
    const gone = await cover([{ by: 'brush', how: 'and', strokes: [dot(0, 0), dot(1, 1, true)] }]);
    expect(share(gone)).to.be.below(share(corner) / 15);
  });

  it('are combined by and, or and without', async () => {
    const brush = (how: MaskPart['how']): MaskPart => ({ by: 'brush', how, strokes: [dot(0.5, 0.5)] });
    const [red, spot] = [await cover([byColour(RED)]), await cover([brush('and')])];
    const both = await cover([byColour(RED), brush('and')]);
    const either = await cover([byColour(RED), brush('or')]);
    const less = await cover([byColour(RED), brush('without')]);
    for (let i = 0; i < red.length; i++) {
      expect(both[i]).to.be.closeTo(red[i] * spot[i], 1e-6);
      expect(either[i]).to.be.closeTo(Math.max(red[i], spot[i]), 1e-6);
      expect(less[i]).to.be.closeTo(red[i] * (1 - spot[i]), 1e-6);
    }
  });

  it('leave their strokes behind when they go to another picture', () => {
    const mask = maskOf('a', [byColour(RED), { by: 'brush', how: 'or', strokes: [dot(0.2, 0.2)] }]);
    const [other] = portable({ masks: MASKS }, { masks: [mask] }).masks as Mask[];
    expect(other.parts[0]).to.deep.equal(mask.parts[0]);
    expect(other.parts[1]).to.deep.include({ by: 'brush', strokes: [] });
  });

  it('refuse two of one id, and a zone without a way of picking', () => {
    const zone = maskOf('a', [byColour(RED)]);
    const sound = (zones: Mask[]) => v.is(schemaOfSetting(MASKS), zones);
    expect(sound([zone, { ...zone, id: 'b' }])).to.equal(true);
    expect(sound([zone, zone])).to.equal(false);
    expect(sound([{ ...zone, parts: [] }])).to.equal(false);
  });
});

describe('wetness', () => {
  it('darkens the middle of the scale most, and leaves black and white', () => {
    expect(wetReflectance(0, 1)).to.equal(0);
    expect(wetReflectance(1, 1)).to.be.closeTo(1, 1e-9);
    let last = -1;
    for (let dry = 0; dry <= 1; dry += 0.05) {
      const wet = wetReflectance(dry, 1);
      expect(wet)
        .to.be.at.most(dry + 1e-9)
        .and.above(last);
      expect(wetReflectance(dry, 0)).to.equal(dry);
      last = wet;
    }
  });

  it('brings dry sand and soil of the chart into the bands of the wet ones', () => {
    // The middles of “Sand, dry” and “Soil, dark, dry”.
    expect(wetReflectance(Math.sqrt(0.28 * 0.45), 1)).to.be.within(0.15, 0.25);
    expect(wetReflectance(Math.sqrt(0.08 * 0.15), 1)).to.be.within(0.04, 0.08);
    expect(wetRoughness(0.9, 1)).to.be.within(0.1, 0.6);
    expect(wetF0(0.05, 1)).to.be.closeTo(0.02, 1e-3);
  });

  it('is the sum of what is thrown back again and again', () => {
    // ρ(1 − p)(1 + pρ + p²ρ² + …), with p as stated for n = 1.33.
    const p = 1 - (1 - 0.066) / 1.33 ** 2;
    const rho = 0.37;
    let sum = 0;
    for (let k = 0; k < 60; k++) sum += rho * (1 - p) * (p * rho) ** k;
    expect(wetReflectance(rho, 1)).to.be.closeTo(sum, 1e-9);
  });
});
