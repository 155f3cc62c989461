import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage, saved, station } from './stage.ts';

const amount = (page: Page) => page.getByRole('textbox', { name: 'Amount, figure' });

async function setAmount(page: Page, value: string) {
  await amount(page).fill(value);
  await amount(page).press('Enter');
}

describe('nothing is lost', () => {
  let stage: Stage;
  let url = '';
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const answer = await fetch(`${stage.url}/api/tiles`);
    const { tiles } = await answer.json();
    url = `${stage.url}/tiles/${tiles[0].id}/even`;
  });
  after(() => stage.end());

  it('while the server is away work goes on, is kept in the browser, and is saved when it is back', async () => {
    const page = await stage.page();
    await page.goto(url);
    await onFloor(page, 'evened');
    await stage.stop();
    await setAmount(page, '0.5');
    await page
      .getByTestId('saved')
      .getByText(/Offline/)
      .waitFor();
    await onFloor(page, 'evened');
    await stage.restart();
    await saved(page);
    const other = await stage.page();
    await other.goto(url);
    await onFloor(other, 'evened');
    expect(await amount(other).inputValue()).to.equal('0.50');
    await other.context().close();
    await page.context().close();
  });

  it('a page that is closed before it could save comes back with its change', async () => {
    const page = await stage.page();
    await page.goto(url);
    await onFloor(page, 'evened');
    await page.route('**/revisions', (route) => route.abort());
    await setAmount(page, '0.25');
    await page
      .getByTestId('saved')
      .getByText(/Offline/)
      .waitFor();
    await page.close({ runBeforeUnload: false });
    const again = await page.context().newPage();
    await again.goto(url);
    await onFloor(again, 'evened');
    expect(await amount(again).inputValue()).to.equal('0.25');
    await saved(again);
    await again.context().close();
  });

  it('a page that is left while its save is under way meets no conflict with itself', async () => {
    const page = await stage.page();
    await page.goto(url);
    await onFloor(page, 'evened');
    const arrived = new Promise<void>((resolve) => {
      // The server takes it, but its answer never comes.
      void page.route('**/revisions', async (route) => {
        await route.fetch();
        resolve();
      });
    });
    await setAmount(page, '0.35');
    await arrived;
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    await page.close({ runBeforeUnload: false });
    const again = await page.context().newPage();
    await again.goto(url);
    await onFloor(again, 'evened');
    expect(await amount(again).inputValue()).to.equal('0.35');
    await again
      .getByTestId('saved')
      .getByText(/^Saved/)
      .waitFor();
    expect(await again.getByRole('dialog').count()).to.equal(0);
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${tiles[0].id}`)).json();
    expect(revision.recipe.stations.even.amount).to.equal(0.35);
    await again.context().close();
  });

  it('two windows on one tile: the conflict is said, and either version can be gone on with', async () => {
    const [one, two] = [await stage.page(), await stage.page()];
    for (const page of [one, two]) {
      await page.goto(url);
      await onFloor(page, 'evened');
    }
    await setAmount(one, '0.7');
    await saved(one);
    await setAmount(two, '0.3');
    await two
      .getByRole('dialog')
      .getByText(/changed in another window/)
      .waitFor();
    await two.getByRole('button', { name: 'Take the other version' }).click();
    await two.getByRole('dialog').waitFor({ state: 'detached' });
    await two.getByRole('button', { name: /^Undo: Version \d+ taken/ }).waitFor();
    expect(await amount(two).inputValue()).to.equal('0.70');
    await saved(two);
    await setAmount(two, '0.6');
    await saved(two);
    await setAmount(one, '0.9');
    await one.getByRole('button', { name: 'Save mine on top' }).click();
    await saved(one);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    const revisions = await (await fetch(`${stage.url}/api/tiles/${tiles[0].id}/revisions`)).json();
    const amounts = await Promise.all(
      revisions.revisions.slice(0, 4).map(async ({ number }: { number: number }) => {
        const { revision } = await (
          await fetch(`${stage.url}/api/tiles/${tiles[0].id}/revisions/${number}`)
        ).json();
        return revision.recipe.stations.even.amount;
      }),
    );
    expect(amounts).to.deep.equal([0.9, 0.6, 0.7, 0.3]);
    await one.context().close();
    await two.context().close();
  });

  it('a crate can be stopped from the Bench', async () => {
    const page = await stage.page();
    await page.goto(url.replace(/even$/, 'square'));
    await onFloor(page, 'photo');
    await page.getByRole('combobox', { name: 'Size' }).click();
    await page.getByRole('option', { name: '2048 px' }).click();
    await saved(page);
    await station(page, 'crate').click();
    await page.getByRole('button', { name: 'Crate it' }).click();
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByText(/Crate 1, stopped/).waitFor();
    expect(await page.getByRole('link', { name: 'Download zip' }).count()).to.equal(0);
    await page.context().close();
  });

  it('the interface thread stays free while a picture is computed', async () => {
    const page = await stage.page();
    await page.goto(url);
    await onFloor(page, 'evened');
    await setAmount(page, '0.41');
    await page.locator('[data-station] [role="progressbar"]').first().waitFor();
    const box = (await page.locator('canvas[data-view="evened"]').boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.getByTestId('readout').getByText(/sRGB/).waitFor();
    expect(await page.locator('[data-station] [role="progressbar"]').count()).to.be.above(0);
    await setAmount(page, '0.43');
    expect(await amount(page).inputValue()).to.equal('0.43');
    await page.context().close();
  });
});
