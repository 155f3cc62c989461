import { srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { choose, mean, setFigure, sharp, still, within } from './sill-view.ts';
import { openStage, type Stage } from './stage.ts';

type Point = [number, number, number];

const EDGE = 512;
/** The camera of the ball, and half of what it must see, in radii of the ball; the ground is one below its middle. */
const FROM: Point = [0, 0.2, 0.98];
const HALF = 1.2;
const TAN = Math.tan((21 * Math.PI) / 180);

const minus = (a: Point, b: Point) => a.map((value, k) => value - b[k]) as Point;
const dot = (a: Point, b: Point) => a.reduce((sum, value, k) => sum + value * b[k], 0);
const cross = ([a, b, c]: Point, [d, e, f]: Point): Point => [b * f - c * e, c * d - a * f, a * e - b * d];
const unit = (a: Point) => a.map((value) => value / Math.hypot(...a)) as Point;

/** Towards the sun, as the Sill's disc says: clockwise from the top of the view, and towards the viewer. */
function sunAt(turn: number, rise: number): Point {
  const [a, b] = [(turn * Math.PI) / 180, (rise * Math.PI) / 180];
  return [Math.sin(a) * Math.cos(b), Math.cos(a) * Math.cos(b), Math.sin(b)];
}

/** A place on the ground by how far it is from the axis of the ball's shadow, along the view and across. */
const onGround = ([x, y, z]: Point, right: number, near: number): Point => [
  -x / y + right,
  -1,
  -z / y + near,
];

/** How far a place is from the line through the ball's middle towards the sun: under 1 it lies in its shadow. */
function fromAxis(place: Point, sun: Point): number {
  const along = dot(place, sun);
  return Math.hypot(...place.map((value, k) => value - along * sun[k]));
}

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
    await page.getByRole('button', { name: 'Ball', exact: true }).click();
    await choose(page, 'What the Sill shows', 'Clay');
    await within(page, 'Light', async () => {
      await choose(page, 'What lies around', 'White studio');
      // Little light beside the sun's.
      await setFigure(page, 'Strength', 0.2);
    });
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  /** Where a place is seen, in shares of half of the view's height from its middle. */
  async function seenAt([x, y, z]: Point): Promise<[number, number]> {
    const { width, height } = (await page.locator('[data-sill] canvas').boundingBox())!;
    const away = Math.max(HALF, (HALF * height) / width) / TAN;
    const eye = FROM.map((value) => value * away) as Point;
    const forward = unit(minus([0, 0, 0], eye));
    const right = unit(cross(forward, [0, 1, 0]));
    const up = cross(right, forward);
    const seen = minus([x, y, z], eye);
    const far = dot(seen, forward) * TAN;
    return [dot(seen, right) / far, dot(seen, up) / far];
  }

  /** How bright a place is in a square still. */
  async function brightAt(codes: number[], place: Point): Promise<number> {
    const [x, y] = await seenAt(place);
    const [column, row] = [Math.round((EDGE / 2) * (1 + x)), Math.round((EDGE / 2) * (1 - y))];
    const around: number[] = [];
    for (let j = -3; j <= 3; j++)
      for (let i = -3; i <= 3; i++) around.push(codes[3 * ((row + j) * EDGE + column + i)]);
    return mean(around);
  }

  const canvas = () => page.locator('[data-sill] canvas');

  /** How bright a place of the view is beside another, from a picture of the canvas: the mean about each, since few frames leave grain. */
  async function nearToFar(picture: Buffer, near: Point, far: Point): Promise<number> {
    const { data, info } = await sharp(picture).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const [a, b] = await Promise.all(
      [near, far].map(async (place) => {
        const [x, y] = await seenAt(place);
        const column = Math.round(info.width / 2 + (x * info.height) / 2);
        const row = Math.round((info.height / 2) * (1 - y));
        const around: number[] = [];
        for (let j = -3; j <= 3; j++)
          for (let i = -3; i <= 3; i++)
            around.push(srgbToLinear(data[3 * ((row + j) * info.width + column + i)] / 255));
        return mean(around);
      }),
    );
    return a / b;
  }

  /** Beside the axis of the shadow, where the ball does not hide the ground, and two places that no shadow reaches. */
  const IN = [0.25, 0.45] as const;
  const TO_SUN: Point = [-1.1, -1, -0.3];
  const BEYOND: Point = [0.9, -1, 0.4];

  it('the ball’s shadow is on the ground where the sun sends it, and ends where it ends', async () => {
    const sun = sunAt(312, 42);
    const inside = onGround(sun, ...IN);
    expect(fromAxis(inside, sun)).to.be.below(0.8);
    for (const outside of [TO_SUN, BEYOND]) expect(fromAxis(outside, sun)).to.be.above(1.15);
    const codes = await still(page, EDGE);
    const lit = await brightAt(codes, TO_SUN);
    expect(await brightAt(codes, inside)).to.be.below(0.75 * lit);
    expect(await brightAt(codes, BEYOND)).to.be.above(0.9 * lit);
    // Far behind the ball too, where the ground fades: beside a place that fades as much, to which the sun comes.
    const end = onGround(sun, 0.7, -0.85);
    expect(fromAxis(end, sun)).to.be.within(0.5, 0.6);
    expect(await brightAt(codes, end)).to.be.below(0.85 * (await brightAt(codes, [-end[0], -1, end[2]])));
  });

  it('it moves with the sun', async () => {
    const disc = page.getByRole('slider', { name: /sun/i }).first();
    const { x, y, width, height } = (await disc.boundingBox())!;
    const before = onGround(sunAt(312, 42), ...IN);
    // From the right, as high as before.
    await page.mouse.click(x + width / 2 + 9, y + height / 2 - 8.5);
    const words = (await page.getByText(/Sun \d+°, \d+° high/).textContent())!;
    const [turn, rise] = words.match(/\d+/g)!.map(Number);
    const sun = sunAt(turn, rise);
    expect(fromAxis(before, sun)).to.be.above(1.2);
    const codes = await still(page, EDGE);
    const lit = await brightAt(codes, before);
    const inside = onGround(sun, -IN[0], IN[1]);
    expect(fromAxis(inside, sun)).to.be.below(0.8);
    expect(await brightAt(codes, inside)).to.be.below(0.75 * lit);
  });

  it('at rest the sky is hidden where the ball hides it, and then no frame is drawn any more', async () => {
    await within(page, 'Light', async () => {
      await setFigure(page, 'Sun', 0);
      await setFigure(page, 'Strength', 1);
      await choose(page, 'What lies around', 'Overcast');
    });
    const near: Point = [0.55, -1, 0.25];
    const far = TO_SUN;
    // While it moves light comes from everywhere alike.
    const moving = await still(page, EDGE);
    const [a, b] = [await brightAt(moving, near), await brightAt(moving, far)].map((code) =>
      srgbToLinear(code / 255),
    );
    await page.locator('[data-gathered="whole"]').waitFor();
    const picture = await canvas().screenshot();
    expect(await nearToFar(picture, near, far)).to.be.below((0.82 * a) / b);
    expect((await canvas().screenshot()).equals(picture)).to.equal(true);
  });

  it('while something moves, what is seen hides the sky from what is near it, where that is asked for', async () => {
    const near: Point = [0.2, -1, 0.42];
    await page.keyboard.press('o');
    const moving = async (how: string, words: RegExp) => {
      await within(page, 'Light', async () => {
        await page.getByRole('button', { name: how }).click();
        await page.getByTestId('gathered').getByText(words).waitFor();
      });
      expect(await page.locator('[data-gathered]').getAttribute('data-gathered')).to.equal('waits');
      return nearToFar(await canvas().screenshot(), near, TO_SUN);
    };
    const hidden = await moving('Always', /corners darkened/);
    const bare = await moving('Where fast', /corners as bright/);
    await page.keyboard.press('o');
    expect(bare).to.be.within(0.95, 1.05);
    expect(hidden).to.be.below(0.85 * bare);
  });
});
