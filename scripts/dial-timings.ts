import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { makeMissingPictures, seed } from '@zesty-tile/demo';
import { serve } from '@zesty-tile/server';
import { chromium, type Page } from 'playwright-core';
import { penTimes } from './pen-timings.ts';
import { ensureChromium, run } from './setup.mjs';

const WEB = fileURLToPath(new URL('../web/dist', import.meta.url));
/** The size that every tile is shown at first. */
const SIZE = 512;
const MOVES = 9;
/** Of a tile that is computed twice for each. */
const SHARP_MOVES = 5;

/** A dial and the time in which its station's picture is to be painted. */
const DIALS = [
  { station: 'square', dial: 'Centre across', view: 'crop' },
  // All of it is removed as it is, so there is only less.
  { station: 'even', dial: 'Amount', view: 'evened', isLess: true },
  { station: 'join', dial: 'Overlap', view: 'joined', wanted: { 512: 900 } },
  { station: 'gauge', dial: 'Exposure', view: 'albedo', wanted: { 512: 50, 1024: 100 } },
  { station: 'relief', dial: 'Depth', view: 'normal', wanted: { 512: 120 } },
  { station: 'finish', dial: 'Tone', view: 'roughness', wanted: { 512: 50, 1024: 100 } },
] as const;
const SIZES = [512, 1024] as const;

/** Notes when a picture of the wanted size is put on a canvas, and when the frame that shows it is done. */
const WATCH = `
  const put = CanvasRenderingContext2D.prototype.putImageData;
  CanvasRenderingContext2D.prototype.putImageData = function (picture, ...rest) {
    put.call(this, picture, ...rest);
    if (picture.width >= ${SIZE}) requestAnimationFrame(() => setTimeout(() => window.painted?.(performance.now())));
  };
  window.watchKey = () => void (window.afterKey = new Promise((done) => {
    addEventListener('keydown', () => {
      const start = performance.now();
      window.painted = (at) => { window.painted = undefined; done(at - start); };
    }, { capture: true, once: true });
  }));`;

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Longer than the Sill rests before it follows where the processor draws it. */
const SILL_FOLLOWS_MS = 400;

/** Nothing is computed any more, and the Sill, which the processor draws here, is drawn to the end. */
async function idle(page: Page): Promise<void> {
  await page.waitForFunction(
    'document.querySelectorAll(\'[data-station] [role="progressbar"]\').length === 0',
  );
  await page.evaluate(
    `new Promise((done) => setTimeout(() => {
      const gl = document.querySelector('[data-sill] canvas').getContext('webgl2');
      gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
      requestAnimationFrame(() => setTimeout(done));
    }, ${SILL_FOLLOWS_MS}))`,
  );
}

async function setSize(url: string, id: string, size: number): Promise<void> {
  const { revision } = await (await fetch(`${url}/api/tiles/${id}`)).json();
  revision.recipe.stations.square.size = size;
  await fetch(`${url}/api/tiles/${id}/revisions`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ base: revision.number, recipe: revision.recipe }),
  });
}

/** A zone by colour that nothing is set for, and a reading, on a tile. */
async function withZone(url: string, id: string): Promise<void> {
  const { revision } = await (await fetch(`${url}/api/tiles/${id}`)).json();
  const { gauge } = revision.recipe.stations;
  revision.recipe.masks = [
    {
      id: 'joints',
      name: 'Joints',
      wetness: 0,
      parts: [{ by: 'colour', how: 'and', colour: '#a39787', reach: 0.05, softness: 0.4 }],
    },
  ];
  gauge.readings = [{ x: 0.3, y: 0.3, mm: 50, grey: null }];
  await fetch(`${url}/api/tiles/${id}/revisions`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ base: revision.number, recipe: revision.recipe }),
  });
}

/** Calls back when the row of the first reading says something else. */
const WATCH_READING = `(() => {
  const row = document.querySelector('tbody tr');
  const before = row.textContent;
  const watch = new MutationObserver(() => {
    if (row.textContent === before) return;
    watch.disconnect();
    requestAnimationFrame(() => setTimeout(() => window.painted?.(performance.now())));
  });
  watch.observe(row, { subtree: true, characterData: true, childList: true });
})()`;

/** Median ms from a key to the shown zone, and to a reading's new figures. */
async function zoneTimings(page: Page): Promise<{ zone: number; reading: number }> {
  await page.getByRole('button', { name: /^Joints/ }).click();
  await page.locator('canvas[data-tinted="yes"]').waitFor();
  await page
    .locator('tbody tr')
    .getByText('inside')
    .or(page.locator('tbody tr').getByText('above'))
    .first()
    .waitFor();
  await idle(page);
  const measure = async (name: string, key: string, before: string) => {
    await page.getByRole('slider', { name, exact: true }).focus();
    const times: number[] = [];
    for (let move = 0; move < MOVES; move++) {
      await page.evaluate(before);
      await page.evaluate('window.watchKey()');
      await page.keyboard.press(key);
      times.push((await page.evaluate('window.afterKey')) as number);
      await idle(page);
    }
    return median(times);
  };
  return {
    zone: await measure('Reach', 'ArrowRight', ''),
    reading: await measure('Reading 1', 'Shift+ArrowRight', WATCH_READING),
  };
}

const STROKES = 60;
const STROKE_SIZE = 2048;

/** ms from releasing each of sixty heal strokes until the tile of 2048 px is there with it; the strokes themselves are seen at once. */
async function strokeTimes(page: Page): Promise<number[]> {
  await page.locator(`canvas[data-view="joined"][data-size="${STROKE_SIZE}"]`).waitFor();
  await idle(page);
  await page.getByRole('button', { name: 'Heal', exact: true }).click();
  const layer = page.locator('canvas[data-repair-layer]');
  const box = (await layer.boundingBox())!;
  const move = (x: number, y: number) => page.mouse.move(box.x + x * box.width, box.y + y * box.height);
  await move(0.3, 0.3);
  await page.mouse.down();
  await page.mouse.up();
  const times: number[] = [];
  for (let n = 0; n < STROKES; n++) {
    const [x, y] = [0.3 + 0.35 * (((n * 37) % 61) / 61), 0.3 + 0.35 * (((n * 17) % 59) / 59)];
    await move(x, y);
    await page.mouse.down();
    for (let k = 1; k <= 5; k++) await move(x + 0.01 * k, y + 0.004 * k);
    await page.mouse.up();
    const start = performance.now();
    // Looked at on every frame; a locator would look at longer and longer intervals.
    await page.waitForFunction(
      'document.querySelector("canvas[data-repair-layer]")?.dataset.waiting === "0"',
    );
    times.push(performance.now() - start);
  }
  return times;
}

const BALL = { width: 366, height: 622 };

/** ms of one frame of the finished ball at 366 × 622, drawn by the processor, for each way of showing depth; as the program measures it. */
async function ballFrames(page: Page): Promise<{ depth: string; ms: number }[]> {
  await page.locator('[data-sill="lit"]').waitFor();
  await idle(page);
  await page.getByRole('button', { name: 'Ball', exact: true }).click();
  for (let round = 0; round < 3; round++) {
    const view = page.viewportSize()!;
    const { width, height } = (await page.locator('[data-sill] canvas').boundingBox())!;
    await page.setViewportSize({
      width: Math.round((view.width * BALL.width) / width),
      height: Math.round(view.height + BALL.height - height),
    });
  }
  await page.getByRole('button', { name: /^Depth:/ }).click();
  await page.getByRole('button', { name: 'Time all' }).click();
  const found: { depth: string; ms: number }[] = [];
  for (const depth of ['flat', 'one-step', 'ray-steps', 'true']) {
    const cost = page.getByTestId(`cost-${depth}`).getByText(/ms a frame/);
    found.push({ depth, ms: Number.parseFloat((await cost.textContent())!) });
  }
  await page.keyboard.press('Escape');
  return found;
}

interface Timing {
  work: string;
  ms: number;
  wanted?: number;
}

/** From a key on each dial to the painted picture, at each size. */
async function movedDials(page: Page, url: string, id: string): Promise<Timing[]> {
  const rows: Timing[] = [];
  for (const size of SIZES) {
    await setSize(url, id, size);
    for (const { station, dial, view, ...more } of DIALS) {
      await page.goto(`${url}/tiles/${id}/${station}`);
      await page.locator('[data-sill="lit"]').waitFor();
      await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
      await page.locator(`[role="option"][data-value="${view}"]`).click();
      // The menu gives the focus back when it is gone.
      await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
      await page.locator(`canvas[data-view="${view}"]`).waitFor();
      await idle(page);
      await page.getByRole('slider', { name: dial, exact: true }).focus();
      // The second time the way back, so that no dial comes to its end.
      const isRight = (size === SIZE) !== 'isLess' in more;
      const times: number[] = [];
      for (let move = 0; move < (size === SIZE ? MOVES : SHARP_MOVES); move++) {
        await page.evaluate('window.watchKey()');
        await page.keyboard.press(isRight ? 'ArrowRight' : 'ArrowLeft');
        times.push((await page.evaluate('window.afterKey')) as number);
        await idle(page);
      }
      await page
        .getByTestId('saved')
        .getByText(/Saved \d/)
        .waitFor();
      const wanted = ('wanted' in more ? more.wanted : {}) as Partial<Record<number, number>>;
      rows.push({
        work: `${dial} to the painted ${view}, tile of ${size}²`,
        ms: median(times),
        wanted: wanted[size],
      });
    }
  }
  return rows;
}

/** From the pen to the painted pixel over a tile of a size, with a coat that is painted by hand. */
async function penRows(page: Page, url: string, id: string, size: number): Promise<Timing[]> {
  await setSize(url, id, size);
  await page.goto(`${url}/tiles/${id}/coats`);
  await page.locator(`canvas[data-view="albedo"][data-size="${size}"]`).waitFor();
  await idle(page);
  const isFirst = size === SIZE;
  if (isFirst) await page.getByRole('button', { name: 'Painted by hand' }).click();
  else {
    await page.locator('[data-coat="Painted by hand"]').click();
    await page
      .getByRole('region', { name: 'Dials' })
      .getByRole('button', { name: 'Paint', exact: true })
      .click();
  }
  await idle(page);
  const { median: usual, most } = await penTimes(page);
  await page
    .getByTestId('saved')
    .getByText(/Saved \d/)
    .waitFor();
  return [
    { work: `Pen to the painted pixel, tile of ${size}²`, ms: usual, wanted: isFirst ? 16 : undefined },
    { work: 'the same, 95 of 100', ms: most, wanted: isFirst ? 32 : undefined },
  ];
}

/** Median ms from a key on a dial to the painted picture in the browser; one row for each station and size. */
export async function dialTimings(): Promise<Timing[]> {
  run('npm', ['run', '--silent', 'build']);
  const data = await mkdtemp(join(tmpdir(), 'zesty-dials-'));
  await makeMissingPictures(['pamments']);
  await seed(data, ['pamments']);
  const server = await serve({ data, host: '127.0.0.1', port: 0, web: WEB, log: console.error });
  const browser = await chromium.launch({
    executablePath: ensureChromium() ?? undefined,
    args: ['--no-sandbox', '--enable-unsafe-swiftshader'],
  });
  const rows: Timing[] = [];
  try {
    const { tiles } = await (await fetch(`${server.url}/api/tiles`)).json();
    await setSize(server.url, tiles[0].id, SIZE);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.setDefaultTimeout(120_000);
    await page.addInitScript(WATCH);
    const first = performance.now();
    await page.goto(server.url);
    await page.locator('[data-tile]').waitFor();
    rows.push({ work: 'First view of the Yard, cold', ms: performance.now() - first, wanted: 1000 });
    const opened = performance.now();
    await page.goto(`${server.url}/tiles/${tiles[0].id}/gauge`);
    await page.getByRole('slider', { name: 'Exposure', exact: true }).waitFor();
    rows.push({
      work: `Bench at hand, its dials there, ${SIZE}²`,
      ms: performance.now() - opened,
      wanted: 1500,
    });
    await page.locator('canvas[data-view="albedo"]').waitFor();
    rows.push({
      work: `the same, until its albedo is painted, nothing computed before`,
      ms: performance.now() - opened,
    });
    rows.push(...(await movedDials(page, server.url, tiles[0].id)));
    await setSize(server.url, tiles[0].id, SIZE);
    await page.goto(`${server.url}/tiles/${tiles[0].id}/relief`);
    for (const { depth, ms } of await ballFrames(page)) {
      rows.push({
        work: `A frame of the ball, ${BALL.width}×${BALL.height}, ${depth}`,
        ms,
        wanted: depth.includes('step') ? 200 : 60,
      });
    }
    await page.setViewportSize({ width: 1280, height: 800 });
    await withZone(server.url, tiles[0].id);
    await page.goto(`${server.url}/tiles/${tiles[0].id}/gauge`);
    await page.locator('[data-sill="lit"]').waitFor();
    const { zone, reading } = await zoneTimings(page);
    await page
      .getByTestId('saved')
      .getByText(/Saved \d/)
      .waitFor();
    rows.push({ work: `Reach of a zone to what it covers, ${SIZE}²`, ms: zone, wanted: 50 });
    rows.push({ work: 'Reading moved to its figures', ms: reading, wanted: 50 });
    await setSize(server.url, tiles[0].id, STROKE_SIZE);
    await page.goto(`${server.url}/tiles/${tiles[0].id}/join`);
    const strokes = await strokeTimes(page);
    rows.push({
      work: `Heal stroke to the tile, ${STROKE_SIZE}², median of 60`,
      ms: median(strokes),
      wanted: 500,
    });
    const last = strokes.slice(-10);
    rows.push({ work: 'the same, of the last ten', ms: median(last), wanted: 500 });
    for (const size of [SIZE, STROKE_SIZE])
      rows.push(...(await penRows(page, server.url, tiles[0].id, size)));
  } finally {
    await browser.close();
    await server.close();
    await rm(data, { recursive: true, force: true });
  }
  return rows;
}
