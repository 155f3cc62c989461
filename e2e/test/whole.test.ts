import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage } from './stage.ts';

const SIZES = [
  [1100, 700],
  [1280, 800],
  [1920, 1080],
] as const;

const STATIONS = [
  ['source', 'photo'],
  ['square', 'photo'],
  ['even', 'evened'],
  ['join', 'joined'],
  ['gauge', 'albedo'],
  ['relief', 'height'],
  ['finish', 'roughness'],
  ['coats', 'albedo'],
  ['proof', 'albedo'],
  ['crate', 'albedo'],
] as const;

/** Every control that is to be seen and is not whole: out of the window, cut by what holds it, or with words cut off. */
const NOT_WHOLE = `(() => {
  const found = [];
  const scrolls = (style, axis) => /auto|scroll/.test(style['overflow' + axis]);
  for (const one of document.querySelectorAll('button, a[href], input, select, textarea, [role="combobox"], [role="tab"], [role="slider"]')) {
    const box = one.getBoundingClientRect();
    const style = getComputedStyle(one);
    if (box.width < 4 || box.height < 4 || style.visibility === 'hidden' || style.opacity === '0' || style.clipPath !== 'none') continue;
    if (one.closest('[aria-hidden="true"], [inert]')) continue;
    const words = (one.getAttribute('aria-label') || one.textContent || one.tagName).trim().slice(0, 60);
    const say = (why) => found.push(words + ': ' + why);
    const room = { left: 0, top: 0, right: innerWidth, bottom: innerHeight };
    let across = true, down = true;
    for (let up = one.parentElement; up; up = up.parentElement) {
      const held = getComputedStyle(up);
      const area = up.getBoundingClientRect();
      if (scrolls(held, 'X') && up.scrollWidth > up.clientWidth) across = false;
      if (scrolls(held, 'Y') && up.scrollHeight > up.clientHeight) down = false;
      if (held.overflowX !== 'visible' && across) { room.left = Math.max(room.left, area.left); room.right = Math.min(room.right, area.right); }
      if (held.overflowY !== 'visible' && down) { room.top = Math.max(room.top, area.top); room.bottom = Math.min(room.bottom, area.bottom); }
    }
    if (across && (box.left < room.left - 1.5 || box.right > room.right + 1.5)) say('cut at its side by ' + Math.round(Math.max(room.left - box.left, box.right - room.right)) + ' px');
    if (down && (box.top < room.top - 1.5 || box.bottom > room.bottom + 1.5)) say('cut above or below by ' + Math.round(Math.max(room.top - box.top, box.bottom - room.bottom)) + ' px');
    if (one.tagName !== 'INPUT' && one.tagName !== 'TEXTAREA') {
      const cut = [one, ...one.querySelectorAll('*')].find((part) => part.scrollWidth > part.clientWidth + 1 && getComputedStyle(part).overflowX !== 'visible' && part.clientWidth > 0);
      if (cut && (one.getAttribute('role') !== 'combobox' || cut.clientWidth < 40)) say('its words are cut off');
      const range = document.createRange();
      range.selectNodeContents(one);
      const lines = new Set([...range.getClientRects()].map(({ top }) => Math.round(top)));
      if (one.tagName === 'BUTTON' && one.children.length === 0 && lines.size > 1) say('its words wrap');
    }
  }
  return found;
})()`;

const notWhole = (page: Page) => page.evaluate(NOT_WHOLE) as Promise<string[]>;

describe('in windows from 1100 × 700 to 1920 × 1080', () => {
  let stage: Stage;
  let page: Page;
  let tile = '';
  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['stucco', 'ripples'], 512);
    page = await stage.page();
    await page.goto(stage.url);
    await page.getByRole('img', { name: 'Limewashed stucco, tiled 2 × 2' }).waitFor();
    tile = (await page.locator('[data-tile="Limewashed stucco"]').getAttribute('data-tile-id')) ?? '';
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  /** Asks in each size; the state stays as it is. */
  const inAllSizes = async (state: string) => {
    for (const [width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      // Two frames: what follows the window's size has followed.
      await page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))');
      expect(await notWhole(page), `${state} in ${width} × ${height}`).to.deep.equal([]);
    }
  };

  it('every control of the Yard is whole: with a tile chosen, several selected, a dialog open', async () => {
    await inAllSizes('the Yard');
    await page.locator('[data-tile="Limewashed stucco"]').click();
    await page.getByRole('button', { name: 'Close the sheet' }).waitFor();
    await inAllSizes('a tile chosen');
    await page.locator('[data-tile="Salt-pan ripples"]').click({ modifiers: ['Control'] });
    await page.getByRole('textbox', { name: 'Tag for all' }).waitFor();
    await inAllSizes('two selected');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Plain colour' }).click();
    await page.getByRole('dialog').waitFor();
    await inAllSizes('a tile from one colour');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Help' }).waitFor();
    await inAllSizes('help');
    await page.keyboard.press('Escape');
  });

  for (const [station, view] of STATIONS) {
    it(`every control of ${station} is whole, with all its sections open too`, async () => {
      await page.goto(`${stage.url}/tiles/${tile}/${station}`);
      await onFloor(page, view, station === 'source' || station === 'square' ? undefined : 512);
      await inAllSizes(station);
      const folds = page.locator('section[aria-label="Dials"] button[aria-expanded="false"]');
      for (let k = await folds.count(); k > 0; k--) await folds.first().click();
      await inAllSizes(`${station}, unfolded`);
    });
  }

  for (const path of ['charts', 'recipes', 'crates', 'settings']) {
    it(`every control of the page ${path} is whole`, async () => {
      await page.goto(`${stage.url}/${path}`);
      await page.getByRole('heading', { level: 1 }).waitFor();
      await inAllSizes(path);
    });
  }
});
