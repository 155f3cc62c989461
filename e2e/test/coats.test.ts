import { expect } from 'chai';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { idle, onFloor, openStage, type Stage, saved, station } from './stage.ts';

/** sRGB codes at a place of the Floor, in shares of its canvas. */
const pixelAt = (page: Page, x: number, y: number) =>
  page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="albedo"]');
      const at = [${x} * canvas.width, ${y} * canvas.height].map(Math.round);
      return [...canvas.getContext('2d').getImageData(...at, 1, 1).data].slice(0, 3);
    })()`,
  ) as Promise<[number, number, number]>;

/** Waits until a place of the Floor has a colour, each channel within so many codes. */
const untilPixel = (page: Page, x: number, y: number, rgb: readonly number[], slack = 2) =>
  page.waitForFunction(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="albedo"]');
      const at = [${x} * canvas.width, ${y} * canvas.height].map(Math.round);
      const now = canvas.getContext('2d').getImageData(...at, 1, 1).data;
      return [${rgb.join()}].every((value, c) => Math.abs(now[c] - value) <= ${slack});
    })()`,
  );

const OLIVE = [138, 143, 90];
const PLACE = [0.43, 0.37] as const;

describe('coats', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  let bare: [number, number, number];
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const offer = (name: string) => page.getByRole('group', { name: 'New coat' }).getByRole('button', { name });
  before(async () => {
    stage = await openStage(['pamments'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a tile without any says so, and what a coat is', async () => {
    await station(page, 'coats').getByText('✓ none').waitFor();
    await dials().getByText('A coat is a layer over the tile').waitFor();
    bare = await pixelAt(page, ...PLACE);
    expect(Math.abs(bare[0] - OLIVE[0]) + Math.abs(bare[1] - OLIVE[1])).to.be.above(20);
  });

  it('a flat colour covers the tile at once, counts or does not, and is as strong as it is set', async () => {
    await offer('Flat colour').click();
    await untilPixel(page, ...PLACE, OLIVE);
    await untilPixel(page, 0.6, 0.62, OLIVE);
    await station(page, 'coats').getByText('✓ 1 coat').waitFor();
    const counts = page.getByRole('button', { name: 'Flat colour counts' });
    await counts.click();
    await untilPixel(page, ...PLACE, bare);
    await station(page, 'coats').getByText('✓ none').waitFor();
    await counts.click();
    await untilPixel(page, ...PLACE, OLIVE);
    const strength = dials().getByRole('textbox', { name: 'Strength, figure' }).first();
    await strength.fill('0');
    await strength.press('Enter');
    await untilPixel(page, ...PLACE, bare);
    await page.getByRole('button', { name: /^Undo: Coats, Flat colour, Strength 0\.00/ }).click();
    await untilPixel(page, ...PLACE, OLIVE);
  });

  it('a pattern above it multiplies its faces alone; moved below, the colour hides it', async () => {
    await offer('Pattern').click();
    const colour = dials().getByRole('group', { name: 'output 1: Colour' });
    await colour.getByRole('button', { name: /^Colour, #/ }).click();
    const hex = page.getByRole('textbox', { name: 'Colour as sRGB' });
    await hex.fill('#808080');
    await hex.press('Enter');
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    // Olive times half of its codes on a face, olive in a joint.
    const half = OLIVE.map((code) => (code * 128) / 255);
    const faces = async () => {
      const seen = await Promise.all(
        Array.from({ length: 40 }, (_, k) => pixelAt(page, 0.3 + 0.01 * k, 0.44)),
      );
      const near = (rgb: readonly number[]) =>
        seen.flatMap((now, k) =>
          rgb.every((value, c) => Math.abs(now[c] - value) <= 4) ? [0.3 + 0.01 * k] : [],
        );
      return { faces: near(half), joints: near(OLIVE) };
    };
    await page.waitForFunction(
      `document.querySelector('[data-station="coats"]').textContent.includes('2 coats')`,
    );
    await idle(page);
    const first = await faces();
    expect(first.faces).to.have.length.above(20);
    expect(first.joints).to.not.deep.equal([]);
    await page.getByRole('button', { name: 'Lower Pattern' }).click();
    await untilPixel(page, 0.52, 0.44, OLIVE);
    await untilPixel(page, 0.42, 0.44, OLIVE);
    await page.locator('[data-coat="Pattern"]').press('Alt+ArrowUp');
    await untilPixel(page, first.faces[9], 0.44, half, 4);
  });

  it('what it adds to the height is said, and reaches the height on the Floor', async () => {
    await dials()
      .getByText(/Height changes by 0\.0 to 4\.1 mm/)
      .waitFor();
    await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
    await page.getByRole('option', { name: 'Height' }).click();
    await onFloor(page, 'height');
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  });

  it('a coat is duplicated and deleted, and comes back by undo', async () => {
    await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
    await page.locator('[data-coat="Pattern, copy"]').waitFor();
    await page.getByRole('button', { name: 'Delete', exact: true }).click();
    await page.locator('[data-coat="Pattern, copy"]').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: /^Undo: Coats/ }).click();
    await page.locator('[data-coat="Pattern, copy"]').waitFor();
    await page.getByRole('button', { name: /^Undo: Coats/ }).click();
    await page.locator('[data-coat="Pattern, copy"]').waitFor({ state: 'detached' });
  });

  it('is kept over a reload, and its colour is in the crate', async () => {
    await page.getByRole('button', { name: 'Pattern counts' }).click();
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo');
    await untilPixel(page, ...PLACE, OLIVE);
    await page.getByRole('button', { name: 'Crate it' }).click();
    await page.getByRole('link', { name: 'Download zip' }).first().waitFor();
    const { crates } = await (await fetch(`${stage.url}/api/crates`)).json();
    const albedo = `${stage.url}/api/crates/${crates[0].id}/files/${encodeURIComponent('Terrace pamments_albedo.png')}`;
    const file = new Uint8Array(await (await fetch(albedo)).arrayBuffer());
    const { data } = await sharp(file).raw().toBuffer({ resolveWithObject: true });
    for (let c = 0; c < 3; c++) expect(data[3000 + c]).to.be.closeTo(OLIVE[c], 1);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
