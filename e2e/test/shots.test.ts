import { demoPicture, makeMissingPictures, RIPPLE_SHOTS } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { idle, openStage, type Stage, station } from './stage.ts';

/** From the middle of a disc to its rim, in pixels, and where its middle is. */
const DISC = { radius: 17, middle: 20 };
const IDS = RIPPLE_SHOTS.map(({ hour }) => `ripples-${hour}`);

const verdict = (page: Page) => page.getByRole('region', { name: 'Dials' });

/** Standard deviation of the codes of a view on the Floor, within what it shows. */
const spreadOf = (page: Page, view: string) =>
  page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="${view}"]');
      const look = JSON.parse(canvas.dataset.look);
      const scale = canvas.width / canvas.clientWidth;
      const [x, y, edge] = [look.x, look.y, look.edge].map((v) => Math.round(scale * v));
      const { data } = canvas.getContext('2d').getImageData(x + 8, y + 8, edge - 16, Math.round(edge / 2));
      const values = [...data].filter((_value, k) => k % 4 === 0);
      const mean = values.reduce((a, b) => a + b) / values.length;
      return Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length);
    })()`,
  ) as Promise<number>;

describe('several shots of one surface', () => {
  let stage: Stage;
  let page: Page;
  before(async function () {
    this.timeout(300_000);
    await makeMissingPictures(IDS);
    stage = await openStage([], 512);
    page = await stage.page();
    await page.goto(stage.url);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('pictures that look alike are asked about once; lights are set on discs', async () => {
    await page.getByLabel('Photos for new tiles').setInputFiles(IDS.map(demoPicture));
    const dialog = page.getByRole('dialog', { name: 'The same surface in different light?' });
    await dialog.waitFor();
    await dialog.getByLabel('Lights').click();
    await page.getByRole('option', { name: 'Set them on the discs' }).click();
    expect(await dialog.getByText('4 to go.').count()).to.equal(1);
    expect(await dialog.getByRole('button', { name: 'One tile from all' }).isDisabled()).to.equal(true);
    for (const [k, { azimuth, height }] of RIPPLE_SHOTS.entries()) {
      const angle = (azimuth * Math.PI) / 180;
      const away = ((90 - height) / 90) * DISC.radius;
      const position = { x: DISC.middle + Math.sin(angle) * away, y: DISC.middle - Math.cos(angle) * away };
      await dialog.getByRole('slider', { name: `Light of Shot ${k + 1}` }).click({ position });
    }
    await dialog.getByRole('button', { name: 'One tile from all' }).click();
    await page.waitForURL(/\/tiles\//);
    await idle(page);
  });

  it('Source says what was measured, and shows the shots and what they leave over', async () => {
    await station(page, 'Source');
    await verdict(page).getByText('4 shots solved').waitFor();
    const shots = page.getByRole('list', { name: 'Shots' }).getByRole('listitem');
    expect(await shots.count()).to.equal(4);
    expect(await shots.nth(1).textContent()).to.match(/13[5-9]°|14[01]°/);
    await page.getByRole('button', { name: 'Left over' }).click();
    await page.locator('canvas[data-view="residual"]').waitFor();
    await idle(page);
    expect(await spreadOf(page, 'residual')).to.be.within(1, 80);
    // It lies as the photo does, which does not repeat.
    expect(await page.getByRole('button', { name: '2 × 2' }).count()).to.equal(0);
    await page.getByRole('button', { name: 'Photo', exact: true }).click();
  });

  it('height comes out as high as it is, and nothing of the albedo is evened out', async () => {
    await station(page, 'Relief');
    await idle(page);
    // The ripples are about 18 mm high in truth.
    await page
      .getByText(/1[5-9](\.\d)? mm deep/)
      .first()
      .waitFor();
    const id = page.url().split('/tiles/')[1].split(/[/?#]/)[0];
    const { revision } = await (await page.request.get(`${stage.url}/api/tiles/${id}`)).json();
    expect(revision.recipe.stations.even.amount).to.equal(0);
    expect(revision.recipe.stations.source.shots).to.have.length(3);
  });

  it('without a shot three are left, and lights that cannot be found are said so; undone, they are solved again', async () => {
    await station(page, 'Source');
    // Morning, forenoon and afternoon: the sun hardly leaves one side.
    await page.getByRole('button', { name: 'Remove Shot 4' }).click();
    await verdict(page).getByText('The light of all shots comes from nearly one side').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await verdict(page).getByText('4 shots solved').waitFor();
    await page.getByRole('button', { name: 'Remove Shot 2' }).click();
    await verdict(page).getByText('Three shots fit exactly, so nothing checks them.').waitFor();
    await verdict(page).getByRole('combobox', { name: 'Lights' }).click();
    await page.getByRole('option', { name: 'Find them' }).click();
    await verdict(page).getByText('With three shots the directions of the light cannot be found.').waitFor();
    await verdict(page).getByText('The tile is made from the first shot alone.').waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await verdict(page).getByText('4 shots solved').waitFor();
  });

  it('a ball is marked on the Floor by its middle and its rim', async () => {
    await verdict(page).getByRole('combobox', { name: 'Lights' }).click();
    await page.getByRole('option', { name: 'Read from a ball' }).click();
    await verdict(page).getByText('No ball is marked yet.').waitFor();
    await page.getByRole('button', { name: 'Mark the ball' }).click();
    const middle = page.getByRole('slider', { name: 'Middle of the ball' });
    await middle.waitFor();
    const before = await middle.getAttribute('cx');
    await middle.focus();
    await page.keyboard.press('ArrowRight');
    await page.waitForFunction(
      `document.querySelector('[aria-label="Middle of the ball"]').getAttribute('cx') !== '${before}'`,
    );
    const rim = page.getByRole('slider', { name: 'Rim of the ball' });
    expect(Number(await rim.getAttribute('cx'))).to.be.above(Number(await middle.getAttribute('cx')));
  });
});
