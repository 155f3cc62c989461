import { cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoPicture } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { copyTiles, onFloor, openStage, type Stage, undo } from './stage.ts';

const card = (page: Page, name: string) => page.locator(`[data-tile="${name}"]`);
const sheet = (page: Page) => page.getByRole('complementary', { name: /^About/ });
const chip = (page: Page, tag: string) =>
  page.getByRole('group', { name: 'Tags in use' }).getByRole('button', { name: tag });
const names = (page: Page) =>
  page.locator('[data-tile]').evaluateAll((all) => all.map((one) => one.getAttribute('data-tile')));

/** Chooses a tile and waits for its own sheet: that of another may still be shown when the click returns. */
async function choose(page: Page, name: string) {
  const heading = sheet(page).getByRole('heading', { name, exact: true });
  if (await heading.isVisible()) return;
  await card(page, name).click();
  await heading.waitFor();
}

async function more(page: Page, item: string) {
  await sheet(page).getByRole('button', { name: 'More …' }).click();
  await page.getByRole('menuitem', { name: item }).click();
}

describe('the Yard', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage(['stucco', 'ripples'], 512);
    page = await stage.page();
    await page.goto(stage.url);
    await page.getByRole('img', { name: 'Limewashed stucco, tiled 2 × 2' }).waitFor();
    await page.getByRole('img', { name: 'Salt-pan ripples, tiled 2 × 2' }).waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('walks a newcomer over a tile in five steps that end with a crate', async () => {
    const note = page.getByRole('note', { name: 'Getting started' });
    await note.getByRole('button', { name: 'Walk me through' }).click();
    const step = (n: number) => page.getByRole('dialog', { name: `Walk, step ${n} of 5` });
    for (const [n, title, station] of [
      [1, 'The Course', 'source'],
      [2, 'The Floor', 'join'],
      [3, 'Dials and verdict', 'gauge'],
      [4, 'The Sill', 'relief'],
    ] as const) {
      await step(n).getByRole('heading', { name: title }).waitFor();
      await page.waitForURL(new RegExp(`/${station}$`));
      await step(n).getByRole('button', { name: 'Next' }).click();
    }
    await step(5).getByRole('button', { name: 'Crate it' }).click();
    await step(5).waitFor({ state: 'detached' });
    await page.getByText(/Crate 1, ready/).waitFor();
    await page.goto(stage.url);
    await page.getByRole('img', { name: 'Salt-pan ripples, tiled 2 × 2' }).waitFor();
    expect(await note.count()).to.equal(0);
    await page.evaluate('localStorage.clear()');
    await page.reload();
  });

  it('says three sentences at the first visit, and never again', async () => {
    const note = page.getByRole('note', { name: 'Getting started' });
    expect((await note.textContent())?.match(/[.](?= |$|Got|Walk)/g)).to.have.length(3);
    await note.getByRole('button', { name: 'Got it' }).click();
    await note.waitFor({ state: 'detached' });
    await page.reload();
    await page.getByRole('img', { name: 'Salt-pan ripples, tiled 2 × 2' }).waitFor();
    expect(await note.count()).to.equal(0);
  });

  it('the chosen tile opens a sheet with a lit ball, maps, figures, the last crate and what to do next', async () => {
    await choose(page, 'Salt-pan ripples');
    const about = sheet(page);
    const ball = about.getByRole('img', { name: 'Salt-pan ripples on a lit ball' });
    await ball.waitFor();
    for (const picture of [
      ball,
      about.getByRole('img', { name: 'Normal' }),
      about.getByRole('img', { name: 'Height' }),
    ]) {
      expect(
        await picture.evaluate((img) =>
          (img as HTMLImageElement).decode().then(() => (img as HTMLImageElement).naturalWidth),
        ),
      ).to.be.above(50);
    }
    await about.getByText('none yet').waitFor();
    expect(await about.textContent()).to.match(/Gauge▲ no line chosen/);
    await about.getByRole('link', { name: 'Open station' }).click();
    await page.waitForURL(/\/tiles\/[\w-]+\/(join|gauge|finish)$/);
    await page.goBack();
    await card(page, 'Salt-pan ripples').waitFor();
  });

  it('finds by name and tag, filters by the worst verdict, and sorts', async () => {
    const search = page.getByRole('searchbox', { name: 'Find by name or tag' });
    await search.fill('wall');
    await card(page, 'Salt-pan ripples').waitFor({ state: 'detached' });
    expect(await names(page)).to.deep.equal(['Limewashed stucco']);
    await search.fill('nothing like it');
    await page.getByText('No tile in Limonaia matches.').waitFor();
    await page.getByRole('button', { name: 'Show all' }).click();
    await chip(page, 'ground').click();
    await card(page, 'Limewashed stucco').waitFor({ state: 'detached' });
    await chip(page, 'ground').click();
    await page.getByRole('combobox', { name: 'Worst verdict' }).click();
    await page.getByRole('option', { name: '✓ fine' }).click();
    await card(page, 'Salt-pan ripples').waitFor({ state: 'detached' });
    expect(await names(page)).to.deep.equal(['Limewashed stucco']);
    await page.getByRole('combobox', { name: 'Worst verdict' }).click();
    await page.getByRole('option', { name: 'Any verdict' }).click();
    await card(page, 'Salt-pan ripples').waitFor();
    expect(await names(page)).to.deep.equal(['Salt-pan ripples', 'Limewashed stucco']);
    await page.getByRole('combobox', { name: 'Order' }).click();
    await page.getByRole('option', { name: 'By name' }).click();
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    expect(await names(page)).to.deep.equal(['Limewashed stucco', 'Salt-pan ripples']);
  });

  it('a tag is written on the sheet and becomes a chip', async () => {
    await choose(page, 'Limewashed stucco');
    const tags = sheet(page).getByRole('combobox', { name: 'Tags' });
    await tags.fill('North Side');
    await tags.press('Enter');
    await chip(page, 'north side').waitFor();
    // The chip stands at once; the server has it a moment later.
    await page.waitForFunction(
      `fetch('/api/tiles').then((answer) => answer.json()).then(({ tiles }) =>
        tiles.some(({ name, tags }) => name === 'Limewashed stucco' && tags.includes('north side')))`,
    );
  });

  it('a tile is duplicated, renamed, moved and deleted, and deleting can be undone', async () => {
    await more(page, 'Duplicate');
    await card(page, 'Limewashed stucco copy').getByRole('img').waitFor();
    await choose(page, 'Limewashed stucco copy');
    await more(page, 'Rename …');
    await page.getByRole('textbox', { name: 'Name of the tile' }).fill('Limewash, test patch');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await card(page, 'Limewash, test patch').waitFor();

    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('textbox', { name: 'Name of the project' }).fill('Trials');
    await page.getByRole('button', { name: 'Make it' }).click();
    await page.getByRole('tab', { name: 'Trials 0', selected: true }).waitFor();
    await page.getByRole('tab', { name: /Limonaia/ }).click();
    await choose(page, 'Limewash, test patch');
    await more(page, 'Move to Trials');
    await card(page, 'Limewash, test patch').waitFor({ state: 'detached' });
    await undo(page, 'is in Trials now');
    await card(page, 'Limewash, test patch').waitFor();
    await page.getByText('is in Trials now').waitFor({ state: 'detached' });
    await choose(page, 'Limewash, test patch');
    await more(page, 'Move to Trials');
    await page.getByRole('tab', { name: 'Trials 1' }).click();
    await choose(page, 'Limewash, test patch');
    await more(page, 'Delete');
    await card(page, 'Limewash, test patch').waitFor({ state: 'detached' });
    await page.getByRole('tab', { name: 'Trials 0' }).waitFor();
    await undo(page, 'was deleted');
    await card(page, 'Limewash, test patch').waitFor();
  });

  it('what was done is said with its own Undo even where the lists come late', async () => {
    let answer = () => {};
    const held = new Promise<void>((resolve) => {
      answer = resolve;
    });
    const lists = /\/api\/(projects|crates)/;
    await choose(page, 'Limewash, test patch');
    await page.route(lists, async (route) => {
      await held;
      await route.continue();
    });
    await more(page, 'Move to Limonaia');
    await page.getByText('is in Limonaia now').waitFor();
    await card(page, 'Limewash, test patch').waitFor({ state: 'detached' });
    await undo(page, 'is in Limonaia now');
    await card(page, 'Limewash, test patch').waitFor();
    answer();
    await page.unroute(lists);
    await page.getByRole('tab', { name: 'Trials 1' }).waitFor();
  });

  it('a project is renamed and deleted with its tiles, and deleting can be undone', async () => {
    await page.getByRole('button', { name: 'Rename or delete Trials' }).click();
    await page.getByRole('menuitem', { name: 'Rename project …' }).click();
    await page.getByRole('textbox', { name: 'Name of the project' }).fill('   ');
    expect(await page.getByRole('button', { name: 'Rename', exact: true }).isDisabled()).to.equal(true);
    await page.getByRole('textbox', { name: 'Name of the project' }).fill('Second try');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await page.getByRole('button', { name: 'Rename or delete Second try' }).click();
    await page.getByRole('menuitem', { name: 'Delete project with its 1 tiles' }).click();
    await page.getByRole('tab', { name: /Second try/ }).waitFor({ state: 'detached' });
    await undo(page, '“Second try” was deleted.');
    await page.getByRole('tab', { name: 'Second try 1' }).waitFor();
  });

  it('a folder dropped at once becomes a tile for each picture; what is refused is said and the rest goes on', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'zesty-drop-'));
    try {
      await cp(demoPicture('stucco'), join(folder, 'first.jpg'));
      await cp(demoPicture('ripples'), join(folder, 'second.jpg'));
      await import('node:fs/promises').then(({ writeFile }) =>
        Promise.all([
          writeFile(join(folder, 'notes.txt'), 'notes'),
          writeFile(join(folder, 'broken.jpg'), 'no'),
        ]),
      );
      await page.getByRole('tab', { name: /Second try/ }).click();
      await page.getByLabel('Folder to make tiles from').setInputFiles(folder);
      await page.getByRole('tab', { name: 'Second try 3' }).waitFor();
      await page.getByText(/broken\.jpg: The file is not a picture/).waitFor();
      await card(page, 'first').waitFor();
      await card(page, 'second').waitFor();
      expect(await page.getByText(/notes\.txt/).count()).to.equal(0);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  it('three hundred tiles are in the Yard, only those in sight are drawn, and the last can be reached', async () => {
    await copyTiles(stage, 300);
    await page.goto(stage.url);
    await page.getByRole('tab', { name: /Limonaia 302/ }).waitFor();
    await card(page, 'Copy 300').getByRole('img').waitFor();
    expect(await page.locator('[data-tile]').count()).to.be.within(8, 60);
    const asked: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    await page.getByTestId('tiles').evaluate((element) => element.scrollTo(0, element.scrollHeight));
    await card(page, 'Limewashed stucco').getByRole('img').waitFor();
    expect(await page.locator('[data-tile]').count()).to.be.within(8, 60);
    expect(asked.filter((url) => /\/look$/.test(url))).to.deep.equal([]);
  });

  it('an empty Yard says the next step, and the first photo makes a project of its own', async () => {
    const empty = await openStage([]);
    const first = await empty.page();
    await first.goto(empty.url);
    await first.getByText(/The Yard is empty.*npm run demo/).waitFor();
    await first.getByLabel('Photos for new tiles').setInputFiles(demoPicture('stucco'));
    await first.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await onFloor(first, 'photo');
    await first.getByRole('link', { name: 'First surfaces' }).click();
    await first.getByRole('tab', { name: 'First surfaces 1' }).waitFor();
    await first.context().close();
    await empty.end();
  });

  it('no page met an error of its own on the way', () => {
    expect(stage.faults.filter((fault) => !/status of 422/.test(fault))).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
