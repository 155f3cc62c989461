import AxeBuilder from '@axe-core/playwright';
import { STATION_NAMES, type StationName } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { within } from './sill-view.ts';
import { onFloor, openStage, type Stage } from './stage.ts';

async function serious(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`);
}

describe('for everyone', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage(['stucco'], 512);
    page = await stage.page();
    // Colours are judged as they stand, not half faded in.
    await page.emulateMedia({ reducedMotion: 'reduce' });
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  async function tilePage(name: StationName): Promise<string> {
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    return `${stage.url}/tiles/${tiles[0].id}/${name}`;
  }

  it('axe finds nothing serious in the Yard', async () => {
    await page.goto(stage.url);
    await page.getByRole('img', { name: /tiled 2 × 2/ }).waitFor();
    expect(await serious(page)).to.deep.equal([]);
  });

  for (const name of STATION_NAMES) {
    it(`axe finds nothing serious at ${name}`, async () => {
      await page.goto(await tilePage(name));
      await page.locator(`[data-station="${name}"][aria-current="step"]`).waitFor();
      // Style measures nothing where it does not paint.
      await page
        .getByText(/^Measured|The picture is kept as it is/)
        .first()
        .waitFor();
      expect(await serious(page)).to.deep.equal([]);
    });
  }

  it('axe finds nothing serious on the Sill, and in what its buttons open', async () => {
    const lit = await stage.page({ sill: true });
    await lit.goto(await tilePage('source'));
    await lit.locator('[data-sill="lit"]').waitFor();
    for (const name of ['Light', /^Depth/, 'Shape', 'Compare', 'Still'])
      await within(lit, name, async () => expect(await serious(lit), `${name}`).to.deep.equal([]));
    await lit.context().close();
  });

  it('axe finds nothing serious on the other pages, light and dim', async () => {
    const { projects } = await (await fetch(`${stage.url}/api/projects`)).json();
    for (const theme of ['Light', 'Dim']) {
      await page.goto(`${stage.url}/settings`);
      await page.getByRole('button', { name: theme, exact: true }).click();
      expect(await serious(page), `settings, ${theme}`).to.deep.equal([]);
      for (const [path, words] of [
        [`projects/${projects[0].id}/palettes`, 'Palettes of Limonaia'],
        ['charts', 'Charts'],
        ['recipes', 'Recipes'],
        ['crates', 'Crates'],
      ]) {
        await page.goto(`${stage.url}/${path}`);
        await page.getByRole('heading', { name: words, exact: true }).waitFor();
        expect(await serious(page), `${path}, ${theme}`).to.deep.equal([]);
      }
      await page.goto(stage.url);
      await page.locator('[data-tile]').click();
      await page.getByRole('img', { name: /lit ball/ }).waitFor();
      expect(await serious(page), `Yard with a sheet, ${theme}`).to.deep.equal([]);
    }
  });

  it('axe finds nothing serious in the versions, the recipe dialog and the keys, in the dim theme', async () => {
    await page.locator('[data-tile]').click();
    await onFloor(page, 'photo');
    await page.getByRole('button', { name: 'Versions' }).click();
    await page.getByRole('region', { name: 'Versions' }).getByRole('img', { name: 'Version 1' }).waitFor();
    expect(await serious(page), 'versions').to.deep.equal([]);
    await page.getByRole('button', { name: 'Back to dials' }).click();
    await page.getByRole('button', { name: 'Recipe', exact: true }).click();
    await page.getByRole('dialog', { name: /Recipe of/ }).waitFor();
    expect(await serious(page), 'recipe').to.deep.equal([]);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Help' }).waitFor();
    expect(await serious(page), 'keys').to.deep.equal([]);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
  });

  it('by keyboard alone a tile is found, opened, worked on, and focus is always seen', async () => {
    await page.goto(stage.url);
    await page.locator('[data-tile]').waitFor();
    const focused = (what: string) =>
      page.evaluate(`document.activeElement?.matches(${JSON.stringify(what)}) ?? false`);
    const tabTo = async (what: string) => {
      for (let k = 0; k < 80 && !(await focused(what)); k++) await page.keyboard.press('Tab');
      expect(await focused(what), what).to.equal(true);
      const outline = await page.evaluate(
        `(() => { const s = getComputedStyle(document.activeElement); return s.outlineStyle !== 'none' || s.boxShadow !== 'none'; })()`,
      );
      return outline;
    };
    expect(await tabTo('[data-tile]')).to.equal(true);
    await page.keyboard.press('Enter');
    await page.getByRole('img', { name: /lit ball/ }).waitFor();
    await page.keyboard.press('Enter');
    await onFloor(page, 'photo');
    expect(await tabTo('[data-station="gauge"]')).to.equal(true);
    await page.keyboard.press('Enter');
    await onFloor(page, 'albedo');
    await tabTo('input[type="range"][aria-label="Exposure"]');
    await page.keyboard.press('Shift+ArrowRight');
    expect(await page.getByRole('textbox', { name: 'Exposure, figure' }).inputValue()).to.equal('0.20');
  });

  it('every control looks different while it has the focus', async () => {
    await page.goto(stage.url);
    await page.locator('[data-tile]').first().waitFor();
    await page
      .getByRole('img', { name: /tiled 2 × 2/ })
      .first()
      .waitFor();
    const unseen: string[] = [];
    const reached = new Set<string>();
    for (let k = 0; k < 40; k++) {
      await page.keyboard.press('Tab');
      const at = (await page.evaluate(`(() => {
        const one = document.activeElement;
        if (!one || one === document.body) return null;
        const { left, top, width, height } = one.getBoundingClientRect();
        return { left, top, width, height, words: one.getAttribute('aria-label') || one.textContent || one.outerHTML.slice(0, 90) };
      })()`)) as { left: number; top: number; width: number; height: number; words: string } | null;
      if (!at) break;
      if (reached.has(at.words)) continue;
      reached.add(at.words);
      const clip = {
        x: Math.max(0, at.left - 6),
        y: Math.max(0, at.top - 6),
        width: Math.min(at.width, 400) + 12,
        height: Math.min(at.height, 300) + 12,
      };
      const focused = await page.screenshot({ clip });
      await page.evaluate('globalThis.last = document.activeElement, last.blur()');
      const blurred = await page.screenshot({ clip });
      await page.evaluate('last.focus({ focusVisible: true })');
      const [a, b] = await Promise.all(
        [focused, blurred].map((png) => sharp(png).removeAlpha().raw().toBuffer()),
      );
      const changed = a.filter((value, i) => Math.abs(value - b[i]) > 40).length;
      if (changed < 60) unseen.push(at.words);
    }
    expect(reached.size).to.be.above(12);
    expect(unseen).to.deep.equal([]);
  });

  it('a dialog is left by Escape in steps, and nothing that was written goes unasked', async () => {
    await page.goto(stage.url);
    await page.getByRole('button', { name: 'Plain colour' }).click();
    const dialog = page.getByRole('dialog', { name: 'Start from one colour' });
    await dialog.getByLabel('Name').fill('Whitewash');
    await page.keyboard.press('Escape');
    expect(await page.evaluate(`document.activeElement.matches('input')`)).to.equal(false);
    expect(await dialog.isVisible()).to.equal(true);
    await page.keyboard.press('Escape');
    await dialog.getByRole('button', { name: 'Keep editing' }).click();
    expect(await dialog.getByLabel('Name').inputValue()).to.equal('Whitewash');
    await page.keyboard.press('Escape');
    await dialog.getByRole('button', { name: 'Discard' }).click();
    await dialog.waitFor({ state: 'detached' });
  });

  it('who wants less motion gets none', async () => {
    const moving = await page.evaluate(
      `[...document.querySelectorAll('*')].filter((one) => {
        const { transitionProperty, animationName } = getComputedStyle(one);
        return transitionProperty !== 'none' || animationName !== 'none';
      }).map((one) => one.outerHTML.slice(0, 120))`,
    );
    expect(moving).to.deep.equal([]);
  });

  it('a page that is not there says so and leads back', async () => {
    await page.goto(`${stage.url}/no/such/page`);
    await page.getByRole('link', { name: 'Go to the Yard' }).click();
    await page.getByRole('img', { name: /tiled 2 × 2/ }).waitFor();
    await page.goto(`${stage.url}/tiles/none/source`);
    await page.getByText(/There is no such tile/).waitFor();
    expect(await serious(page)).to.deep.equal([]);
  });
});
