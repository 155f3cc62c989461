import { demoPicture } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage } from './stage.ts';

const bar = (page: Page) => page.getByRole('region', { name: 'Setup' });
const proposal = (page: Page, id: string) => page.locator(`[data-proposal="${id}"]`);

describe('a photo that is dropped sets itself up', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage([]);
    page = await stage.page();
    await page.goto(stage.url);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  const recipeOf = async () => {
    const id = /tiles\/([\w-]+)/.exec(page.url())![1];
    return (await (await fetch(`${stage.url}/api/tiles/${id}`)).json()).revision.recipe.stations;
  };

  it('opens as a tile whose stations find at most one thing to look at', async () => {
    await page.getByLabel('Photos for new tiles').setInputFiles(demoPicture('pamments'));
    await page.getByRole('progressbar', { name: 'Reading limonaia-pamments.jpg' }).waitFor();
    await page.getByText('Setting up limonaia-pamments.jpg …').waitFor();
    await page.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await bar(page).waitFor();
    const course = page.getByRole('navigation', { name: 'Course' });
    await page.waitForFunction(
      `document.querySelectorAll('[data-station]').length === 11 &&
        [...document.querySelectorAll('[data-station]')].every((stop) => !/…$/.test(stop.textContent))`,
    );
    expect(await course.getByText(/[▲✕]/).count()).to.be.at.most(1);
    const { gauge, finish, relief } = await recipeOf();
    expect(gauge.line).to.equal('fired-clay-red');
    expect(finish.line).to.equal('fired-clay-red');
    expect(relief.polarity).to.equal('dark');
  });

  it('says of each proposal why it was made, and takes it back', async () => {
    await proposal(page, 'level').click();
    const card = page.getByRole('dialog');
    await card.getByText(/Lines run 1\.\d\d° off level, in every part of the photo\./).waitFor();
    await card.getByRole('button', { name: 'Undo this' }).click();
    await card.getByRole('button', { name: 'Apply again' }).waitFor();
    await card.getByRole('link', { name: 'Show in Square' }).click();
    await page.waitForURL(/\/square$/);
    expect(await page.getByRole('textbox', { name: 'Rotation, figure' }).inputValue()).to.equal('0.00');
    const crossedOut = () =>
      proposal(page, 'level').evaluate((element) => getComputedStyle(element).textDecorationLine);
    expect(await crossedOut()).to.equal('line-through');
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.waitForFunction(
      `getComputedStyle(document.querySelector('[data-proposal="level"]')).textDecorationLine === 'none'`,
    );
  });

  it('offers the three nearest materials with their colours; one choice serves Gauge and Finish', async () => {
    await proposal(page, 'material').getByText('?').waitFor();
    await proposal(page, 'material').click();
    const answers = page.getByRole('group', { name: 'Other answers' }).getByRole('button');
    expect(await answers.count()).to.equal(3);
    const colours = await answers
      .locator('span')
      .evaluateAll((spans) => spans.map((span) => getComputedStyle(span).backgroundColor));
    const isGrey = (colour: string) => new Set(colour.match(/\d+/g)).size === 1;
    expect(colours.filter(isGrey)).to.deep.equal([]);
    const second = (await answers.nth(1).textContent())!;
    await answers.nth(1).click();
    await page.locator('[data-proposal="material"]', { hasText: second }).waitFor();
    await answers.nth(0).click();
    await page.keyboard.press('Escape');
    await proposal(page, 'material').filter({ hasText: 'Fired clay, red' }).waitFor();
    // What was chosen is no guess any more.
    expect(await proposal(page, 'material').textContent()).to.equal('GaugeFired clay, red');
  });

  it('asks for the edge once, and shows both readings of height lit', async () => {
    await proposal(page, 'edge').click();
    const edge = page.getByRole('dialog').getByRole('textbox', { name: 'Edge, figure' });
    await edge.fill('2.4');
    await edge.press('Enter');
    await page.getByRole('dialog').getByRole('button', { name: 'Confirm' }).click();
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await proposal(page, 'edge').filter({ hasText: 'Edge 2.4 m' }).waitFor();
    await proposal(page, 'reading').click();
    for (const way of ['bright', 'dark']) await page.locator(`[data-drawn="${way}"]`).waitFor();
    await page.getByRole('button', { name: 'Bright is high' }).click();
    await proposal(page, 'reading').filter({ hasText: 'Bright is high' }).waitFor();
    await page.keyboard.press('Escape');
  });

  it('is closed for good, and made again by a button at Source', async () => {
    await page.getByRole('button', { name: 'Close the setup' }).click();
    await bar(page).waitFor({ state: 'detached' });
    await page.reload();
    await page.locator('[data-station="source"]').click();
    await onFloor(page, 'photo');
    expect(await bar(page).count()).to.equal(0);
    await page.getByRole('button', { name: 'Set up from the photo' }).click();
    await page.getByRole('progressbar', { name: 'Setting up from the photo' }).waitFor();
    await bar(page).waitFor();
    expect(await proposal(page, 'edge').count()).to.equal(0);
    await proposal(page, 'reading').filter({ hasText: 'Dark is high' }).waitFor();
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
