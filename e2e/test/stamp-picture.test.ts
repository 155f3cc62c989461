import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { untilPixel } from './coat-pixels.ts';
import { sharp } from './sill-view.ts';
import { idle, onFloor, openStage, type Stage, saved } from './stage.ts';

const MAGENTA = [200, 40, 180];
const CYAN = [30, 170, 190];

/** A disc, magenta on its left and cyan on its right, with nothing about it. */
function disc(): Promise<Buffer> {
  const side = 64;
  const rgba = Buffer.alloc(4 * side * side);
  for (let i = 0; i < side * side; i++) {
    const [x, y] = [(i % side) - 31.5, Math.floor(i / side) - 31.5];
    rgba.set([...(x < 0 ? MAGENTA : CYAN), Math.hypot(x, y) < 30 ? 255 : 0], 4 * i);
  }
  return sharp(rgba, { raw: { width: side, height: side, channels: 4 } })
    .png()
    .toBuffer();
}

const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><circle cx="20" cy="20" r="19" fill="#000"/></svg>';

describe('pictures as stamps of the brush', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  /** Presses on a place in shares of the Floor’s canvas. */
  const press = async (x: number, y: number) => {
    const box = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
  };
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    await page
      .getByRole('group', { name: 'New coat' })
      .getByRole('button', { name: 'Painted by hand' })
      .click();
    const radius = dials().getByRole('textbox', { name: 'Radius, figure' });
    await radius.fill('0.1');
    await radius.press('Enter');
    await dials().getByRole('combobox', { name: 'Prints' }).click();
    await page.getByRole('option', { name: 'A picture' }).click();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a PNG is printed where it is opaque, in its own colours', async () => {
    const file = { name: 'disc.png', mimeType: 'image/png', buffer: await disc() };
    await page.getByLabel('Picture of the brush', { exact: true }).setInputFiles(file);
    await dials().getByText('disc.png').waitFor();
    await dials().getByRole('combobox', { name: 'Turned' }).click();
    await page.getByRole('option', { name: 'As set' }).click();
    await press(0.25, 0.25);
    await untilPixel(page, 0.23, 0.25, MAGENTA, 3);
    await untilPixel(page, 0.27, 0.25, CYAN, 3);
    await dials().getByText('1 stroke', { exact: true }).waitFor();
  });

  it('what lies under the brush is taken from the tile, and printed elsewhere', async () => {
    await dials().getByRole('button', { name: 'Take it from the tile …' }).click();
    await page.getByText('Press on what the brush shall print').waitFor();
    await press(0.25, 0.25);
    await dials().getByText('from-the-tile.png').waitFor();
    await press(0.4, 0.4);
    await untilPixel(page, 0.38, 0.4, MAGENTA, 4);
    await untilPixel(page, 0.42, 0.4, CYAN, 4);
  });

  it('a drawing in SVG is printed in the colour of the brush where its own are left out', async () => {
    const file = { name: 'spot.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(SVG) };
    await page.getByLabel('Picture of the brush', { exact: true }).setInputFiles(file);
    await dials().getByText('spot.png').waitFor();
    await dials().getByRole('switch', { name: 'Its own colours' }).click();
    await press(0.15, 0.42);
    await untilPixel(page, 0.15, 0.42, [179, 69, 44], 3);
  });

  it('is kept over a reload, with its pictures', async () => {
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo', 512);
    await untilPixel(page, 0.23, 0.25, MAGENTA, 3);
    await untilPixel(page, 0.42, 0.4, CYAN, 4);
    await untilPixel(page, 0.15, 0.42, [179, 69, 44], 3);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
