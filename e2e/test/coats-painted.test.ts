import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { pixelAt, untilPixel } from './coat-pixels.ts';
import { idle, onFloor, openStage, type Stage, saved } from './stage.ts';

const OLIVE = [138, 143, 90];

describe('masks painted by hand', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  let bare: [number, number, number];
  /** In the upper left of four tiles: where a stroke goes, and what it is mirrored to; in shares of the Floor. */
  const AT = { stroke: [0.17, 0.24], mirrored: [0.419, 0.24], other: [0.25, 0.4] } as const;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const stroke = async ([x, y]: readonly [number, number], along = 0.02) => {
    const box = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    const [left, top] = [box.x + x * box.width, box.y + y * box.height];
    await page.mouse.move(left - along * box.width, top);
    await page.mouse.down();
    await page.mouse.move(left, top, { steps: 3 });
    await page.mouse.move(left + along * box.width, top, { steps: 3 });
    await page.mouse.up();
  };
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    bare = await pixelAt(page, ...AT.stroke);
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name: 'Flat colour' }).click();
    await untilPixel(page, ...AT.stroke, OLIVE);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a painted mask gives the brush at once; what is painted is covered, the rest is not', async () => {
    await dials().getByRole('button', { name: 'Painted', exact: true }).click();
    await untilPixel(page, ...AT.stroke, bare, 12);
    await stroke(AT.stroke);
    await untilPixel(page, ...AT.stroke, OLIVE);
    const other = await pixelAt(page, ...AT.other);
    expect(Math.abs(other[2] - OLIVE[2])).to.be.above(40);
    await dials().getByText('1 stroke').waitFor();
  });

  it('Erase takes it away, undo brings it back, and it is kept over a reload', async () => {
    await dials().getByRole('button', { name: 'Erase' }).click();
    await stroke(AT.stroke, 0.04);
    await untilPixel(page, ...AT.stroke, bare, 12);
    await page.getByRole('button', { name: /^Undo: Coats/ }).click();
    await untilPixel(page, ...AT.stroke, OLIVE);
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo', 512);
    await untilPixel(page, ...AT.stroke, OLIVE);
  });

  it('a mirrored stroke is on both sides of the tile’s middle', async () => {
    await page.locator('[data-coat="Flat colour"]').click();
    await dials().getByRole('button', { name: 'Undo last stroke' }).click();
    await untilPixel(page, ...AT.stroke, bare, 12);
    await dials().getByRole('button', { name: 'Paint', exact: true }).click();
    await dials().getByRole('button', { name: 'Across', exact: true }).click();
    await stroke(AT.stroke);
    await untilPixel(page, ...AT.stroke, OLIVE);
    await untilPixel(page, ...AT.mirrored, OLIVE);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
