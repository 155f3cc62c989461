import { mkdtemp, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demoPicture, makeMissingPictures, seed, writeLantern } from '@zesty-tile/demo';
import { serve } from '@zesty-tile/server';
import { chromium } from 'playwright-core';
import { ensureChromium, run } from './setup.mjs';

// Makes the pictures of docs/screenshots from the demo data, at 1280 × 800.

const WEB = fileURLToPath(new URL('../web/dist', import.meta.url));
const ZESTY = fileURLToPath(new URL('../cli/bin/zesty.mjs', import.meta.url));
const OUT = fileURLToPath(new URL('../docs/screenshots', import.meta.url));

run('npm', ['run', '--silent', 'build']);
const data = await mkdtemp(join(tmpdir(), 'zesty-shots-'));
await makeMissingPictures();
await seed(data);
const server = await serve({ data, host: '127.0.0.1', port: 0, web: WEB, log: console.error });
const browser = await chromium.launch({
  executablePath: ensureChromium() ?? undefined,
  args: [
    '--no-sandbox',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    '--disable-gpu-compositing',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.setDefaultTimeout(90_000);
const shot = (name: string) => page.screenshot({ path: join(OUT, `${name}.png`) });
const settled = async () => {
  await page.waitForFunction(
    () => document.querySelectorAll('[data-station] [role="progressbar"]').length === 0,
  );
  // Two frames, so that the Sill has drawn what it was given; then it gathers its light.
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  if (await page.locator('[data-sill="lit"]').isVisible())
    await page.locator('[data-gathered="whole"]').waitFor({ timeout: 180_000 });
};
const open = async (station: string, view: string) => {
  await page.locator(`[data-station="${station}"]`).click();
  await page.locator(`canvas[data-view="${view}"][data-size="1024"]`).waitFor();
  await settled();
};

/** A set of maps as it might be dropped: crated from the shells, one of them under a doubtful name. */
async function mapSet(folder: string): Promise<string[]> {
  const names = ['albedo', 'normal', 'height', 'occlusion', 'roughness'];
  run('node', [
    ZESTY,
    'bake',
    demoPicture('shells'),
    '--out',
    folder,
    '--size',
    '512',
    '--name',
    'Shell floor',
    '--quiet',
  ]);
  await rename(join(folder, 'Shell floor_roughness.png'), join(folder, 'Shell floor_r.png'));
  return names.map((name) => join(folder, `Shell floor_${name === 'roughness' ? 'r' : name}.png`));
}

try {
  await page.goto(server.url);
  await page
    .getByRole('img', { name: /tiled 2 × 2/ })
    .nth(5)
    .waitFor();
  await page.getByRole('button', { name: 'Got it' }).click();
  await page.locator('[data-tile="Terrace pamments"]').click();
  await page.getByRole('img', { name: /lit ball/ }).waitFor();
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => Promise.all([...document.images].map((image) => image.decode().catch(() => {}))));
  await shot('yard');
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await page.locator('[data-sill="lit"]').waitFor();
  await open('gauge', 'albedo');
  await shot('bench-gauge');
  await page.getByRole('button', { name: 'Ball' }).click();
  await open('relief', 'height');
  for (const way of ['bright', 'dark', 'faces', 'light']) {
    await page.locator(`canvas[data-drawn="${way}"]`).waitFor();
  }
  await page.getByRole('button', { name: 'Turns' }).click();
  await page.getByRole('button', { name: 'Faces between joints' }).click();
  // Joints make the tile deeper than the dial says.
  await page.waitForFunction(
    () => Number.parseFloat(document.querySelector('[data-testid="depth-share"]')?.textContent ?? '') > 6.1,
  );
  await settled();
  await shot('bench-relief');
  await page.keyboard.press('Control+z');
  await settled();
  await page.getByRole('button', { name: 'Slab' }).click();
  await page.getByRole('button', { name: '3 × 3' }).click();
  await open('join', 'joined');
  await shot('bench-join');
  await page.getByRole('button', { name: 'Compare methods …' }).click();
  await page.getByText('· best').waitFor();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.getByRole('button', { name: '2 × 2' }).click();
  await page.getByRole('button', { name: 'Graft', exact: true }).click();
  await page.getByRole('button', { name: 'Go to worst seam spot' }).click();
  await page.getByRole('button', { name: /^Graft 6/ }).waitFor();
  await page.getByRole('region', { name: 'Repair' }).scrollIntoViewIfNeeded();
  await shot('bench-repair');
  await page.getByRole('button', { name: 'Graft', exact: true }).click();
  await page.getByRole('button', { name: 'Half shift' }).click();
  await page.locator('[data-station="square"]').click();
  await page.locator('svg[data-crop]').waitFor();
  await settled();
  await shot('bench-square');
  await page.getByRole('button', { name: 'Pieces that tile …' }).click();
  await page.locator('[data-piece]').first().waitFor();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await open('crate', 'albedo');
  await page.getByRole('button', { name: 'Crate it' }).click();
  await page.getByRole('link', { name: 'Download zip' }).waitFor();
  await shot('bench-crate');
  await page.getByRole('button', { name: 'Duplicate and edit …' }).click();
  const profile = page.getByRole('dialog', { name: 'Profile of the crate' });
  await profile.getByRole('button', { name: 'normal', exact: true }).click();
  await profile.getByRole('img', { name: 'Red as a picture' }).waitFor();
  await profile.getByRole('button', { name: 'Cancel' }).click();
  await profile.waitFor({ state: 'detached' });
  await page.locator('[data-station="even"]').click();
  const amount = page.getByRole('textbox', { name: 'Amount, figure' });
  await amount.fill('0.6');
  await amount.press('Enter');
  await page
    .getByTestId('saved')
    .getByText(/Saved \d/)
    .waitFor();
  await open('gauge', 'albedo');
  await page.getByRole('button', { name: 'Versions' }).click();
  await page.locator('[data-version="2"]').getByRole('img').waitFor();
  await page.locator('[data-version="1"]').getByRole('button', { name: 'Compare' }).click();
  await page.locator('canvas[data-before="shown"]').waitFor();
  await settled();
  await shot('bench-versions');
  await page.locator('[data-version="1"]').getByRole('button', { name: 'Restore' }).click();
  await page.goto(server.url);
  await page.getByLabel('Photos for new tiles').setInputFiles(await mapSet(data));
  await page.getByText(/Its green points/).waitFor();
  await page.getByText('reading …').first().waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Green up (+Y)' }).locator('canvas').waitFor();
  await page.waitForFunction(() =>
    [...document.querySelectorAll<HTMLCanvasElement>('[role="dialog"] canvas')].every((canvas) =>
      canvas
        .getContext('2d')!
        .getImageData(0, 0, canvas.width, canvas.height)
        .data.some((v) => v > 0),
    ),
  );
  await page.waitForLoadState('networkidle');
  await shot('yard-set');
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click();
  await page.goto(server.url);
  await page.locator('[data-tile="Verdigris copper"]').dblclick();
  await page.locator('[data-sill="lit"]').waitFor();
  await page.getByRole('button', { name: 'Ball' }).click();
  await open('gauge', 'albedo');
  await page.getByRole('button', { name: /^Rubbed bare/ }).click();
  await page.locator('canvas[data-tinted="yes"]').waitFor();
  await page.getByRole('group', { name: 'Values of Rubbed bare' }).scrollIntoViewIfNeeded();
  await shot('bench-zone');
  await page.getByRole('button', { name: /^Rubbed bare/ }).click();
  await open('finish', 'roughness');
  await page.getByRole('button', { name: 'Tone curve', exact: true }).click();
  await page.getByRole('button', { name: 'Add a point' }).click();
  await page.getByRole('slider', { name: 'Point 2' }).scrollIntoViewIfNeeded();
  await settled();
  await shot('bench-finish');
  await page.getByRole('button', { name: /^Undo: Finish, Tone curve/ }).click();
  await page.getByRole('button', { name: 'Nook' }).click();
  await open('proof', 'albedo');
  await page.locator('g[data-repeat]').first().waitFor();
  await page.locator('[data-check="agree"]').waitFor();
  await shot('bench-proof');
  await page.goto(server.url);
  await page.locator('[data-tile="Terrace pamments"]').dblclick();
  await page.locator('[data-sill="lit"]').waitFor();
  await open('proof', 'albedo');
  await page.getByRole('button', { name: 'Expand the Sill (L)' }).click();
  await page.getByRole('button', { name: 'Terrace', exact: true }).click();
  for (const [part, tile] of [
    ['Wall', 'Limewashed stucco'],
    ['Floor', 'This tile'],
    ['Steps', 'Usual: limestone'],
  ]) {
    for (const [list, name] of [
      ['Part of the terrace', part],
      ['Tile on the part', tile],
    ]) {
      await page.getByRole('combobox', { name: list, exact: true }).click();
      await page.getByRole('option', { name, exact: true }).click();
      await page.locator('.MuiMenu-root').waitFor({ state: 'detached' });
    }
  }
  await page
    .getByRole('region', { name: 'Sill' })
    .getByRole('button', { name: 'Shape', exact: true })
    .click();
  await page.getByRole('switch', { name: 'For scale' }).click();
  await page.keyboard.press('Escape');
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  await page.locator('[data-computing="0"]').waitFor();
  await settled();
  await shot('sill-terrace');
  await page.getByRole('button', { name: 'Collapse the Sill (L)' }).click();
  await page.getByRole('link', { name: 'Proof sheet' }).click();
  await page.getByRole('button', { name: 'Save as PNG' }).waitFor();
  await page.waitForLoadState('networkidle');
  await page.setViewportSize({ width: 1280, height: 1130 });
  await shot('proof-sheet');
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(server.url);
  await page.locator('[data-tile="Terrace pamments"]').dblclick();
  await page.locator('[data-sill="lit"]').waitFor();
  await open('gauge', 'albedo');
  await page.getByRole('button', { name: 'Readings', exact: true }).click();
  for (const [x, y] of [
    [0.32, 0.34],
    [0.62, 0.3],
    [0.45, 0.68],
  ]) {
    await page.getByRole('button', { name: 'Drop a reading' }).click();
    const layer = page.locator('[data-pick="albedo"]');
    await layer.waitFor();
    const box = (await layer.boundingBox())!;
    await page.mouse.click(box.x + x * box.width, box.y + y * box.height);
    await layer.waitFor({ state: 'detached' });
  }
  await page.getByRole('button', { name: 'Grey beside it' }).click();
  await page.getByRole('button', { name: 'By eye', exact: true }).click();
  await page.getByRole('button', { name: 'Next to grey steps' }).click();
  await page
    .getByRole('table')
    .getByText(/inside|above|below/)
    .nth(2)
    .waitFor();
  await page.getByRole('table').scrollIntoViewIfNeeded();
  await settled();
  await shot('bench-eye');
  await page.goto(`${server.url}/charts`);
  await page.getByRole('button', { name: 'New chart' }).click();
  for (const k of [1, 2, 3]) {
    await page.getByRole('button', { name: 'Add a line' }).click();
    await page.getByRole('group', { name: `Line ${k}` }).waitFor();
  }
  await shot('charts');
  await page.goto(server.url);
  await page.locator('[data-tile="Terrace pamments"]').click();
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await open('coats', 'albedo');
  for (const offer of ['Moss in hollows', 'Fallen leaves']) {
    const more = page.getByRole('button', { name: 'New coat …' });
    if (await more.isVisible()) await more.click();
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name: offer }).click();
  }
  await page.locator('[data-station="coats"]').getByText('2 coats').waitFor();
  await page.getByRole('button', { name: 'New coat …' }).click();
  await page.getByRole('button', { name: 'Painted by hand' }).click();
  const dials = page.getByRole('region', { name: 'Dials' });
  await page.getByRole('toolbar', { name: 'Brush' }).getByRole('button', { name: 'Mirror: no' }).click();
  await dials.getByRole('combobox', { name: 'Prints' }).click();
  await page.getByRole('option', { name: 'Blossom', exact: true }).click();
  await page.locator('.MuiMenu-root').waitFor({ state: 'detached' });
  const brush = page.getByRole('toolbar', { name: 'Brush' });
  await brush.getByRole('button', { name: /^Colour of the brush/ }).click();
  await page.getByRole('textbox', { name: 'Colour of the brush as sRGB' }).fill('#f1e9cf');
  await page.keyboard.press('Enter');
  await dials.getByRole('textbox', { name: 'Spacing, figure' }).fill('1.3');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  await settled();
  const box = (await page.locator('canvas[data-tint-layer="painted coat"]').boundingBox())!;
  for (let k = 0; k <= 24; k++) {
    const [x, y] = [0.12 + 0.0085 * k, 0.3 + 0.08 * Math.sin(k / 4)];
    await page.mouse.move(box.x + x * box.width, box.y + y * box.height);
    if (k === 0) await page.mouse.down();
  }
  await page.mouse.up();
  await dials.getByText('1 stroke').waitFor();
  await settled();
  await shot('bench-coats');
  await page.goto(server.url);
  await page.locator('[data-tile="Painted copper"]').click();
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await open('style', 'styled');
  await page.waitForFunction(() => document.querySelectorAll('canvas[data-made]').length >= 5);
  await settled();
  await shot('bench-style');
  await page.goto(server.url);
  await page.locator('[data-tile="Garden lantern"]').click();
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  await open('coats', 'albedo');
  await page.getByRole('button', { name: '1', exact: true }).click();
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByLabel('Shape file').setInputFiles(await writeLantern());
  await page.getByText('limonaia-lantern.obj').waitFor();
  await page.keyboard.press('Escape');
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Own', exact: true, pressed: true }).waitFor();
  await page.locator('[data-coat="Lemon sprigs by hand"]').click();
  await dials.getByRole('button', { name: 'Paint', exact: true }).click();
  await brush.getByRole('button', { name: /^Colour of the brush/ }).click();
  await page.getByRole('textbox', { name: 'Colour of the brush as sRGB' }).fill('#d8a23a');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  for (let k = 0; k < 6; k++) await page.keyboard.press('s');
  await settled();
  const sill = (await page.locator('[data-sill] canvas').first().boundingBox())!;
  for (let k = 0; k <= 30; k++) {
    const [x, y] = [0.35 + 0.011 * k, 0.44 + 0.02 * Math.sin(k / 2)];
    await page.mouse.move(sill.x + x * sill.width, sill.y + y * sill.height);
    if (k === 0) await page.mouse.down();
  }
  await page.mouse.up();
  await dials.getByText('25 strokes').waitFor();
  await page.locator('canvas[data-view="albedo"][data-size="1024"]').waitFor();
  // Over the shape until the shape shows it itself.
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-tint-layer="painted shape"]')!;
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return data.every((value) => value === 0);
  });
  await settled();
  await shot('sill-brush');
} finally {
  await browser.close();
  await server.close();
  await rm(data, { recursive: true, force: true });
}
