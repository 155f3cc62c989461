import { PROFILES } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { choose } from './sill-view.ts';
import { openStage, type Stage } from './stage.ts';

describe('profiles of a crate', () => {
  let stage: Stage;
  let page: Page;
  let tile = '';
  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    tile = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${tile}/crate`);
    await page.locator('[data-sill="lit"]').waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  const file = (ending: string) => page.locator(`[data-file="${ending}"]`);
  const give = (value: unknown) =>
    page.getByLabel('Profile file').setInputFiles({
      name: 'ours.json',
      mimeType: 'application/json',
      buffer: Buffer.from(typeof value === 'string' ? value : JSON.stringify(value)),
    });

  it('say what stands in each channel of each file', async () => {
    await file('normal').getByText('PNG, 8 bit').waitFor();
    await choose(page, 'Profile', 'Packed occlusion, roughness, metallic');
    await file('occlusion-roughness-metallic')
      .getByText('Occlusion in red, Roughness in green, Metallic in blue')
      .waitFor();
    await choose(page, 'Profile', 'Gloss in the normal’s alpha');
    await file('normal-gloss').getByText('Normal, Gloss in alpha').waitFor();
    for (const part of ['normal.x', 'normal.y', 'normal.z', 'gloss'])
      await file('normal-gloss').getByText(part, { exact: true }).waitFor();
  });

  it('of one’s own are taken from a file; a wrong one is refused in words and changes nothing', async () => {
    const [one] = PROFILES.packed.files.filter(({ ending }) => ending.includes('-'));
    await give({ name: 'Ours', files: [one, one] });
    await page
      .getByRole('alert')
      .getByText(/Two files are called/)
      .waitFor();
    await give('nothing');
    await page.getByRole('alert').getByText('The file is not JSON.').waitFor();
    await file('normal-gloss').waitFor();
    const [occlusion, roughness] = one.channels;
    await give({
      name: 'Ours',
      files: [
        {
          ...one,
          ending: 'mask',
          format: 'tiff',
          channels: [occlusion, { ...roughness, turned: true }, { value: 1 }],
        },
      ],
    });
    await file('mask').getByText('Occlusion in red, Roughness turned over in green, 1 in blue').waitFor();
    await file('mask').getByText('TIFF, 8 bit').waitFor();
    await page
      .getByTestId('saved')
      .getByText(/Saved \d/)
      .waitFor();
  });

  it('go out as they say, and the manifest tells what is in each channel', async () => {
    await page.getByRole('button', { name: 'Crate it' }).click();
    await page.getByRole('link', { name: 'Download zip' }).waitFor();
    const { crates } = await (await fetch(`${stage.url}/api/tiles/${tile}/crates`)).json();
    const { id } = crates[0];
    const { files } = await (await fetch(`${stage.url}/api/crates/${id}`)).json();
    const names = files.map(({ name }: { name: string }) => name).sort();
    expect(names).to.deep.equal(['Limewashed stucco.tile.json', 'Limewashed stucco_mask.tif']);
    const manifest = await (
      await fetch(`${stage.url}/api/crates/${id}/files/${encodeURIComponent('Limewashed stucco.tile.json')}`)
    ).json();
    expect(manifest.profile).to.equal('Ours');
    expect(manifest.files[0].contents).to.deep.equal(['occlusion', '1 − roughness', '1']);
    expect(stage.faults).to.deep.equal([]);
  });
});
