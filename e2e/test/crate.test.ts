import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PROFILES } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { choose } from './sill-view.ts';
import { copyTiles, idle, onFloor, openStage, type Stage, undo } from './stage.ts';

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
    await onFloor(page, 'albedo');
    await idle(page);
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
    await file('mask').getByText('Occlusion in red, Roughness inverted in green, 1 in blue').waitFor();
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
  });

  const crates = async () =>
    (await (await fetch(`${stage.url}/api/tiles/${tile}/crates`)).json()).crates as {
      id: string;
      number: number;
      state: string;
    }[];
  const card = (number: number) => page.locator(`[data-crate="${number}"]`);
  const filesOf = async (id: string): Promise<string[]> =>
    (await (await fetch(`${stage.url}/api/crates/${id}`)).json()).files.map(
      ({ name }: { name: string }) => name,
    );
  /** Sum of a small picture's pixels on the page. */
  const sumOf = (name: string) =>
    page.evaluate(
      `(() => { const c = document.querySelector('canvas[aria-label="${name}"]'); const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data; let s = 0; for (let i = 0; i < d.length; i += 4) s += d[i]; return s / (d.length / 4); })()`,
    ) as Promise<number>;
  const summed = (name: string, test: string) =>
    page.waitForFunction(
      `(() => { const c = document.querySelector('canvas[aria-label="${name}"]'); if (!c) return false; const d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data; let s = 0; for (let i = 0; i < d.length; i += 4) s += d[i]; const mean = s / (d.length / 4); return ${test}; })()`,
    );

  it('are copied, changed channel by channel in sight of their pictures, and kept for the project', async () => {
    await choose(page, 'Profile', 'Packed occlusion, roughness, metallic');
    await page.getByRole('button', { name: 'Duplicate and edit …' }).click();
    const sheet = page.getByRole('dialog', { name: 'Profile of the crate' });
    await sheet.getByRole('button', { name: 'occlusion-roughness-metallic' }).click();
    await summed('Green as a picture', 'mean > 40');
    const before = await sumOf('Green as a picture');
    await sheet.getByRole('group', { name: 'Green' }).getByRole('checkbox', { name: 'inverted' }).check();
    // What was inverted is as far from white as it was from black.
    await summed('Green as a picture', `Math.abs(mean - ${255 - before}) < 3`);
    await choose(page, 'Blue holds', 'Cavity');
    await summed('Blue as a picture', 'mean > 60');
    await sheet.getByRole('textbox', { name: 'Suffix' }).fill('albedo');
    await sheet.getByText(/Two files are called “albedo”/).waitFor();
    expect(await sheet.getByRole('button', { name: 'Use for this tile' }).isDisabled()).to.equal(true);
    await sheet.getByRole('textbox', { name: 'Suffix' }).fill('mask');
    await sheet.getByRole('textbox', { name: 'Name of the profile' }).fill('House mask');
    await sheet.getByRole('button', { name: 'Save to project' }).click();
    await page.getByText('“House mask” is kept for the project.').waitFor();
    await sheet.getByRole('button', { name: 'Use for this tile' }).click();
    await file('mask').getByText('Occlusion in red, Roughness inverted in green, Cavity in blue').waitFor();
    await choose(page, 'Profile', 'Colour with occlusion in it, and normal');
    await file('colour').waitFor();
    await page
      .getByRole('group', { name: 'Profiles of the project' })
      .getByRole('button', { name: 'House mask', exact: true })
      .click();
    await file('mask').waitFor();
  });

  it('show each file’s name by the pattern, refuse a wrong pattern in words, and say what all of it comes to', async () => {
    await choose(page, 'Profile', 'Colour with occlusion in it, and normal');
    await page.getByRole('button', { name: 'Names' }).click();
    const names = page.getByRole('textbox', { name: 'Names of the files' });
    await names.fill('{tile}/{map}');
    await page.getByText('“/” is not allowed in file names on every system.').waitFor();
    await names.fill('{tile} {crate}_{map}_{size}');
    await page.getByTestId('name-normal').getByText('Limewashed stucco 2_normal_512.png').waitFor();
    await page
      .getByTestId('crate-size')
      .getByText(/^3 files, about [\d.]+ (MB|kB), estimated at 512 px$/)
      .waitFor();
    await page.getByRole('button', { name: 'Write one …' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByRole('textbox', { name: 'Text', exact: true }).fill('{{tyle}}');
    await sheet.getByText(/\{\{tyle\}\} is not a known field/).waitFor();
    await sheet
      .getByRole('textbox', { name: 'Text', exact: true })
      .fill('{{tile}} {{size}}: {{file.normal}}');
    await sheet.getByRole('button', { name: 'Use it' }).click();
    await page.getByText('Text: .material.txt').waitFor();
    await page.getByRole('button', { name: 'Crate it' }).click();
    await card(2).getByText('Crate 2, ready').waitFor();
    const [{ id }] = await crates();
    expect(await filesOf(id)).to.have.members([
      'Limewashed stucco 2_colour_512.png',
      'Limewashed stucco 2_normal_512.png',
      'Limewashed stucco_2.material.txt',
      'Limewashed stucco_2.tile.json',
    ]);
    const text = await (
      await fetch(
        `${stage.url}/api/crates/${id}/files/${encodeURIComponent('Limewashed stucco_2.material.txt')}`,
      )
    ).text();
    expect(text).to.equal('Limewashed stucco 512: Limewashed stucco 2_normal_512.png');
    const [{ bytes }] = (await (await fetch(`${stage.url}/api/crates/${id}`)).json()).files.filter(
      ({ name }: { name: string }) => name.includes('colour'),
    );
    // Reckoned before it was written, not far from what it came to.
    const said = (await page.getByTestId('crate-size').textContent()) ?? '';
    const [, number, unit] = /about ([\d.]+) (MB|kB)/.exec(said) ?? [];
    const reckoned = Number(number) * (unit === 'MB' ? 1e6 : 1e3);
    expect(reckoned).to.be.within(0.7 * bytes, 4 * bytes);
  });

  it('of a glTF go out as one file', async () => {
    await page.getByRole('textbox', { name: 'Names of the files' }).fill('{tile}_{map}');
    await choose(page, 'Profile', 'glTF binary, tile on a slab');
    await page.getByTestId('documents').getByText('Limewashed stucco.glb').waitFor();
    await page.getByRole('button', { name: 'Crate it' }).click();
    await card(3).getByText('Crate 3, ready').waitFor();
    expect(await filesOf((await crates())[0].id)).to.include('Limewashed stucco.glb');
    await card(3).getByRole('button', { name: '3 files' }).click();
    await card(3).getByRole('link', { name: 'Limewashed stucco.glb' }).waitFor();
  });

  it('a file is looked at large, with each of its channels', async () => {
    await page.getByRole('button', { name: 'Look at normal' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByText(/512 × 512 px, Normal/).waitFor();
    await sheet.getByRole('img', { name: /^Channel 3 of/ }).waitFor();
    await page.keyboard.press('Escape');
    await sheet.waitFor({ state: 'detached' });
  });

  it('a crate is deleted and had back, its path copied, its recipe and its maps opened again', async () => {
    await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
    await card(2).getByRole('button', { name: 'More for crate 2' }).click();
    await page.getByRole('menuitem', { name: 'Copy its path' }).click();
    await page.getByText('The path is copied.').waitFor();
    const path = (await page.evaluate('navigator.clipboard.readText()')) as string;
    expect(await readdir(path)).to.include('Limewashed stucco_2.tile.json');
    // As over plain http from another machine.
    await page.evaluate(
      "Object.defineProperty(navigator, 'clipboard', { value: undefined, configurable: true })",
    );
    await card(2).getByRole('button', { name: 'More for crate 2' }).click();
    await page.getByRole('menuitem', { name: 'Copy its path' }).click();
    await page.getByText(`Copy it from here: ${path}`).waitFor();
    await page.evaluate('delete navigator.clipboard');
    await card(2).getByRole('button', { name: 'More for crate 2' }).click();
    await page.getByRole('menuitem', { name: 'Delete' }).click();
    await card(2).waitFor({ state: 'detached' });
    await undo(page, 'was deleted');
    await card(2).waitFor();
    await card(2).getByRole('button', { name: 'More for crate 2' }).click();
    await page.getByRole('menuitem', { name: 'Open its recipe' }).click();
    await file('colour').waitFor();
    await page.getByRole('button', { name: 'Undo: The recipe of crate 2' }).click();
    await page.getByTestId('documents').waitFor();
    await card(3).getByRole('button', { name: 'More for crate 3' }).click();
    await page.getByRole('menuitem', { name: 'Open its maps as a tile' }).click();
    await page.waitForURL((url) => !url.pathname.includes(tile) && url.pathname.endsWith('/source'));
    await page.getByText('Limewashed stucco, crate 3').waitFor();
    await page.goto(`${stage.url}/tiles/${tile}/crate`);
    await file('normal').waitFor();
  });

  it('the folder of a renderer is filled again with one press; a wrong one is refused in words', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'zesty-renderer-'));
    try {
      await page.getByRole('button', { name: 'Watched folder' }).click();
      const path = page.getByRole('textbox', { name: 'Path of the folder' });
      await path.fill('somewhere');
      await path.press('Enter');
      await page.getByText(/must be absolute/).waitFor();
      await path.fill(folder);
      await path.press('Enter');
      const refresh = page.getByRole('button', { name: 'Refresh' });
      await refresh.click();
      await card(4).getByText('Crate 4, ready').waitFor();
      await refresh.click();
      await card(5).getByText('Crate 5, ready').waitFor();
      expect((await readdir(folder)).sort()).to.deep.equal(
        [
          'Limewashed stucco.glb',
          'Limewashed stucco.material.txt',
          'Limewashed stucco.tile.json',
          'former',
        ].sort(),
      );
      const manifest = JSON.parse(await readFile(join(folder, 'Limewashed stucco.tile.json'), 'utf8'));
      expect(manifest.crate).to.equal(5);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  it('a tile with something wrong asks once, in words, before it goes', async () => {
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${tile}`)).json();
    const { recipe } = revision;
    recipe.stations.join.method = 'none';
    await fetch(`${stage.url}/api/tiles/${tile}/revisions`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ base: revision.number, recipe }),
    });
    await page.reload();
    await page.locator('[data-station="join"]').getByText('✕').waitFor();
    await page.locator('[data-station="crate"]').getByText(/[✓▲✕]/).waitFor();
    await page.getByRole('button', { name: 'Crate it' }).click();
    const question = page.getByRole('dialog', { name: 'Crate with problems?' });
    await question.getByText('✕ Join:').waitFor();
    await question.getByRole('button', { name: 'Not yet' }).click();
    await question.waitFor({ state: 'detached' });
    expect((await crates())[0].number).to.equal(5);
    await page.getByRole('button', { name: 'Crate it' }).click();
    await question.getByRole('button', { name: 'Crate anyway' }).click();
    await card(6).getByText('Crate 6, ready').waitFor();
    await card(6)
      .getByText(/✕ Join/)
      .waitFor();
    // The folder that was refused.
    expect(stage.faults.filter((fault) => !fault.includes('422'))).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});

describe('crates of several tiles', () => {
  let stage: Stage;
  let page: Page;
  before(async function () {
    this.timeout(300_000);
    // Nobody makes them, so that they stand still to be looked at.
    stage = await openStage(['stucco'], 512, 0);
    await copyTiles(stage, 2);
    page = await stage.page();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('are asked for in the Yard, moved in the queue and stopped', async () => {
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Crate several …' }).click();
    const sheet = page.getByRole('dialog', { name: 'Crate several tiles' });
    await sheet.getByRole('checkbox', { name: 'Copy 1' }).uncheck();
    await sheet.getByRole('button', { name: 'Crate 2 tiles' }).click();
    await page.waitForURL(/\/crates$/);
    await page.getByRole('status', { name: 'How the crates stand' }).getByText('2 waiting').waitFor();
    const cards = page.locator('[data-crate]');
    const of = (name: string) => cards.filter({ hasText: name });
    await cards.nth(1).waitFor();
    expect(await cards.count()).to.equal(2);
    const places = async () => {
      const { crates } = await (await fetch(`${stage.url}/api/crates`)).json();
      return crates
        .sort((a: { place: number }, b: { place: number }) => a.place - b.place)
        .map((one: { tile: { name: string } }) => one.tile.name);
    };
    const [first, second] = await places();
    await of(second).getByRole('button', { name: 'First' }).click();
    await page.waitForFunction(
      `fetch('/api/crates').then((r) => r.json()).then(({ crates }) => crates.sort((a, b) => a.place - b.place)[0].tile.name === ${JSON.stringify(second)})`,
    );
    await of(second).getByRole('button', { name: 'Later' }).click();
    await page.waitForFunction(
      `fetch('/api/crates').then((r) => r.json()).then(({ crates }) => crates.sort((a, b) => a.place - b.place)[0].tile.name === ${JSON.stringify(first)})`,
    );
    await of(first).getByRole('button', { name: 'Stop' }).click();
    await of(first).getByText('Stopped on request.').waitFor();
    await of(first).getByRole('button', { name: 'Run it again' }).click();
    await of(first).getByText('Queued').waitFor();
    expect(stage.faults).to.deep.equal([]);
  });
});
