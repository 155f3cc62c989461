import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

describe('squaring and evening', () => {
  let stage: Stage;
  let page: Page;
  let base: string;

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['pamments'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    base = `${stage.url}/tiles/${tiles[0].id}`;
    page = await stage.page();
    await page.goto(`${base}/square`);
    await page.getByText(/px of the photo for/).waitFor();
  });

  after(() => stage.end());

  const turn = () => page.getByRole('slider', { name: 'Rotation of the crop' });
  const degrees = async () => Number(await turn().getAttribute('aria-valuenow'));

  it('levels the crop by the main direction of the photo, as the artist had found it by eye', async () => {
    const byEye = await degrees();
    await turn().focus();
    for (let k = 0; k < 4; k++) await page.keyboard.press('Shift+ArrowRight');
    expect(await degrees()).to.be.above(byEye + 1);
    await page.getByRole('button', { name: 'Level it' }).click();
    await page.getByText(/Lines run .*° off; the crop is turned to them/).waitFor();
    expect(await degrees()).to.be.closeTo(byEye, 0.3);
  });

  it('levels the crop by a line that is drawn on the photo', async () => {
    await page.getByRole('button', { name: 'Level with a line' }).click();
    const sheet = page.locator('svg[data-level]');
    const box = (await sheet.boundingBox())!;
    const [x, y] = [box.x + box.width / 3, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 150, y - 10, { steps: 3 });
    await page.mouse.up();
    await sheet.waitFor({ state: 'detached' });
    expect(await degrees()).to.be.closeTo((Math.atan2(-10, 150) * 180) / Math.PI, 0.3);
  });

  it('four corners are dragged under a grid; crossed over they are refused plainly, and undo brings them back', async () => {
    await page.getByRole('button', { name: 'Four corners' }).click();
    const corner = page.getByRole('slider', { name: 'Corner, upper right' });
    const box = (await corner.boundingBox())!;
    const before = Number(await corner.getAttribute('aria-valuenow'));
    await page.mouse.move(box.x + 8, box.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x - 12, box.y + 18, { steps: 3 });
    await page.locator('[data-grid]').waitFor();
    await page.mouse.up();
    await page.locator('[data-grid]').waitFor({ state: 'detached' });
    const moved = Number(await corner.getAttribute('aria-valuenow'));
    expect(moved).to.be.below(before - 1);
    const now = (await corner.boundingBox())!;
    await page.mouse.move(now.x + 8, now.y + 8);
    await page.mouse.down();
    await page.mouse.move(box.x - 340, box.y + 330, { steps: 4 });
    await page.mouse.up();
    await page.getByText(/corners cross over or bend inwards/).waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByText(/corners cross over/).waitFor({ state: 'detached' });
    expect(Number(await corner.getAttribute('aria-valuenow'))).to.be.closeTo(moved, 0.11);
    await page.getByRole('button', { name: 'Four corners' }).click();
    await turn().waitFor();
  });

  it('rows are bent by handles under lines that will be straight; other counts of handles keep the bend', async () => {
    await page.getByRole('button', { name: 'Warp', exact: true }).click();
    await page.locator('svg[data-bend="4 × 4"]').waitFor();
    const handle = page.getByRole('slider', { name: 'Warp, column 2, row 2' });
    const box = (await handle.boundingBox())!;
    await page.mouse.move(box.x + 6, box.y + 6);
    await page.mouse.down();
    await page.mouse.move(box.x + 6, box.y + 26, { steps: 3 });
    await page.mouse.up();
    const moved = Number(await handle.getAttribute('aria-valuenow'));
    expect(moved).to.be.above(2);
    await page.getByRole('group', { name: 'Handles across' }).getByRole('button', { name: '6' }).click();
    await page.locator('svg[data-bend="6 × 4"]').waitFor();
    const near = page.getByRole('slider', { name: 'Warp, column 3, row 2' });
    expect(Number(await near.getAttribute('aria-valuenow'))).to.be.within(moved / 2, moved);
    // Dragged on top of its neighbour it stops where the picture would fold.
    const from = (await near.boundingBox())!;
    await page.mouse.move(from.x + 6, from.y + 6);
    await page.mouse.down();
    await page.mouse.move(from.x + 300, from.y + 6, { steps: 6 });
    await page.mouse.up();
    expect(Number(await near.getAttribute('aria-valuenow'))).to.be.below(40);
    await page.getByText(/px of the photo for/).waitFor();
    // Each handle's way is a step of its own.
    const bend = page.locator('svg[data-bend]');
    let steps = 0;
    while (await bend.isVisible()) {
      await page.getByRole('button', { name: /^Undo: Square, Warp/ }).click();
      steps++;
    }
    expect(steps).to.be.within(3, 4);
    await page.getByRole('button', { name: 'Warp', exact: true }).click();
    await turn().waitFor();
  });

  it('pieces of whole periods are offered laid 2 × 2 with their figures, and one press frames the photo', async () => {
    await page.getByRole('button', { name: 'Pieces that tile …' }).click();
    const dialog = page.getByRole('dialog', { name: 'Crops that nearly tile' });
    const whole = dialog.locator('[data-piece="periods"]').first();
    await whole.getByText(/whole period.*turned/).waitFor();
    const seam = Number(/seam ([\d.]+)/.exec((await whole.textContent()) ?? '')?.[1]);
    expect(seam).to.be.below(1.5);
    expect(await dialog.locator('[data-piece="alike"]').count()).to.equal(3);
    await whole.getByRole('button', { name: 'Use this' }).click();
    await page.locator('svg[data-corners]').waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await turn().waitFor();
  });

  it('a tile of two to one shows a crop of two to one, down to the crate', async () => {
    const shape = page.getByRole('combobox', { name: 'Shape' });
    const choose = async (option: string) => {
      await shape.click();
      await page.getByRole('option', { name: option }).click();
      await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    };
    await choose('2 : 1, wide');
    await page.getByRole('button', { name: 'Crop tiled' }).click();
    await page.getByRole('img', { name: /Crop, 512 × 256 px/ }).waitFor();
    await page.locator('[data-station="finish"]').click();
    await page.getByRole('img', { name: /Roughness, 512 × 256 px/ }).waitFor();
    await page.locator('[data-station="square"]').click();
    await choose('Square');
    await page.getByText(/px of the photo for/).waitFor();
  });

  it('what is painted at Even is left alone, and taken back again', async () => {
    await page.goto(`${base}/even`);
    await page.locator('canvas[data-view="evened"]').waitFor();
    await page.getByRole('button', { name: 'Protect' }).click();
    const layer = page.locator('canvas[data-tint-layer="leave"]');
    const box = (await layer.boundingBox())!;
    const draw = async () => {
      await page.mouse.move(box.x + 0.3 * box.width, box.y + 0.4 * box.height);
      await page.mouse.down();
      await page.mouse.move(box.x + 0.4 * box.width, box.y + 0.4 * box.height, { steps: 3 });
      await page.mouse.up();
    };
    await draw();
    await page.getByRole('button', { name: /^Undo: Even, Painted 1 stroke/ }).waitFor();
    const left = async () => {
      await page.getByRole('button', { name: 'Left alone' }).click();
      await page.locator('canvas[data-view="left"]').waitFor();
      await page.mouse.move(box.x + 0.35 * box.width, box.y + 0.4 * box.height);
      await page
        .getByTestId('readout')
        .getByText(/left \d/)
        .waitFor();
      return Number(/left ([\d.]+)/.exec((await page.getByTestId('readout').textContent()) ?? '')?.[1]);
    };
    expect(await left()).to.be.above(0.9);
    await page.getByRole('button', { name: 'Evened' }).click();
    await page.getByRole('button', { name: 'Erase' }).click();
    await page.locator('canvas[data-tint-layer="leave"]').waitFor();
    await draw();
    await page.getByRole('button', { name: /^Undo: Even, Painted 2 strokes/ }).waitFor();
    expect(await left()).to.be.below(0.1);
  });

  it('shows in false colour what light Even took out', async () => {
    await page.goto(`${base}/even`);
    await page.getByText(/Light drifted by/).waitFor();
    await page.getByRole('button', { name: 'Light taken out' }).click();
    const canvas = page.locator('canvas[data-view="light"]');
    await canvas.waitFor();
    const box = (await canvas.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page
      .getByTestId('readout')
      .getByText(/relative light/)
      .waitFor();
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
