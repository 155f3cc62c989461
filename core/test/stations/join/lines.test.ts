import { type JoinDecision, joinLines } from '@zesty-tile/core';
import { expect } from 'chai';
import { encodePath } from '../../../src/stations/join/cut.ts';

const SIZE = 512;
const REACH = 1 / 16;
const OVERLAP = 2 * REACH * SIZE;

/** A cut straight through one column of a strip. */
const straight = (column: number, length: number) =>
  encodePath({
    columns: new Int32Array(length + 1).fill(column),
    rows: Int32Array.from({ length: length + 1 }, (_, k) => k),
  });

const decision = (cutX: string | null, cutY: string | null): JoinDecision => ({
  workingSize: SIZE,
  shape: '1:1',
  method: 'cut',
  blend: 'multiband',
  by: 'straight',
  strength: null,
  vectors: { corner: [0, 0], u: [1, 0], v: [0, 1] },
  reach: [REACH, REACH],
  cutX,
  cutY,
  bendX: null,
  bendY: null,
});

describe('where Join cut', () => {
  it('a cut through the middle of the strip lies at the tile’s edge, from end to end', () => {
    const lines = joinLines(decision(straight(OVERLAP / 2, SIZE + OVERLAP), straight(OVERLAP / 2, SIZE)));
    for (const line of [lines.x!, lines.y!]) {
      expect(line.strip).to.deep.equal([-REACH, REACH]);
      expect(line.points.every(([across]) => across === 0)).to.equal(true);
      const along = line.points.map(([, down]) => down);
      expect(Math.max(...along) - Math.min(...along)).to.be.closeTo(1, 1e-9);
    }
  });

  it('an axis that was not cut has no line', () => {
    const { x, y } = joinLines(decision(null, straight(10, SIZE)));
    expect(x).to.equal(null);
    expect(y).to.not.equal(null);
  });
});
