import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoPicture } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page, Route } from 'playwright-core';
import sharp from 'sharp';
import { onFloor, openStage, type Stage } from './stage.ts';

const card = (page: Page, name: string) => page.locator(`[data-tile="${name}"]`);

/** Holds every upload back until it is let through, one by one. */
async function holdUploads(page: Page) {
  const held: Route[] = [];
  let arrived = () => {};
  await page.route('**/api/sources', (route) => {
    held.push(route);
    arrived();
  });
  return {
    /** Lets the next upload through, once it has been asked for. */
    async release() {
      while (held.length === 0) {
        await new Promise<void>((resolve) => {
          arrived = resolve;
        });
      }
      await held.shift()?.continue();
    },
    stop: () => page.unroute('**/api/sources'),
  };
}

describe('an import of several files', () => {
  let stage: Stage;
  let page: Page;
  let folder = '';
  let files: string[] = [];
  before(async () => {
    stage = await openStage(['stucco', 'ripples']);
    folder = await mkdtemp(join(tmpdir(), 'zesty-import-'));
    files = ['first', 'second', 'third'].map((name) => join(folder, `${name}.jpg`));
    for (const [k, id] of (['stucco', 'ripples', 'stucco'] as const).entries()) {
      // Small, so that what is measured when each is set up is quick.
      await sharp(demoPicture(id)).resize(400).jpeg().toFile(files[k]);
    }
    page = await stage.page({ strict: true });
    await page.goto(stage.url);
    await page.getByRole('img', { name: 'Limewashed stucco, tiled 2 × 2' }).waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
    await rm(folder, { recursive: true, force: true });
  });

  it('shows count and progress, goes on while other pages are open, and loses nothing', async function () {
    // Each of three tiles is measured and saved, beside two other pages.
    this.timeout(300_000);
    const uploads = await holdUploads(page);
    await page.getByLabel('Photos for new tiles').setInputFiles(files);
    await page.getByText('1 of 3: Reading first.jpg …').waitFor();
    await page.getByRole('progressbar', { name: 'Reading first.jpg' }).waitFor();
    await page.getByRole('link', { name: 'Charts' }).click();
    const note = page.getByRole('status', { name: 'Import' });
    await note.getByText('Importing 1 of 3').waitFor();
    await uploads.release();
    await note.getByText('Importing 2 of 3').waitFor();
    await uploads.release();
    await note.getByText('Importing 3 of 3').waitFor();
    await uploads.release();
    await note.waitFor({ state: 'detached' });
    await uploads.stop();
    await page.getByRole('link', { name: 'Yard', exact: true }).click();
    for (const name of ['first', 'second', 'third']) await card(page, name).waitFor();
    await page.getByRole('tab', { name: 'Limonaia 5' }).waitFor();
  });

  it('is cancelled from any page: nothing of it stays, unless one wants it', async () => {
    const uploads = await holdUploads(page);
    await page.getByLabel('Photos for new tiles').setInputFiles(files);
    await uploads.release();
    await page.getByText('2 of 3: Reading second.jpg …').waitFor();
    await page.getByRole('link', { name: 'Charts' }).click();
    await page.getByRole('status', { name: 'Import' }).getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('status', { name: 'Import' }).waitFor({ state: 'detached' });
    await uploads.stop();
    await page.getByRole('link', { name: 'Yard', exact: true }).click();
    await page.getByText('Import cancelled; nothing was imported.').waitFor();
    await page.getByRole('tab', { name: 'Limonaia 5' }).waitFor();
    await page.getByRole('button', { name: 'Keep the one tile made before' }).click();
    await page.getByRole('tab', { name: 'Limonaia 6' }).waitFor();
    // The next import starts from the beginning, and a picture alone opens.
    await page.getByLabel('Photos for new tiles').setInputFiles(files[2]);
    await page.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await onFloor(page, 'photo');
    await page.getByRole('link', { name: 'Yard', exact: true }).click();
    await page.getByRole('tab', { name: 'Limonaia 7' }).waitFor();
    expect(await page.getByText('Import cancelled').count()).to.equal(0);
  });

  it('a picture alone does not take one from a page that was opened meanwhile', async () => {
    const uploads = await holdUploads(page);
    await page.getByLabel('Photos for new tiles').setInputFiles(files[0]);
    await page.getByText('Reading first.jpg …').waitFor();
    await page.getByRole('link', { name: 'Charts' }).click();
    await uploads.release();
    await page.getByRole('status', { name: 'Import' }).waitFor({ state: 'detached' });
    await uploads.stop();
    expect(new URL(page.url()).pathname).to.equal('/charts');
    await page.getByRole('link', { name: 'Yard', exact: true }).click();
    await page.getByRole('tab', { name: 'Limonaia 8' }).waitFor();
  });

  it('no page met an error on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
