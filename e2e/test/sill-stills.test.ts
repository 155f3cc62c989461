import { readFile } from 'node:fs/promises';
import { srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import { unzipSync } from 'fflate';
import type { Page } from 'playwright-core';
import { apart, choose, mean, openSill, setFigure, sharp, still, within } from './sill-view.ts';
import type { Stage } from './stage.ts';

describe('stills of the Sill', () => {
  let stage: Stage;
  let page: Page;

  const shape = (name: string) => page.getByRole('button', { name, exact: true }).click();
  /** What a button of the popover “Still” takes. */
  const take = async (button: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download', { timeout: 600_000 }),
      page.getByRole('button', { name: button }).click(),
    ]);
    return { name: download.suggestedFilename(), bytes: await readFile(await download.path()) };
  };
  /** What comes back: of white of 0.8 under a film that mirrors 4 to 7 % of what is all round, 0.808 to 0.814. */
  const back = (codes: number[], [left, top, right, bottom] = [26, 26, 38, 38]) => {
    const seen: number[] = [];
    for (let y = top; y < bottom; y++)
      for (let x = left; x < right; x++) seen.push(codes[3 * (64 * y + x) + 1]);
    return srgbToLinear(mean(seen) / 255);
  };

  before(async function () {
    this.timeout(300_000);
    ({ stage, page } = await openSill(['pamments']));
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a still of many frames is the same each time; one is taken as OpenEXR, one is stopped', async function () {
    this.timeout(300_000);
    await within(page, 'Still', async () => {
      await page.getByRole('button', { name: '48', exact: true }).click();
      const [first, second] = [await take('Still of 512 px'), await take('Still of 512 px')];
      expect(first.bytes.equals(second.bytes)).to.equal(true);
      expect(first.name).to.match(/^slab-.*-512\.png$/);
      await page.getByRole('button', { name: 'Still of 4096 px' }).click();
      await page.getByRole('progressbar', { name: 'Still' }).waitFor();
      await page.getByRole('button', { name: 'Stop', exact: true }).click();
      await page.getByText('Stopped. No file was saved.').waitFor();
      await page.getByRole('button', { name: 'As it moves' }).click();
      await page.getByRole('button', { name: 'OpenEXR' }).click();
      const { name, bytes } = await take('Still of 512 px');
      expect(name).to.match(/\.exr$/);
      // The format's magic number (OpenEXR file layout).
      expect(bytes.readUInt32LE(0)).to.equal(20000630);
      expect(bytes.toString('latin1')).to.match(/comments\0string\0.{4}\{"made":"Zesty Tile, the Sill"/s);
      await page.getByRole('button', { name: 'PNG', exact: true }).click();
    });
  });

  it('one turn of the shape is a film that plays, or a zip of pictures', async function () {
    this.timeout(300_000);
    await within(page, 'Still', async () => {
      await page.getByRole('button', { name: 'As it moves' }).click();
      await page.getByRole('dialog').getByRole('button', { name: 'Shape', exact: true }).click();
      await page.getByRole('button', { name: 'PNG zip' }).click();
      const pictures = unzipSync(new Uint8Array((await take('Turn of 512 px')).bytes));
      expect(Object.keys(pictures).sort()).to.have.length(48).and.include('turn_000.png');
      const codes = async (name: string) => [
        ...(await sharp(pictures[name]).flatten({ background: '#000' }).resize(64, 64).raw().toBuffer()),
      ];
      // A quarter of a turn on the slab is seen from its edge.
      expect(apart(await codes('turn_000.png'), await codes('turn_012.png'))).to.be.above(5);
      await page.getByRole('button', { name: 'WebM' }).click();
      const { bytes: film } = await take('Turn of 512 px');
      const seconds = await page.evaluate(
        `(async () => {
          const bytes = Uint8Array.from(atob('${film.toString('base64')}'), (one) => one.charCodeAt(0));
          const video = document.createElement('video');
          video.muted = true;
          video.src = URL.createObjectURL(new Blob([bytes], { type: 'video/webm' }));
          await new Promise((resolve, reject) => {
            video.onloadeddata = resolve;
            video.onerror = () => reject(new Error('The film does not play.'));
          });
          return [video.duration, video.videoWidth];
        })()`,
      );
      expect((seconds as number[])[0]).to.be.closeTo(2, 0.1);
      expect((seconds as number[])[1]).to.equal(512);
    });
  });

  it('in a white furnace a white surface neither gains nor loses 1 %, in one frame and in many', async function () {
    this.timeout(300_000);
    await shape('Slab');
    const white = await sharp({ create: { width: 64, height: 32, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    await choose(page, 'What the Sill shows', 'Light only');
    await within(page, 'Light', async () => {
      await page
        .getByLabel('Surroundings file')
        .setInputFiles({ name: 'furnace.png', mimeType: 'image/png', buffer: white });
      await page.getByRole('combobox', { name: 'What lies around' }).getByText('furnace').waitFor();
      await setFigure(page, 'Sun', 0);
      await page.getByRole('button', { name: 'Cut off' }).click();
    });
    expect(back(await still(page))).to.be.within(0.8, 0.822);
    await within(page, 'Still', async () => {
      await page.getByRole('button', { name: '48', exact: true }).click();
      const { bytes } = await take('Still of 512 px');
      const codes = [...(await sharp(bytes).removeAlpha().resize(64, 64).raw().toBuffer())];
      // Relief hides a little of what is all round from itself.
      expect(back(codes)).to.be.within(0.76, 0.822);
    });
  });

  it('traced, the furnace loses nothing either; a still is the same twice, and says what it is made of', async function () {
    this.timeout(900_000);
    await shape('Block');
    await within(page, 'Still', async () => {
      await page.getByRole('button', { name: '9 paths', exact: true }).click();
      await page.getByText('Light is followed from surface to surface.').waitFor();
      const [{ bytes: first }, { bytes: second }] = [
        await take('Still of 512 px'),
        await take('Still of 512 px'),
      ];
      expect(first.equals(second)).to.equal(true);
      expect(first.toString('latin1')).to.include('"pathsPerPixel":9');
      // The upper face of the block, which sees no ground.
      const codes = [...(await sharp(first).removeAlpha().resize(64, 64).raw().toBuffer())];
      expect(back(codes, [28, 16, 36, 19])).to.be.within(0.79, 0.84);
    });
    // A comparison cannot be traced, and says so.
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Its albedo alone'));
    await within(page, 'Still', async () => {
      await page.getByText('end the comparison to trace paths').waitFor();
      expect(await page.getByRole('button', { name: 'Still of 512 px' }).isDisabled()).to.equal(true);
      await page.getByRole('button', { name: 'As it moves' }).click();
    });
  });
});
