import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { expect } from 'chai';
import type { Page } from 'playwright-core';

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

/** A still of the Sill, as codes of so many pixels to a side. */
export async function still(page: Page, edge = 64): Promise<number[]> {
  let bytes = Buffer.alloc(0);
  await within(page, 'Shape', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Still of 1024 px' }).click(),
    ]);
    bytes = await readFile(await download.path());
  });
  const { width, height } = await sharp(bytes).metadata();
  expect([width, height]).to.deep.equal([1024, 1024]);
  const { data } = await sharp(bytes)
    .flatten({ background: '#000' })
    .resize(edge, edge)
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data];
}
