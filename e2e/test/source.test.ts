import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Manifest } from '@zesty-tile/crates';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import sharp, { type Sharp } from 'sharp';
import { normalsOf } from '../../codecs/test/normals.ts';
import { onFloor, openStage, type Stage } from './stage.ts';

const N = 256;

/** Domes in rows: a height whose normals tell where their green points. */
const height = Float32Array.from({ length: N * N }, (_, i) => {
  const [x, y] = [(i % 64) - 32, (Math.floor(i / N) % 64) - 32];
  const away = Math.hypot(x + 4 * Math.sin(Math.floor(i / N) / 20), y);
  return away < 26 ? Math.sqrt(1 - (away / 26) ** 2) : 0;
});

const grey = (plane: Float32Array, width = N) =>
  sharp(
    Uint8Array.from(plane, (v) => 255 * v),
    { raw: { width, height: plane.length / width, channels: 1 } },
  );

async function writeSet(folder: string): Promise<void> {
  const put = async (name: string, picture: Sharp) =>
    writeFile(join(folder, name), await picture.png().toBuffer());
  await put('Lemon crate_albedo.png', grey(height.map((v) => 0.3 + 0.4 * v)).toColourspace('srgb'));
  await writeFile(join(folder, 'Lemon crate_normal.png'), await normalsOf(height, N, 'down'));
  await put('Lemon crate_disp.png', grey(height));
  await put('Lemon crate_r.png', grey(height.map(() => 0.4)));
  await put('Lemon crate_ao.png', grey(new Float32Array(N * 128).fill(0.8)));
  // Occlusion, roughness and metallic in one picture, each plainly another.
  const packed = Uint8Array.from(
    { length: 3 * N * N },
    (_, i) => [255 * height[((i - 1) / 3) | 0], i % 256, 0][i % 3],
  );
  await put('Basket_ORM.png', sharp(packed, { raw: { width: N, height: N, channels: 3 } }));
  await put('Basket_Color.png', grey(height.map((v) => 0.2 + 0.3 * v)).toColourspace('srgb'));
  await put('Basket_Height.png', grey(height));
}

describe('sources', () => {
  let stage: Stage;
  let page: Page;
  let folder: string;

  before(async function () {
    this.timeout(300_000);
    folder = await mkdtemp(join(tmpdir(), 'zesty-set-'));
    await writeSet(folder);
    stage = await openStage([]);
    page = await stage.page();
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Choose photos' }).waitFor();
  });

  after(async () => {
    await stage.end();
    await rm(folder, { recursive: true });
  });

  const give = (...names: string[]) =>
    page.getByLabel('Photos for new tiles').setInputFiles(names.map((name) => join(folder, name)));
  const choose = async (of: string, option: string) => {
    await page.getByRole('combobox', { name: of }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  };

  it('a set of maps is asked about: what the names tell is taken, what they do not is not', async () => {
    await give(
      'Lemon crate_albedo.png',
      'Lemon crate_normal.png',
      'Lemon crate_disp.png',
      'Lemon crate_r.png',
      'Lemon crate_ao.png',
    );
    const dialog = page.getByRole('dialog', { name: 'A set of 5 pictures for one tile' });
    await dialog.getByText('Choose a map type for Lemon crate_r.png.').waitFor();
    const role = (file: string) => dialog.getByRole('combobox', { name: `What ${file} is` });
    expect(await role('Lemon crate_albedo.png').textContent()).to.equal('Colour');
    expect(await role('Lemon crate_disp.png').textContent()).to.equal('Height');
    expect(await role('Lemon crate_r.png').textContent()).to.equal('Choose …');
    await dialog.getByText(/is 256 × 128, the colour 256 × 256: they cannot show the same view/).waitFor();
    expect(await dialog.getByRole('button', { name: 'Make the tile' }).isDisabled()).to.equal(true);
    // The sheet has grown by this question and stands still again.
    await dialog.getByText(/Its green points down/).waitFor();
    await choose('What Lemon crate_r.png is', 'Roughness');
    await choose('What Lemon crate_ao.png is', 'Leave out');
  });

  it('the normal map says where its green points, and both readings are lit', async () => {
    const dialog = page.getByRole('dialog');
    await dialog.getByText(/Its green points down/).waitFor();
    const down = dialog.getByRole('button', { name: 'Green down (−Y)' });
    expect(await down.getAttribute('aria-pressed')).to.equal('true');
    // Lit from the upper left, domes are brighter there than on the lower right when the map is read the right way.
    const upperLeft = (name: string) =>
      dialog
        .getByRole('button', { name })
        .locator('canvas[data-drawn]')
        .evaluate((canvas) => {
          const { data } = (canvas as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, 150, 150);
          let sum = 0;
          for (let k = 0; k < 16; k++) {
            const [x, y] = [18 + 37.5 * (k % 4), 18 + 37.5 * Math.floor(k / 4)].map(Math.round);
            sum += data[4 * ((y - 8) * 150 + x - 8)] - data[4 * ((y + 8) * 150 + x + 8)];
          }
          return sum / 16;
        });
    expect(await upperLeft('Green down (−Y)')).to.be.above(25);
    expect(await upperLeft('Green up (+Y)')).to.be.below(15);
  });

  it('with its origin and licence it becomes a tile whose given maps stand in place of derived ones', async () => {
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Origin').fill('carved for the lemon house');
    await dialog.getByLabel('Licence').fill('own');
    await dialog.getByRole('button', { name: 'Make the tile' }).click();
    await page.waitForURL(/\/source$/);
    await onFloor(page, 'photo');
    await page.getByRole('heading', { name: 'Source' }).waitFor();
    const maps = page.getByRole('region', { name: 'Supplied maps' });
    await maps.getByText('Lemon crate_normal.png').waitFor();
    await maps.getByText('Lemon crate_disp.png').waitFor();
    await maps.getByText('Lemon crate_r.png').waitFor();
    await page.locator('[data-station="finish"]').click();
    // Constant value, as it was given.
    await page.getByText(/Roughness runs from 0\.40 to 0\.40/).waitFor();
  });

  it('a given map is taken away and derived again; undo brings it back', async () => {
    await page.locator('[data-station="source"]').click();
    await page.getByRole('button', { name: 'Derive the roughness again' }).click();
    await page.locator('[data-station="finish"]').click();
    await page.getByText(/Roughness runs from 0\.[^4]/).waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByText(/Roughness runs from 0\.40 to 0\.40/).waitFor();
  });

  it('the manifest of its crate says where it came from', async () => {
    await page.getByTestId('saved').getByText(/Saved/).waitFor();
    const id = /tiles\/([^/]+)/.exec(page.url())![1];
    const { crate } = await (await fetch(`${stage.url}/api/tiles/${id}/crates`, { method: 'POST' })).json();
    await page.goto(`${stage.url}/tiles/${id}/crate`);
    await page
      .getByText(/no\. 1.*done|Crate 1/)
      .first()
      .waitFor();
    const { crates } = await (await fetch(`${stage.url}/api/tiles/${id}/crates`)).json();
    expect(crates).to.have.length(1);
    await page
      .getByRole('link', { name: /All|zip/i })
      .first()
      .waitFor();
    const answer = await fetch(`${stage.url}/api/crates/${crate.id}/files/Lemon crate.tile.json`);
    const manifest = (await answer.json()) as Manifest;
    expect(manifest.source).to.include({ origin: 'carved for the lemon house', licence: 'own' });
    expect(Object.keys(manifest.given).sort()).to.deep.equal(['height', 'normal', 'roughness']);
  });

  it('a packed picture is split by its channels; two pictures dragged onto each other exchange what they are', async () => {
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Choose photos' }).waitFor();
    const tiles = () => page.locator('[data-tile]').count();
    const before = await tiles();
    await give('Basket_Color.png', 'Basket_Height.png', 'Basket_ORM.png');
    const dialog = page.getByRole('dialog', { name: 'A set of 3 pictures for one tile' });
    const role = (file: string) => dialog.getByRole('combobox', { name: `What ${file} is` });
    for (const [channel, map] of [
      ['Red', 'Occlusion'],
      ['Green', 'Roughness'],
      ['Blue', 'Metallic'],
    ]) {
      await dialog
        .getByRole('combobox', { name: `${channel} of Basket_ORM.png` })
        .getByText(map)
        .waitFor();
      const picture = dialog.getByRole('img', { name: `${channel} of Basket_ORM.png` });
      await picture.waitFor();
      // The blue one is black: what is seen is the channel alone.
      const mean = await picture.evaluate(async (image) => {
        await (image as HTMLImageElement).decode();
        const canvas = new OffscreenCanvas(8, 8);
        const context = canvas.getContext('2d')!;
        context.drawImage(image as HTMLImageElement, 0, 0, 8, 8);
        const { data } = context.getImageData(0, 0, 8, 8);
        return data.reduce((sum, value, i) => sum + (i % 4 === 3 ? 0 : value), 0) / 192;
      });
      if (map === 'Metallic') expect(mean).to.be.below(2);
      else expect(mean).to.be.above(40);
    }
    const card = (file: string) => dialog.getByRole('listitem', { name: file });
    const thumb = (file: string) => card(file).getByRole('img', { name: file, exact: true });
    await thumb('Basket_Height.png').dragTo(thumb('Basket_Color.png'));
    await role('Basket_Color.png').getByText('Height').waitFor();
    await role('Basket_Height.png').getByText('Colour').waitFor();
    // Cancelled, nothing was imported.
    await dialog.getByRole('button', { name: 'Cancel' }).click();
    await dialog.waitFor({ state: 'detached' });
    expect(await tiles()).to.equal(before);
    await give('Basket_Color.png', 'Basket_Height.png', 'Basket_ORM.png');
    await dialog.getByRole('button', { name: 'Make the tile' }).click();
    await page.waitForURL(/\/source$/);
    const maps = page.getByRole('region', { name: 'Supplied maps' });
    await maps.getByText('green of Basket_ORM.png').waitFor();
    await maps.getByText('blue of Basket_ORM.png').waitFor();
  });

  it('a tile starts from one colour and a size, and tiles as it is', async () => {
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Plain colour' }).click();
    const dialog = page.getByRole('dialog', { name: 'Start from one colour' });
    await dialog.getByLabel('Name').fill('Bare slab');
    await choose('Size', '512 px');
    await dialog.getByRole('button', { name: 'Make the tile' }).click();
    await page.waitForURL(/\/source$/);
    // Stations with nothing to do are collapsed, one press away.
    await page.getByRole('button', { name: 'Show Square, Even, Join: nothing to do' }).click();
    await page.locator('[data-station="join"]').click();
    await page.getByText(/Nothing shows at the tile’s edge/).waitFor();
    await onFloor(page, 'joined', 512);
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
