import { contentOf, type Pixels } from '@zesty-tile/core';
import { expect } from 'chai';
import { noisePlane } from '../../fields.ts';

const N = 96;
const [one, two, three] = [3, 4, 5].map((seed) => noisePlane(N * N, seed));

/** Eight-bit codes of a picture from values 0..1. */
function pixels(channels: 3 | 4, value: (i: number, c: number) => number): Pixels {
  const data = new Uint8Array(N * N * channels);
  for (let i = 0; i < data.length; i++)
    data[i] = Math.round(255 * value(Math.floor(i / channels), i % channels));
  return { width: N, height: N, channels, data, originalWidth: N, originalHeight: N };
}

describe('what a picture holds by its values', () => {
  it('is one plane where its channels are alike, and a colour where they change together', () => {
    expect(contentOf(pixels(3, (i) => one[i])).kind).to.equal('grey');
    const tint = [1, 0.8, 0.5];
    expect(contentOf(pixels(3, (i, c) => tint[c] * one[i])).kind).to.equal('colour');
    // A colour of one tone all over is one too.
    expect(contentOf(pixels(3, (_, c) => tint[c])).kind).to.equal('colour');
  });

  it('is several maps where they do not, or where one says “nowhere”', () => {
    expect(contentOf(pixels(3, (i, c) => [one, two, three][c][i])).kind).to.equal('packed');
    expect(contentOf(pixels(3, (i, c) => (c === 2 ? 0 : 0.3 + 0.6 * one[i] + 0.02 * c))).kind).to.equal(
      'packed',
    );
  });

  it('has an alpha only where that differs from place to place', () => {
    const colour = (i: number, c: number) => [1, 0.8, 0.5][c] * one[i];
    expect(contentOf(pixels(4, (i, c) => (c === 3 ? 1 : colour(i, c)))).hasAlpha).to.equal(false);
    expect(contentOf(pixels(4, (i, c) => (c === 3 ? two[i] : colour(i, c)))).hasAlpha).to.equal(true);
  });
});
