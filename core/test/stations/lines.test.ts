import { joinLines, newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { encodePath } from '../../src/stations/join/cut.ts';
import { planOverlap } from '../../src/stations/join/overlap.ts';
import { marginsIn } from '../../src/stations/square/geometry.ts';

const PHOTO = { width: 1600, height: 1200 };
const SIZE = 512;
const { square, join } = newRecipe().stations;

/** A cut straight through one column of a strip. */
const straight = (column: number, length: number) =>
  encodePath({
    columns: new Int32Array(length + 1).fill(column),
    rows: Int32Array.from({ length: length + 1 }, (_, k) => k),
  });

const decision = (cutX: string | null, cutY: string | null) => ({
  workingSize: SIZE,
  vectorU: [1, 0] as [number, number],
  vectorV: [0, 1] as [number, number],
  cutX,
  cutY,
});

describe('where Join cut', () => {
  const plan = planOverlap(marginsIn(PHOTO.width, PHOTO.height, square), join.overlap, join.axes);
  const overlap = Math.round(plan.overlap * SIZE);
  const middle = Math.round(overlap / 2);

  it('a cut through the middle of the strip lies at the tile’s edge, from end to end', () => {
    const lines = joinLines(
      PHOTO,
      square,
      join,
      decision(straight(middle, SIZE + overlap), straight(middle, SIZE)),
    );
    for (const line of [lines.x!, lines.y!]) {
      expect(line.strip[1] - line.strip[0]).to.be.closeTo(plan.overlap, 1 / SIZE);
      expect(line.strip[0]).to.be.below(0);
      expect(line.points.every(([across]) => Math.abs(across) < 2 / SIZE)).to.equal(true);
    }
    const along = lines.y!.points.map(([, down]) => down);
    expect(Math.max(...along) - Math.min(...along)).to.be.closeTo(1, 1e-9);
  });

  it('an axis that was not cut has no line', () => {
    const { x, y } = joinLines(PHOTO, square, join, decision(null, straight(middle, SIZE)));
    expect(x).to.equal(null);
    expect(y).to.not.equal(null);
  });
});
