import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { idle, openStage, type Stage } from './stage.ts';

describe('joining', () => {
  let stage: Stage;
  let page: Page;
  let address: string;

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['ripples'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    const tile = `${stage.url}/api/tiles/${tiles[0].id}`;
    const { revision } = await (await fetch(tile)).json();
    revision.recipe.stations.join.method = 'cut';
    await fetch(`${tile}/revisions`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ base: revision.number, recipe: revision.recipe }),
    });
    address = `${stage.url}/tiles/${tiles[0].id}/join`;
    page = await stage.page();
    await page.goto(address);
    await page.getByText(/does not match the photo/).waitFor();
  });

  after(() => stage.end());

  const unlike = async () =>
    Number(await page.locator('dt', { hasText: 'Mismatch' }).locator('+ dd').textContent());

  it('shows where the seam is unlike the photo, and rings the worst', async () => {
    await page.getByRole('button', { name: 'Seam heat' }).click();
    const heat = page.locator('svg[data-heat]');
    await heat.and(page.getByRole('img', { name: /seam spots are visible/ })).waitFor();
    expect(Number(await heat.getAttribute('data-heat'))).to.be.above(20);
  });

  it('tries every way, marks the best with its reason, and one press takes it: the crests meet', async () => {
    const before = await unlike();
    expect(before).to.be.above(0.6);
    await page.getByRole('button', { name: 'Compare methods …' }).click();
    const dialog = page.getByRole('dialog', { name: 'Joining methods' });
    await dialog.getByRole('progressbar', { name: 'Ways tried' }).waitFor();
    await dialog.getByText(/come together when both sides are bent/).waitFor();
    expect(await dialog.locator('[data-offer]').count()).to.equal(7);
    await dialog.getByRole('button', { name: 'Stop' }).waitFor({ state: 'detached' });
    const best = dialog.locator('[data-offer]').filter({ hasText: '· best' });
    expect(await best.getAttribute('data-offer')).to.match(/^meet/);
    // Enlarged, the picture fills the window; the next one takes its place there.
    const small = (await best.locator('canvas').boundingBox())!;
    await best.getByRole('button', { name: /^Enlarge Meet/ }).click();
    const large = (await dialog.locator('canvas').boundingBox())!;
    expect(large.width).to.be.above(2 * small.width);
    await dialog.getByText('Meet: bend, then cut · best').waitFor();
    await dialog.getByRole('button', { name: 'Next' }).click();
    await dialog.getByText('Meet: bend, then cut · best').waitFor({ state: 'detached' });
    await page.keyboard.press('Escape');
    await best.getByRole('button', { name: 'Use this' }).click();
    await page.getByText(/the cut is nearly like the photo|the cut looks like the photo/).waitFor();
    expect(await unlike()).to.be.below(before / 4);
  });

  it('is undone and done again by name', async () => {
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('combobox', { name: 'Method' }).and(page.getByText('Cut')).waitFor();
    await page.getByRole('button', { name: /^Redo/ }).click();
    await page
      .getByRole('combobox', { name: 'Method' })
      .and(page.getByText('Meet: bend, then cut'))
      .waitFor();
  });

  it('can be stopped while ways are tried: each has its place from the beginning, what was made stays', async () => {
    const dialog = page.getByRole('dialog');
    // Pressed with the very first: a slow machine might have tried them all before a pointer gets there.
    await page.evaluate(`new MutationObserver((_changes, watch) => {
      const stop = [...document.querySelectorAll('[role="dialog"] button')].find((one) => one.textContent === 'Stop');
      if (!stop) return;
      (globalThis.stopSeenAt ??= []).push(stop.getBoundingClientRect().top);
      if (!document.querySelector('[data-offer]')) return;
      watch.disconnect();
      stop.click();
    }).observe(document.body, { childList: true, subtree: true, attributes: true })`);
    await page.getByRole('button', { name: 'Compare methods …' }).click();
    await dialog.getByText('Stopped before all were tried.').waitFor();
    await dialog.getByRole('button', { name: 'Stop' }).waitFor({ state: 'detached' });
    const [first, ...later] = (await page.evaluate('globalThis.stopSeenAt')) as number[];
    expect(later).not.to.deep.equal([]);
    expect(later).to.deep.equal(later.map(() => first));
    const made = await dialog.locator('[data-offer]').count();
    expect(made).to.be.within(1, 6);
    expect(await dialog.getByRole('article').count()).to.equal(7);
    expect(await dialog.getByText('Not tried').count()).to.equal(7 - made);
    await dialog.getByRole('button', { name: 'Close' }).click();
    await dialog.waitFor({ state: 'detached' });
  });

  it('shows the tile’s vectors on the photo; drawn by hand they are kept, and nonsense is said plainly', async () => {
    await page.getByRole('button', { name: 'Source layout' }).click();
    await page.locator('[data-vectors="offset"]').waitFor();
    const right = page.getByRole('slider', { name: 'Tile vector to the right' });
    const figures = () => page.locator('dl').first().textContent();
    /** Until what was changed is measured: the tile lies about the crop's middle again. */
    const settled = async (work: () => Promise<void>) => {
      const before = await figures();
      await work();
      await page.waitForFunction(`document.querySelector('dl')?.textContent !== ${JSON.stringify(before)}`);
      await idle(page);
    };
    const middle = async () => {
      const { x, y, width, height } = (await right.boundingBox())!;
      return { x: x + width / 2, y: y + height / 2 };
    };
    const before = Number(await right.getAttribute('aria-valuenow'));
    await right.focus();
    await settled(() => page.keyboard.press('Shift+ArrowLeft'));
    await page.locator('[data-vectors="hand"]').waitFor();
    expect(Number(await right.getAttribute('aria-valuenow'))).to.be.closeTo(before - 1, 0.11);
    const { x, y } = await middle();
    await page.mouse.move(x, y);
    await page.mouse.down();
    await settled(() => page.mouse.move(x - 40, y, { steps: 4 }));
    const under = await middle();
    expect(Math.hypot(under.x - (x - 40), under.y - y)).to.be.below(1);
    await page.mouse.move(x + 500, y, { steps: 4 });
    await page.mouse.up();
    await page.getByText(/drawn by hand.*reach outside the photo/).waitFor();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByText(/drawn by hand.*reach outside/).waitFor({ state: 'detached' });
    await page
      .getByTestId('saved')
      .getByText(/Saved \d/)
      .waitFor();
    await page.reload();
    await page.getByRole('button', { name: 'Source layout' }).click();
    await page.locator('[data-vectors="hand"]').waitFor();
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
