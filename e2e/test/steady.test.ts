import { STATION_NAMES } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Locator, Page } from 'playwright-core';
import { openStage, type Stage, station } from './stage.ts';

const placeOf = async (one: Locator) => (await one.boundingBox())!;

describe('what is pressed keeps its place', () => {
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

  const crateIt = () => page.getByRole('button', { name: 'Crate it' });

  it('a verdict that comes moves no dial', async () => {
    let letPixelsCome = () => {};
    const come = new Promise<void>((resolve) => {
      letPixelsCome = resolve;
    });
    await page.context().route('**/pixels?*', async (route) => {
      await come;
      await route.continue();
    });
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/gauge`);
    const dial = page.getByRole('textbox', { name: 'Exposure, figure' });
    await page.getByText('Measuring …').waitFor();
    const { y } = await placeOf(dial);
    letPixelsCome();
    await page
      .getByRole('status')
      .getByText(/Median/)
      .waitFor();
    expect((await placeOf(dial)).y).to.equal(y);
  });

  it('a verdict of many words stays within its box', async () => {
    await station(page, 'join').click();
    await page
      .getByRole('status')
      .getByText(/what lies along the cut/)
      .waitFor();
    const [words, box] = (await page.evaluate(
      `(() => { const box = document.querySelector('section[aria-label="Dials"] [role="status"]'); return [box.scrollHeight, box.clientHeight]; })()`,
    )) as number[];
    expect(words).to.be.above(70).and.at.most(box);
  });

  it('every station begins at its top; the button that crates stands at each, in one place', async () => {
    const { x, y } = await placeOf(crateIt());
    const { y: top } = await placeOf(page.getByRole('heading', { level: 1 }));
    for (const name of STATION_NAMES) {
      await page.evaluate(`document.querySelector('section[aria-label="Dials"]').scrollTop = 1e4`);
      await station(page, name).click();
      const heading = page.getByRole('heading', { level: 1, name: new RegExp(name, 'i') });
      await heading.waitFor();
      expect((await placeOf(heading)).y, name).to.equal(top);
      expect(await crateIt().count(), name).to.equal(1);
      const there = await placeOf(crateIt());
      expect([there.x, there.y], name).to.deep.equal([x, y]);
    }
  });

  it('a crate is seen as soon as it is begun, its way and its end, without a scroll', async () => {
    const wayBack = (await page.evaluate('history.length')) as number;
    await crateIt().click();
    const card = page.locator('[data-crate="1"]');
    await card.waitFor();
    expect(await page.evaluate('history.length')).to.equal(wayBack);
    const isSeen = async () => {
      const { y, height } = await placeOf(card);
      const { y: end } = await placeOf(page.getByRole('navigation', { name: 'Course' }));
      return y >= 0 && y + height <= end;
    };
    expect(await isSeen()).to.equal(true);
    await card.getByText('Crate 1, ready').waitFor();
    expect(await isSeen()).to.equal(true);
    expect(stage.faults).to.deep.equal([]);
  });
});
