import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage, saved, station, verdictOf } from './stage.ts';

const sharp = createRequire(new URL('../../codecs/package.json', import.meta.url))('sharp');

/** Nothing is computed any more. */
const idle = (page: Page) =>
  page.waitForFunction('document.querySelectorAll(\'[data-station] [role="progressbar"]\').length === 0');

describe('seen as the game will show it', () => {
  let stage: Stage;
  let page: Page;

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['copper'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/proof`);
    await page.locator('[data-sill="lit"]').waitFor();
    await onFloor(page, 'albedo');
    await idle(page);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  const spots = () => page.getByRole('list', { name: 'Spots' }).getByRole('listitem');
  const choose = async (of: string, name: string) => {
    await page.getByRole('combobox', { name: of }).click();
    await page.getByRole('option', { name, exact: true }).click();
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  };
  /** A still of the Sill as grey means of its middle and as a whole picture. */
  const still = async () => {
    await page.getByRole('button', { name: 'Light …' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Still of 1024 px' }).click(),
    ]);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog', { name: 'Light of the Sill' }).waitFor({ state: 'detached' });
    const bytes = await readFile(await download.path());
    const { width, height } = await sharp(bytes).metadata();
    expect([width, height]).to.deep.equal([1024, 1024]);
    const { data } = await sharp(bytes)
      .flatten({ background: '#000' })
      .resize(64, 64)
      .raw()
      .toBuffer({ resolveWithObject: true });
    return [...data] as number[];
  };
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const apart = (a: number[], b: number[]) => mean(a.map((value, i) => Math.abs(value - b[i])));

  it('numbers what will be seen repeating, and tones it down where it is asked to', async () => {
    await spots().first().waitFor();
    const count = Number(/(\d+) spots? repeat/.exec(await verdictOf(page, 'proof'))![1]);
    expect(await spots().count()).to.equal(Math.min(8, count));
    expect(await page.locator('g[data-repeat]').count()).to.equal(Math.min(8, count));
    const told = (test: string) =>
      page.waitForFunction(
        `Number(/(\\d+) spots? repeat/.exec(document.querySelector('[data-station="proof"]').textContent)?.[1] ?? 0) ${test}`,
      );
    const first = (await spots().first().textContent())!;
    const firstIs = (same: boolean) =>
      page.waitForFunction(
        `(document.querySelector('[aria-label="Spots"] > li')?.textContent === ${JSON.stringify(first)}) === ${same}`,
      );
    await page.getByRole('button', { name: 'Tone spot 1 down' }).click();
    await page.getByText('1 spot is toned down').waitFor();
    await firstIs(false);
    await saved(page);
    await page.getByRole('button', { name: /^Undo: Join/ }).click();
    await firstIs(true);
    await page.getByRole('button', { name: 'Tone all down' }).click();
    await page.getByText('8 spots are toned down').waitFor();
    await told(`<= ${count - 4}`);
    await page.getByRole('button', { name: /^Undo: Join/ }).click();
    await told(`=== ${count}`);
  });

  it('the tile is laid eight times each way, and every verdict leads to its station', async () => {
    await page.getByRole('button', { name: '8 × 8' }).click();
    await page.getByRole('img', { name: /laid 8 × 8/ }).waitFor();
    await page.getByRole('button', { name: '2 × 2' }).click();
    const all = page.getByRole('region', { name: 'All verdicts' });
    await all.getByText(/Roughness runs from/).waitFor();
    await all.getByRole('link', { name: 'Finish' }).click();
    await onFloor(page, 'roughness');
    await page.keyboard.press('8');
    await page.locator('[data-station="proof"][aria-current="step"]').waitFor();
  });

  it('the Sill shows every shape in every surroundings; each still is another picture', async () => {
    const seen: number[][] = [];
    for (const shape of ['Ball', 'Block', 'Post', 'Nook', 'Slab']) {
      await page.getByRole('button', { name: shape, exact: true }).click();
      seen.push(await still());
    }
    for (const around of ['Noon terrace', 'Lemon house', 'Dusk', 'White studio']) {
      await choose('What lies around', around);
      seen.push(await still());
    }
    for (let a = 0; a < seen.length; a++) {
      expect(mean(seen[a]), `still ${a}`).to.be.above(3);
      for (let b = a + 1; b < seen.length; b++)
        expect(apart(seen[a], seen[b]), `${a} and ${b}`).to.be.above(1);
    }
    await choose('What lies around', 'Overcast');
  });

  it('sheen alone is darker than all of it, light alone brighter; a stop of exposure brightens', async () => {
    const finished = await still();
    await choose('What the Sill shows', 'Sheen only');
    expect(mean(await still())).to.be.below(0.8 * mean(finished));
    await choose('What the Sill shows', 'Light only');
    expect(mean(await still())).to.be.above(mean(finished));
    await choose('What the Sill shows', 'Side light');
    expect(apart(await still(), finished)).to.be.above(2);
    await choose('What the Sill shows', 'Finished');
    await page.getByRole('button', { name: 'Light …' }).click();
    const exposure = page.getByRole('textbox', { name: 'Exposure, figure' });
    await exposure.fill('1');
    await exposure.press('Enter');
    await page.keyboard.press('Escape');
    await page.getByRole('dialog', { name: 'Light of the Sill' }).waitFor({ state: 'detached' });
    expect(mean(await still())).to.be.above(1.15 * mean(finished));
  });

  it('a shape of one’s own is taken from an OBJ file; one without texture coordinates is refused in words', async () => {
    const roof = ['v -1 0 1', 'v 1 0 1', 'v 1 1 0', 'v -1 1 0', 'vt 0 0', 'vt 1 0', 'vt 1 1', 'vt 0 1'];
    const give = (text: string, name = 'roof.obj') =>
      page
        .getByLabel('Shape file')
        .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    const before = await still();
    await page.getByRole('button', { name: 'Light …' }).click();
    await give([...roof, 'f 1 2 3', 'f 1 3 4'].join('\n'));
    await page.getByText(/has texture coordinates/).waitFor();
    await give('nothing', 'roof.xyz');
    await page.getByText(/is no shape this program reads/).waitFor();
    await give([...roof, 'f 1/1 2/2 3/3', 'f 1/1 3/3 4/4'].join('\n'));
    await page.getByText('roof.obj').waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('dialog', { name: 'Light of the Sill' }).waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Own', exact: true, pressed: true }).waitFor();
    const own = await still();
    expect(mean(own)).to.be.above(2);
    expect(apart(own, before)).to.be.above(2);
    await page.getByRole('button', { name: 'Slab', exact: true }).click();
  });

  it('one key lets the sun go round', async () => {
    const sun = page.getByRole('slider', { name: /^Sun:/ });
    const before = await sun.getAttribute('aria-valuenow');
    await station(page, 'proof').focus();
    await page.keyboard.press('o');
    await page.waitForFunction(
      `document.querySelector('[aria-label^="Sun:"]').getAttribute('aria-valuenow') !== '${before}'`,
    );
    await page.keyboard.press('o');
  });

  it('the project’s texel density is set in the Yard, and Proof holds the tile against it', async () => {
    const proof = page.url();
    await page.goto(stage.url);
    const field = page.getByRole('textbox', { name: /^Texel density of the project/ });
    await field.fill('256');
    await field.press('Enter');
    await page.goto(proof);
    await page.getByTestId('density').getByText('759 px per metre; the project wants 256').waitFor();
    await page.getByTestId('density').getByText('Choose another size or edge in Square.').waitFor();
    await idle(page);
  });

  it('a proof sheet fits one page: the tile laid, lit, its maps, verdicts and conventions', async () => {
    await page.getByRole('link', { name: 'Proof sheet' }).click();
    await page.getByRole('heading', { name: 'Verdigris copper' }).waitFor();
    await page.getByRole('img', { name: /laid 3 × 3/ }).waitFor();
    await page.waitForFunction(
      '[...document.images].length > 5 && [...document.images].every((one) => one.complete && one.naturalWidth > 0)',
    );
    await page.getByRole('rowheader', { name: 'Proof' }).waitFor();
    await page.getByText('green up (+Y), 8 bit').waitFor();
    const pdf = (await page.pdf({ preferCSSPageSize: true, printBackground: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b/g)).to.have.length(1);
    await page.getByRole('link', { name: 'Back to Proof' }).click();
    await onFloor(page, 'albedo');
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
