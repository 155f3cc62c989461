import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { apart, choose, openSill, still } from './sill-view.ts';
import type { Stage } from './stage.ts';

const PARTS = [
  'Floor',
  'Steps',
  'Wall',
  'Low wall',
  'Niche',
  'Arcade',
  'House front',
  'Roof',
  'Joinery',
  'Pots',
  'Bench',
  'Basin',
];

describe('places on the Sill', () => {
  let stage: Stage;
  let page: Page;

  const tray = () => page.getByRole('region', { name: 'Tiles on the terrace' });
  const part = () => page.getByRole('combobox', { name: 'Part of the terrace' });
  const on = () => page.getByRole('combobox', { name: 'Tile on the part' });
  const settled = () => page.locator('[aria-label="Tiles on the terrace"][data-computing="0"]').waitFor();
  const shape = (name: string) => page.getByRole('button', { name, exact: true }).click();
  /** A still once it is another than one before; the Sill follows when the dial rests. */
  const anotherThan = async (before: number[], least = 0.5) => {
    let now = before;
    for (let tries = 0; tries < 20 && apart(now, before) < least; tries++) now = await still(page, 64, 512);
    expect(apart(now, before)).to.be.at.least(least);
    return now;
  };

  before(async function () {
    this.timeout(300_000);
    ({ stage, page } = await openSill(['pamments', 'copper']));
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a dragged tile is dropped on each part of the terrace, whose name is said on the way', async function () {
    this.timeout(600_000);
    await shape('Terrace');
    await page.getByRole('button', { name: /^Expand the Sill/ }).click();
    await settled();
    const canvas = page.locator('[data-sill] canvas');
    const says = page.locator('[data-sill] [role="status"]');
    const box = await canvas.boundingBox();
    /** Leads the pointer over a place of the view, until the words are of that place. */
    const over = async (x: number, y: number) => {
      await page.mouse.move(box!.x + x * box!.width, box!.y + y * box!.height, { steps: 2 });
      await page.evaluate('new Promise((end) => requestAnimationFrame(() => requestAnimationFrame(end)))');
    };
    const lift = async () => {
      await tray()
        .getByTitle(/copper/i)
        .hover();
      await page.mouse.down();
    };
    await lift();
    const places = new Map<string, [number, number]>();
    for (let y = 0.03; y < 0.98 && places.size < PARTS.length + 1; y += 0.07)
      for (let x = 0.02; x < 0.98; x += 0.04) {
        await over(x, y);
        const words = (await says.textContent())!;
        if (!places.has(words)) places.set(words, [x, y]);
      }
    expect([...places.keys()].sort()).to.deep.equal(
      ['No part is here', ...PARTS.map((name) => `Drop it: ${name.toLowerCase()}`)].sort(),
    );
    await over(...places.get('No part is here')!);
    await page.mouse.up();
    let before = await still(page, 64, 512);
    for (const name of PARTS) {
      await lift();
      const [x, y] = places.get(`Drop it: ${name.toLowerCase()}`)!;
      await over(x, y);
      await page.mouse.up();
      await part().getByText(name, { exact: true }).waitFor();
      await on()
        .getByText(/copper/i)
        .waitFor();
      await settled();
      // Other words in the tray do not move the view.
      expect(await canvas.boundingBox(), name).to.deep.equal(box);
      // Some parts are small in the view.
      before = await anotherThan(before, 0.008);
    }
    await page.getByRole('button', { name: /^Collapse the Sill/ }).click();
  });

  it('a tile is chosen for a part from the list, with its edge and turn, and is there after a reload', async function () {
    this.timeout(300_000);
    await choose(page, 'Part of the terrace', 'Floor');
    let before = await still(page, 64, 512);
    await choose(page, 'Tile on the part', 'This tile');
    await settled();
    before = await anotherThan(before, 0.15);
    const edge = tray().getByRole('textbox', { name: 'Edge, figure' });
    await edge.fill('3');
    await edge.press('Enter');
    before = await anotherThan(before, 0.1);
    await tray().getByRole('button', { name: 'Turn 90°' }).click();
    before = await anotherThan(before, 0.1);
    await page.reload();
    await page.locator('[data-sill="lit"]').waitFor();
    await shape('Terrace');
    await settled();
    await choose(page, 'Part of the terrace', 'Pots');
    await on()
      .getByText(/copper/i)
      .waitFor();
    await choose(page, 'Part of the terrace', 'Floor');
    await on().getByText('This tile').waitFor();
    expect(await edge.inputValue()).to.equal('3.00');
  });

  it('places are looked at from three distances', async () => {
    const seen: number[][] = [];
    for (const name of ['Walk-up', 'Grazing', 'Overview']) {
      await page.getByRole('button', { name, exact: true }).click();
      seen.push(await still(page, 64, 512));
    }
    await shape('Field');
    for (const name of ['Far', 'Middle', 'Near']) {
      await page.getByRole('button', { name, exact: true }).click();
      seen.push(await still(page, 64, 512));
    }
    for (let a = 0; a < seen.length; a++)
      for (let b = a + 1; b < seen.length; b++)
        expect(apart(seen[a], seen[b]), `${a} and ${b}`).to.be.above(2);
    // From far the ground ends in the sky: the top of the picture is another than the ground.
    const row = (codes: number[], y: number) => codes.slice(3 * 64 * y, 3 * 64 * (y + 1));
    expect(apart(row(seen[3], 2), row(seen[3], 60))).to.be.above(15);
  });
});
