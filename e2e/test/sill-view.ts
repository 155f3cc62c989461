import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage } from './stage.ts';

export const sharp = createRequire(new URL('../../codecs/package.json', import.meta.url))('sharp');

export const mean = (values: number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
/** Mean difference of two stills, in codes. */
export const apart = (a: number[], b: number[]): number => mean(a.map((value, i) => Math.abs(value - b[i])));

/** Opens one of the Sill's popovers, does something in it, and closes it. */
export async function within(page: Page, button: string | RegExp, work: () => Promise<unknown>) {
  const sill = page.getByRole('region', { name: 'Sill' });
  await sill
    .getByRole('button', typeof button === 'string' ? { name: button, exact: true } : { name: button })
    .click();
  await page.locator('.MuiPopover-paper[role="dialog"]').waitFor();
  await work();
  await page.keyboard.press('Escape');
  await page.locator('.MuiPopover-paper[role="dialog"]').waitFor({ state: 'detached' });
}

/** Takes one of a menu's options. */
export async function choose(page: Page, of: string, name: string | RegExp) {
  await page.getByRole('combobox', { name: of }).click();
  await page
    .getByRole('option', typeof name === 'string' ? { name, exact: true } : { name })
    .first()
    .click();
  await page.locator('.MuiMenu-root').waitFor({ state: 'detached' });
}

/** Sets a dial of a popover by its figure. */
export async function setFigure(page: Page, name: string, value: number) {
  const field = page
    .getByRole('dialog')
    .getByRole('textbox', { name: `${name}, figure` })
    .last();
  await field.fill(String(value));
  await field.press('Enter');
}

/** A still of the Sill, taken with so many pixels, as codes of so many pixels to a side. */
export async function still(page: Page, edge = 64, taken: 512 | 1024 = 1024): Promise<number[]> {
  let bytes = Buffer.alloc(0);
  await within(page, 'Still', async () => {
    // One frame: what the view shows while something moves is drawn at once.
    await page.getByRole('button', { name: 'As it moves' }).click();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Still of ${taken} px` }).click(),
    ]);
    bytes = await readFile(await download.path());
  });
  const { width, height } = await sharp(bytes).metadata();
  expect([width, height]).to.deep.equal([taken, taken]);
  const { data } = await sharp(bytes)
    .flatten({ background: '#000' })
    .resize(edge, edge)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data];
}

/** Opens the first of the tiles at Relief, its height on the Floor and itself on the Sill. */
export async function openSill(
  ids: Parameters<typeof openStage>[0],
): Promise<{ stage: Stage; page: Page; tile: string }> {
  const stage = await openStage(ids, 512);
  const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
  const tile: string = tiles.find(({ name }: { name: string }) => name.includes(ids[0])).id;
  const page = await stage.page({ sill: true });
  await page.goto(`${stage.url}/tiles/${tile}/relief`);
  await page.locator('[data-sill="lit"]').waitFor();
  await onFloor(page, 'height');
  return { stage, page, tile };
}
