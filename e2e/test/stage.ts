import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type DemoId, makeMissingPictures, seed } from '@zesty-tile/demo';
import { makeTile, newestRevision, serve, setLook } from '@zesty-tile/server';
import { type Browser, chromium, type Page } from 'playwright-core';

const WEB = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** What a browser without WebGL says when it is asked for it. */
const WITHOUT_WEBGL = `{
  const get = HTMLCanvasElement.prototype.getContext;
  HTMLCanvasElement.prototype.getContext = function (kind, ...rest) {
    return /webgl/.test(kind) ? null : get.call(this, kind, ...rest);
  };
}`;

let browser: Browser | null = null;

/** The browser of a whole run; started once. */
async function browserOnce(): Promise<Browser> {
  browser ??= await chromium.launch({
    executablePath: process.env.ZESTY_CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--use-angle=swiftshader',
      '--enable-unsafe-swiftshader',
      // Pages are put together by the processor: without a graphics card that is quicker than by WebGL drawn in software.
      '--disable-gpu-compositing',
      // Without it, three deaths of the process that draws leave a page with no WebGL for good.
      '--disable-gpu-process-crash-limit',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
    ],
  });
  return browser;
}

export async function closeBrowser(): Promise<void> {
  await browser?.close();
  browser = null;
}

const unanswered = new WeakMap<Page, Set<string>>();

/** Keeps a list of the requests of a page and its workers that have no answer yet. */
function watchRequests(page: Page): void {
  const open = new Set<string>();
  unanswered.set(page, open);
  page.on('request', (request) => open.add(request.url()));
  page.on('requestfinished', (request) => open.delete(request.url()));
  page.on('requestfailed', (request) => open.delete(request.url()));
}

/** What stands on every open page, so that one sees why a test waited in vain. */
export async function wordsOfPages(): Promise<string> {
  const pages = browser?.contexts().flatMap((context) => context.pages()) ?? [];
  const words = pages.map(async (page) => {
    // biome-ignore lint/performance/useDomNodeTextContent: what is seen, not what is there
    const seen = await page.locator('body').innerText({ timeout: 3000 });
    const open = [...(unanswered.get(page) ?? [])].map((url) => `not answered: ${url}`);
    return [page.url(), ...open, seen].join('\n');
  });
  const said = await Promise.allSettled(words);
  return said.map((one) => (one.status === 'fulfilled' ? one.value : String(one.reason))).join('\n\n');
}

/** Presses Undo where a deed is said: what was said before it may still are there with an Undo of its own. */
export const undo = (page: Page, said: string) =>
  page.getByRole('alert').filter({ hasText: said }).getByRole('button', { name: 'Undo' }).click();

/** Long enough for a slow machine; a test that passes never waits so long. */
export const PATIENCE = 90_000;

/** Has every tile worked at another size, so that what a test waits for is quick. */
async function setSize(url: string, size: number) {
  const { tiles } = await (await fetch(`${url}/api/tiles`)).json();
  for (const { id } of tiles) {
    const { revision } = await (await fetch(`${url}/api/tiles/${id}`)).json();
    const { recipe } = revision;
    recipe.stations.square.size = size;
    const body = JSON.stringify({ base: revision.number, recipe });
    const headers = { 'Content-Type': 'application/json' };
    await fetch(`${url}/api/tiles/${id}/revisions`, { method: 'POST', headers, body });
  }
}

/** A server with demo tiles of its own, and pages to look at it. */
export async function openStage(tiles: readonly DemoId[], size?: 512, workers = 2) {
  const data = await mkdtemp(join(tmpdir(), 'zesty-e2e-'));
  await makeMissingPictures(tiles);
  if (tiles.length > 0) await seed(data, tiles);
  const serverErrors: unknown[] = [];
  let running = await serve({
    data,
    host: '127.0.0.1',
    port: 0,
    web: WEB,
    workers,
    log: (error) => serverErrors.push(error),
  });
  if (size) await setSize(running.url, size);
  const port = Number(new URL(running.url).port);
  const faults: string[] = [];
  return {
    data,
    serverErrors,
    /** Errors that pages printed or threw, and words that something in them is out of date. */
    faults,
    get url() {
      return running.url;
    },
    get store() {
      return running.store;
    },
    /**
     * A page. One that is `strict` keeps to the server's policy of what pages may run, which waiting for expressions cannot. The
     * lit view is drawn only where `sill` asks for it: without a graphics card it takes most of a processor.
     */
    async page({ strict = false, sill = false } = {}): Promise<Page> {
      const context = await (await browserOnce()).newContext({
        bypassCSP: !strict,
        viewport: { width: 1280, height: 800 },
        acceptDownloads: true,
        // Menus and sheets stand still at once: what is clicked does not move under the pointer.
        reducedMotion: 'reduce',
      });
      context.setDefaultTimeout(PATIENCE);
      if (!sill) await context.addInitScript(WITHOUT_WEBGL);
      const page = await context.newPage();
      watchRequests(page);
      page.on('pageerror', (error) => faults.push(error.message));
      page.on('console', (message) => {
        if (message.type() === 'error' || /deprecated/i.test(message.text()))
          faults.push(`${message.text()} ${message.location().url}`);
      });
      return page;
    },
    /** The server goes away, as when it crashed. */
    async stop() {
      await running.close();
    },
    /** And is back on the same address, over the same data. */
    async restart() {
      running = await serve({
        data,
        host: '127.0.0.1',
        port,
        web: WEB,
        log: (error) => serverErrors.push(error),
      });
    },
    async end() {
      await running.close();
      await rm(data, { recursive: true, force: true });
    },
  };
}

/** Fills the project with copies of its first tile that were measured already. */
export async function copyTiles({ store: { db }, url }: Stage, count: number): Promise<void> {
  const { tiles } = await (await fetch(`${url}/api/tiles`)).json();
  const [{ id, projectId }] = tiles;
  const { tile } = await (await fetch(`${url}/api/tiles/${id}`)).json();
  const { recipe, look } = await newestRevision(db, id);
  const { sourceSha256, sourceName } = tile;
  for (let k = 1; k <= count; k++) {
    const made = await makeTile(db, { projectId, name: `Copy ${k}`, sourceSha256, sourceName }, recipe);
    await setLook(db, (await newestRevision(db, made.id)).id, look!);
  }
}

export type Stage = Awaited<ReturnType<typeof openStage>>;

/** The picture on the Floor, once it is there. */
export const onFloor = (page: Page, view: string, size?: number) =>
  page.locator(`canvas[data-view="${view}"]${size ? `[data-size="${size}"]` : ''}`).waitFor();

export const station = (page: Page, name: string) => page.locator(`[data-station="${name}"]`);

/** Words of a station's verdict on the Course. */
export async function verdictOf(page: Page, name: string): Promise<string> {
  const words = station(page, name);
  await words.getByText(/[✓▲✕]/).first().waitFor();
  return (await words.textContent()) ?? '';
}

/** Waits until nothing is being measured: nothing in the panel moves any more. */
export const idle = (page: Page) =>
  page.waitForFunction('document.querySelectorAll(\'[data-station] [role="progressbar"]\').length === 0');

/** Waits until the Bench has saved what was changed. */
export const saved = (page: Page) =>
  page
    .getByTestId('saved')
    .getByText(/Saved \d/)
    .waitFor();
