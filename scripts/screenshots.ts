import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeMissingPictures, seed } from '@zesty-tile/demo';
import { serve } from '@zesty-tile/server';
import { chromium } from 'playwright-core';
import { ensureChromium, run } from './setup.mjs';

// Makes the pictures of docs/screenshots from the demo data, at 1280 × 800.

const WEB = fileURLToPath(new URL('../web/dist', import.meta.url));
const OUT = fileURLToPath(new URL('../docs/screenshots', import.meta.url));

run('npm', ['run', '--silent', 'build']);
const data = await mkdtemp(join(tmpdir(), 'zesty-shots-'));
await makeMissingPictures();
await seed(data);
const server = await serve({ data, host: '127.0.0.1', port: 0, web: WEB, log: console.error });
const browser = await chromium.launch({
  executablePath: ensureChromium() ?? undefined,
  args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.setDefaultTimeout(180_000);
const shot = (name: string) => page.screenshot({ path: join(OUT, `${name}.png`) });
const open = async (station: string, view: string) => {
  await page.locator(`[data-station="${station}"]`).click();
  await page.locator(`canvas[data-view="${view}"][data-size="1024"]`).waitFor();
  await page.waitForFunction(
    () => document.querySelectorAll('[data-station] [role="progressbar"]').length === 0,
  );
  // Two frames, so that the Sill has drawn what it was given.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
};

try {
  await page.goto(server.url);
  await page
    .getByRole('img', { name: /laid 2 × 2/ })
    .nth(4)
    .waitFor();
  await shot('yard');
  await page.locator('[data-tile="Terrace pamments"]').click();
  await page.locator('[data-sill="lit"]').waitFor();
  await open('gauge', 'albedo');
  await shot('bench-gauge');
  await page.getByRole('button', { name: 'Ball' }).click();
  await open('relief', 'height');
  await shot('bench-relief');
  await page.getByRole('button', { name: 'Slab' }).click();
  await page.getByRole('button', { name: '3 × 3' }).click();
  await open('join', 'joined');
  await shot('bench-join');
  await page.getByRole('button', { name: '2 × 2' }).click();
  await open('crate', 'albedo');
  await page.getByRole('button', { name: 'Crate it' }).click();
  await page.getByRole('link', { name: 'Download zip' }).waitFor();
  await shot('bench-crate');
} finally {
  await browser.close();
  await server.close();
  await rm(data, { recursive: true, force: true });
}
