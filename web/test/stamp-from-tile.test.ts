import { expect } from 'chai';
import { roundPiece } from '../src/stations/coats/brush/stamp-from-tile.ts';

describe('a stamp from the tile', () => {
  const [width, height] = [64, 64];
  const rgba = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) rgba.set([i % width, Math.floor(i / width), 7, 255], 4 * i);

  it('is the round piece under the brush, pixel for pixel, fading out at its border', () => {
    const piece = roundPiece({ width, height, rgba }, [0.5, 0.5], 0.125);
    expect(piece.side).to.equal(16);
    const at = (x: number, y: number) => [...piece.rgba.subarray(4 * (16 * y + x), 4 * (16 * y + x) + 4)];
    expect(at(8, 8)).to.deep.equal([32, 32, 7, 255]);
    expect(at(3, 8)).to.deep.equal([27, 32, 7, 255]);
    expect(at(0, 0)[3]).to.equal(0);
    expect(at(0, 8)[3]).to.be.within(1, 254);
  });

  it('goes on over the edges of the tile', () => {
    const piece = roundPiece({ width, height, rgba }, [0, 0], 0.125);
    const middle = 4 * (16 * 8 + 8);
    expect([...piece.rgba.subarray(middle, middle + 2)]).to.deep.equal([0, 0]);
    expect([...piece.rgba.subarray(middle - 4, middle - 2)]).to.deep.equal([63, 0]);
  });
});
