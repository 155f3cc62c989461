import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { decodePicture, sha256Of, sourceHost } from '@zesty-tile/codecs';
import { Engine, pictureSeams, Raster, srgbToLinear } from '@zesty-tile/core';
import type { Manifest } from '@zesty-tile/crates';
import { demoPicture, makeMissingPictures } from '@zesty-tile/demo';
import { expect } from 'chai';
import { unzipSync } from 'fflate';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage, saved, station, verdictOf } from './stage.ts';

const ZESTY = fileURLToPath(new URL('../../cli/bin/zesty.mjs', import.meta.url));

/** Engines of two versions may differ in the last bits of a logarithm; six figures are the same. */
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value), (_key, v) => (typeof v === 'number' ? Number(v.toPrecision(6)) : v));

async function fetchZip(page: Page): Promise<Record<string, Uint8Array>> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download zip' }).first().click();
  return unzipSync(new Uint8Array(await readFile(await (await waiting).path())));
}

describe('from a photo to a crate', () => {
  let stage: Stage;
  let page: Page;
  let crated: Manifest;
  before(async () => {
    await makeMissingPictures(['cane']);
    stage = await openStage(['pamments', 'ripples']);
    page = await stage.page({ sill: true });
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('the Yard shows the Limonaia with its tiles repeated 2 × 2 and what each still needs', async () => {
    await page.goto(stage.url);
    await page.getByRole('tab', { name: 'Limonaia 2' }).waitFor();
    const good = page.locator('[data-tile="Terrace pamments"]');
    await good.getByRole('img', { name: 'Terrace pamments, tiled 2 × 2' }).waitFor();
    expect(await good.textContent()).to.include('✓ fine');
    expect(await good.textContent()).to.include('1024 · 1.24 m');
    const needy = page.locator('[data-tile="Salt-pan ripples"]');
    await needy.getByRole('img').waitFor();
    expect(await needy.textContent()).to.include('▲ 3 to look at');
  });

  it('a tile opens at Source, and Floor, Sill and Course fill', async () => {
    await page.locator('[data-tile="Terrace pamments"]').dblclick();
    await page.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await onFloor(page, 'photo');
    await page.locator('[data-sill="lit"]').waitFor();
    expect(await verdictOf(page, 'source')).to.include('1600 × 1200');
    expect(await verdictOf(page, 'join')).to.match(/✓ (seam|blotch) 0\.\d\d/);
    expect(await verdictOf(page, 'gauge')).to.match(/✓ median 0\.\d{3}/);
    expect(await page.getByText(/Shorter side 1200 px/).isVisible()).to.equal(true);
  });

  it('says what a word of its own means where it is first met, and marks it until then', async () => {
    const course = page.getByRole('navigation', { name: 'Course' });
    const marked = (word: string) => course.locator('[data-new-word]').getByText(word, { exact: true });
    expect(await marked('Source').count()).to.equal(0);
    await marked('Even').waitFor();
    await station(page, 'even').hover();
    await page.getByRole('tooltip', { name: 'Even: remove the photo’s uneven light' }).waitFor();
    await page.mouse.move(400, 300);
    await marked('Even').waitFor({ state: 'detached' });
    await page.reload();
    await marked('Join').waitFor();
    expect(await marked('Even').count()).to.equal(0);
    await onFloor(page, 'photo');
  });

  it('each station brings its own picture, its dials and its figures', async () => {
    for (const [name, view, dial] of [
      ['square', 'photo', 'Rotation'],
      ['even', 'evened', 'Amount'],
      ['join', 'joined', 'Overlap'],
      ['gauge', 'albedo', 'Exposure'],
      ['relief', 'height', 'Depth'],
      ['finish', 'roughness', 'Tone'],
    ]) {
      await station(page, name).click();
      await onFloor(page, view);
      await page.getByRole('slider', { name: dial, exact: true }).waitFor();
      await page.getByText(/^Measured/).waitFor();
      expect(await station(page, name).getAttribute('aria-current')).to.equal('step');
    }
    // A view chosen while a sharper picture is under way gets the sharper one too.
    await onFloor(page, 'roughness', 1024);
  });

  it('the keys move along the Course and change the lay', async () => {
    await station(page, 'gauge').click();
    await onFloor(page, 'albedo');
    await page.keyboard.press('.');
    await onFloor(page, 'height');
    await page.keyboard.press(',');
    await onFloor(page, 'albedo');
    await page.keyboard.press('4');
    await onFloor(page, 'joined');
    const lay = () => page.getByRole('img', { name: /tiled/ }).getAttribute('aria-label');
    expect(await lay()).to.include('tiled 2 × 2');
    await page.keyboard.press('t');
    await page.getByRole('img', { name: /tiled 3 × 3/ }).waitFor();
    await page.getByRole('button', { name: '1', exact: true }).click();
    await page.getByRole('img', { name: /tiled 1 × 1/ }).waitFor();
  });

  it('a dial changes the picture, the figures and what is saved', async () => {
    await station(page, 'gauge').click();
    await onFloor(page, 'albedo');
    const before = await verdictOf(page, 'gauge');
    const figure = page.getByRole('textbox', { name: 'Exposure, figure' });
    await figure.fill('-3');
    await figure.press('Enter');
    await page.getByText(/below the band/).waitFor();
    expect(await verdictOf(page, 'gauge'))
      .to.include('✕ median too dark')
      .and.not.equal(before);
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo');
    expect(await page.getByRole('textbox', { name: 'Exposure, figure' }).inputValue()).to.equal('−3.00');
    const slider = page.getByRole('slider', { name: 'Exposure', exact: true });
    await slider.focus();
    await page.keyboard.press('Shift+ArrowRight');
    expect(await page.getByRole('textbox', { name: 'Exposure, figure' }).inputValue()).to.equal('−2.80');
    await page.getByRole('textbox', { name: 'Exposure, figure' }).dblclick();
    expect(await page.getByRole('textbox', { name: 'Exposure, figure' }).inputValue()).to.equal('0.00');
    await page.getByText(/inside the band/).waitFor();
    await saved(page);
  });

  it('the readout gives the pixel’s values, and they are those of the map', async () => {
    const canvas = page.locator('canvas[data-view="albedo"]');
    const box = (await canvas.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const colour = page.getByTestId('readout');
    await colour.getByText(/sRGB \d+ \d+ \d+\s+Y 0\.\d{3}/).waitFor();
    await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
    await page.getByRole('option', { name: 'Metallic' }).click();
    await onFloor(page, 'metallic');
    // The menu fades out over the picture, and takes the pointer until it is gone.
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    await page.mouse.move(box.x + box.width / 2 + 9, box.y + box.height / 2, { steps: 4 });
    await colour.getByText(/metallic 0\.000/).waitFor();
  });

  it('a crate is made, followed, and downloaded: every map is there, tiles, and matches the manifest', async () => {
    await station(page, 'crate').click();
    await page.getByRole('button', { name: 'Crate it' }).click();
    await page.getByText(/Crate 1, ready/).waitFor();
    const held = await fetchZip(page);
    const manifest = JSON.parse(new TextDecoder().decode(held['Terrace pamments.tile.json']));
    expect(manifest.files).to.have.length(8);
    for (const file of manifest.files) expect(sha256Of(held[file.file]), file.file).to.equal(file.sha256);
    expect(manifest.recipe.stations.gauge.exposure).to.equal(0);
    crated = manifest;
    const { data, width, height } = await decodePicture(held['Terrace pamments_albedo.png']);
    expect([width, height]).to.deep.equal([1024, 1024]);
    const planes = [0, 1, 2].map((c) =>
      Float32Array.from({ length: width * height }, (_, i) => srgbToLinear(data[3 * i + c] / 255)),
    );
    const seams = pictureSeams(new Raster(width, height, planes));
    expect(Math.max(...Object.values(seams))).to.be.at.most(1);
  });

  it('the command line bakes the same bytes from the same photo and the crate’s recipe', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'zesty-walk-'));
    try {
      const file = join(folder, 'recipe.json');
      await writeFile(file, JSON.stringify(crated.recipe));
      const args = [
        'bake',
        demoPicture('pamments'),
        '--out',
        folder,
        '--recipe',
        file,
        '--name',
        crated.name,
        '--quiet',
      ];
      await promisify(execFile)(process.execPath, [ZESTY, ...args]);
      const baked: Manifest = JSON.parse(await readFile(join(folder, `${crated.name}.tile.json`), 'utf8'));
      expect(baked.recipe).to.deep.equal(crated.recipe);
      expect(baked.files).to.deep.equal(crated.files);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  it('what the browser decided is decided the same without it, to the last figures of a float', async () => {
    const bytes = await readFile(demoPicture('pamments'));
    const engine = new Engine(
      sourceHost(async () => bytes),
      0,
    );
    const source = { sha256: sha256Of(bytes), width: 1600, height: 1200 };
    const { recipe } = await engine.evaluate({
      recipe: { ...crated.recipe, decisions: {} },
      source,
      size: 512,
    });
    expect(rounded(recipe.decisions)).to.deep.equal(rounded(crated.recipe.decisions));
    expect(Object.keys(recipe.decisions)).to.have.length(6);
  });

  it('a photo dropped in the Yard becomes a tile and opens', async () => {
    await page.goto(stage.url);
    await page.getByLabel('Photos for new tiles').setInputFiles(demoPicture('cane'));
    await page.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await onFloor(page, 'photo');
    expect(await page.getByRole('navigation', { name: 'Where you are' }).textContent()).to.include(
      'limonaia-cane',
    );
    await page.goto(stage.url);
    await page.getByRole('tab', { name: 'Limonaia 3' }).waitFor();
  });

  it('a file that is no picture is refused in the Yard, with the reason and what to do', async () => {
    await page
      .getByLabel('Photos for new tiles')
      .setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('notes') });
    await page.getByText(/notes\.jpg: The file is not a picture.*Use a PNG/).waitFor();
    await page.getByRole('tab', { name: 'Limonaia 3' }).waitFor();
  });

  it('a picture pasted in the Yard becomes a tile and opens', async () => {
    await page.evaluate(`(async () => {
      const canvas = document.createElement('canvas');
      canvas.width = canvas.height = 320;
      const pen = canvas.getContext('2d');
      for (let k = 0; k < 900; k++) {
        pen.fillStyle = 'hsl(' + (k % 40) + ' 30% ' + (30 + (k * 37) % 40) + '%)';
        pen.fillRect((k * 61) % 320, (k * 103) % 320, 24, 16);
      }
      const blob = await new Promise((done) => canvas.toBlob(done, 'image/png'));
      const data = new DataTransfer();
      data.items.add(new File([blob], 'pasted.png', { type: 'image/png' }));
      document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    })()`);
    await page.waitForURL(/\/tiles\/[\w-]+\/source$/);
    await onFloor(page, 'photo');
    expect(await page.getByRole('navigation', { name: 'Where you are' }).textContent()).to.include('pasted');
  });

  it('no page met an error of its own on the way', () => {
    expect(stage.faults.filter((fault) => !/status of 422/.test(fault))).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
