import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { idle, onFloor, openStage, type Stage } from './stage.ts';

describe('repairs', () => {
  let stage: Stage;
  let page: Page;
  let id: string;

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['shells'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/join`);
    await onFloor(page, 'joined', 512);
    await page.getByText(/the photo \(0\./).waitFor();
  });

  after(() => stage.end());

  const layer = () => page.locator('canvas[data-repair-layer]');
  const box = async () => (await layer().boundingBox())!;
  /** Presses at a share of the stage, drags by shares, lets go. */
  const draw = async (x: number, y: number, dx = 0, dy = 0) => {
    const { x: left, y: top, width, height } = await box();
    await page.mouse.move(left + x * width, top + y * height);
    await page.mouse.down();
    for (let k = 1; k <= 4 && dx + dy !== 0; k++) {
      await page.mouse.move(left + (x + (k * dx) / 4) * width, top + (y + (k * dy) / 4) * height);
    }
    await page.mouse.up();
  };
  const computed = () => page.locator('canvas[data-repair-layer][data-waiting="0"]').waitFor();
  const list = () => page.getByRole('list', { name: 'Repairs' }).getByRole('listitem');
  /** A small print of what is on the Floor, when it is drawn as finely as it will be. */
  const print = () =>
    page
      .locator('section[aria-label="Floor"] canvas[data-view="joined"][data-size="512"][data-fine="yes"]')
      .evaluate((canvas) => {
        const { width, height } = canvas as HTMLCanvasElement;
        const small = document.createElement('canvas');
        small.width = 64;
        small.height = 64;
        const pen = small.getContext('2d')!;
        pen.drawImage(canvas as HTMLCanvasElement, 0, 0, width, height, 0, 0, 64, 64);
        return Array.from(pen.getImageData(0, 0, 64, 64).data);
      });
  /** What the Floor says of the picture at a share of the stage. */
  const readAt = async (x: number, y: number) => {
    const { x: left, y: top, width, height } = await box();
    await page.mouse.move(left + x * width, top + y * height);
    const readout = page.getByTestId('readout');
    await readout.getByText(/sRGB/).waitFor();
    return readout.textContent();
  };
  const apart = (a: number[], b: number[]) =>
    a.reduce((sum, value, k) => sum + Math.abs(value - b[k]), 0) / a.length;

  it('shift the tile by half, ask where to take from, then lay what is there', async () => {
    await page.getByRole('button', { name: 'Clone', exact: true }).click();
    await page.getByText('Press the place in the picture to take from.').waitFor();
    expect(await page.getByRole('button', { name: 'Choose source' }).getAttribute('aria-pressed')).to.equal(
      'true',
    );
    expect(await page.getByRole('button', { name: 'Half shift' }).getAttribute('aria-pressed')).to.equal(
      'true',
    );
    await draw(0.4, 0.4);
    await page.locator('[data-taken-from]').first().waitFor();
    const before = await print();
    await draw(0.55, 0.5, 0.06, 0.02);
    await computed();
    expect(await list().count()).to.equal(1);
    await list().getByText('clone stroke').waitFor();
    // Nothing else moves: without the stroke both prints are the same to the bit.
    expect(apart(await print(), before)).to.be.above(0.04);
  });

  it('heal is a tool of its own; every stroke is a step that is undone by itself', async () => {
    await page.getByRole('button', { name: 'Heal', exact: true }).click();
    // The source of the other tool is not taken over.
    expect(await page.locator('[data-taken-from]').count()).to.equal(0);
    await draw(0.4, 0.4);
    await page.locator('[data-taken-from]').first().waitFor();
    await draw(0.5, 0.6, 0.08);
    await computed();
    await draw(0.45, 0.35, 0.05);
    await computed();
    expect(await list().count()).to.equal(3);
    // Read from the picture's own values, which no way of drawing it changes.
    const healed = await readAt(0.475, 0.35);
    await page.getByRole('button', { name: /^Undo: Join, Repairs 3, the last a heal stroke/ }).click();
    await computed();
    expect(await list().count()).to.equal(2);
    expect(await readAt(0.475, 0.35)).not.to.equal(healed);
    await page.getByRole('button', { name: /^Redo/ }).click();
    await computed();
    expect(await list().count()).to.equal(3);
    expect(await readAt(0.475, 0.35)).to.equal(healed);
  });

  it('any one of them can be taken away, and the others stay', async () => {
    await page.getByRole('button', { name: 'Remove repair 1' }).click();
    await computed();
    expect(await list().count()).to.equal(2);
    expect(await list().getByText('clone stroke').count()).to.equal(0);
  });

  it('a graft: six patches are offered for a spot with what is unlike, and one press takes one', async () => {
    await page.getByRole('button', { name: 'Graft', exact: true }).click();
    await idle(page);
    await page.getByRole('button', { name: 'Go to worst seam spot' }).click();
    const offers = page.getByRole('button', { name: /^Graft \d, from the (tile|photo), mismatch/ });
    await offers.nth(5).waitFor();
    const unlike = await Promise.all(
      Array.from({ length: 6 }, async (_, k) =>
        Number(/mismatch ([\d.]+)/.exec((await offers.nth(k).getAttribute('aria-label')) ?? '')?.[1]),
      ),
    );
    expect(unlike).to.deep.equal([...unlike].sort((a, b) => a - b));
    const before = await print();
    await offers.first().click();
    await offers.first().waitFor({ state: 'detached' });
    await list().first().getByText('graft').waitFor();
    await computed();
    expect(apart(await print(), before)).to.be.above(0.02);
  });

  it('are kept with the tile and come back with it', async () => {
    await page
      .getByTestId('saved')
      .getByText(/Saved \d/)
      .waitFor();
    await page.reload();
    await onFloor(page, 'joined', 512);
    expect(await list().count()).to.equal(3);
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    const kinds = revision.recipe.stations.join.repairs.map(({ kind }: { kind: string }) => kind);
    expect(kinds).to.deep.equal(['heal', 'heal', 'graft']);
    // In shares of the tile: nothing in a recipe is in pixels.
    const [first] = revision.recipe.stations.join.repairs;
    expect(first.points[0][0]).to.be.within(0, 1);
    expect(first.points[0][1]).to.be.within(0, 1);
  });

  it('met no error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
