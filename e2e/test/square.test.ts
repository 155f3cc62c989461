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

  const turn = () => page.getByRole('slider', { name: 'Turn of the crop' });
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
    await page.getByRole('button', { name: 'Level by a line' }).click();
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
      .getByText(/the light of the rest/)
      .waitFor();
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
