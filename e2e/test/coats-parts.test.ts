import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { pixelAt, untilPixel } from './coat-pixels.ts';
import { idle, onFloor, openStage, type Stage, station } from './stage.ts';

const OLIVE = [138, 143, 90];

/** Two squares in an OBJ, each an object of its own, with texture coordinates to the left and to the right. */
const SQUARES = `o Left
v 0 0 0
v 1 0 0
v 1 1 0
v 0 1 0
vt 0.1 0.2
vt 0.4 0.2
vt 0.4 0.8
vt 0.1 0.8
f 1/1 2/2 3/3 4/4
o Right
v 2 0 0
v 3 0 0
v 3 1 0
v 2 1 0
vt 0.6 0.2
vt 0.9 0.2
vt 0.9 0.8
vt 0.6 0.8
f 5/5 6/6 7/7 8/8
`;
const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40">
  <rect width="40" height="40" fill="#000"/><rect x="4" y="24" width="32" height="12" fill="#fff"/></svg>`;

describe('masks from the user’s own files, and recolouring', () => {
  let stage: Stage;
  let page: Page;
  let bare: Record<'left' | 'right' | 'low', [number, number, number]>;
  /** A quarter and three quarters across the upper left of four tiles, and low in its middle; in shares of the Floor. */
  const AT = { left: [0.192, 0.295], right: [0.397, 0.295], low: [0.2945, 0.3935] } as const;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const give = (label: string, name: string, text: string) =>
    page.getByLabel(label).setInputFiles({ name, mimeType: '', buffer: Buffer.from(text) });
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    const [left, right, low] = await Promise.all(Object.values(AT).map(([x, y]) => pixelAt(page, x, y)));
    bare = { left, right, low };
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name: 'Flat colour' }).click();
    await untilPixel(page, ...AT.left, OLIVE);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a part of a shape selects where its texture coordinates lie, and only once it is chosen', async () => {
    await dials().getByRole('button', { name: 'Part of my shape' }).click();
    await untilPixel(page, ...AT.left, bare.left);
    await give('Shape of the mask', 'squares.obj', SQUARES);
    await dials().getByRole('checkbox', { name: 'Left' }).check();
    await untilPixel(page, ...AT.left, OLIVE);
    await untilPixel(page, ...AT.right, bare.right);
    await dials().getByText('squares.obj: Left').waitFor();
    await dials().getByRole('checkbox', { name: 'Right' }).check();
    await untilPixel(page, ...AT.right, OLIVE);
    await dials().getByRole('checkbox', { name: 'Left' }).uncheck();
    await untilPixel(page, ...AT.left, bare.left);
    await dials().getByRole('button', { name: 'Islands' }).click();
    await dials().getByRole('checkbox', { name: 'Island 1 · 18 %' }).waitFor();
  });

  it('a shape without texture coordinates is refused in words', async () => {
    await give('Shape of the mask', 'bare.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n');
    await dials().getByText('No part of this shape has texture coordinates.').waitFor();
    await untilPixel(page, ...AT.right, OLIVE);
  });

  it('a drawing in SVG is a mask, white is selected; one that is none is refused in words', async () => {
    await dials().getByRole('button', { name: 'Remove mask part 1: Part of my shape' }).click();
    await dials().getByRole('button', { name: 'Picture', exact: true }).first().click();
    await give('Picture of mask part 1: Picture', 'band.svg', '<svg');
    await dials().getByText('band.svg is not an SVG that can be read.').waitFor();
    await give('Picture of mask part 1: Picture', 'band.svg', DRAWING);
    await dials().getByText('band.png').waitFor();
    await untilPixel(page, ...AT.low, OLIVE);
    await untilPixel(page, ...AT.left, bare.left);
  });

  it('coats take another hue and keep their lightness, as one step that is undone', async () => {
    await page.getByRole('button', { name: 'Recolour …' }).click();
    const dialog = page.getByRole('dialog', { name: 'Recolour coats' });
    await dialog.getByText('0.061 from cane').waitFor();
    await dialog.getByRole('button', { name: /^Hue and chroma of/ }).click();
    const hex = page.getByRole('textbox', { name: 'Hue and chroma of as sRGB' });
    await hex.fill('#3050c0');
    await hex.press('Enter');
    const after = await dialog.locator('[data-colours]').getAttribute('data-colours');
    await dialog.getByRole('button', { name: 'Recolour', exact: true }).click();
    const blue = [1, 3, 5].map((at) => Number.parseInt(after!.slice(at, at + 2), 16));
    expect(blue[2]).to.be.above(blue[0] + 60);
    await untilPixel(page, ...AT.low, blue);
    await page.getByRole('button', { name: /^Undo: 1 coat recoloured/ }).click();
    await untilPixel(page, ...AT.low, OLIVE);
    await station(page, 'coats').getByText('✓ 1 coat').waitFor();
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
