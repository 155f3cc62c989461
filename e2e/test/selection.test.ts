import { readFile } from 'node:fs/promises';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { copyTiles, openStage, type Stage, undo } from './stage.ts';

const card = (page: Page, name: string) => page.locator(`[data-tile="${name}"]`);
const sheet = (page: Page, count: number) =>
  page.getByRole('complementary', { name: `${count} tiles selected` });
const selected = (page: Page) =>
  page
    .locator('[data-tile][aria-pressed="true"]')
    .evaluateAll((cards) => cards.map((one) => (one as HTMLElement).dataset.tile));

/** Names in a zip, by the local headers of its entries. */
function namesInZip(zip: Buffer): string[] {
  const names: string[] = [];
  for (let at = zip.indexOf('PK\x03\x04'); at >= 0; at = zip.indexOf('PK\x03\x04', at + 4)) {
    const length = zip.readUInt16LE(at + 26);
    names.push(zip.toString('utf8', at + 30, at + 30 + length));
  }
  return [...new Set(names)];
}

describe('several tiles of the Yard', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage(['stucco']);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    // Measured once, so that the copies are.
    await fetch(`${stage.url}/api/tiles/${tiles[0].id}/revisions/1/look`);
    await copyTiles(stage, 4);
    page = await stage.page();
    await page.goto(`${stage.url}/`);
    await card(page, 'Copy 1').waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  const tiles = async () => {
    const { projects } = await (await fetch(`${stage.url}/api/projects`)).json();
    const { tiles } = await (await fetch(`${stage.url}/api/tiles?project=${projects[0].id}`)).json();
    return tiles as { id: string; name: string; tags: string[] }[];
  };

  it('are selected by Ctrl, by Shift, all at once, and by a box; Escape lets them go', async () => {
    await card(page, 'Copy 1').click({ modifiers: ['Control'] });
    await card(page, 'Copy 3').click({ modifiers: ['Control'] });
    await sheet(page, 2).waitFor();
    expect((await selected(page)).sort()).to.deep.equal(['Copy 1', 'Copy 3']);
    await card(page, 'Copy 3').click({ modifiers: ['Control'] });
    await card(page, 'Copy 2').click({ modifiers: ['Shift'] });
    await page.keyboard.press('Control+a');
    await sheet(page, 5).waitFor();
    await page.keyboard.press('Escape');
    await sheet(page, 5).waitFor({ state: 'detached' });
    expect(await selected(page)).to.deep.equal([]);

    const one = (await card(page, 'Copy 1').boundingBox())!;
    const other = (await card(page, 'Copy 2').boundingBox())!;
    const left = Math.min(one.x, other.x);
    const bottom = Math.max(one.y + one.height, other.y + other.height);
    // From the space beside the one to the middle of the other.
    await page.mouse.move(left - 6, bottom + 4);
    await page.mouse.down();
    const right = Math.max(one.x, other.x);
    await page.mouse.move(right + 40, Math.min(one.y, other.y) + 40, { steps: 5 });
    await page.getByTestId('selection-box').waitFor();
    await page.mouse.up();
    await page.getByTestId('selection-box').waitFor({ state: 'detached' });
    expect(await selected(page)).to.include.members(['Copy 1', 'Copy 2']);
    await page.keyboard.press('Escape');
  });

  it('get a tag, and lose it again by undo', async () => {
    await card(page, 'Copy 1').click({ modifiers: ['Control'] });
    await card(page, 'Copy 2').click({ modifiers: ['Control'] });
    await sheet(page, 2).getByRole('textbox', { name: 'Tag for all' }).fill('Terrace');
    await sheet(page, 2).getByRole('button', { name: 'Add tag' }).click();
    await page.getByText('2 tiles tagged “terrace”.').waitFor();
    expect((await tiles()).filter(({ tags }) => tags.includes('terrace'))).to.have.length(2);
    await undo(page, 'tagged “terrace”');
    await page.getByRole('button', { name: /terrace/ }).waitFor({ state: 'detached' });
    expect((await tiles()).filter(({ tags }) => tags.includes('terrace'))).to.have.length(0);
  });

  it('are duplicated and deleted together; each deed is one undo', async () => {
    await sheet(page, 2).getByRole('button', { name: 'Duplicate' }).click();
    await page.getByText('2 tiles duplicated.').waitFor();
    await card(page, 'Copy 1 copy').waitFor();
    await undo(page, '2 tiles duplicated');
    await card(page, 'Copy 1 copy').waitFor({ state: 'detached' });
    await sheet(page, 2).getByRole('button', { name: 'Delete' }).click();
    await card(page, 'Copy 1').waitFor({ state: 'detached' });
    expect(await tiles()).to.have.length(3);
    await undo(page, '2 tiles deleted');
    await card(page, 'Copy 1').waitFor();
    expect(await tiles()).to.have.length(5);
  });

  it('take a saved recipe once what it changes in each is shown, and give it back', async () => {
    const headers = { 'Content-Type': 'application/json' };
    const { projects } = await (await fetch(`${stage.url}/api/projects`)).json();
    const saved = { version: 2, stations: { gauge: { exposure: 0.25 } } };
    const body = JSON.stringify({ name: 'Brighter', recipe: saved });
    const answer = await fetch(`${stage.url}/api/recipes`, { method: 'POST', headers, body });
    expect(answer.status, await answer.text()).to.equal(201);
    expect(projects).to.have.length(1);
    await card(page, 'Copy 1').click({ modifiers: ['Control'] });
    await card(page, 'Copy 2').click({ modifiers: ['Control'] });
    await sheet(page, 2).getByRole('button', { name: 'Apply a recipe …' }).click();
    const dialog = page.getByRole('dialog', { name: 'Apply a recipe to 2 tiles' });
    await dialog.getByRole('combobox', { name: 'Saved recipe' }).click();
    await page.getByRole('option', { name: 'Brighter' }).click();
    await dialog.getByText('1 setting changes').nth(1).waitFor();
    await dialog.getByRole('button', { name: 'Apply to 2 tiles' }).click();
    await page.getByText('“Brighter” applied to 2 tiles.').waitFor();
    const exposures = async () =>
      Promise.all(
        (await tiles())
          .filter(({ name }) => ['Copy 1', 'Copy 2'].includes(name))
          .map(async ({ id }) => {
            const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
            return revision.recipe.stations.gauge.exposure;
          }),
      );
    expect(await exposures()).to.deep.equal([0.25, 0.25]);
    const before = page.waitForResponse((one) => /revisions$/.test(one.url()) && one.status() === 201);
    await undo(page, '“Brighter” applied');
    await before;
    await page.waitForLoadState('networkidle');
    expect(await exposures()).to.not.include(0.25);
  });

  it('are crated with one profile for all, and their crates come in one archive', async () => {
    await page.keyboard.press('Escape');
    await card(page, 'Copy 1').click({ modifiers: ['Control'] });
    await card(page, 'Copy 2').click({ modifiers: ['Control'] });
    expect(
      await sheet(page, 2)
        .getByText(/^Download/)
        .count(),
    ).to.equal(0);
    await sheet(page, 2).getByRole('button', { name: 'Crate 2 tiles …' }).click();
    const dialog = page.getByRole('dialog', { name: 'Crate several tiles' });
    await dialog.getByLabel('Profile').click();
    await page.getByRole('option', { name: 'Colour with occlusion in it, and normal' }).click();
    await dialog.getByRole('button', { name: 'Crate 2 tiles' }).click();
    await page.waitForURL(/\/crates$/);
    await page.getByText('2 ready').waitFor();
    await page.goto(stage.url);
    await card(page, 'Copy 1').click({ modifiers: ['Control'] });
    await card(page, 'Copy 2').click({ modifiers: ['Control'] });
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      sheet(page, 2).getByText('Download the newest 2 crates').click(),
    ]);
    expect(download.suggestedFilename()).to.equal('2 crates.zip');
    const names = namesInZip(await readFile(await download.path()));
    expect(names).to.have.length(6);
    for (const tile of ['Copy 1', 'Copy 2'])
      for (const ending of ['_colour.png', '_normal.png', '.tile.json'])
        expect(names).to.include(`${tile} 1/${tile}${ending}`);
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
