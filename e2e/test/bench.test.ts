import { demoPicture, makeMissingPictures } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Locator, Page } from 'playwright-core';
import { onFloor, openStage, type Stage, saved, station, undo } from './stage.ts';

const figure = (page: Page, name: string) =>
  page.getByRole('textbox', { name: `${name}, figure`, exact: true });

async function setFigure(page: Page, name: string, value: string) {
  await figure(page, name).fill(value);
  await figure(page, name).press('Enter');
}

async function middle(locator: Locator): Promise<[number, number]> {
  const box = (await locator.boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
}

async function drag(page: Page, from: [number, number], by: [number, number]) {
  await page.mouse.move(...from);
  await page.mouse.down();
  await page.mouse.move(from[0] + by[0] / 2, from[1] + by[1] / 2);
  await page.mouse.move(from[0] + by[0], from[1] + by[1]);
  await page.mouse.up();
}

/** What a canvas shows at a share of its size, as [r, g, b]. */
const colourAt = async (page: Page, u: number, v: number): Promise<number[]> => {
  // While pictures follow one another they are reduced less well.
  await page.locator('canvas[data-view][data-fine="yes"]').waitFor();
  return page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view]');
      const [x, y] = [Math.round(${u} * canvas.width), Math.round(${v} * canvas.height)];
      return [...canvas.getContext('2d').getImageData(x, y, 1, 1).data].slice(0, 3);
    })()`,
  );
};

const choose = async (page: Page, box: string, option: string) => {
  await page.getByRole('combobox', { name: box }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
};

describe('the Bench', () => {
  let stage: Stage;
  let page: Page;
  let tile = '';
  before(async () => {
    await makeMissingPictures(['ripples']);
    stage = await openStage(['stucco', 'pamments'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    tile = tiles.find((one: { name: string }) => one.name === 'Terrace pamments').id;
    page = await stage.page({ sill: true });
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    await onFloor(page, 'albedo', 512);
    await page.locator('[data-sill="lit"]').waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('undo and redo go step by step across stations, and say by name what they take back', async () => {
    await setFigure(page, 'Exposure', '0.5');
    await station(page, 'even').click();
    await onFloor(page, 'evened');
    const slider = page.getByRole('slider', { name: 'Amount', exact: true });
    await slider.focus();
    for (let k = 0; k < 6; k++) await page.keyboard.press('ArrowLeft');
    const amount = await figure(page, 'Amount').inputValue();
    await page.getByRole('button', { name: `Undo: Even, Amount ${amount}` }).click();
    expect(await figure(page, 'Amount').inputValue(), 'six presses were one step').to.equal('1.00');
    await page.getByRole('button', { name: 'Undo: Gauge, Exposure 0.50 stops' }).waitFor();
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Undo', exact: true }).waitFor();
    await page.keyboard.press('Control+Shift+z');
    await page.keyboard.press('Control+Shift+z');
    expect(await figure(page, 'Amount').inputValue()).to.equal(amount);
    await station(page, 'gauge').click();
    expect(await figure(page, 'Exposure').inputValue()).to.equal('0.50');
    await saved(page);
  });

  it('a dial goes back to its default by its button and by Delete, and its default is marked', async () => {
    await page.getByRole('button', { name: 'Exposure back to its default' }).click();
    expect(await figure(page, 'Exposure').inputValue()).to.equal('0.00');
    const slider = page.getByRole('slider', { name: 'Contrast', exact: true });
    await slider.focus();
    await page.keyboard.press('Shift+ArrowRight');
    expect(await figure(page, 'Contrast').inputValue()).to.equal('1.10');
    await page.keyboard.press('Delete');
    expect(await figure(page, 'Contrast').inputValue()).to.equal('1.00');
    expect(await page.locator('.MuiSlider-mark').count()).to.equal(3);
  });

  it('a group that was opened stays open at the next visit', async () => {
    await page.getByRole('button', { name: 'What counts' }).click();
    await page.getByRole('slider', { name: 'Ignore above', exact: true }).waitFor();
    await page.reload();
    await page.getByRole('slider', { name: 'Ignore above', exact: true }).waitFor();
    await onFloor(page, 'albedo', 512);
  });

  it('before stands left of the divider and after right of it; the divider is dragged and moved by keys', async () => {
    await setFigure(page, 'Exposure', '1.5');
    await page
      .getByText(/above the band/)
      .first()
      .waitFor();
    const after = await colourAt(page, 0.4, 0.3);
    await page.getByRole('button', { name: 'Before | after' }).click();
    await page.locator('canvas[data-before="shown"]').waitFor();
    const divider = page.getByRole('slider', { name: 'Between before and after' });
    const left = await colourAt(page, 0.4, 0.3);
    expect(left[0] + left[1] + left[2]).to.be.below(after[0] + after[1] + after[2] - 60);
    await drag(page, await middle(divider), [-200, 0]);
    expect(Number(await divider.getAttribute('aria-valuenow'))).to.be.below(30);
    expect(await colourAt(page, 0.4, 0.3)).to.deep.equal(after);
    await divider.focus();
    await page.keyboard.press('End');
    expect(await divider.getAttribute('aria-valuenow')).to.equal('100');
    await page.getByRole('button', { name: 'Before | after' }).click();
    await page.keyboard.down('b');
    await page.locator('canvas[data-before="shown"]').waitFor();
    await page.keyboard.up('b');
    await page.locator('canvas[data-before="shown"]').waitFor({ state: 'detached' });
  });

  it('what no real surface has is hatched, as much as the figure says, and the hatching can be put away', async () => {
    await page.getByRole('switch', { name: 'Soft limits' }).click();
    await setFigure(page, 'Exposure', '3');
    await page.getByText(/is beyond what any dielectric has/).waitFor();
    await page.locator('canvas[data-hatched="yes"]').waitFor();
    await page.getByRole('button', { name: 'Hatching' }).click();
    await page.locator('canvas[data-hatched="yes"]').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Hatching' }).click();
    await page.getByRole('switch', { name: 'Soft limits' }).click();
    await setFigure(page, 'Exposure', '0');
    await page.getByText(/Nothing is beyond/).waitFor();
    await page.locator('canvas[data-hatched="yes"]').waitFor({ state: 'detached' });
  });

  it('figures speak the chosen language', async () => {
    await saved(page);
    await page.goto(`${stage.url}/settings`);
    await choose(page, 'Reflectance units', 'Percent');
    await page.getByText('A grey card reads 18.0 %.').waitFor();
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    await onFloor(page, 'albedo', 512);
    await page.mouse.move(...(await middle(page.locator('canvas[data-view]'))));
    await page
      .getByTestId('readout')
      .getByText(/\d+\.\d %\s+(inside|below|above)/)
      .waitFor();
    await page
      .getByText(/^\d\d\.\d %$/)
      .first()
      .waitFor();
    await page.goto(`${stage.url}/settings`);
    await choose(page, 'Reflectance units', 'Y, 0 to 1');
    await page.getByRole('button', { name: 'Dim' }).click();
    expect(
      await page.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--zest')),
    ).to.equal('#EFE8A0');
    await page.reload();
    expect(await page.evaluate(() => getComputedStyle(document.body).backgroundColor)).to.equal(
      'rgb(42, 42, 42)',
    );
    await page.getByRole('button', { name: 'Light' }).click();
  });

  it('a line says what the engine did: what was at hand is not made again, and other cores help', async () => {
    await page.goto(`${stage.url}/settings`);
    await page.getByRole('checkbox', { name: 'Show below the tile' }).check();
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    const line = page.getByTestId('engine-line');
    await line.getByText(/512 px in \d+ ms/).waitFor();
    // What one step is done with, the next one writes on.
    await line.getByText(/[1-9]\d* of \d+ buffers reused/).waitFor();
    const before = await figure(page, 'Exposure').inputValue();
    await setFigure(page, 'Exposure', String(Number(before) + 0.1));
    await line.getByText(/[1-9]\d* cached, [1-9]\d* computed/).waitFor();
    await setFigure(page, 'Exposure', before);
    // The very same again: nothing of it is computed.
    await line.getByText(/[1-9]\d* cached, 0 computed/).waitFor();
    const cores = (await page.evaluate('navigator.hardwareConcurrency')) as number;
    expect(await line.textContent()).to.include(`${Math.min(8, cores)} threads`);
    await page.goto(`${stage.url}/settings`);
    await page.getByRole('checkbox', { name: 'Show below the tile' }).uncheck();
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    await onFloor(page, 'albedo', 512);
    expect(await line.count()).to.equal(0);
  });

  it('the crop is moved, pulled and turned on the photo, by pointer and by keys', async () => {
    await page.goto(`${stage.url}/tiles/${tile}/square`);
    await onFloor(page, 'photo');
    const before = Number(await figure(page, 'Centre across').inputValue());
    await drag(page, await middle(page.getByRole('slider', { name: /^Crop: arrow keys/ })), [-20, 0]);
    const moved = Number(await figure(page, 'Centre across').inputValue());
    expect(moved).to.be.below(before);
    const share = Number(await figure(page, 'Crop edge').inputValue());
    await drag(
      page,
      await middle(page.getByRole('slider', { name: 'Crop, lower right corner' })),
      [-40, -40],
    );
    expect(Number(await figure(page, 'Crop edge').inputValue())).to.be.within(share - 0.25, share - 0.02);
    const turn = page.getByRole('slider', { name: 'Rotation of the crop' });
    const was = Number(await figure(page, 'Rotation').inputValue());
    await turn.focus();
    await page.keyboard.press('ArrowRight');
    expect(Number(await figure(page, 'Rotation').inputValue())).to.be.closeTo(was + 0.05, 1e-9);
    for (let k = 0; k < 3; k++) await page.keyboard.press('Control+z');
    expect(Number(await figure(page, 'Centre across').inputValue())).to.equal(before);
    expect(Number(await figure(page, 'Crop edge').inputValue())).to.equal(share);
    await page.getByRole('button', { name: 'Crop tiled' }).click();
    await onFloor(page, 'crop');
  });

  it('Join shows its strip and the way of the cut', async () => {
    await station(page, 'join').click();
    await onFloor(page, 'joined', 512);
    const cut = page.locator('svg[data-cut]');
    await cut.waitFor();
    const paths = await cut
      .locator('path')
      .evaluateAll((all) => all.map((one) => one.getAttribute('d')!.split('L').length));
    expect(Math.min(...paths)).to.be.above(20);
    await page.getByRole('button', { name: 'Cut', exact: true }).click();
    await cut.waitFor({ state: 'detached' });
  });

  it('zooms to pixels and to fit, and drags the view while Space is held', async () => {
    const zoom = page.getByTestId('zoom');
    const fit = await zoom.textContent();
    await page.getByRole('button', { name: 'Pixels' }).click();
    expect(await zoom.textContent()).to.equal('100 %');
    await page.getByRole('button', { name: 'Fit' }).click();
    expect(await zoom.textContent()).to.equal(fit);
    await station(page, 'square').click();
    await onFloor(page, 'photo');
    const before = await figure(page, 'Centre across').inputValue();
    const corner = page.getByRole('slider', { name: 'Crop, upper left corner' });
    const [x] = await middle(corner);
    await page.mouse.move(300, 350);
    await page.keyboard.down('Space');
    await drag(page, [300, 350], [60, 0]);
    await page.keyboard.up('Space');
    expect(await figure(page, 'Centre across').inputValue()).to.equal(before);
    expect((await middle(corner))[0]).to.be.closeTo(x + 60, 2);
  });

  it('the Sill shows clay, unlit, or one map, takes a map out of play, and grows', async () => {
    await choose(page, 'What the Sill shows', 'Clay');
    await page.locator('[data-show="clay"]').waitFor();
    await choose(page, 'What the Sill shows', 'Roughness');
    await page.locator('[data-show="roughness"]').waitFor();
    await choose(page, 'What the Sill shows', 'Finished');
    await page.getByRole('button', { name: 'All maps on' }).click();
    await page.getByRole('checkbox', { name: 'Normal' }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Normal off' }).waitFor();
    const sill = page.getByRole('region', { name: 'Sill' });
    const narrow = (await sill.boundingBox())!.width;
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    await page.keyboard.press('l');
    await page.locator('[data-grown="yes"]').waitFor();
    expect((await sill.boundingBox())!.width).to.be.above(1200);
    await page.keyboard.press('l');
    expect((await sill.boundingBox())!.width).to.equal(narrow);
  });

  it('the splits are dragged and remembered', async () => {
    const separator = page.getByRole('separator', { name: 'Between Floor and Sill' });
    await drag(page, await middle(separator), [-120, 0]);
    const floor = (await page.getByRole('region', { name: 'Floor' }).boundingBox())!.width;
    await page.reload();
    await onFloor(page, 'photo');
    expect((await page.getByRole('region', { name: 'Floor' }).boundingBox())!.width).to.be.closeTo(floor, 3);
  });

  it('versions are listed with what changed, compared on the Floor, and restored', async () => {
    await station(page, 'gauge').click();
    await onFloor(page, 'albedo', 512);
    await setFigure(page, 'Colour', '0');
    await saved(page);
    await page.getByRole('button', { name: 'Versions' }).click();
    const newest = page.locator('[data-version]').first();
    await newest.getByText('Gauge: Colour 1.00 × → 0.00 ×').waitFor();
    await newest.getByRole('img').waitFor();
    const first = page.locator('[data-version="1"]');
    await first.getByRole('button', { name: 'Compare' }).click();
    await page.locator('canvas[data-before="shown"]').waitFor();
    await first.getByTestId('changes').getByText('1.00 × → 0.00 ×').waitFor();
    const [r, , b] = await colourAt(page, 0.3, 0.3);
    const [r2, , b2] = await colourAt(page, 0.7, 0.3);
    expect(r - b, 'colour before').to.be.above(20);
    expect(Math.abs(r2 - b2), 'none now').to.be.below(4);
    await first.getByRole('button', { name: 'Restore' }).click();
    await page.getByRole('button', { name: 'Undo: Version 1 restored' }).waitFor();
    await saved(page);
    await page.getByRole('button', { name: 'Back to dials' }).click();
    expect(await figure(page, 'Colour').inputValue()).to.equal('1.00');
    await page.getByRole('button', { name: 'Undo: Version 1 restored' }).click();
    expect(await figure(page, 'Colour').inputValue()).to.equal('0.00');
    await page.keyboard.press('Control+z');
    await saved(page);
  });

  it('a recipe is saved and put on another tile: what changes is shown first, its crop stays', async () => {
    await page.getByRole('button', { name: 'Recipe', exact: true }).click();
    await page.getByRole('button', { name: 'Save this one' }).click();
    await page.getByRole('textbox', { name: 'Name of the recipe' }).fill('Terrace, as set');
    await page.getByRole('checkbox', { name: 'Join' }).click();
    await page.getByRole('button', { name: 'Save recipe' }).click();
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.getByRole('link', { name: 'Yard' }).click();
    await page.locator('[data-tile="Limewashed stucco"]').dblclick();
    await station(page, 'square').click();
    await onFloor(page, 'photo');
    const edge = await figure(page, 'Edge').inputValue();
    await page.getByRole('button', { name: 'Recipe', exact: true }).click();
    await page.getByRole('combobox', { name: 'Saved recipe' }).click();
    await page.getByRole('option', { name: /Terrace, as set/ }).click();
    const changes = page.getByTestId('changes');
    await changes
      .getByText(/Limewash.* → Fired clay, red/)
      .first()
      .waitFor();
    expect(await changes.textContent()).to.not.match(/Join|Crop edge|Turn/);
    await page.getByRole('button', { name: 'Apply', exact: true }).click();
    await page.getByRole('button', { name: 'Undo: A recipe applied' }).waitFor();
    expect(await figure(page, 'Edge').inputValue()).to.equal(edge);
    await station(page, 'gauge').click();
    expect(await page.getByRole('combobox', { name: 'Reference' }).inputValue()).to.equal('Fired clay, red');
    await page.getByRole('button', { name: 'Undo: A recipe applied' }).click();
    await saved(page);
    await page.goto(`${stage.url}/recipes`);
    const saved2 = page.locator('[data-recipe="Terrace, as set"]');
    await saved2.getByText('Square, Even, Style, Gauge, Relief, Finish, Coats, Proof, Crate').waitFor();
    await saved2.getByRole('button', { name: 'Delete' }).click();
    await saved2.waitFor({ state: 'detached' });
    await undo(page, 'was deleted');
    await saved2.waitFor();
  });

  it('a guide picture is pinned, a colour picked from it into a palette, and the Floor names the nearest', async () => {
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    await onFloor(page, 'albedo', 512);
    await page.getByRole('button', { name: 'Guides' }).click();
    await page.getByLabel('Guide picture', { exact: true }).setInputFiles(demoPicture('ripples'));
    const picture = page.getByRole('button', { name: 'Pick a colour from limonaia-ripples.jpg' });
    await picture.waitFor();
    await page.waitForFunction('document.querySelector("aside img")?.complete');
    await picture.click();
    const hex = (await page.getByTestId('picked').textContent())!.slice(0, 7);
    expect(hex).to.match(/^#[0-9a-f]{6}$/);
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByText(`${hex} is in “Terrace at noon” now.`).waitFor();
    await page.mouse.move(...(await middle(page.locator('canvas[data-view]'))));
    await page
      .getByTestId('readout')
      .getByText(/0\.\d{3} from \S/)
      .waitFor();
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    expect(tiles, 'a guide is no tile').to.have.length(2);
    await page.getByRole('button', { name: 'Unpin limonaia-ripples.jpg' }).click();
    await picture.waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Guides' }).click();
  });

  it('a palette is exported, and imported again with the same colours; a wrong file is refused in words', async () => {
    const { projects } = await (await fetch(`${stage.url}/api/projects`)).json();
    await page.goto(`${stage.url}/projects/${projects[0].id}/palettes`);
    const noon = page.getByRole('region', { name: 'Terrace at noon' });
    const waiting = page.waitForEvent('download');
    await noon.getByRole('link', { name: 'Export' }).click();
    const path = await (await waiting).path();
    await noon.getByRole('button', { name: 'Delete' }).click();
    await noon.waitFor({ state: 'detached' });
    await page.getByLabel('Palette file').setInputFiles({
      name: 'noon.palette.json',
      mimeType: 'application/json',
      buffer: await import('node:fs/promises').then(({ readFile }) => readFile(path)),
    });
    await noon.getByRole('button', { name: 'lemon leaf, #55663a' }).waitFor();
    await noon.getByRole('button', { name: 'lemon leaf, #55663a' }).click();
    await page.getByRole('textbox', { name: 'lemon leaf as sRGB' }).fill('#445533');
    await page.keyboard.press('Escape');
    await noon.getByRole('button', { name: 'lemon leaf, #445533' }).waitFor();
    await page.getByLabel('Palette file').setInputFiles({
      name: 'wrong.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"name":"x","colours":[{"name":"y","hex":"red"}]}'),
    });
    await page.getByText('Colour 1 is “red”; a colour is written as #rrggbb.').waitFor();
  });

  it('the keys are shown by ?, crates are started by Ctrl+Enter and stand in the list of all crates', async () => {
    await page.goto(`${stage.url}/tiles/${tile}/gauge`);
    await onFloor(page, 'albedo', 512);
    await page.keyboard.press('?');
    const help = page.getByRole('dialog', { name: 'Help' });
    await help.getByText('expand or collapse the Sill').waitFor();
    await help.getByText('the row of stations at the foot of the Bench').waitFor();
    await page.keyboard.press('Escape');
    await help.waitFor({ state: 'detached' });
    // One key to the Dials, one to the Course; letters work from a figure, which does not take them.
    const inside = (what: string) =>
      page.evaluate(`document.activeElement.closest(${JSON.stringify(what)}) !== null`);
    await page.keyboard.press('d');
    expect(await inside('[aria-label="Dials"]')).to.equal(true);
    const exposure = figure(page, 'Exposure');
    await exposure.focus();
    const said = await exposure.inputValue();
    await page.keyboard.press('h');
    await page.getByRole('button', { name: 'Half shift', pressed: true }).waitFor();
    expect(await exposure.inputValue()).to.equal(said);
    await page.keyboard.press('h');
    await page.keyboard.press('c');
    expect(await inside('[aria-label="Course"]')).to.equal(true);
    await page.keyboard.press('Control+Enter');
    await page.waitForURL(/\/crate$/);
    await page.getByText(/Crate 1, ready/).waitFor();
    await page.goto(`${stage.url}/crates`);
    const crate = page.locator('[data-crate="1"]');
    await crate.getByText('Terrace pamments, crate 1, ready').waitFor();
    await crate.getByRole('button', { name: '9 files' }).click();
    await crate.getByRole('link', { name: 'Terrace pamments_normal.png' }).waitFor();
    const waiting = page.waitForEvent('download');
    await crate.getByRole('link', { name: 'Terrace pamments_normal.png' }).click();
    expect((await waiting).suggestedFilename()).to.equal('Terrace pamments_normal.png');
  });

  it('no page met an error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
