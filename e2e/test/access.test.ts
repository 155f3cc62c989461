import AxeBuilder from '@axe-core/playwright';
import { STATION_NAMES } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage, station } from './stage.ts';

async function serious(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
}

describe('for everyone', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage(['stucco'], 512);
    page = await stage.page();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('axe finds nothing serious in the Yard', async () => {
    await page.goto(stage.url);
    await page.getByRole('img', { name: /laid 2 × 2/ }).waitFor();
    expect(await serious(page)).to.deep.equal([]);
  });

  it('axe finds nothing serious at any station', async () => {
    await page.locator('[data-tile]').dblclick();
    await onFloor(page, 'photo');
    await page.locator('[data-sill="lit"]').waitFor();
    for (const name of STATION_NAMES) {
      await station(page, name).click();
      await page.locator(`[data-station="${name}"][aria-current="step"]`).waitFor();
      await page.getByText(/^Measured/).waitFor();
      expect(await serious(page), name).to.deep.equal([]);
    }
  });

  it('a page that is not there says so and leads back', async () => {
    await page.goto(`${stage.url}/no/such/page`);
    await page.getByRole('link', { name: 'Go to the Yard' }).click();
    await page.getByRole('img', { name: /laid 2 × 2/ }).waitFor();
    await page.goto(`${stage.url}/tiles/none/source`);
    await page.getByText(/There is no such tile/).waitFor();
    expect(await serious(page)).to.deep.equal([]);
  });
});
