import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { idle, onFloor, openStage, type Stage, saved, verdictOf } from './stage.ts';

/** What a picture on the Floor is like: how much neighbours differ, its mean, and its pixels. */
interface Look {
  grain: number;
  mean: number;
  pixels: number[];
}

const lookOf = (page: Page, view: string) =>
  page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="${view}"]');
      const side = Math.min(canvas.width, canvas.height, 200);
      const from = [canvas.width, canvas.height].map((all) => Math.floor((all - side) / 2));
      const { data } = canvas.getContext('2d').getImageData(...from, side, side);
      const pixels = [];
      for (let i = 0; i < data.length; i += 4) pixels.push(data[i + 1]);
      let grain = 0;
      for (let i = 1; i < pixels.length; i++) grain += Math.abs(pixels[i] - pixels[i - 1]);
      return { grain: grain / pixels.length, mean: pixels.reduce((a, b) => a + b) / pixels.length, pixels };
    })()`,
  ) as Promise<Look>;

const farthest = (a: Look, b: Look) =>
  a.pixels.reduce((most, value, i) => Math.max(most, Math.abs(value - b.pixels[i])), 0);

describe('painting a photo', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  let photo: Look;
  let brushed: Look;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const ways = () => page.getByRole('group', { name: 'Ways of painting' });
  /** The picture once nothing is measured any more, and it is drawn finely. */
  const now = async (view = 'styled') => {
    await idle(page);
    await page.locator(`canvas[data-view="${view}"][data-fine="yes"]`).waitFor();
    return lookOf(page, view);
  };
  /** The picture as soon as it is what is waited for; the last one seen where it never is. */
  const when = async (holds: (look: Look) => boolean): Promise<Look> => {
    let look = await now();
    for (let k = 0; k < 600 && !holds(look); k++) {
      await page.evaluate('new Promise(requestAnimationFrame)');
      look = await now();
    }
    return look;
  };
  const until = (words: RegExp) => dials().getByText(words).first().waitFor();

  before(async () => {
    stage = await openStage(['pamments'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/style`);
    await onFloor(page, 'styled', 512);
    photo = await now();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('offers ways of painting, each as the tile would look, and has changed nothing yet', async () => {
    await until(/The picture is kept as it is/);
    await page.waitForFunction('document.querySelectorAll("canvas[data-made]").length === 5');
    for (const name of ['Clean shapes', 'Dry brush', 'Thick paint', 'Carved', 'Ink and wash']) {
      expect(await ways().getByRole('button', { name }).count(), name).to.equal(1);
    }
    const pictures = (await page.evaluate(
      `[...document.querySelectorAll('canvas[data-made]')].map((canvas) => canvas.toDataURL())`,
    )) as string[];
    expect(new Set(pictures).size).to.equal(5);
    expect(await verdictOf(page, 'style')).to.include('not painted');
  });

  it('one press paints the tile, its mean stays, and it says what it did', async () => {
    await ways().getByRole('button', { name: 'Dry brush' }).click();
    await until(/simplified away, shapes below \d+ mm/);
    brushed = await when((look) => farthest(look, photo) > 30);
    expect(farthest(brushed, photo)).to.be.above(30);
    expect(Math.abs(brushed.mean - photo.mean)).to.be.below(4);
    expect(await verdictOf(page, 'style')).to.match(/\d+ colours/);
  });

  it('less of it is nearer to the photo, none of it the photo, and undo paints it again', async () => {
    const amount = dials().getByRole('textbox', { name: 'Amount' });
    await amount.fill('0.3');
    await amount.press('Enter');
    const off = (look: Look) =>
      look.pixels.reduce((sum, value, i) => sum + Math.abs(value - photo.pixels[i]), 0);
    const some = await when((look) => off(look) < 0.9 * off(brushed));
    await ways().getByRole('button', { name: 'As it is' }).click();
    await until(/The picture is kept as it is/);
    expect(farthest(await when((look) => farthest(look, photo) === 0), photo)).to.equal(0);
    expect(off(some)).to.be.within(1, 0.9 * off(brushed));
    for (let k = 0; k < 2; k++) await page.getByRole('button', { name: /^Undo: Style/ }).click();
    await until(/simplified away/);
    expect(farthest(await when((look) => farthest(look, brushed) === 0), brushed)).to.equal(0);
  });

  it('the simplified picture can be looked at, and bands of its height are left out by their pictures', async () => {
    await page.getByRole('button', { name: 'Simplified' }).click();
    await onFloor(page, 'simplified', 512);
    expect((await now('simplified')).grain).to.be.below(brushed.grain);
    await page.getByRole('button', { name: 'Painted', exact: true }).first().click();
    const bands = dials().getByRole('group', { name: 'Bands in the height' });
    await bands.scrollIntoViewIfNeeded();
    expect(await bands.getByRole('button').count()).to.equal(6);
    await bands.locator('canvas[data-made]').first().waitFor();
    await bands.getByRole('button').last().click();
    expect(await bands.getByRole('button').last().getAttribute('aria-pressed')).to.equal('false');
  });

  it('every map after it is of the painted tile, and it is kept over a reload', async () => {
    await saved(page);
    await page.goto(`${stage.url}/tiles/${id}/gauge`);
    await onFloor(page, 'albedo', 512);
    const albedo = await now('albedo');
    await page.goto(`${stage.url}/tiles/${id}/style`);
    await onFloor(page, 'styled', 512);
    await until(/simplified away/);
    const again = await when((look) => farthest(look, brushed) <= 1);
    expect(farthest(again, brushed)).to.be.at.most(1);
    // Gauge changes brightness, not what is where.
    expect(albedo.grain / albedo.mean).to.be.within(
      (0.5 * again.grain) / again.mean,
      (1.5 * again.grain) / again.mean,
    );
  });
});
