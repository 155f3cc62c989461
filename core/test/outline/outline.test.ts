import { TORUS } from '@zesty-tile/core';
import { expect } from 'chai';
import { filling } from '../../src/outline/fill.ts';
import {
  border,
  closedCurve,
  corners,
  ellipse,
  polygon,
  polyline,
  rectangle,
  turned,
} from '../../src/outline/outline.ts';
import { stampOutline } from '../../src/stamps/stamp-table.ts';
import { STAMP_NAMES, STAMPS } from '../../src/stamps/stamps.ts';
import { runToEnd } from '../../src/work/steps.ts';

describe('outlines', () => {
  it('the distance to a border is that to its nearest point, negative inside', () => {
    const box = rectangle(4, 2);
    expect(box.distance(0, 0)).to.equal(-1);
    expect(box.distance(5, 1)).to.equal(3);
    expect(box.distance(5, 5)).to.be.closeTo(5, 1e-12);
    expect(rectangle(4, 2, 1).distance(2, 1)).to.be.closeTo(Math.SQRT2 - 1, 1e-12);
    expect(
      polyline(
        [
          [0, 0],
          [4, 0],
        ],
        2,
      ).distance(2, 3),
    ).to.equal(2);
    expect(border(box, 0.5).distance(0, 0)).to.equal(0.5);
    expect(turned(box, 90).distance(0, 3)).to.be.closeTo(1, 1e-12);
    const square = polygon(corners(4, Math.SQRT2));
    expect(square.distance(0, 0)).to.be.closeTo(-1, 1e-12);
    expect(square.distance(0, 3)).to.be.closeTo(3 - Math.SQRT2, 1e-12);
  });

  it('an ellipse is as near as its nearest of many border points', () => {
    const { distance } = ellipse(6, 2);
    for (const [x, y] of [
      [0, 0],
      [1, 0.2],
      [4, 0],
      [0, 3],
      [2.5, 1.4],
      [-2, -0.4],
    ] as const) {
      let nearest = Number.POSITIVE_INFINITY;
      for (let k = 0; k < 5000; k++) {
        const turn = (2 * Math.PI * k) / 5000;
        nearest = Math.min(nearest, Math.hypot(x - 3 * Math.cos(turn), y - Math.sin(turn)));
      }
      expect(Math.abs(distance(x, y)), `${x} ${y}`).to.be.closeTo(nearest, 2e-3);
      expect(distance(x, y) < 0).to.equal((x / 3) ** 2 + y ** 2 < 1);
    }
  });

  it('a closed curve goes through its points', () => {
    const points = [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ] as const;
    const { distance } = polygon(closedCurve(points));
    for (const [x, y] of points) expect(distance(x, y)).to.be.closeTo(0, 1e-9);
    expect(distance(0, 0)).to.be.below(-0.8);
  });

  it('what reaches over an edge comes in again from the other side, once', () => {
    const canvas = { width: 40, height: 40, unitsAcross: 40, unitsDown: 40, edges: TORUS };
    const area = (x: number, y: number, side: number) =>
      runToEnd(filling(canvas, { x, y }, rectangle(side, side))).reduce((sum, value) => sum + value, 0);
    expect(area(0.5, 0.5, 10)).to.equal(100);
    expect(area(0, 0, 10)).to.equal(100);
    expect(area(0.99, 1.02, 10)).to.be.closeTo(100, 8);
    expect(area(0.3, 0.1, 90)).to.equal(1600);
  });
});

describe('stamps', () => {
  it('all lie in their circle, cover some of it, and have heights 0..1', () => {
    for (const name of STAMP_NAMES) {
      const { outline, profile } = STAMPS[name];
      let covered = 0;
      for (let j = -40; j <= 40; j++) {
        for (let k = -40; k <= 40; k++) {
          const [x, y] = [k / 36, j / 36];
          const distance = outline.distance(x, y);
          if (Math.hypot(x, y) > 1.001) expect(distance, `${name} at ${x} ${y}`).to.be.above(-1e-6);
          if (distance < 0) {
            covered++;
            const height = profile(x, y, -distance);
            expect(height, name).to.be.within(0, 1);
          }
          expect(stampOutline(name, 10, 0).distance(10 * x, 10 * y), name).to.be.closeTo(10 * distance, 0.6);
        }
      }
      expect(covered, name).to.be.above(25);
    }
  });
});
