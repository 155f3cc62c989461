import { type PaintStroke, Raster, runToEnd, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import { emptyCanvas } from '../../src/paint/canvas.ts';
import { painting } from '../../src/paint/painting.ts';
import { levelFor, pictureStamp, stampAt } from '../../src/paint/picture-stamp.ts';
import { TORUS } from '../../src/raster/edges.ts';

/** A picture of 64 × 32: red on the left, green on the right, opaque but for a border. */
function picture(isCutOut: boolean): Raster {
  const made = Raster.filled(64, 32, 4);
  const [r, g, b, a] = made.planes;
  for (let i = 0; i < r.length; i++) {
    const [x, y] = [i % 64, Math.floor(i / 64)];
    const isInside = x >= 4 && x < 60 && y >= 4 && y < 28;
    r[i] = x < 32 ? 0.8 : 0.1;
    g[i] = x < 32 ? 0.1 : 0.8;
    b[i] = 0.1;
    a[i] = isCutOut && !isInside ? 0 : 1;
    if (!isCutOut && !isInside) [r[i], g[i], b[i]] = [1, 1, 1];
  }
  return made;
}

const SHA = 'a'.repeat(64);
const stroke = (
  degrees: number,
  ownColours: boolean,
  points: PaintStroke['points'] = [[0.5, 0.5]],
): PaintStroke => ({
  points,
  radius: 0.2,
  softness: 0,
  erase: false,
  paint: { colour: '#0000ff' },
  prints: {
    picture: { sha256: SHA, width: 64, height: 32 },
    ...(ownColours ? { ownColours } : {}),
    spacing: 1,
    turning: 'fixed',
    degrees,
    size: 0,
    stray: 0,
    tint: 0,
    seed: 1,
  },
});

function painted(one: PaintStroke, size: number, isCutOut = true) {
  const canvas = emptyCanvas(size * size, ['colour']);
  const stamps = new Map([[SHA, pictureStamp(picture(isCutOut))]]);
  runToEnd(painting([one], canvas, { width: size, height: size, edges: TORUS }, null, stamps));
  const at = (u: number, v: number) => {
    const i = Math.floor(v * size) * size + Math.floor(u * size);
    const has = canvas.carried.colour!.has[i];
    return {
      cover: canvas.cover[i],
      rgb: canvas.carried.colour!.values.map((plane) => plane[i] / (has || 1)),
    };
  };
  return { cover: canvas.cover, at };
}

describe('pictures as stamps', () => {
  it('cover where they are opaque, as long as two radii, in their own colours where that is asked for', () => {
    const { at } = painted(stroke(0, true), 256);
    expect(at(0.42, 0.5).cover).to.equal(1);
    expect(at(0.42, 0.5).rgb[0]).to.be.closeTo(srgbToLinear(0.8), 1e-3);
    expect(at(0.58, 0.5).rgb[1]).to.be.closeTo(srgbToLinear(0.8), 1e-3);
    expect(at(0.69, 0.5).cover).to.be.below(0.1);
    expect(at(0.5, 0.62).cover).to.equal(0);
    for (const u of [0.42, 0.58]) {
      const { rgb } = painted(stroke(0, false), 256).at(u, 0.5);
      expect(rgb).to.deep.equal([0, 0, 1]);
    }
  });

  it('are turned clockwise', () => {
    const { at } = painted(stroke(90, true), 256);
    // What was on the left is at the top.
    expect(at(0.5, 0.42).rgb[0]).to.be.closeTo(srgbToLinear(0.8), 1e-3);
    expect(at(0.5, 0.58).rgb[1]).to.be.closeTo(srgbToLinear(0.8), 1e-3);
    expect(at(0.62, 0.5).cover).to.equal(0);
  });

  it('cover where they are dark if they are nowhere transparent', () => {
    const { at } = painted(stroke(0, false), 256, false);
    expect(at(0.42, 0.5).cover).to.be.closeTo(1 - 1 / 3, 1e-3);
    expect(at(0.695, 0.5).cover).to.equal(0);
  });

  it('come in again over joined edges', () => {
    const { at } = painted(stroke(0, true, [[0.02, 0.5]]), 256);
    expect(at(0.94, 0.5).cover).to.equal(1);
    expect(at(0.94, 0.5).rgb[0]).to.be.closeTo(srgbToLinear(0.8), 1e-3);
  });

  it('differ by less than a code between 128 and 512', () => {
    const one = stroke(17, true);
    const [small, large] = [painted(one, 128).cover, painted(one, 512).cover];
    let sum = 0;
    for (let y = 0; y < 128; y++) {
      for (let x = 0; x < 128; x++) {
        let mean = 0;
        for (let k = 0; k < 16; k++) mean += large[(4 * y + (k >> 2)) * 512 + 4 * x + (k & 3)] / 16;
        sum += Math.abs(mean - small[y * 128 + x]);
      }
    }
    expect(sum / 128 ** 2).to.be.below(1 / 255);
  });

  it('are read where their pixels are as large as those of the print', () => {
    const stamp = pictureStamp(picture(true));
    expect(levelFor(stamp, 32).width).to.equal(64);
    expect(levelFor(stamp, 8).width).to.equal(16);
    const found = new Float64Array(4);
    stampAt(levelFor(stamp, 32), 2, 0, found);
    expect([...found]).to.deep.equal([0, 0, 0, 0]);
  });
});
