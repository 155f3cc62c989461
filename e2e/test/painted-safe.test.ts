import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { untilPixel } from './coat-pixels.ts';
import { idle, onFloor, openStage, type Stage, saved } from './stage.ts';

/** Places in the upper left of four tiles, in shares of the Floor. */
const PLACES: Record<'upper' | 'middle' | 'lower' | 'side', [number, number]> = {
  upper: [0.2, 0.2],
  middle: [0.2, 0.3],
  lower: [0.2, 0.42],
  side: [0.4, 0.42],
};
/** What the brush paints with at first. */
const RED = [179, 69, 44];

describe('strokes by hand are not lost', () => {
  let stage: Stage;
  let url = '';
  const dials = (page: Page) => page.getByRole('region', { name: 'Dials' });
  const floorOf = async (page: Page) => (await page.locator('canvas[data-view="albedo"]').boundingBox())!;

  /** Begins a stroke at a place, and leaves the pen down. */
  async function penDown(page: Page, [x, y]: readonly [number, number]) {
    const box = await floorOf(page);
    await page.mouse.move(box.x + (x - 0.03) * box.width, box.y + y * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + (x + 0.03) * box.width, box.y + y * box.height, { steps: 4 });
  }

  async function paint(page: Page, place: readonly [number, number]) {
    await penDown(page, place);
    await page.mouse.up();
  }

  /** Opens the tile and selects the brush. */
  async function open(page: Page) {
    await page.goto(url);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    const coat = page.locator('[data-coat="Painted by hand"]');
    if ((await coat.count()) === 0) await page.getByRole('button', { name: 'Painted by hand' }).click();
    else {
      await coat.click();
      await dials(page).getByRole('button', { name: 'Paint', exact: true }).click();
    }
    await page.getByRole('toolbar', { name: 'Brush' }).waitFor();
  }

  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    url = `${stage.url}/tiles/${tiles[0].id}/coats`;
  });
  after(() => stage.end());

  it('while the server is killed in mid-stroke painting goes on, and all of it is saved when it is back', async () => {
    const page = await stage.page();
    await open(page);
    await penDown(page, PLACES.upper);
    await stage.stop();
    await page.mouse.up();
    await untilPixel(page, ...PLACES.upper, RED);
    await page
      .getByTestId('saved')
      .getByText(/Offline/)
      .waitFor();
    await paint(page, PLACES.middle);
    await untilPixel(page, ...PLACES.middle, RED);
    await stage.restart();
    await saved(page);
    await page.context().close();
    const other = await stage.page();
    await open(other);
    await dials(other).getByText('2 strokes').waitFor();
    for (const place of [PLACES.upper, PLACES.middle]) await untilPixel(other, ...place, RED);
    await other.context().close();
  });

  it('where the disk has no room for a stroke that is said, it stays on the tile, and is saved with the next', async () => {
    const page = await stage.page();
    await open(page);
    let isFull = true;
    await page.route('**/revisions', (route) =>
      isFull && route.request().method() !== 'GET'
        ? route.fulfill({
            status: 507,
            contentType: 'application/json',
            body: JSON.stringify({
              error: { code: 'disk_full', message: 'The disk is full.', hint: 'Make room on it.' },
            }),
          })
        : route.fallback(),
    );
    await paint(page, PLACES.lower);
    await untilPixel(page, ...PLACES.lower, RED);
    await page
      .getByTestId('saved')
      .getByText(/The disk is full/)
      .waitFor();
    isFull = false;
    // The next stroke is saved with the one before.
    await paint(page, PLACES.side);
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo', 512);
    for (const place of [PLACES.lower, PLACES.side]) await untilPixel(page, ...place, RED);
    await page.context().close();
  });

  it('two windows that paint one tile: the conflict is said, and the strokes of either can be gone on with', async () => {
    const [one, two] = [await stage.page(), await stage.page()];
    for (const page of [one, two]) await open(page);
    await dials(one).getByRole('button', { name: 'Undo last stroke' }).click();
    await dials(one).getByText('3 strokes').waitFor();
    await saved(one);
    await paint(two, [0.35, 0.2]);
    await two
      .getByRole('dialog')
      .getByText(/changed in another window/)
      .waitFor();
    await two.getByRole('button', { name: 'Save mine on top' }).click();
    await two.getByRole('dialog').waitFor({ state: 'detached' });
    await saved(two);
    await two.reload();
    await onFloor(two, 'albedo', 512);
    await untilPixel(two, 0.35, 0.2, RED);
    await untilPixel(two, ...PLACES.lower, RED);
    await one.context().close();
    await two.context().close();
  });

  it('of many strokes only new ones are sent and kept in the browser, and a tab that ends finds all again', async () => {
    const id = url.split('/').at(-2)!;
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    const { recipe, number: base } = revision;
    const part = recipe.stations.coats.stack[0].parts.find((one: { by: string }) => one.by === 'strokes');
    const [stroke] = part.strokes;
    part.strokes = Array.from({ length: 600 }, (_, k) => ({ ...stroke, points: [[k / 600, 0.95]] }));
    const body = JSON.stringify({ base, recipe });
    const headers = { 'Content-Type': 'application/json' };
    const put = await fetch(`${stage.url}/api/tiles/${id}/revisions`, { method: 'POST', headers, body });
    expect(put.status).to.equal(201);
    const page = await stage.page();
    await open(page);
    const save = page.waitForRequest((one) => one.method() === 'POST' && one.url().endsWith('/revisions'));
    await paint(page, PLACES.upper);
    const sent = (await save).postData()!;
    expect(sent.length).to.be.below(body.length / 4);
    await saved(page);
    await dials(page).getByText('601 strokes').waitFor();
    await stage.stop();
    await paint(page, PLACES.middle);
    await page
      .getByTestId('saved')
      .getByText(/Offline/)
      .waitFor();
    const kept = (await page.evaluate(`localStorage.getItem('zesty draft ${id}')`)) as string;
    expect(kept.length).to.be.below(body.length / 4);
    const context = page.context();
    await page.close();
    await stage.restart();
    const next = await context.newPage();
    await open(next);
    await dials(next).getByText('602 strokes').waitFor();
    for (const place of [PLACES.upper, PLACES.middle]) await untilPixel(next, ...place, RED);
    await saved(next);
    await context.close();
  });

  it('nothing failed on the way that was not made to', () => {
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
