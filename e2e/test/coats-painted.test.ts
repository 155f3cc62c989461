import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { pixelAt, untilPixel } from './coat-pixels.ts';
import { idle, onFloor, openStage, type Stage, saved } from './stage.ts';

const OLIVE = [138, 143, 90];

describe('masks painted by hand', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  let bare: [number, number, number];
  let under: [number, number, number];
  /** In the upper left of four tiles: where a stroke goes, and what it is mirrored to; in shares of the Floor. */
  const AT = { stroke: [0.17, 0.24], mirrored: [0.419, 0.24], other: [0.25, 0.4] } as const;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const stroke = async ([x, y]: readonly [number, number], along = 0.02) => {
    const box = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    const [left, top] = [box.x + x * box.width, box.y + y * box.height];
    await page.mouse.move(left - along * box.width, top);
    await page.mouse.down();
    await page.mouse.move(left, top, { steps: 3 });
    await page.mouse.move(left + along * box.width, top, { steps: 3 });
    await page.mouse.up();
  };
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    bare = await pixelAt(page, ...AT.stroke);
    under = await pixelAt(page, ...AT.other);
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name: 'Flat colour' }).click();
    await untilPixel(page, ...AT.stroke, OLIVE);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a painted mask gives the brush at once; what is painted is covered, the rest is not', async () => {
    await dials().getByRole('button', { name: 'Painted', exact: true }).first().click();
    await untilPixel(page, ...AT.stroke, bare, 12);
    await stroke(AT.stroke);
    await untilPixel(page, ...AT.stroke, OLIVE);
    const other = await pixelAt(page, ...AT.other);
    expect(Math.abs(other[2] - OLIVE[2])).to.be.above(40);
    await dials().getByText('1 stroke').waitFor();
  });

  it('Erase takes it away, undo brings it back, and it is kept over a reload', async () => {
    await dials().getByRole('button', { name: 'Erase' }).click();
    await stroke(AT.stroke, 0.04);
    await untilPixel(page, ...AT.stroke, bare, 12);
    await page.getByRole('button', { name: /^Undo: Coats/ }).click();
    await untilPixel(page, ...AT.stroke, OLIVE);
    await saved(page);
    await page.reload();
    await onFloor(page, 'albedo', 512);
    await untilPixel(page, ...AT.stroke, OLIVE);
  });

  it('a mirrored stroke is on both sides of the tile’s middle', async () => {
    await page.locator('[data-coat="Flat colour"]').click();
    await dials().getByRole('button', { name: 'Undo last stroke' }).click();
    await untilPixel(page, ...AT.stroke, bare, 12);
    await dials().getByRole('button', { name: 'Paint', exact: true }).click();
    await page.keyboard.press('x');
    await page.getByRole('button', { name: 'Mirror: across' }).waitFor();
    await stroke(AT.stroke);
    await untilPixel(page, ...AT.stroke, OLIVE);
    await untilPixel(page, ...AT.mirrored, OLIVE);
    // The next stroke is mirrored no more.
    for (const name of ['down', 'both', 'no']) {
      await page.keyboard.press('x');
      await page.getByRole('button', { name: `Mirror: ${name}` }).waitFor();
    }
  });

  it('a coat painted by hand takes the colour that strokes carry, and Roughness too when it is asked for', async () => {
    await page.getByRole('button', { name: 'New coat …' }).click();
    await page
      .getByRole('group', { name: 'New coat' })
      .getByRole('button', { name: 'Painted by hand' })
      .click();
    const tools = page.getByRole('toolbar', { name: 'Brush' });
    await tools.getByRole('button', { name: 'Paint', pressed: true }).waitFor();
    await tools.getByRole('button', { name: /^Colour of the brush/ }).click();
    await page.getByRole('textbox', { name: 'Colour of the brush as sRGB' }).fill('#2040c0');
    await page.keyboard.press('Enter');
    await dials().getByRole('button', { name: 'Roughness', exact: true }).first().click();
    await dials().getByText('Roughness, painted').waitFor();
    await stroke(AT.other);
    await untilPixel(page, ...AT.other, [32, 64, 192]);
    // What it does not cover stays as it is.
    await untilPixel(page, ...AT.stroke, OLIVE);
    await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
    await page.getByRole('option', { name: 'Roughness', exact: true }).click();
    await page.locator('canvas[data-view="roughness"]').waitFor();
    const grey = await pixelAt(page, ...AT.other, 'roughness');
    expect(grey[0]).to.be.within(127, 129);
    await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
    await page.getByRole('option', { name: 'Albedo', exact: true }).click();
    await page.locator('canvas[data-view="albedo"]').waitFor();
  });

  it('a stroke that is cut off by the end of its tab loses none of those before', async () => {
    await saved(page);
    const box = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    await page.mouse.move(box.x + 0.12 * box.width, box.y + 0.3 * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + 0.3 * box.width, box.y + 0.3 * box.height, { steps: 4 });
    await page.reload();
    await onFloor(page, 'albedo', 512);
    await untilPixel(page, ...AT.other, [32, 64, 192]);
    await page.locator('[data-coat="Painted by hand"]').click();
    await dials().getByText('1 stroke').waitFor();
  });

  it('E erases, undo and redo take strokes in their order', async () => {
    await dials().getByRole('button', { name: 'Paint', exact: true }).click();
    await page.keyboard.press('e');
    await page
      .getByRole('toolbar', { name: 'Brush' })
      .getByRole('button', { name: 'Erase', pressed: true })
      .waitFor();
    await stroke(AT.other, 0.04);
    await untilPixel(page, ...AT.other, under, 12);
    await page.keyboard.press('Control+z');
    await untilPixel(page, ...AT.other, [32, 64, 192]);
    await page.keyboard.press('Control+Shift+z');
    await untilPixel(page, ...AT.other, under, 12);
    await page.keyboard.press('q');
    await page.getByRole('toolbar', { name: 'Brush' }).waitFor({ state: 'detached' });
  });

  it('F fills what lies inside a line that is painted, and nothing outside', async () => {
    await page.locator('[data-coat="Painted by hand"]').click();
    await page.getByRole('button', { name: 'New coat …' }).click();
    await page
      .getByRole('group', { name: 'New coat' })
      .getByRole('button', { name: 'Painted by hand' })
      .click();
    const box = (await page.locator('canvas[data-view="albedo"]').boundingBox())!;
    const to = (k: number) => {
      const turn = (2 * Math.PI * k) / 24;
      return [
        box.x + (0.25 + 0.12 * Math.sin(turn)) * box.width,
        box.y + (0.3 + 0.12 * Math.cos(turn)) * box.height,
      ] as const;
    };
    await page.mouse.move(...to(0));
    await page.mouse.down();
    for (let k = 1; k <= 24; k++) await page.mouse.move(...to(k));
    await page.mouse.up();
    await dials().getByText('1 stroke').waitFor();
    await page.keyboard.press('f');
    const tools = page.getByRole('toolbar', { name: 'Brush' });
    await tools.getByRole('button', { name: 'Fill', pressed: true }).waitFor();
    await tools.getByRole('button', { name: /^Colour of the brush/ }).click();
    await page.getByRole('textbox', { name: 'Colour of the brush as sRGB' }).fill('#20a040');
    await page.keyboard.press('Enter');
    const tolerance = dials().getByRole('textbox', { name: 'Tolerance, figure' });
    await tolerance.fill('0.3');
    await tolerance.press('Enter');
    const outside = await pixelAt(page, 0.45, 0.45);
    await page.mouse.click(box.x + 0.25 * box.width, box.y + 0.3 * box.height);
    await untilPixel(page, 0.25, 0.3, [32, 160, 64]);
    await untilPixel(page, 0.31, 0.33, [32, 160, 64]);
    await untilPixel(page, 0.45, 0.45, outside);
    await dials().getByText('2 strokes').waitFor();
  });

  it('on a tile whose edges meet only across a stroke ends at the open edges, and goes on over the others', async () => {
    await saved(page);
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    const { recipe } = revision;
    recipe.stations.join.axes = 'across';
    recipe.stations.coats.stack = [];
    const headers = { 'Content-Type': 'application/json' };
    const body = JSON.stringify({ base: revision.number, recipe });
    await fetch(`${stage.url}/api/tiles/${id}/revisions`, { method: 'POST', headers, body });
    await page.reload();
    await onFloor(page, 'albedo', 512);
    await idle(page);
    const floor = page.locator('canvas[data-look]');
    const look = JSON.parse((await floor.getAttribute('data-look'))!);
    const box = (await floor.boundingBox())!;
    /** A place of the tile that is laid first, on the page and in shares of the canvas. */
    const at = ([u, v]: readonly [number, number]) =>
      [look.x + u * look.edge, look.y + v * look.edge] as const;
    const share = (place: readonly [number, number]) =>
      [at(place)[0] / box.width, at(place)[1] / box.height] as const;
    const paths = {
      lower: { from: [0.4, 0.99], to: [0.6, 0.99], seen: [0.5, 0.985], beyond: [0.5, 0.012] },
      right: { from: [0.99, 0.3], to: [0.99, 0.5], seen: [0.985, 0.4], beyond: [0.012, 0.4] },
    } as const;
    const below = await pixelAt(page, ...share(paths.lower.beyond));
    await page
      .getByRole('group', { name: 'New coat' })
      .getByRole('button', { name: 'Painted by hand' })
      .click();
    await page.getByRole('toolbar', { name: 'Brush' }).waitFor();
    // Large enough that what is looked at lies under the whole of its tip.
    for (let k = 0; k < 3; k++) await page.keyboard.press('g');
    for (const { from, to } of Object.values(paths)) {
      const [start, end] = [at(from), at(to)];
      await page.mouse.move(box.x + start[0], box.y + start[1]);
      await page.mouse.down();
      await page.mouse.move(box.x + end[0], box.y + end[1], { steps: 5 });
      await page.mouse.up();
    }
    const BRUSH = [179, 69, 44];
    await untilPixel(page, ...share(paths.right.seen), BRUSH, 3);
    await untilPixel(page, ...share(paths.right.beyond), BRUSH, 3);
    await untilPixel(page, ...share(paths.lower.seen), BRUSH, 3);
    await untilPixel(page, ...share(paths.lower.beyond), below);
  });

  it('a stroke led over many tiles is seen on each of them while the pen is down', async () => {
    await page.getByRole('button', { name: '5 × 5' }).click();
    const floor = page.locator('canvas[data-look]');
    const box = (await floor.boundingBox())!;
    await page.waitForFunction(
      `JSON.parse(document.querySelector('canvas[data-look]').dataset.look).edge < ${box.width / 5}`,
    );
    const look = JSON.parse((await floor.getAttribute('data-look'))!);
    const at = (u: number, v: number) =>
      [box.x + look.x + u * look.edge, box.y + look.y + v * look.edge] as const;
    await page.mouse.move(...at(0.5, 0.5));
    await page.mouse.down();
    await page.mouse.move(...at(4.5, 0.9), { steps: 12 });
    const alpha = (u: number, v: number) => {
      const [x, y] = at(u, v);
      return page.evaluate(
        `document.querySelector('canvas[data-tint-layer="painted coat"]').getContext('2d').getImageData(${Math.round(x - box.x)}, ${Math.round(y - box.y)}, 1, 1).data[3]`,
      ) as Promise<number>;
    };
    // The end of the stroke, in every tile across; above it, before its beginning, nothing.
    for (let k = 0; k < 5; k++) {
      expect(await alpha(k + 0.4, 0.89)).to.be.above(200);
      expect(await alpha(k + 0.4, 0.3)).to.equal(0);
    }
    await page.mouse.up();
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
