import { newRecipe, Raster, type Setting, type SettingsOf, STATIONS, type Verdict } from '@zesty-tile/core';
import { expect } from 'chai';
import { decimalsOf, onStep, placeOf, valueAt } from '../src/bench/dials/scale.ts';
import { fitLook, pixelAt, pixelLook, zoomAt } from '../src/bench/floor/geometry.ts';
import { readoutAt } from '../src/bench/floor/readout.ts';
import { rgbaOf } from '../src/engine/view-pictures.ts';
import { VIEW_OF } from '../src/engine/views.ts';
import { worstOf } from '../src/yard/worst.ts';

const numbers = Object.values(STATIONS)
  .flatMap(({ settings }) => Object.entries(settings as SettingsOf))
  .filter((entry): entry is [string, Extract<Setting, { type: 'number' }>] => entry[1].type === 'number');

describe('dials', () => {
  it('every dial of every station runs from its lowest to its highest value and keeps its place', () => {
    for (const [key, setting] of numbers) {
      expect(valueAt(setting, 0), key).to.equal(setting.min);
      expect(valueAt(setting, 1), key).to.equal(setting.max);
      let last = setting.min;
      for (let t = 0; t <= 1; t += 0.05) {
        const value = valueAt(setting, t);
        expect(value, key).to.be.within(last, setting.max);
        last = value;
        const there = valueAt(setting, placeOf(setting, value));
        expect(Math.abs(there - value), key).to.be.at.most(setting.step * 1.01);
      }
    }
  });

  it('values land on the step and inside the range', () => {
    const setting = numbers.find(([key]) => key === 'turnDegrees')![1];
    expect(onStep(setting, 1.62)).to.equal(1.6);
    expect(onStep(setting, 99)).to.equal(45);
    expect([1, 0.1, 0.05, 0.001].map(decimalsOf)).to.deep.equal([0, 1, 2, 3]);
  });
});

describe('floor', () => {
  const stage = { width: 600, height: 500 };
  const tile = { width: 1024, height: 1024 };

  it('fits the laid tiles into the stage, centred', () => {
    for (const lay of [1, 2, 3, 5]) {
      const look = fitLook(stage, tile, lay);
      expect(look.edge * lay).to.be.at.most(500);
      expect(2 * look.x + look.edge * lay).to.be.closeTo(600, 1e-9);
      expect(2 * look.y + look.edge * lay).to.be.closeTo(500, 1e-9);
    }
  });

  it('keeps the pixel under the pointer while zooming', () => {
    const look = fitLook(stage, tile, 2);
    const near = zoomAt(look, tile, 1.7, 333, 222);
    expect(pixelAt(near, tile, 2, false, 333, 222)).to.deep.equal(pixelAt(look, tile, 2, false, 333, 222));
    expect(pixelLook(look, stage, tile, 2).edge).to.be.closeTo(512, 1e-9);
  });

  it('knows the pixel in every repeat, shifted or not, and nothing outside', () => {
    const look = { edge: 100, x: 10, y: 20 };
    expect(pixelAt(look, tile, 2, false, 10, 20)).to.deep.equal({ x: 0, y: 0 });
    expect(pixelAt(look, tile, 2, false, 110, 120)).to.deep.equal({ x: 0, y: 0 });
    expect(pixelAt(look, tile, 2, true, 10, 20)).to.deep.equal({ x: 512, y: 512 });
    expect(pixelAt(look, tile, 2, false, 9, 20)).to.equal(null);
    expect(pixelAt(look, tile, 2, false, 211, 20)).to.equal(null);
  });

  it('reads colours as sRGB and Y, heights in mm, normals as vectors', () => {
    const of = (view: 'albedo' | 'height' | 'normal' | 'cavity', ...values: number[]) =>
      readoutAt(
        {
          view,
          width: 1,
          height: 1,
          rgba: new Uint8ClampedArray(4),
          planes: values.map((v) => Float32Array.of(v)),
          repairs: 0,
        },
        0,
        0,
        { depthMm: 8, line: { line: 'none', ownLine: null }, language: 'y', palette: [] },
      );
    expect(of('albedo', 0.18, 0.18, 0.18)).to.include('sRGB 118 118 118  Y 0.180');
    expect(of('height', 0.25)).to.include('2.00 mm');
    expect(of('normal', 0, -0.6, 0.8)).to.include('+0.000 −0.600 +0.800');
    expect(of('cavity', 0.5)).to.include('cavity 0.500');
  });
});

describe('views', () => {
  it('colour is shown through the sRGB curve, data as it is, normals about the middle', () => {
    const one = (...values: number[]) =>
      new Raster(
        1,
        1,
        values.map((v) => Float32Array.of(v)),
      );
    expect([...rgbaOf(one(0.18, 0, 1), 'albedo')]).to.deep.equal([118, 0, 255, 255]);
    expect([...rgbaOf(one(0.5), 'roughness')]).to.deep.equal([128, 128, 128, 255]);
    expect([...rgbaOf(one(0, 0, 1), 'normal')]).to.deep.equal([128, 128, 255, 255]);
  });

  it('every station has a picture of its own', () => {
    expect(Object.keys(VIEW_OF)).to.deep.equal(Object.keys(newRecipe().stations));
  });
});

describe('worst verdict', () => {
  const verdict = (state: Verdict['state'], brief: string): Verdict => ({
    state,
    brief,
    sentence: '',
    advice: '',
    figures: [],
  });

  it('says the one thing, or how many', () => {
    expect(worstOf({ a: verdict('fine', 'x'), b: verdict('fine', 'y') })).to.deep.equal({
      state: 'fine',
      words: 'fine',
    });
    expect(worstOf({ a: verdict('fine', 'x'), b: verdict('look', 'seam 1.3') })).to.deep.equal({
      state: 'look',
      words: 'seam 1.3',
    });
    expect(worstOf({ a: verdict('look', 'x'), b: verdict('look', 'y') }).words).to.equal('2 to look at');
    expect(worstOf({ a: verdict('wrong', 'x'), b: verdict('look', 'y') })).to.deep.equal({
      state: 'wrong',
      words: 'x',
    });
  });
});
