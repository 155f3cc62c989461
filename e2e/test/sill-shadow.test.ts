import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { choose, mean, still } from './sill-view.ts';
import { openStage, type Stage } from './stage.ts';

type Point = [number, number, number];

const EDGE = 512;
/** The camera of the terrace, and half of what it must see, across and upright, in units of the view. */
const FROM: Point = [0.42, 0.34, 0.9];
const HALF = 1.42;
const TALL = 1.3;
const HALF_ANGLE = (21 * Math.PI) / 180;
/** From metres on the terrace's floor to units of the view. */
const PER_METRE = 0.6;
const FLOOR = -0.75;
/** Where the pot stands, in metres, and how high it is. */
const POT: Point = [-1.15, 0, 0.35];
const POT_HEIGHT = 0.56;

const minus = (a: Point, b: Point) => a.map((value, k) => value - b[k]) as Point;
const dot = (a: Point, b: Point) => a.reduce((sum, value, k) => sum + value * b[k], 0);
const cross = ([a, b, c]: Point, [d, e, f]: Point): Point => [b * f - c * e, c * d - a * f, a * e - b * d];
const unit = (a: Point) => a.map((value) => value / Math.hypot(...a)) as Point;

/** Towards the sun, as the Sill's disc says: clockwise from the top of the view, and towards the viewer. */
function sunAt(turn: number, rise: number): Point {
  const [a, b] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
  return [Math.sin(a) * Math.cos(b), Math.cos(a) * Math.cos(b), Math.sin(b)];
}

/** Where the shadow of a point above the pot's middle falls on the floor, in metres. */
const shadowOf = (height: number, [x, y, z]: Point): Point => [
  POT[0] - (height * x) / y,
  0,
  POT[2] - (height * z) / y,
];

describe('shadows on the Sill', () => {
  let stage: Stage;
  let page: Page;
  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    page = await stage.page({ sill: true });
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/relief`);
    await page.locator('[data-sill="lit"]').waitFor();
    await page.getByRole('button', { name: 'Terrace', exact: true }).click();
    await choose(page, 'What the Sill shows', 'Clay');
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  /** How bright the floor is about a place, in a still of the terrace. */
  async function floorOf(codes: number[]): Promise<(place: Point) => number> {
    const { width, height } = (await page.locator('[data-sill] canvas').boundingBox())!;
    const away = Math.max(TALL, (HALF * height) / width) / Math.tan(HALF_ANGLE);
    const eye = FROM.map((value) => value * away) as Point;
    const forward = unit(minus([0, 0, 0], eye));
    const right = unit(cross(forward, [0, 1, 0]));
    const up = cross(right, forward);
    return ([x, y, z]) => {
      const seen = minus([x * PER_METRE, (y + FLOOR) * PER_METRE, z * PER_METRE], eye);
      const far = dot(seen, forward) * Math.tan(HALF_ANGLE);
      const column = Math.round((EDGE / 2) * (1 + dot(seen, right) / far));
      const row = Math.round((EDGE / 2) * (1 - dot(seen, up) / far));
      const around: number[] = [];
      for (let j = -3; j <= 3; j++)
        for (let i = -3; i <= 3; i++) around.push(codes[3 * ((row + j) * EDGE + column + i)]);
      return mean(around);
    };
  }

  it('the pot’s shadow falls on the floor where the sun sends it, and ends where it ends', async () => {
    const sun = sunAt(312, 42);
    const at = await floorOf(await still(page, EDGE));
    const lit = at([0.3, 0, 0.6]);
    for (const height of [0.3, 0.45]) {
      expect(at(shadowOf(height, sun)), `${height} m`).to.be.below(0.8 * lit);
    }
    expect(at(shadowOf(POT_HEIGHT + 0.5, sun))).to.be.above(0.92 * lit);
    // Towards the sun the floor is lit.
    expect(at(shadowOf(-0.45, sun))).to.be.above(0.92 * lit);
  });

  it('it moves with the sun', async () => {
    const disc = page.getByRole('slider', { name: /sun/i }).first();
    const { x, y, width, height } = (await disc.boundingBox())!;
    const before = shadowOf(0.45, sunAt(312, 42));
    // High above the terrace: near the top of the disc, a little to the left.
    await page.mouse.click(x + width / 2 - 4.5, y + height / 2 - 12.4);
    const words = (await page.getByText(/Sun \d+°, \d+° high/).textContent())!;
    const [turn, rise] = words.match(/\d+/g)!.map(Number);
    expect(turn).to.be.within(330, 350);
    const at = await floorOf(await still(page, EDGE));
    const lit = at([0.3, 0, 0.6]);
    expect(at(before)).to.be.above(0.9 * lit);
    // Under the rim, to its right.
    const [u, , v] = shadowOf(POT_HEIGHT, sunAt(turn, rise));
    expect(at([u + 0.23, 0, v - 0.17])).to.be.below(0.8 * lit);
  });
});
