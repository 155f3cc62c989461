import { expect } from 'chai';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { pixelAt, untilPixel } from './coat-pixels.ts';
import { idle, onFloor, openStage, type Stage, saved, station } from './stage.ts';

const OLIVE = [138, 143, 90];
const PLACE = [0.43, 0.37] as const;

describe('coats', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  let bare: [number, number, number];
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const offer = async (name: string) => {
    const more = page.getByRole('button', { name: 'New coat …' });
    if (await more.isVisible()) await more.click();
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name }).click();
  };
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
    await offer('Flat colour');
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
    await offer('Pattern');
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
    // The words may still be those of the pattern before it got its colour.
    let first = await faces();
    for (let k = 0; k < 600 && first.faces.length <= 20; k++) {
      await page.evaluate('new Promise(requestAnimationFrame)');
      first = await faces();
    }
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

  it('a mask is shown by itself, its shape is moved by its handle, and the tile follows', async () => {
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await page.locator('[data-coat="Flat colour"]').click();
    await dials().getByRole('button', { name: 'Shape', exact: true }).click();
    await page.getByRole('button', { name: 'Mask', exact: true }).click();
    await page.locator('canvas[data-alone="mask"]').waitFor();
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    // A square of 200 mm.
    const share = 100 * (0.2 / revision.recipe.stations.square.edgeMetres) ** 2;
    await page.getByText(`Mask, covers ${share.toFixed(1)} %`).waitFor();
    await page.getByRole('button', { name: 'Mask', exact: true }).click();
    await page.locator('canvas[data-alone]').waitFor({ state: 'detached' });
    const middle = page.getByRole('slider', { name: 'Middle of mask part 1' });
    const box = (await middle.boundingBox())!;
    const floor = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    const at = [
      (box.x + box.width / 2 - floor.x) / floor.width,
      (box.y + box.height / 2 - floor.y) / floor.height,
    ] as const;
    await untilPixel(page, at[0] + 0.01, at[1] + 0.01, OLIVE);
    await middle.press('Shift+ArrowRight');
    await dials().getByRole('textbox', { name: 'Across, figure' }).waitFor();
    expect(await dials().getByRole('textbox', { name: 'Across, figure' }).inputValue()).to.equal('0.520');
    await page.getByRole('button', { name: /^Undo: Coats/ }).click();
    await untilPixel(page, at[0] + 0.01, at[1] + 0.01, OLIVE);
  });

  it('a coat is put into a group, whose strength counts for it; ungrouped it stays', async () => {
    await page.getByRole('button', { name: 'New group' }).click();
    await page.locator('[data-group="Group 1"]').waitFor();
    await page.getByRole('button', { name: 'Group 1 counts' }).click();
    await station(page, 'coats').getByText('✓ none').waitFor();
    await page.getByRole('button', { name: 'Group 1 counts' }).click();
    await station(page, 'coats').getByText('✓ 1 coat').waitFor();
    await page.getByRole('button', { name: 'Ungroup' }).click();
    await page.locator('[data-group="Group 1"]').waitFor({ state: 'detached' });
    await page.locator('[data-coat="Flat colour"]').waitFor();
  });

  it('a coat is dragged below another', async () => {
    const order = () =>
      page.locator('[data-coat]').evaluateAll((all) => all.map((one) => one.getAttribute('data-coat')));
    expect(await order()).to.deep.equal(['Pattern', 'Flat colour']);
    await page
      .locator('[data-coat="Pattern"]')
      .dragTo(page.locator('[data-coat="Flat colour"]'), { steps: 8 } as never);
    await page.waitForFunction(`document.querySelectorAll('[data-coat]')[0].dataset.coat === 'Flat colour'`);
    // By its key: clicks within 50 ms of a drop are kept from the page.
    await page.keyboard.press('Control+z');
    await page.waitForFunction(`document.querySelectorAll('[data-coat]')[0].dataset.coat === 'Pattern'`);
  });

  it('a ramp is set on its band: a press adds a stop, a key moves it', async () => {
    await page.locator('[data-coat="Flat colour"]').click();
    await dials().getByRole('button', { name: 'Ramp', exact: true }).click();
    const ramp = dials().getByRole('group', { name: 'Ramp of colour' });
    const band = (await ramp.locator('canvas').boundingBox())!;
    await page.mouse.click(band.x + band.width / 2, band.y + band.height / 2);
    const third = ramp.getByRole('slider', { name: 'Stop 3' });
    expect(Number(await third.getAttribute('aria-valuenow'))).to.be.closeTo(0.5, 0.03);
    await third.press('ArrowRight');
    expect(Number(await third.getAttribute('aria-valuenow'))).to.be.closeTo(0.51, 0.03);
    await third.press('Delete');
    await third.waitFor({ state: 'detached' });
    await dials().getByRole('button', { name: 'Remove output 2: Colour' }).click();
  });

  it('offers show the tile with each of them', async () => {
    await page.getByRole('button', { name: 'New coat …' }).click();
    await page.waitForFunction(`document.querySelectorAll('canvas[data-made]').length === 11`);
    const means = (await page.evaluate(`[...document.querySelectorAll('canvas[data-made]')].map((one) => {
      const { data } = one.getContext('2d').getImageData(0, 0, one.width, one.height);
      return data.reduce((sum, value) => sum + value, 0) / data.length;
    })`)) as number[];
    expect(new Set(means.map((mean) => mean.toFixed(2))).size).to.be.above(6);
    await page.getByRole('button', { name: 'New coat …' }).click();
  });

  it('coats are saved under a name, and added to a tile that starts from a pattern', async () => {
    await page.getByRole('button', { name: 'Save these …' }).click();
    await page.getByRole('textbox', { name: 'Name of the coats' }).fill('Olive');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await page.getByText('“Olive” was saved').waitFor();
    await saved(page);
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Plain colour' }).click();
    const dialog = page.getByRole('dialog', { name: 'Start from one colour' });
    await dialog.getByLabel('Name').fill('Bricks');
    await dialog.getByRole('button', { name: 'Pattern' }).click();
    await dialog.getByRole('img', { name: 'The pattern, tiled 2 × 2' }).waitFor();
    await dialog.getByRole('button', { name: 'Make the tile' }).click();
    await page.waitForURL(/\/source$/);
    await page.getByRole('button', { name: 'Show Square, Even, Join: nothing to do' }).waitFor();
    expect(await station(page, 'join').count()).to.equal(0);
    await station(page, 'coats').click();
    await station(page, 'coats').getByText('✓ 1 coat').waitFor();
    await onFloor(page, 'albedo');
    await page.getByRole('button', { name: 'Add Olive' }).click();
    await page.locator('[data-coat="Flat colour"]').waitFor();
    expect(await page.locator('[data-coat]').count()).to.equal(3);
    await page.getByRole('button', { name: 'Show Square, Even, Join: nothing to do' }).click();
    await station(page, 'join').waitFor();
  });

  it('another tile is a value of a coat, and a coat is copied to another tile', async () => {
    await page.locator('[data-coat="Pattern"]').last().click();
    await dials().getByRole('button', { name: 'Tile', exact: true }).click();
    await dials().getByRole('button', { name: 'Choose …' }).click();
    await page.getByRole('menuitem', { name: 'Terrace pamments' }).click();
    await dials()
      .getByText(/\d+ × along the edge/)
      .waitFor();
    await page.getByRole('button', { name: 'Copy to …' }).click();
    await page.getByRole('menuitem', { name: 'Terrace pamments' }).click();
    await page.getByText('was copied to Terrace pamments.').waitFor();
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    const { stack } = revision.recipe.stations.coats;
    expect(stack).to.have.length(3);
    expect(stack[2].outputs.some((one: { by: string }) => one.by === 'tile')).to.equal(true);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
